import { z } from 'zod';
import { audienceIdSchema } from './audience.ts';
import { type PageId, pageIdSchema } from './ids.ts';
import { targetSchema } from './target.ts';
import { type Texts, textsSchema } from './texts.ts';

export const menuIdSchema = z
  .string()
  .regex(/^[0-9A-Za-z]{1,24}$/, 'a menu id is 1 to 24 letters and digits')
  .brand<'MenuId'>();
export type MenuId = z.infer<typeof menuIdSchema>;

/** The id of an entry within its menu. The entry of a page bears the id of the page, so a page has one entry in a menu. */
export const entryIdSchema = z
  .string()
  .regex(/^[0-9A-Za-z]{1,24}$/, 'an entry id is 1 to 24 letters and digits')
  .brand<'EntryId'>();
export type EntryId = z.infer<typeof entryIdSchema>;

/** The id that a page's entry bears. */
export const entryOf = (page: PageId): EntryId => page as string as EntryId;

export const MAX_MENU_NAME_LENGTH = 60;
export const MAX_ENTRY_LABEL_LENGTH = 120;
export const MAX_MENUS = 24;
/** A menu shows at most so many levels. */
export const MAX_LEVELS = 6;
/** So many entries can be arranged by hand, or be exceptions. */
export const MAX_ENTRIES = 2000;

/** In which order a menu has what it takes from the tree. */
export const ENTRY_ORDERS = ['tree', 'alphabet', 'date'] as const;
export type EntryOrder = (typeof ENTRY_ORDERS)[number];

/** What visitors do by an entry that leads to no page: such an entry shows only to whom it is of use. */
export const ENTRY_ACTIONS = ['sign-in', 'sign-out', 'account'] as const;
export type EntryAction = (typeof ENTRY_ACTIONS)[number];

/** Where an entry leads that is not the tree's own: a page, an outside address, or something to do; null is text alone. */
export const entryTargetSchema = z.union([targetSchema, z.strictObject({ does: z.enum(ENTRY_ACTIONS) })]).nullable();
export type EntryTarget = z.infer<typeof entryTargetSchema>;

/** The audiences that an entry shows to; null is everyone who can open what it leads to. */
export const entryAudiencesSchema = z.array(audienceIdSchema).min(1).max(30).nullable();

export const PINS = ['first', 'last'] as const;
export type Pin = (typeof PINS)[number];

const label = textsSchema(MAX_ENTRY_LABEL_LENGTH);

/** What a menu that follows the tree has otherwise for one page. What it says nothing of is as in the tree. */
export const entryExceptionSchema = z.strictObject({
  page: pageIdSchema,
  label,
  isLeftOut: z.boolean(),
  pin: z.enum(PINS).nullable(),
  only: entryAudiencesSchema,
});
export type EntryException = z.infer<typeof entryExceptionSchema>;

/** An entry that a menu has beside what it takes from the tree; below which entry, null for the first level. */
export const extraEntrySchema = z.strictObject({
  id: entryIdSchema,
  label,
  target: entryTargetSchema,
  only: entryAudiencesSchema,
  under: entryIdSchema.nullable(),
  pin: z.enum(PINS),
});
export type ExtraEntry = z.infer<typeof extraEntrySchema>;

/** An entry that was arranged by hand, with those below it. Without a label of its own it is called as its page is. */
export interface ArrangedEntry {
  readonly id: EntryId;
  readonly label: Texts;
  readonly target: EntryTarget;
  readonly only: z.infer<typeof entryAudiencesSchema>;
  readonly below: readonly ArrangedEntry[];
}
export const arrangedEntrySchema: z.ZodType<ArrangedEntry> = z.strictObject({
  id: entryIdSchema,
  label,
  target: entryTargetSchema,
  only: entryAudiencesSchema,
  get below() {
    return z.array(arrangedEntrySchema).max(MAX_ENTRIES);
  },
});

/** How a page of the menu's range stood in the tree when it was last settled: what has changed since is proposed. */
export const settledPageSchema = z.strictObject({
  page: pageIdSchema,
  /** The page of the range that it stood below, or null. */
  under: pageIdSchema.nullable(),
  /** Its place among its siblings, as the tree keeps it. */
  order: z.string().max(400),
  /** What menus called it. */
  name: z.string().max(400),
});
export type SettledPage = z.infer<typeof settledPageSchema>;

export const arrangementSchema = z.strictObject({
  entries: z.array(arrangedEntrySchema).max(MAX_ENTRIES),
  settled: z.array(settledPageSchema).max(20_000),
});
/** The entries of a menu as a person arranged them, and the tree as it was when the two were last settled. */
export interface Arrangement {
  readonly entries: readonly ArrangedEntry[];
  readonly settled: readonly SettledPage[];
}

/** Where a menu begins: with the top of the tree, with the top-level page above the visitor's page, or below a page. */
export const menuRootSchema = z.union([z.enum(['site', 'section']), z.strictObject({ page: pageIdSchema })]);
export type MenuRoot = z.infer<typeof menuRootSchema>;

export const menuSchema = z.strictObject({
  id: menuIdSchema,
  name: z.string().min(1).max(MAX_MENU_NAME_LENGTH),
  root: menuRootSchema,
  levels: z.number().int().min(1).max(MAX_LEVELS),
  order: z.enum(ENTRY_ORDERS),
  /** Whether the page that it begins below has an entry too, above the others. */
  withRoot: z.boolean(),
  /** Whether headings are text, or lead to the first page below them. */
  headings: z.enum(['text', 'first page']),
  /** Whether it is arranged by hand. Else it follows the tree, with its exceptions and what it has besides. */
  isByHand: z.boolean(),
  exceptions: z.array(entryExceptionSchema).max(MAX_ENTRIES),
  extras: z.array(extraEntrySchema).max(MAX_ENTRIES),
  /** What was arranged by hand. It is kept while the menu follows the tree, so that nothing is lost by going there and back. */
  arranged: arrangementSchema.nullable(),
  /** Whether, arranged by hand, it takes by itself what changes in the tree and cannot clash. */
  takesSafe: z.boolean(),
});
/** A menu of the site. Never changed in place. */
export interface Menu extends Readonly<Omit<z.infer<typeof menuSchema>, 'arranged' | 'exceptions' | 'extras'>> {
  readonly exceptions: readonly EntryException[];
  readonly extras: readonly ExtraEntry[];
  readonly arranged: Arrangement | null;
}

/** A new menu: it follows the tree from the top, two levels deep. */
export const newMenu = (id: MenuId, name: string): Menu => ({
  id,
  name,
  root: 'site',
  levels: 2,
  order: 'tree',
  withRoot: false,
  headings: 'text',
  isByHand: false,
  exceptions: [],
  extras: [],
  arranged: null,
  takesSafe: false,
});

/** @throws ZodError when the text is not a menu id: for constants and tests, not for input. */
export const toMenuId = (text: string): MenuId => menuIdSchema.parse(text);

/** The menu that a new site has. */
export const MAIN_MENU: Menu = newMenu(toMenuId('main'), 'Main');

export const NO_EXCEPTION: Omit<EntryException, 'page'> = { label: {}, isLeftOut: false, pin: null, only: null };

/** Whether an exception says anything. */
export const saysAnything = ({ label: own, isLeftOut, pin, only }: EntryException): boolean =>
  Object.keys(own).length > 0 || isLeftOut || pin !== null || only !== null;

/** All entries of an arrangement, each before those below it. */
export function* allEntries(entries: readonly ArrangedEntry[]): Generator<ArrangedEntry> {
  for (const entry of entries) {
    yield entry;
    yield* allEntries(entry.below);
  }
}

/** How many levels an arrangement has. */
export const levelsOf = (entries: readonly ArrangedEntry[]): number =>
  entries.reduce((most, entry) => Math.max(most, 1 + levelsOf(entry.below)), 0);
