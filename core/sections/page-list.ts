import { z } from 'zod';
import { labelIdSchema } from '../model/access.ts';
import { pageIdSchema } from '../model/ids.ts';
import { MAX_DETAIL_LENGTH, fieldIdSchema } from '../model/kind-field.ts';
import type { SectionType } from './section-type.ts';

/** In place of a value: the day on which somebody reads the list, and the page that it stands on. */
export const TODAY = 'today';
export const THIS_PAGE = 'this';

/** How a page's value in a field has to be for the page to be listed. Of periods, those that go on from a day have not ended before it. */
export const CONDITION_TESTS = ['is', 'is not', 'from', 'until', 'said', 'not said'] as const;
export const listConditionSchema = z.strictObject({
  field: fieldIdSchema,
  test: z.enum(CONDITION_TESTS),
  /** A value in the form of the field's type, `TODAY` or `THIS_PAGE`; nothing is asked of it where the test is whether something is said. */
  value: z.string().max(MAX_DETAIL_LENGTH),
});
export type ListCondition = Readonly<z.infer<typeof listConditionSchema>>;

export const MAX_CONDITIONS = 6;
export const MAX_SHOWN_FIELDS = 8;
export const MAX_FILTERS = 4;
export const MAX_CHOSEN_PAGES = 60;

/** What a list of pages in a text shows, and how. What was written before there was more to set says nothing of that. */
export const pageListSchema = z.strictObject({
  /** The page that they stand below; null for the page that the text is of. */
  of: pageIdSchema.nullable(),
  /** Those right below, all of its branch, all of the site, or those chosen by hand. */
  from: z.enum(['below', 'branch', 'site', 'chosen']).default('below'),
  chosen: z.array(pageIdSchema).max(MAX_CHOSEN_PAGES).default([]),
  /** Only pages of this kind, with this label; null for any. */
  kind: labelIdSchema.nullable().default(null),
  label: labelIdSchema.nullable().default(null),
  where: z.array(listConditionSchema).max(MAX_CONDITIONS).default([]),
  look: z.enum(['list', 'cards', 'dates', 'table', 'month']),
  order: z.enum(['tree', 'alphabet', 'date', 'field']),
  /** For the order by a field: which, and whether the last come first. */
  by: fieldIdSchema.nullable().default(null),
  isReversed: z.boolean().default(false),
  /** The field by which they stand in groups; null for none. */
  group: fieldIdSchema.nullable().default(null),
  /** The fields that are shown of each. */
  fields: z.array(fieldIdSchema).max(MAX_SHOWN_FIELDS).default([]),
  /** At most so many, the first ones; 0 for all. */
  most: z.int().min(0).max(200),
  /** The fields that visitors filter it by. */
  filters: z.array(fieldIdSchema).max(MAX_FILTERS).default([]),
  /** So many are shown at once; 0 for all. */
  atOnce: z.int().min(0).max(100).default(0),
});
export type PageListSetting = Readonly<z.infer<typeof pageListSchema>>;

export const PLAIN_PAGE_LIST: PageListSetting = pageListSchema.parse({
  of: null,
  look: 'list',
  order: 'tree',
  most: 0,
});
const { shape } = pageListSchema;
const NAMES = Object.keys(shape) as (keyof typeof shape)[];

/** In the HTML of a list of pages: which it is. The pages stand in it once it is known who reads it. */
export const PAGE_LIST_DATA = 'data-pages';

/** Pages that are listed by themselves: those below one, of a kind, or its newest ones. Each visitor gets those that they may open. */
export const PAGE_LIST: SectionType = {
  type: 'pageList',
  group: 'section',
  content: '',
  attributes: Object.fromEntries(NAMES.map((name) => [name, { schema: shape[name], initial: PLAIN_PAGE_LIST[name] }])),
  html: (attributes) => [
    'div',
    { [PAGE_LIST_DATA]: JSON.stringify(Object.fromEntries(NAMES.map((name) => [name, attributes[name]]))) },
  ],
  listed: {
    name: 'List of pages',
    says: 'Pages below this one, of a kind, or the newest, kept up by itself',
    also: ['news', 'overview', 'cards', 'children', 'latest', 'table', 'events', 'people', 'courses'],
    make: () => ({ type: 'pageList', attrs: PLAIN_PAGE_LIST }),
  },
};
