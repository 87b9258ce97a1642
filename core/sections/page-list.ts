import { z } from 'zod';
import { pageIdSchema } from '../model/ids.ts';
import type { SectionType } from './section-type.ts';

/** What a list of pages in a text shows, and how. */
export const pageListSchema = z.strictObject({
  /** The pages below this one; null for those below the page that the text is of. */
  of: pageIdSchema.nullable(),
  look: z.enum(['list', 'cards', 'dates']),
  order: z.enum(['tree', 'alphabet', 'date']),
  /** At most so many, the first ones; 0 for all. */
  most: z.int().min(0).max(200),
});
export type PageListSetting = Readonly<z.infer<typeof pageListSchema>>;

const INITIAL: PageListSetting = { of: null, look: 'list', order: 'tree', most: 0 };
const { shape } = pageListSchema;

/** In the HTML of a list of pages: which it is. The pages stand in it once it is known who reads it. */
export const PAGE_LIST_DATA = 'data-pages';

/** Pages that are listed by themselves: those below one, or its newest ones. Each visitor gets those that they may open. */
export const PAGE_LIST: SectionType = {
  type: 'pageList',
  group: 'section',
  content: '',
  attributes: {
    of: { schema: shape.of, initial: INITIAL.of },
    look: { schema: shape.look, initial: INITIAL.look },
    order: { schema: shape.order, initial: INITIAL.order },
    most: { schema: shape.most, initial: INITIAL.most },
  },
  html: ({ of, look, order, most }) => ['div', { [PAGE_LIST_DATA]: JSON.stringify({ of, look, order, most }) }],
  listed: {
    name: 'List of pages',
    says: 'Pages below this one, or the newest, kept up by itself',
    also: ['news', 'overview', 'cards', 'children', 'latest'],
    make: () => ({ type: 'pageList', attrs: INITIAL }),
  },
};
