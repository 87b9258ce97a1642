import { z } from 'zod';
import { type Layout, STANDARD_LAYOUT, layoutIdSchema, layoutSchema } from '../model/layout.ts';
import { type Refusal, refuse } from '../model/refusal.ts';
import { withSettings } from '../model/site-edit.ts';
import type { Site } from '../model/site.ts';
import { defineOperation } from './definition.ts';

const fieldsSchema = layoutSchema
  .omit({ id: true, name: true })
  .extend({ title: z.string().max(60) })
  .partial();

export const layoutSetSchema = z.strictObject({
  name: z.literal('layout.set'),
  layout: layoutIdSchema,
  fields: fieldsSchema,
});

/** Sets what a layout holds, and its name. */
export const layoutSet = defineOperation({
  schema: layoutSetSchema,

  apply(site, { layout, fields: { title, ...fields } }) {
    const was = site.settings.layouts.find(({ id }) => id === layout);
    if (!was) return refuse('layout-unknown', { layout });
    const next: Layout = { ...STANDARD_LAYOUT, ...was, ...fields, name: title?.trim() ?? was.name };
    const forbidden = checkLayout(site, next, was);
    if (forbidden) return forbidden;
    const before: Record<string, unknown> = {};
    for (const key of Object.keys(next) as (keyof Layout)[])
      if (JSON.stringify(next[key]) !== JSON.stringify(was[key])) before[key === 'name' ? 'title' : key] = was[key];
    if (Object.keys(before).length === 0) return { ok: true, site, inverse: [], touched: [] };
    return {
      ok: true,
      site: withSettings(site, {
        ...site.settings,
        layouts: site.settings.layouts.map((one) => (one === was ? next : one)),
      }),
      inverse: [{ name: 'layout.set', layout, fields: before as z.infer<typeof fieldsSchema> }],
      touched: [],
    };
  },

  cells: ({ layout, fields }) => Object.keys(fields).map((field) => `layout:${layout}.${field}`),

  words: ({ layout, fields: { title } }, site) =>
    title === undefined
      ? `changed the layout ${namedLayout(site, layout)}`
      : `renamed the layout ${namedLayout(site, layout)} to ‘${title}’`,
});

/** What a layout breaks, or null. A menu that it had before is not questioned. */
export function checkLayout(site: Site, layout: Layout, before: Layout | null): Refusal | null {
  if (layout.name === '') return refuse('layout-unnamed', { layout: layout.id });
  const had = new Set(Object.values(before?.menus ?? {}));
  for (const menu of Object.values(layout.menus))
    if (menu !== null && !had.has(menu) && !site.settings.menus.some(({ id }) => id === menu))
      return refuse('menu-unknown', { menu });
  return null;
}

export const namedLayout = (site: Site, layout: string): string =>
  `‘${site.settings.layouts.find(({ id }) => id === layout)?.name ?? 'that is not there'}’`;
