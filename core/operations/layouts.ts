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
import { withSettings } from '../model/site-edit.ts';
import type { Site } from '../model/site.ts';
import { type Applied, defineOperation } from './definition.ts';

const title = z.string().max(MAX_LAYOUT_NAME_LENGTH, `at most ${MAX_LAYOUT_NAME_LENGTH} characters`);
const fieldsSchema = layoutSchema.omit({ id: true, name: true }).extend({ title }).partial();
type Fields = z.infer<typeof fieldsSchema>;

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
    const { layouts } = site.settings;
    if (layouts.some(({ id }) => id === layout)) return refuse('layout-exists', { layout });
    if (layouts.length >= MAX_LAYOUTS) return refuse('layout-too-many', { limit: MAX_LAYOUTS });
    const made: Layout = { ...(layouts[0] ?? STANDARD_LAYOUT), ...fields, id: layout, name: name.trim() };
    const forbidden = checkLayout(site, made, layouts[0] ?? null);
    if (forbidden) return forbidden;
    const before = after == null ? -1 : layouts.findIndex(({ id }) => id === after);
    const at = after === undefined || (after !== null && before === -1) ? layouts.length : before + 1;
    return withLayouts(site, layouts.toSpliced(at, 0, made), { name: 'layout.remove', layout });
  },

  cells: ({ layout }) => [`layout:${layout}.there`],

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
    const was = site.settings.layouts.find(({ id }) => id === layout);
    if (!was) return refuse('layout-unknown', { layout });
    const next: Layout = { ...was, ...fields, name: name?.trim() ?? was.name };
    const forbidden = checkLayout(site, next, was);
    if (forbidden) return forbidden;
    const before: Record<string, unknown> = {};
    for (const key of Object.keys(next) as (keyof Layout)[])
      if (JSON.stringify(next[key]) !== JSON.stringify(was[key])) before[key === 'name' ? 'title' : key] = was[key];
    if (Object.keys(before).length === 0) return { ok: true, site, inverse: [], touched: [] };
    return withLayouts(
      site,
      site.settings.layouts.map((one) => (one === was ? next : one)),
      { name: 'layout.set', layout, fields: before as Fields },
    );
  },

  cells: ({ layout, fields }) => Object.keys(fields).map((field) => `layout:${layout}.${field}`),

  words: ({ layout, fields }, site) =>
    fields.title === undefined
      ? `changed the layout ${named(site, layout)}`
      : `renamed the layout ${named(site, layout)} to ‘${fields.title}’`,
});

export const layoutRemoveSchema = z.strictObject({ name: z.literal('layout.remove'), layout: layoutIdSchema });

/** Takes a layout away. One that pages name stays, and so does the last one: no page loses its frame by surprise. */
export const layoutRemove = defineOperation({
  schema: layoutRemoveSchema,

  apply(site, { layout }) {
    const { layouts } = site.settings;
    const at = layouts.findIndex(({ id }) => id === layout);
    if (at === -1) return refuse('layout-unknown', { layout });
    if (layouts.length === 1) return refuse('layout-last', { layout });
    const count = pagesNaming(site, layout);
    if (count > 0) return refuse('layout-used', { layout, count });
    const { id, name, ...fields } = layouts[at]!;
    return withLayouts(site, layouts.toSpliced(at, 1), {
      name: 'layout.add',
      layout: id,
      after: layouts[at - 1]?.id ?? null,
      title: name,
      fields: fields as Fields,
    });
  },

  cells: ({ layout }) => [`layout:${layout}.there`],

  words: ({ layout }, site) => `removed the layout ${named(site, layout)}`,
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

const withLayouts = (site: Site, layouts: readonly Layout[], inverse: Applied['inverse'][number]): Applied => ({
  ok: true,
  site: withSettings(site, { ...site.settings, layouts }),
  inverse: [inverse],
  touched: [],
});

const named = (site: Site, layout: string): string =>
  `‘${site.settings.layouts.find(({ id }) => id === layout)?.name ?? 'that is not there'}’`;
