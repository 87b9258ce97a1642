import { fieldContextOf } from '../fields/context.ts';
import { detailOf, fieldsFor, valueAs } from '../fields/values.ts';
import { ruleOf } from '../model/access.ts';
import { type PageCheck, type PageFacts, rowsThatLack } from './page-check.ts';

/** Values are read by no clock, and files are known by their ids. */
const contextOf = ({ site }: PageFacts) => fieldContextOf(site, '');

/** A page that says nothing in a field which its kind requires. */
export const requiredField: PageCheck = {
  called: 'Field empty',
  words: () => 'A required field of its kind is empty. Fill it in beside the page, in the Write lens.',
  find: (facts) => {
    const { site, derived, read } = facts;
    const context = contextOf(facts);
    return rowsThatLack(read, (row) => {
      const { access, details } = derived.outline.nodes[row]!;
      const fields = fieldsFor(ruleOf({ access }).labels, site.settings.labels);
      return fields.some((field) => field.isRequired && detailOf(details, field, context) === null);
    });
  },
};

/** A page that says something in a field which the field cannot hold any more, since its type or its choices were changed. */
export const unreadField: PageCheck = {
  called: 'Value does not fit',
  words: () =>
    'A value does not fit the type of its field, so visitors do not see it. Fill it in again, or change the type back.',
  find: (facts) => {
    const { site, derived, read } = facts;
    const context = contextOf(facts);
    return rowsThatLack(read, (row) => {
      const { access, details } = derived.outline.nodes[row]!;
      if (details === null) return false;
      const fields = fieldsFor(ruleOf({ access }).labels, site.settings.labels);
      return fields.some(
        (field) => details[field.id] !== undefined && valueAs(field, details[field.id]!, context) === null,
      );
    });
  },
};
