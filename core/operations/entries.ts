import { z } from 'zod';
import { changedEntry, entryIn, putEntry, withoutEntry } from '../model/arranged-entries.ts';
import { type PageId, pageIdSchema } from '../model/ids.ts';
import {
  type ArrangedEntry,
  type EntryId,
  type ExtraEntry,
  MAX_ENTRY_LABEL_LENGTH,
  MAX_LEVELS,
  type Menu,
  type MenuId,
  NO_EXCEPTION,
  PINS,
  entryAudiencesSchema,
  entryIdSchema,
  entryTargetSchema,
  levelsOf,
  menuIdSchema,
} from '../model/menu.ts';
import { type Refusal, refuse } from '../model/refusal.ts';
import type { Site } from '../model/site.ts';
import { type Texts, textsSchema, withTexts } from '../model/texts.ts';
import { type Outcome, defineOperation } from './definition.ts';
import { changedMenu, checkMenu, namedMenu } from './menus.ts';

const label = textsSchema(MAX_ENTRY_LABEL_LENGTH);

export const entryAddSchema = z.strictObject({
  name: z.literal('entry.add'),
  menu: menuIdSchema,
  /** Made by whoever adds it. An entry for a page of the tree bears the page's id. */
  entry: entryIdSchema,
  label: label.optional(),
  target: entryTargetSchema,
  only: entryAudiencesSchema.optional(),
  /** The entry that it stands below, or null. */
  under: entryIdSchema.nullable(),
  /** Arranged by hand: the entry that it follows, null for the first place; left out: the last. */
  after: entryIdSchema.nullable().optional(),
  /** Following the tree: before or after what the tree gives. */
  pin: z.enum(PINS).optional(),
});

/** Adds an entry to a menu: to what was arranged by hand, or beside what the tree gives. */
export const entryAdd = defineOperation({
  schema: entryAddSchema,

  apply(site, { menu, entry, label: given = {}, target, only = null, under, after, pin = 'last' }) {
    return onMenu(site, menu, (was) => {
      const own = withTexts({}, given);
      const wrong = checkEntry(site, menu, entry, own, target);
      if (wrong) return wrong;
      if (!was.isByHand) {
        if (was.extras.some(({ id }) => id === entry)) return refuse('entry-exists', { menu, entry });
        return { ...was, extras: [...was.extras, { id: entry, label: own, target, only, under, pin }] };
      }
      const entries = was.arranged?.entries ?? [];
      if (entryIn(entries, entry)) return refuse('entry-exists', { menu, entry });
      if (under !== null && !entryIn(entries, under)) return refuse('entry-unknown', { menu, entry: under });
      return withEntries(was, putEntry(entries, { id: entry, label: own, target, only, below: [] }, under, after));
    });
  },

  cells: ({ menu }) => [`menu:${menu}.entries`],

  words: ({ menu, label: given = {} }, site) =>
    `added ${Object.values(given)[0] === undefined ? 'an entry' : `the entry ‘${Object.values(given)[0]}’`} to the menu ${namedMenu(site, menu)}`,
});

export const entrySetSchema = z.strictObject({
  name: z.literal('entry.set'),
  menu: menuIdSchema,
  /** An entry of the menu; or, where it follows the tree, any page's. */
  entry: entryIdSchema,
  fields: z
    .strictObject({
      /** An empty text takes the label away: the entry is called as its page is. */
      label,
      target: entryTargetSchema,
      only: entryAudiencesSchema,
      /** Following the tree: whether the menu goes without the page, and its place before or after the others. */
      isLeftOut: z.boolean(),
      pin: z.enum(PINS).nullable(),
    })
    .partial(),
});

/** Sets how an entry is otherwise than the tree has it. */
export const entrySet = defineOperation({
  schema: entrySetSchema,

  apply(site, { menu, entry, fields: { label: given, ...fields } }) {
    return onMenu(site, menu, (was) => {
      const { isLeftOut, pin, ...ofEntry } = fields;
      const change = <One extends ExtraEntry | ArrangedEntry>(one: One): One => ({
        ...one,
        ...ofEntry,
        label: given ? withTexts(one.label, given) : one.label,
      });
      if (was.isByHand) {
        const entries = was.arranged?.entries ?? [];
        const found = entryIn(entries, entry);
        if (!found) return refuse('entry-unknown', { menu, entry });
        const next = change(found);
        return (
          checkEntry(site, menu, entry, next.label, next.target) ??
          withEntries(was, changedEntry(entries, entry, change))
        );
      }
      const extra = was.extras.find(({ id }) => id === entry);
      if (extra) {
        const next = { ...change(extra), pin: pin ?? extra.pin };
        return (
          checkEntry(site, menu, entry, next.label, next.target) ?? {
            ...was,
            extras: was.extras.map((one) => (one === extra ? next : one)),
          }
        );
      }
      const page = pageIdSchema.parse(entry);
      if (!site.nodes.has(page)) return refuse('page-unknown', { page });
      const before = was.exceptions.find((one) => one.page === page) ?? { page, ...NO_EXCEPTION };
      const next = {
        ...before,
        label: given ? withTexts(before.label, given) : before.label,
        only: fields.only === undefined ? before.only : fields.only,
        isLeftOut: isLeftOut ?? before.isLeftOut,
        pin: pin === undefined ? before.pin : pin,
      };
      const others = was.exceptions.filter((one) => one !== before);
      return { ...was, exceptions: [...others, next] };
    });
  },

  cells: ({ menu }) => [`menu:${menu}.entries`],

  words: ({ menu, fields: { isLeftOut } }, site) =>
    isLeftOut === true
      ? `left an entry out of the menu ${namedMenu(site, menu)}`
      : `changed an entry of the menu ${namedMenu(site, menu)}`,
});

export const entryMoveSchema = z.strictObject({
  name: z.literal('entry.move'),
  menu: menuIdSchema,
  entry: entryIdSchema,
  under: entryIdSchema.nullable(),
  /** The entry that it follows; null puts it first, left out puts it last. */
  after: entryIdSchema.nullable().optional(),
});

/** Moves an entry, with those below it, in what was arranged by hand. No page moves. */
export const entryMove = defineOperation({
  schema: entryMoveSchema,

  apply(site, { menu, entry, under, after }) {
    return onMenu(site, menu, (was) => {
      const entries = was.arranged?.entries ?? [];
      const found = was.isByHand ? entryIn(entries, entry) : undefined;
      if (!found) return refuse('entry-unknown', { menu, entry });
      if (under !== null && !entryIn(entries, under)) return refuse('entry-unknown', { menu, entry: under });
      if (under !== null && entryIn([found], under)) return refuse('entry-inside-itself', { menu, entry });
      if (after === entry) return was;
      return withEntries(was, putEntry(withoutEntry(entries, entry), found, under, after));
    });
  },

  cells: ({ menu }) => [`menu:${menu}.entries`],

  words: ({ menu }, site) => `moved an entry of the menu ${namedMenu(site, menu)}`,
});

export const entryRemoveSchema = z.strictObject({
  name: z.literal('entry.remove'),
  menu: menuIdSchema,
  entry: entryIdSchema,
});

/** Takes an entry out of a menu, with those below it. No page is removed. */
export const entryRemove = defineOperation({
  schema: entryRemoveSchema,

  apply(site, { menu, entry }) {
    return onMenu(site, menu, (was) => {
      if (was.isByHand) {
        const entries = was.arranged?.entries ?? [];
        if (!entryIn(entries, entry)) return refuse('entry-unknown', { menu, entry });
        return withEntries(was, withoutEntry(entries, entry));
      }
      if (!was.extras.some(({ id }) => id === entry)) return refuse('entry-unknown', { menu, entry });
      return { ...was, extras: was.extras.filter(({ id }) => id !== entry) };
    });
  },

  cells: ({ menu }) => [`menu:${menu}.entries`],

  words: ({ menu }, site) => `took an entry out of the menu ${namedMenu(site, menu)}`,
});

function onMenu(site: Site, id: string, change: (menu: Menu) => Menu | Refusal): Outcome {
  const was = site.settings.menus.find((one) => one.id === id);
  if (!was) return refuse('menu-unknown', { menu: id });
  const next = change(was);
  if ('ok' in next) return next;
  // What follows the tree may have brought it deeper than a hand may.
  const levels = (menu: Menu) => levelsOf(menu.arranged?.entries ?? []);
  if (levels(next) > Math.max(MAX_LEVELS, levels(was)))
    return refuse('entry-too-deep', { menu: id, limit: MAX_LEVELS });
  return checkMenu(site, next, was) ?? changedMenu(site, was, next);
}

function checkEntry(
  site: Site,
  menu: MenuId,
  entry: EntryId,
  own: Texts,
  target: ArrangedEntry['target'],
): Refusal | null {
  if (target !== null && 'page' in target) {
    if ((target.page as string) !== entry || !site.nodes.has(target.page))
      return refuse('page-unknown', { page: target.page });
    return null;
  }
  // The id of a page is that of the page's own entry.
  if (site.nodes.has(entry as string as PageId)) return refuse('entry-exists', { menu, entry });
  return Object.keys(own).length === 0 ? refuse('entry-unnamed', { entry }) : null;
}

const withEntries = (menu: Menu, entries: readonly ArrangedEntry[]): Menu => ({
  ...menu,
  arranged: { entries, settled: menu.arranged?.settled ?? [] },
});
