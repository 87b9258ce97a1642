import { z } from 'zod';
import {
  MAX_LAYOUT_NAME_LENGTH,
  type Layout,
  type LayoutId,
  MAX_LAYOUTS,
  STANDARD_LAYOUT,
  layoutIdSchema,
  layoutSchema,
} from '../model/layout.ts';
import { type Refusal, refuse } from '../model/refusal.ts';
import type { Site } from '../model/site.ts';
import { defineOperation } from './definition.ts';
import { allBut, fieldsBefore, thingsOfSettings } from './things.ts';

const title = z.string().max(MAX_LAYOUT_NAME_LENGTH, `at most ${MAX_LAYOUT_NAME_LENGTH} characters`);
const fieldsSchema = layoutSchema.omit({ id: true, name: true }).extend({ title }).partial();
const layouts = thingsOfSettings('layout', 'layouts', { most: MAX_LAYOUTS, code: 'layout-too-many' });

export const layoutAddSchema = z.strictObject({
  name: z.literal('layout.add'),
  layout: layoutIdSchema,
  /** The layout that it follows; null puts it first, left out puts it last. The first one is that of pages which name none. */
  after: layoutIdSchema.nullable().optional(),
  title,
  fields: fieldsSchema.omit({ title: true }).optional(),
});

/** Adds a layout. What is not said is as in the site's first one. */
export const layoutAdd = defineOperation({
  schema: layoutAddSchema,

  apply(site, { layout, after, title: name, fields = {} }) {
    const [first] = site.settings.layouts;
    const made: Layout = { ...(first ?? STANDARD_LAYOUT), ...fields, id: layout, name: name.trim() };
    return layouts.checkNew(site, layout) ?? checkLayout(site, made, first ?? null) ?? layouts.add(site, made, after);
  },

  cells: ({ layout }) => layouts.cellOfThere(layout),

  words: ({ title: name }) => `added the layout ‘${name}’`,
});

export const layoutSetSchema = z.strictObject({
  name: z.literal('layout.set'),
  layout: layoutIdSchema,
  fields: fieldsSchema,
});

/** Sets what a layout holds, and its name. */
export const layoutSet = defineOperation({
  schema: layoutSetSchema,

  apply(site, { layout, fields: { title: name, ...fields } }) {
    const was = layouts.find(site, layout);
    if (!was) return layouts.unknown(layout);
    const next: Layout = { ...was, ...fields, name: name?.trim() ?? was.name };
    return checkLayout(site, next, was) ?? layouts.set(site, was, next, fieldsBefore(was, next));
  },

  cells: ({ layout, fields }) => layouts.cellsOfFields(layout, fields),

  words: ({ layout, fields }, site) =>
    fields.title === undefined
      ? `changed the layout ${layouts.named(site, layout)}`
      : `renamed the layout ${layouts.named(site, layout)} to ‘${fields.title}’`,
});

export const layoutRemoveSchema = z.strictObject({ name: z.literal('layout.remove'), layout: layoutIdSchema });

/** Takes a layout away. One that pages name stays, and so does the last one: no page loses its frame by surprise. */
export const layoutRemove = defineOperation({
  schema: layoutRemoveSchema,

  apply(site, { layout }) {
    const was = layouts.find(site, layout);
    if (!was) return layouts.unknown(layout);
    if (site.settings.layouts.length === 1) return refuse('layout-last', { layout });
    const count = pagesNaming(site, layout);
    if (count > 0) return refuse('layout-used', { layout, count });
    return layouts.remove(site, was, { title: was.name, fields: allBut(was, 'id', 'name') });
  },

  cells: ({ layout }) => layouts.cellOfThere(layout),

  words: ({ layout }, site) => `removed the layout ${layouts.named(site, layout)}`,
});

/** How many pages name the layout as their own: drafted, removed, or live and not drafted so. */
const pagesNaming = (site: Site, layout: LayoutId): number =>
  site.nodes.count(({ frame }) => frame?.layout === layout) +
  site.live.count(({ node }, id) => node.frame?.layout === layout && site.nodes.get(id)?.frame?.layout !== layout);

/** What a layout breaks, or null. A menu that it had before is not questioned. */
function checkLayout(site: Site, layout: Layout, before: Layout | null): Refusal | null {
  if (layout.name === '') return refuse('layout-unnamed', { layout: layout.id });
  const had = new Set(Object.values(before?.menus ?? {}));
  for (const menu of Object.values(layout.menus))
    if (menu !== null && !had.has(menu) && !site.settings.menus.some(({ id }) => id === menu))
      return refuse('menu-unknown', { menu });
  return null;
}
