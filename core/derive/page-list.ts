import { FIELD_TYPE, saysWhen } from '../fields/all-types.ts';
import type { FieldContext } from '../fields/field-type.ts';
import { daysOfPeriod } from '../fields/date-types.ts';
import { daysFrom, firstDay, isOnDay } from '../fields/repeat-days.ts';
import { detailIn, detailOf, isOfKindWith, maybeField, maybeUsedField } from '../fields/values.ts';
import { ruleOf } from '../model/access.ts';
import { wordOrder } from '../model/formatters.ts';
import type { PageId } from '../model/ids.ts';
import type { KindField } from '../model/kind-field.ts';
import type { Site } from '../model/site.ts';
import { type ListCondition, type PageListSetting, THIS_PAGE, TODAY } from '../sections/page-list.ts';
import type { Derived } from './derived.ts';
import { labelOf } from './menu.ts';
import { listedAs } from './listing.ts';

/** Rows that stand together in a list, under the value that they have in common; null for those without one, and where there are no groups. */
export interface ListGroup {
  readonly value: string | null;
  readonly rows: readonly number[];
}

/**
 * The pages of a list for whoever `derived` is of: those that are hidden from them are neither listed nor counted. Links and headings are
 * none, except where a list has what stands right below a page, as menus have it.
 * @param page the page that the list stands on @param context with the day on which it is read @param isShut whether a row shows a lock
 * to whoever reads it: it is named among what stands right below a page, and nothing that it says is asked for
 */
export function listedPages(
  site: Site,
  derived: Derived,
  page: PageId,
  setting: PageListSetting,
  context: FieldContext,
  isShut: (row: number) => boolean = () => false,
): ListGroup[] {
  const conditions = conditionsOf(site, derived, setting, page, context);
  let listed = candidates(site, derived, page, setting, isShut);
  for (const isMet of conditions) listed = listed.filter(isMet);
  const rows = inListOrder(site, derived, setting, context, listed);
  const most = setting.most === 0 ? rows : rows.slice(0, setting.most);
  return grouped(site, derived, most, setting, context);
}

/** Whether the clock changes what a list has. */
export const goesByTheDay = ({ where, by, group, look }: PageListSetting, { settings }: Site): boolean =>
  look === 'month' ||
  where.some(({ value }) => value === TODAY) ||
  [by, group].some((id) => id !== null && maybeField(settings.labels, id)?.field.type === 'repeats');

/** Whether a list asks of pages what they say, or which there are: then those with a lock are not even counted. */
const looksInside = ({ from, where, order, group, label, kind, filters }: PageListSetting): boolean =>
  from !== 'below' ||
  filters.length > 0 ||
  where.length > 0 ||
  order === 'field' ||
  group !== null ||
  label !== null ||
  kind !== null;

function candidates(
  site: Site,
  derived: Derived,
  page: PageId,
  setting: PageListSetting,
  isShut: (row: number) => boolean,
): readonly number[] {
  const { outline, hiddenBy } = derived;
  const { from, order, chosen, kind, label } = setting;
  const isReachable = (row: number): boolean => hiddenBy[row] === -1;
  const isOne = (row: number): boolean =>
    outline.isPage[row] === 1 &&
    isReachable(row) &&
    outline.nodes[row]!.id !== page &&
    (outline.nodes[row]!.access?.standsIn ?? null) === null;
  const isClosed = looksInside(setting) ? isShut : () => false;
  const isWanted = (row: number): boolean => {
    if (isClosed(row)) return false;
    if (kind === null && label === null) return true;
    const { labels } = ruleOf(outline.nodes[row]!);
    return (kind === null || labels.includes(kind)) && (label === null || labels.includes(label));
  };
  if (from === 'chosen')
    return chosen.flatMap((id) => {
      const row = outline.rowOf.get(id);
      return row !== undefined && isOne(row) && isWanted(row) ? [row] : [];
    });
  const of = outline.rowOf.get(setting.of ?? page);
  if (from === 'site') return rowsBetween(0, outline.nodes.length, (row) => isOne(row) && isWanted(row));
  // What a visitor may not open lists nothing for them either.
  if (of === undefined || !isReachable(of) || isShut(of)) return [];
  if (from === 'branch') return rowsBetween(of + 1, outline.end[of]!, (row) => isOne(row) && isWanted(row));
  const below = listedAs(site, outline.nodes[of]!.id, derived, {
    look: 'list',
    levels: 1,
    order: order === 'field' ? 'tree' : order,
  });
  return below.map(({ row }) => row).filter(isWanted);
}

function rowsBetween(first: number, end: number, isWanted: (row: number) => boolean): number[] {
  const rows: number[] = [];
  for (let row = first; row < end; row++) if (isWanted(row)) rows.push(row);
  return rows;
}

/** Each condition as a question about a row. One whose field is gone, or is not of the page's kind, holds for no page. */
function conditionsOf(
  site: Site,
  derived: Derived,
  { where }: PageListSetting,
  page: PageId,
  context: FieldContext,
): ((row: number) => boolean)[] {
  // What is not yet said what to compare with asks nothing.
  const asked = where.filter(({ test, value }) => value !== '' || test === 'said' || test === 'not said');
  const { labels } = site.settings;
  return asked.map((condition) => {
    const found = maybeUsedField(labels, condition.field);
    return (row) => {
      const node = derived.outline.nodes[row]!;
      if (!found || !isOfKindWith(found, node)) return false;
      const value = detailOf(node.details, found.field, context);
      return holds(condition, found.field, value, { page, today: context.today });
    };
  });
}

/** Whether a value is as a condition wants it. */
export function holds(
  { test, value: wanted }: ListCondition,
  field: KindField,
  value: string | null,
  { page, today }: { readonly page: PageId; readonly today: string },
): boolean {
  if (test === 'said') return value !== null;
  if (test === 'not said') return value === null;
  if (value === null) return test === 'is not';
  const asked = wanted === TODAY ? today : wanted === THIS_PAGE ? page : wanted;
  if (test === 'is' || test === 'is not') return isAmong(field, value, asked) === (test === 'is');
  if (field.type === 'repeats')
    return test === 'from' ? daysFrom(value, asked, 1).length > 0 : (firstDay(value) ?? '9') <= asked;
  const [first, last] = (field.type === 'period' ? daysOfPeriod(value) : null) ?? [value, value];
  // A moment is on a day from its first minute to its last one.
  const dayOf = (one: string): string => (field.type === 'moment' && asked.length === 10 ? one.slice(0, 10) : one);
  const { compare } = FIELD_TYPE[field.type];
  return test === 'from' ? compare(dayOf(last), asked, 'en') >= 0 : compare(dayOf(first), asked, 'en') <= 0;
}

/** Whether a value is the one that is asked for, or has it among several. A period has the days within it. */
function isAmong({ type }: KindField, value: string, asked: string): boolean {
  if (type === 'choice' || type === 'pages') return value.split(' ').includes(asked);
  if (type === 'repeats' && asked.length === 10) return isOnDay(value, asked);
  const days = type === 'period' ? daysOfPeriod(value) : null;
  return days && asked.length === 10 ? days[0] <= asked && asked <= days[1] : value === asked;
}

function inListOrder(
  site: Site,
  derived: Derived,
  { order, by, from, isReversed }: PageListSetting,
  context: FieldContext,
  rows: readonly number[],
): readonly number[] {
  const { nodes } = derived.outline;
  const { language, labels } = site.settings;
  const sorted = [...rows];
  if (order === 'alphabet') {
    const collator = wordOrder(language);
    sorted.sort((a, b) => collator.compare(labelOf(site, nodes[a]!), labelOf(site, nodes[b]!)));
  } else if (order === 'date' && from !== 'below') {
    const day = (row: number): string => nodes[row]!.frame?.date ?? '';
    sorted.sort((a, b) => (day(a) < day(b) ? 1 : day(a) > day(b) ? -1 : 0));
  } else if (order === 'field' && by !== null) {
    const found = maybeUsedField(labels, by);
    if (!found) return rows;
    const { compare } = FIELD_TYPE[found.field.type];
    const placed = rows.map((row) => ({
      row,
      place: placeOf(found.field, detailIn(nodes[row]!, found, context), context),
    }));
    placed.sort(({ place: one }, { place: other }) => {
      // Those that say nothing come last, whichever way it goes.
      if (one === null || other === null) return one === other ? 0 : one === null ? 1 : -1;
      const way = compare(one, other, language);
      return isReversed ? -way : way;
    });
    return placed.map(({ row }) => row);
  }
  return isReversed ? sorted.reverse() : sorted;
}

/** What a value is put in order by: of days that repeat the next one, or the first where none comes any more. */
const placeOf = ({ type }: KindField, value: string | null, { today }: FieldContext): string | null =>
  value === null || type !== 'repeats' ? value : (daysFrom(value, today, 1)[0] ?? firstDay(value));

/** Months of days and first letters of texts go together; of several choices or pages each has the row. */
function grouped(
  site: Site,
  derived: Derived,
  rows: readonly number[],
  { group }: PageListSetting,
  context: FieldContext,
): ListGroup[] {
  const { labels } = site.settings;
  const found = group === null ? undefined : maybeUsedField(labels, group);
  // Groups say what they have in common, which is not for visitors where the field is not.
  if (!found?.field.isForVisitors) return rows.length === 0 ? [] : [{ value: null, rows }];
  const groups = new Map<string | null, number[]>();
  for (const row of rows) {
    const value = detailIn(derived.outline.nodes[row]!, found, context);
    for (const key of groupsOf(found.field, placeOf(found.field, value, context))) {
      const same = groups.get(key);
      if (same) same.push(row);
      else groups.set(key, [row]);
    }
  }
  const keys = [...groups.keys()].sort((a, b) => compareGroups(found.field, a, b, site.settings.language));
  return keys.map((value) => ({ value, rows: groups.get(value)! }));
}

/** The groups that a value is in: the month of a day (`2027-03`), each of several choices, else the value itself. */
function groupsOf({ type }: KindField, value: string | null): readonly (string | null)[] {
  if (value === null) return [null];
  if (saysWhen(type)) return [value.slice(0, 7)];
  return type === 'choice' || type === 'pages' ? value.split(' ') : [value];
}

function compareGroups(field: KindField, a: string | null, b: string | null, language: string): number {
  if (a === null || b === null) return a === b ? 0 : a === null ? 1 : -1;
  if (field.type === 'choice') {
    const at = (id: string): number => field.choices.findIndex((one) => one.id === id);
    return at(a) - at(b);
  }
  if (saysWhen(field.type)) return a < b ? -1 : a > b ? 1 : 0;
  return FIELD_TYPE[field.type].compare(a, b, language);
}
