import { z } from 'zod';
import { type AudienceId, MAX_AUDIENCES, audienceIdSchema } from './audience.ts';

/** What visitors get of a page that they may not open: nothing at all, its entry with a lock and the sign-in page, or these with the audiences that it is open to. */
export const CLOSED_LOOKS = ['out-of-sight', 'locked', 'locked-for'] as const;
export type ClosedLook = (typeof CLOSED_LOOKS)[number];

/** Whether something is held back: not, for this page, or for its branch. */
export const HELD_BACK = ['no', 'page', 'branch'] as const;
export type HeldBack = (typeof HELD_BACK)[number];

/** What a page can be shown as in place of what Spur has built in. */
export const STANDS_IN = ['sign-in', 'no-access', 'not-found', 'account'] as const;
export type StandsIn = (typeof STANDS_IN)[number];

/** Whom a menu entry can be for besides all who may open it. */
export const MENU_FOR = ['signed-in', 'signed-out'] as const;
export type MenuFor = (typeof MENU_FOR)[number];

export const labelIdSchema = z
  .string()
  .regex(/^[0-9A-Za-z]{1,24}$/, 'a label id is 1 to 24 letters and digits')
  .brand<'LabelId'>();
/** A label of the site, by which its rules reach many pages. */
export type LabelId = z.infer<typeof labelIdSchema>;
export const MAX_LABELS_OF_PAGE = 20;

export const passphraseIdSchema = z
  .string()
  .regex(/^[0-9A-Za-z]{16,40}$/, 'a passphrase id is 16 to 40 letters and digits')
  .brand<'PassphraseId'>();
/** Stands for a passphrase, whose words are kept nowhere: the server knows their hash. */
export type PassphraseId = z.infer<typeof passphraseIdSchema>;

/** A page's own rule: how it narrows what the page above allows. Never changed in place. */
export interface AccessRule {
  /** Only these audiences may open it; null where it is open to whom the page above is. */
  readonly only: readonly AudienceId[] | null;
  /** These may not, whoever else may. */
  readonly except: readonly AudienceId[];
  /** It takes no narrowing from the page above. */
  readonly standsAlone: boolean;
  /** What those get who may not open it; null as the page above has it. */
  readonly closedLook: ClosedLook | null;
  /** It is open from this moment on, and until that one: ISO 8601 in UTC, or null. */
  readonly from: string | null;
  readonly until: string | null;
  /** Whether search engines are asked to leave it out. */
  readonly engines: HeldBack;
  /** Whether the site's own search leaves it out. */
  readonly search: HeldBack;
  /** Visitors get it as the sign-in page, as the no-access page, and so on; null where it is itself. */
  readonly standsIn: StandsIn | null;
  /** Menus show its entry to visitors who are signed in, or to those who are not; null to both. */
  readonly menuFor: MenuFor | null;
  /** Whoever may open it otherwise is asked for this passphrase once, for the branch; null where it asks for none. */
  readonly passphrase: PassphraseId | null;
  /** What it is labelled with: the rules that the site has for these labels narrow it as its own does. */
  readonly labels: readonly LabelId[];
}

export const NO_RULE: AccessRule = Object.freeze({
  only: null,
  except: [],
  standsAlone: false,
  closedLook: null,
  from: null,
  until: null,
  engines: 'no',
  search: 'no',
  standsIn: null,
  menuFor: null,
  passphrase: null,
  labels: [],
});
export const ACCESS_FIELDS = Object.keys(NO_RULE) as readonly (keyof AccessRule)[];

const audienceList = z.array(audienceIdSchema).max(MAX_AUDIENCES + 1);
const moment = z.iso.datetime({ error: 'a moment such as 2027-03-01T08:00:00Z' });

/** A change of a rule: what is left out stays. */
export const accessChangeSchema = z
  .strictObject({
    only: audienceList.min(1, 'name an audience, or null for whom the page above is open to').nullable(),
    except: audienceList,
    standsAlone: z.boolean(),
    closedLook: z.enum(CLOSED_LOOKS).nullable(),
    from: moment.nullable(),
    until: moment.nullable(),
    engines: z.enum(HELD_BACK),
    search: z.enum(HELD_BACK),
    standsIn: z.enum(STANDS_IN).nullable(),
    menuFor: z.enum(MENU_FOR).nullable(),
    passphrase: passphraseIdSchema.nullable(),
    labels: z.array(labelIdSchema).max(MAX_LABELS_OF_PAGE, `at most ${MAX_LABELS_OF_PAGE} labels`),
  })
  .partial();
export type AccessChange = z.infer<typeof accessChangeSchema>;

/** The rule of a node; `NO_RULE` where it has none of its own. */
export const ruleOf = (node: { readonly access: AccessRule | null }): AccessRule => node.access ?? NO_RULE;

/** The rule with the changes made; null where nothing of it is left. Where nothing changes the same object comes back. */
export function withAccess(rule: AccessRule | null, change: AccessChange): AccessRule | null {
  const before = rule ?? NO_RULE;
  const next = { ...before, ...change };
  if (next.only !== null) next.only = normal(next.only);
  next.except = normal(next.except);
  next.labels = normal(next.labels);
  if (ACCESS_FIELDS.every((field) => isEqual(before[field], next[field]))) return rule;
  return ACCESS_FIELDS.every((field) => isEqual(next[field], NO_RULE[field])) ? null : next;
}

/** The change that makes `before` of `after`, for the fields that differ. */
export function accessChange(after: AccessRule | null, before: AccessRule | null): AccessChange {
  const [from, to] = [after ?? NO_RULE, before ?? NO_RULE];
  return Object.fromEntries(
    ACCESS_FIELDS.filter((field) => !isEqual(from[field], to[field])).map((field) => [field, to[field]]),
  ) as AccessChange;
}

/** A rule without the fields that are as in `NO_RULE`, as it is kept and sent; `fromKeptAccess` gives back the same. */
export const toKeptAccess = (rule: AccessRule): AccessChange => accessChange(null, rule);
export const fromKeptAccess = (kept: AccessChange | null): AccessRule | null =>
  kept === null ? null : withAccess(null, kept);

export const sameAccess = (a: AccessRule | null, b: AccessRule | null): boolean =>
  a === b || (a !== null && b !== null && ACCESS_FIELDS.every((field) => isEqual(a[field], b[field])));

/** The audiences that a rule names. */
export const audiencesIn = ({ only, except }: Pick<AccessRule, 'only' | 'except'>): AudienceId[] => [
  ...(only ?? []),
  ...except,
];

const normal = <Id extends string>(ids: readonly Id[]): Id[] => [...new Set(ids)].sort();

const isEqual = (a: unknown, b: unknown): boolean =>
  a === b || (Array.isArray(a) && Array.isArray(b) && a.length === b.length && a.every((one, at) => one === b[at]));

/** Whether a page shows only when it is needed, where nobody goes of their own accord: menus do not offer it by themselves. */
export const isShownWhenNeeded = ({ access }: { readonly access: AccessRule | null }): boolean =>
  access?.standsIn === 'not-found' || access?.standsIn === 'no-access';
