import { listedBelow } from '../derive/listing.ts';
import type { PageCheck } from './page-check.ts';

/** A page on which nothing stands: it has no text, and lists nothing. */
export const noText: PageCheck = {
  called: 'Empty page',
  words: () => 'It has no text, and lists no pages. Write its text in the Write lens, or hide it until it has one.',
  find: ({ site, derived, read }) =>
    read.flatMap((row) => {
      const { id, content } = derived.outline.nodes[row]!;
      return content === null && listedBelow(site, id, derived).length === 0 ? [{ row }] : [];
    }),
};
