import { z } from 'zod';
import { type LayoutId, type MenuSlot, MENU_SLOTS } from '../model/layout.ts';
import {
  MAX_MENU_NAME_LENGTH,
  MAX_ENTRIES,
  MAX_MENUS,
  type Menu,
  allEntries,
  levelsOf,
  menuIdSchema,
  menuSchema,
  newMenu,
  saysAnything,
} from '../model/menu.ts';
import { type Refusal, refuse } from '../model/refusal.ts';
import { withSettings } from '../model/site-edit.ts';
import { MAX_DEPTH, type Site } from '../model/site.ts';
import { type Applied, defineOperation } from './definition.ts';
import type { Operation } from './operation.ts';

const title = z.string().max(MAX_MENU_NAME_LENGTH, `at most ${MAX_MENU_NAME_LENGTH} characters`);
const fieldsSchema = menuSchema.omit({ id: true, name: true }).extend({ title }).partial();
type Fields = z.infer<typeof fieldsSchema>;

export const menuAddSchema = z.strictObject({
  name: z.literal('menu.add'),
  menu: menuIdSchema,
  /** The menu that it follows; null puts it first, left out puts it last. */
  after: menuIdSchema.nullable().optional(),
  title,
  fields: fieldsSchema.omit({ title: true }).optional(),
  /** In inverses only: the slots of layouts that it stood in. */
  slots: z.array(z.tuple([z.string(), z.enum(MENU_SLOTS)])).optional(),
});

/** Adds a menu. What is not said is as in `newMenu`. */
export const menuAdd = defineOperation({
  schema: menuAddSchema,

  apply(site, { menu, after, title: given, fields = {}, slots = [] }) {
    const { menus } = site.settings;
    if (menus.some(({ id }) => id === menu)) return refuse('menu-exists', { menu });
    if (menus.length >= MAX_MENUS) return refuse('menu-too-many', { limit: MAX_MENUS });
    const made = normal({ ...newMenu(menu, given.trim()), ...fields });
    const before = after == null ? -1 : menus.findIndex(({ id }) => id === after);
    const at = after === undefined || (after !== null && before === -1) ? menus.length : before + 1;
    const forbidden = checkMenu(site, made, null);
    if (forbidden) return forbidden;
    const layouts = site.settings.layouts.map((layout) => {
      const mine = slots.filter(([id]) => id === layout.id);
      return mine.length === 0
        ? layout
        : { ...layout, menus: { ...layout.menus, ...Object.fromEntries(mine.map(([, slot]) => [slot, menu])) } };
    });
    return applied(
      withSettings(site, {
        ...site.settings,
        menus: menus.toSpliced(at, 0, made),
        layouts: slots.length === 0 ? site.settings.layouts : layouts,
      }),
      { name: 'menu.remove', menu },
    );
  },

  cells: ({ menu }) => [`menu:${menu}.there`],

  words: ({ title: text }) => `added the menu ‘${text}’`,
});

export const menuSetSchema = z.strictObject({
  name: z.literal('menu.set'),
  menu: menuIdSchema,
  /** What is left out stays; lists take the place of those before as a whole. */
  fields: fieldsSchema,
});

/** Sets what a menu is, and how: what it takes from the tree, its exceptions, or what was arranged by hand. */
export const menuSet = defineOperation({
  schema: menuSetSchema,

  apply(site, { menu, fields: { title: text, ...fields } }) {
    const was = site.settings.menus.find(({ id }) => id === menu);
    if (!was) return refuse('menu-unknown', { menu });
    const next: Menu = { ...was, ...fields, name: text?.trim() ?? was.name };
    return checkMenu(site, next, was) ?? changedMenu(site, was, next);
  },

  cells: ({ menu, fields }) => [...new Set(Object.keys(fields).map((field) => `menu:${menu}.${cellOf(field)}`))],

  words({ menu, fields }, site) {
    const name = namedMenu(site, menu);
    const { title: text, isByHand, arranged, takesSafe } = fields;
    if (text !== undefined) return `renamed the menu ${name} to ‘${text}’`;
    if (isByHand !== undefined)
      return isByHand ? `began to arrange the menu ${name} by hand` : `let the menu ${name} follow the tree`;
    if (takesSafe !== undefined)
      return takesSafe
        ? `let the menu ${name} take safe changes by itself`
        : `stopped the menu ${name} from taking changes`;
    if (arranged !== undefined) return `settled the menu ${name} with the tree`;
    return `set what the menu ${name} takes from the tree`;
  },
});

export const menuRemoveSchema = z.strictObject({ name: z.literal('menu.remove'), menu: menuIdSchema });

/** Takes a menu away, and out of the layouts in which it stands. */
export const menuRemove = defineOperation({
  schema: menuRemoveSchema,

  apply(site, { menu }) {
    const { menus, layouts } = site.settings;
    const at = menus.findIndex(({ id }) => id === menu);
    if (at === -1) return refuse('menu-unknown', { menu });
    const slots: [LayoutId, MenuSlot][] = layouts.flatMap((layout) =>
      MENU_SLOTS.filter((slot) => layout.menus[slot] === menu).map((slot): [LayoutId, MenuSlot] => [layout.id, slot]),
    );
    const left = layouts.map((layout) => {
      const mine = slots.filter(([id]) => id === layout.id);
      return mine.length === 0
        ? layout
        : { ...layout, menus: { ...layout.menus, ...Object.fromEntries(mine.map(([, slot]) => [slot, null])) } };
    });
    const { id, name, ...fields } = menus[at]!;
    return applied(
      withSettings(site, {
        ...site.settings,
        menus: menus.toSpliced(at, 1),
        layouts: slots.length === 0 ? layouts : left,
      }),
      {
        name: 'menu.add',
        menu: id,
        after: menus[at - 1]?.id ?? null,
        title: name,
        fields: fields as Fields,
        ...(slots.length > 0 && { slots }),
      },
    );
  },

  cells: ({ menu }) => [`menu:${menu}.there`],

  words: ({ menu }, site) => `removed the menu ${namedMenu(site, menu)}`,
});

/** The site with the menu in place of the one before; the same site where nothing differs. */
export function changedMenu(site: Site, was: Menu, given: Menu): Applied {
  const next = normal(given);
  const before: Record<string, unknown> = {};
  for (const key of Object.keys(next) as (keyof Menu)[])
    if (JSON.stringify(next[key]) !== JSON.stringify(was[key])) before[key === 'name' ? 'title' : key] = was[key];
  if (Object.keys(before).length === 0) return { ok: true, site, inverse: [], touched: [] };
  const menus = site.settings.menus.map((one) => (one === was ? next : one));
  return applied(withSettings(site, { ...site.settings, menus }), {
    name: 'menu.set',
    menu: was.id,
    fields: before as Fields,
  });
}

/** What a menu breaks, or null. What it had before is not questioned: pages and audiences may be gone by now. */
export function checkMenu(site: Site, menu: Menu, before: Menu | null): Refusal | null {
  const { id, name, root, exceptions, extras, arranged } = menu;
  if (name === '') return refuse('menu-unnamed', { menu: id });
  if (typeof root === 'object' && JSON.stringify(root) !== JSON.stringify(before?.root) && !site.nodes.has(root.page))
    return refuse('page-unknown', { page: root.page });
  const entries = [...allEntries(arranged?.entries ?? [])];
  if (entries.length > MAX_ENTRIES || exceptions.length + extras.length > MAX_ENTRIES)
    return refuse('entry-too-many', { menu: id, limit: MAX_ENTRIES });
  if (levelsOf(arranged?.entries ?? []) > MAX_DEPTH) return refuse('entry-too-deep', { menu: id, limit: MAX_DEPTH });
  for (const ids of [entries.map((one) => one.id), extras.map((one) => one.id), exceptions.map((one) => one.page)]) {
    const twice = ids.find((one, index) => ids.indexOf(one as never) !== index);
    if (twice !== undefined) return refuse('entry-exists', { menu: id, entry: twice });
  }
  for (const { only } of [...entries, ...extras, ...exceptions])
    for (const audience of only ?? [])
      if (!site.settings.audiences.some((one) => one.id === audience) && !namesAudience(before, audience))
        return refuse('audience-unknown', { audience });
  return null;
}

const namesAudience = (menu: Menu | null, audience: string): boolean =>
  menu !== null && audiencesOfMenu(menu).includes(audience);

/** The audiences that entries of a menu are for. */
export const audiencesOfMenu = ({ exceptions, extras, arranged }: Menu): string[] =>
  [...exceptions, ...extras, ...allEntries(arranged?.entries ?? [])].flatMap(({ only }) => only ?? []);

/** Exceptions that say nothing are left out. */
const normal = (menu: Menu): Menu =>
  menu.exceptions.every(saysAnything) ? menu : { ...menu, exceptions: menu.exceptions.filter(saysAnything) };

/** What is arranged, and what stands beside the tree, is one thing for those who change it at once. */
const cellOf = (field: string): string =>
  field === 'arranged' || field === 'exceptions' || field === 'extras' ? 'entries' : field;

const applied = (site: Site, inverse: Operation): Applied => ({ ok: true, site, inverse: [inverse], touched: [] });

export const namedMenu = (site: Site, menu: string): string =>
  `‘${site.settings.menus.find(({ id }) => id === menu)?.name ?? 'that is not there'}’`;
