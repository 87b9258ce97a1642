import { listedBelow } from '../derive/listing.ts';
import { fieldsFor } from '../fields/values.ts';
import { ruleOf } from '../model/access.ts';
import { type PageCheck, rowsThatLack } from './page-check.ts';

/** A page on which nothing stands: it has no text, says nothing in the fields of its kind, and lists nothing. */
export const noText: PageCheck = {
  called: 'Empty page',
  words: () => 'It has no text, and lists no pages. Write its text in the Write lens, or hide it until it has one.',
  find: ({ site, derived, read }) =>
    rowsThatLack(read, (row) => {
      const { id, content, access, details } = derived.outline.nodes[row]!;
      if (content !== null) return false;
      const fields = details === null ? [] : fieldsFor(ruleOf({ access }).labels, site.settings.labels);
      const says = fields.some((field) => field.isForVisitors && details?.[field.id] !== undefined);
      return !says && listedBelow(site, id, derived).length === 0;
    }),
};
