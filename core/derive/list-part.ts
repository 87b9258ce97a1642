import type { FieldContext } from '../fields/field-type.ts';
import { daysOfPeriod } from '../fields/date-types.ts';
import { type FieldOfSite, detailIn, maybeUsedField } from '../fields/values.ts';
import { wordOrder } from '../model/formatters.ts';
import type { FieldId, FieldTypeName } from '../model/kind-field.ts';
import type { Site } from '../model/site.ts';
import type { PageListSetting } from '../sections/page-list.ts';
import type { Derived } from './derived.ts';
import type { ListGroup } from './page-list.ts';

/** What a visitor has chosen of a list: values of the fields that it is filtered by, and which part of it they look at, from 1. Of a month, which one
 * as `2027-03`; null where they ask for none. */
export interface ListState {
  readonly chosen: ReadonlyMap<FieldId, string>;
  readonly part: number;
  readonly month: string | null;
}
export const WHOLE_LIST: ListState = { chosen: new Map(), part: 1, month: null };

/** A field that a list can be filtered by, with the values that there are to choose from, in the order of the field. */
export interface ListFilter {
  readonly found: FieldOfSite;
  readonly values: readonly string[];
}

/** The part of a list that is shown. */
export interface ListPart {
  readonly groups: readonly ListGroup[];
  readonly filters: readonly ListFilter[];
  /** How many pages the filters leave. */
  readonly count: number;
  readonly part: number;
  readonly parts: number;
}

/** The types of fields that a list can be filtered by: those of which several pages say the same. Days are filtered by their months. */
const FILTERED: ReadonlySet<FieldTypeName> = new Set(['choice', 'pages', 'yesNo', 'text', 'day', 'moment', 'period']);
export const canFilterBy = (type: FieldTypeName): boolean => FILTERED.has(type);
/** Of these a value stands for its month, as `2027-03`. */
export const isByMonth = (type: FieldTypeName): boolean => type === 'day' || type === 'moment' || type === 'period';

/** Whether visitors can ask for another state of a list. */
export const hasStates = ({ filters, atOnce, look }: Pick<PageListSetting, 'filters' | 'atOnce' | 'look'>): boolean =>
  filters.length > 0 || atOnce > 0 || look === 'month';

/**
 * What is shown of a list in a state. Values are offered that pages of the whole list have, so that nothing is named which the visitor
 * may not open; a chosen value that no page has leaves none, and a part that there is not is the last one.
 * @param groups the whole list, as the visitor has it
 */
export function partOfList(
  site: Site,
  derived: Derived,
  groups: readonly ListGroup[],
  setting: PageListSetting,
  context: FieldContext,
  { chosen, part: asked }: ListState,
): ListPart {
  const { labels } = site.settings;
  const fields = setting.filters.flatMap((id) => {
    const found = maybeUsedField(labels, id);
    return found && found.field.isForVisitors && canFilterBy(found.field.type) ? [found] : [];
  });
  const valuesAt = (row: number, found: FieldOfSite): readonly string[] => {
    const value = detailIn(derived.outline.nodes[row]!, found, context);
    return value === null ? [] : valuesIn(found.field.type, value);
  };
  const filters = fields.map((found) => {
    const values = new Set(groups.flatMap(({ rows }) => rows.flatMap((row) => valuesAt(row, found))));
    return { found, values: inFieldOrder(found, values, context) };
  });
  const asks = fields.flatMap((found) => {
    const value = chosen.get(found.field.id);
    return value === undefined ? [] : [{ found, value }];
  });
  const isLeft = (row: number): boolean => asks.every(({ found, value }) => valuesAt(row, found).includes(value));
  const left = asks.length === 0 ? groups : groups.map((one) => ({ ...one, rows: one.rows.filter(isLeft) }));
  const count = left.reduce((sum, { rows }) => sum + rows.length, 0);
  // A month has all of its pages.
  const atOnce = setting.look === 'month' ? 0 : setting.atOnce;
  const parts = atOnce === 0 ? 1 : Math.max(1, Math.ceil(count / atOnce));
  const part = Math.min(Math.max(1, asked), parts);
  const from = atOnce === 0 ? 0 : (part - 1) * atOnce;
  return {
    groups: between(left, from, atOnce === 0 ? count : from + atOnce),
    filters,
    count,
    part,
    parts,
  };
}

function valuesIn(type: FieldTypeName, value: string): readonly string[] {
  if (type === 'choice' || type === 'pages') return value.split(' ');
  if (type === 'period') return [(daysOfPeriod(value)?.[0] ?? value).slice(0, 7)];
  return isByMonth(type) ? [value.slice(0, 7)] : [value];
}

/** Choices as they are listed, pages by their titles, all else by what it says; without pages that the visitor does not know of. */
function inFieldOrder({ field }: FieldOfSite, values: ReadonlySet<string>, context: FieldContext): string[] {
  if (field.type === 'choice') return field.choices.flatMap(({ id }) => (values.has(id) ? [id] : []));
  if (field.type === 'yesNo') return ['yes', 'no'].filter((one) => values.has(one));
  if (field.type !== 'pages') return [...values].sort();
  const titled = [...values].flatMap((page) => {
    const title = context.titleOf(page as never);
    return title === undefined ? [] : [{ page, title }];
  });
  const { compare } = wordOrder(context.language);
  return titled.sort((a, b) => compare(a.title, b.title)).map(({ page }) => page);
}

/** The rows from one place up to another, in their groups; without groups of which none is left. */
function between(groups: readonly ListGroup[], from: number, to: number): ListGroup[] {
  let at = 0;
  return groups.flatMap((group) => {
    const rows = group.rows.slice(Math.max(0, from - at), Math.max(0, to - at));
    at += group.rows.length;
    return rows.length === 0 ? [] : [{ ...group, rows }];
  });
}
