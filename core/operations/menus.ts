import { isSameJson } from '../model/canonical-json.ts';
import { z } from 'zod';
import { type MenuSlot, MENU_SLOTS } from '../model/layout.ts';
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
import { allBut, fieldsBefore, thingsOfSettings } from './things.ts';

const title = z.string().max(MAX_MENU_NAME_LENGTH, `at most ${MAX_MENU_NAME_LENGTH} characters`);
const fieldsSchema = menuSchema.omit({ id: true, name: true }).extend({ title }).partial();
const menus = thingsOfSettings('menu', 'menus', { most: MAX_MENUS, code: 'menu-too-many' });

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
    const made = normal({ ...newMenu(menu, given.trim()), ...fields });
    return (
      menus.checkNew(site, menu) ?? checkMenu(site, made, null) ?? inSlots(menus.add(site, made, after), slots, menu)
    );
  },

  cells: ({ menu }) => menus.cellOfThere(menu),

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
    const was = menus.find(site, menu);
    if (!was) return menus.unknown(menu);
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
    const was = menus.find(site, menu);
    if (!was) return menus.unknown(menu);
    const slots = site.settings.layouts.flatMap((layout) =>
      MENU_SLOTS.filter((slot) => layout.menus[slot] === menu).map((slot): Slot => [layout.id, slot]),
    );
    const again = { title: was.name, fields: allBut(was, 'id', 'name'), ...(slots.length > 0 && { slots }) };
    const removed = menus.remove(site, was, again);
    return inSlots(removed, slots, null);
  },

  cells: ({ menu }) => menus.cellOfThere(menu),

  words: ({ menu }, site) => `removed the menu ${namedMenu(site, menu)}`,
});

/** The site with the menu in place of the one before; the same site where nothing differs. */
export function changedMenu(site: Site, was: Menu, given: Menu): Applied {
  const next = normal(given);
  return menus.set(site, was, next, fieldsBefore(was, next));
}

type Slot = [layout: string, slot: MenuSlot];

/** The same, with a menu, or none, in these slots of layouts. */
function inSlots(applied: Applied, slots: readonly Slot[], menu: Menu['id'] | null): Applied {
  if (slots.length === 0) return applied;
  const { site } = applied;
  const layouts = site.settings.layouts.map((layout) => {
    const mine = slots.filter(([id]) => id === layout.id);
    return mine.length === 0
      ? layout
      : { ...layout, menus: { ...layout.menus, ...Object.fromEntries(mine.map(([, slot]) => [slot, menu])) } };
  });
  return { ...applied, site: withSettings(site, { ...site.settings, layouts }) };
}

/** What a menu breaks, or null. What it had before is not questioned: pages and audiences may be gone by now. */
export function checkMenu(site: Site, menu: Menu, before: Menu | null): Refusal | null {
  const { id, name, root, exceptions, extras, arranged } = menu;
  if (name === '') return refuse('menu-unnamed', { menu: id });
  if (typeof root === 'object' && !isSameJson(root, before?.root) && !site.nodes.has(root.page))
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

export const namedMenu = (site: Site, menu: string): string => menus.named(site, menu);
