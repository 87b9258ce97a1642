import { z } from 'zod';
import { contentIdSchema, languageSchema, pageIdSchema, siteKeySchema } from '#core/model/ids.ts';
import { MENU_ANSWERS } from '#core/derive/menu-table.ts';
import { menuIdSchema } from '#core/model/menu.ts';
import { boxIdSchema } from '#core/model/sketch.ts';
import type { TextDocument } from '#core/model/content.ts';
import { newPassword } from './people.ts';
import { editSchema, wayBackSchema } from '#core/operations/operation.ts';

const moment = z.iso.datetime();

export const accountSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  email: z.string(),
  /** Looks after the installation: makes sites, and may do everything on each of them. Others have the roles that sites give them. */
  looksAfterAll: z.boolean(),
  /** Has signed in, this time, with a passkey, or with a one-time code besides the password. */
  hasSecondStep: z.boolean(),
});
export type Account = z.infer<typeof accountSchema>;

export const sessionAnswer = z.object({
  account: accountSchema.nullable(),
  /** The password was right, and a one-time code is asked for. */
  wantsCode: z.boolean(),
  /** What the provider of the organisation is called, by which one can sign in; null where there is none. */
  provider: z.string().nullable(),
  liveOrigin: z.string(),
});
export type SessionAnswer = z.infer<typeof sessionAnswer>;
export const signInBody = z.strictObject({
  email: z.string().trim().min(1, 'Type your mail address.').max(200),
  password: z.string().min(1, 'Type your password.').max(200),
});
export const firstAccountBody = z.strictObject({
  token: z.string().min(1).max(100),
  name: z.string().trim().min(1, 'Type your name.').max(100),
  email: z.email('Type a mail address, such as you@school.example.').max(200),
  password: newPassword,
});

export const siteSummary = z.object({
  key: siteKeySchema,
  name: z.string(),
  pages: z.number().int(),
  livePages: z.number().int(),
  liveAddress: z.string(),
  changedAt: moment,
  changedBy: z.string().nullable(),
});
export type SiteSummary = z.infer<typeof siteSummary>;
export const siteName = z.string().trim().min(1, 'Type a name.').max(120, 'At most 120 characters.');
export const makeSiteBody = z.strictObject({
  key: siteKeySchema,
  name: siteName,
  language: languageSchema.default('en'),
});

/** A document of the editor; what it may hold is checked against the editor's schema. */
const documentSchema = z.looseObject({ type: z.literal('doc') }) as unknown as z.ZodType<TextDocument>;
/** At most so many operations in one request. */
export const MAX_OPERATIONS = 5000;
/** Made by the sender; the same request sent again is answered as the first time and not applied twice. */
export const requestId = z.string().regex(/^[0-9A-Za-z_-]{8,40}$/);
export const operationsBody = z.strictObject({
  /** The revision that the change is meant for. Where it is left out the operations are taken at any revision. */
  revision: z.number().int().nonnegative().optional(),
  request: requestId.optional(),
  operations: z.array(editSchema).min(1).max(MAX_OPERATIONS),
  /** Texts that the operations refer to. */
  contents: z
    .array(z.strictObject({ id: contentIdSchema, document: documentSchema }))
    .max(2000)
    .optional(),
});
export type OperationsBody = z.infer<typeof operationsBody>;
export const operationsAnswer = z.object({
  revision: z.number().int(),
  applied: z.array(editSchema),
  inverse: z.array(wayBackSchema),
});

const addressChange = z.object({ page: pageIdSchema, before: z.string(), after: z.string() });
export const consequencesAnswer = z.object({
  addresses: z.array(addressChange),
  added: z.array(pageIdSchema),
  removed: z.array(pageIdSchema),
  closed: z.array(pageIdSchema),
  opened: z.array(pageIdSchema),
  menu: z.array(z.object({ page: pageIdSchema, before: z.string().nullable(), after: z.string().nullable() })),
});

export const undoBody = z.strictObject({
  /** Undo even where somebody's later change would go with it. */
  anyway: z.boolean().optional(),
  /** Leave this step as it is and take it off the list of what can be undone. */
  skip: z.boolean().optional(),
  request: requestId.optional(),
});
export const undoAnswer = z.object({ revision: z.number().int(), words: z.string() });

export const turnsAnswer = z.object({ undo: z.string().nullable(), redo: z.string().nullable() });
export const HISTORY_KINDS = ['edit', 'undo', 'redo', 'release'] as const;
export const historyEntry = z.object({
  revision: z.number().int(),
  at: moment,
  by: z.string(),
  kind: z.enum(HISTORY_KINDS),
  words: z.string(),
});
export type HistoryEntry = z.infer<typeof historyEntry>;
export const historyAnswer = z.object({ entries: z.array(historyEntry), more: z.boolean() });

export const removedBranch = z.object({
  page: pageIdSchema,
  title: z.string(),
  /** The titles of the pages that it stood under, from the top. */
  from: z.array(z.string()),
  /** What went along, in the order in which it stood; the depth is counted from the branch's own page. */
  below: z.array(z.object({ page: pageIdSchema, title: z.string(), depth: z.number().int() })),
  /** The page that it would come back under now, where its own is gone; null for the top level. */
  nearest: z.object({ page: pageIdSchema, title: z.string() }).nullable(),
  /** Whether the page that it stood under is there still. */
  isParentThere: z.boolean(),
  isLive: z.boolean(),
  at: moment.nullable(),
  by: z.string().nullable(),
});
export const removedAnswer = z.object({ branches: z.array(removedBranch) });
export type RemovedBranch = z.infer<typeof removedBranch>;

/** Each page's latest change, by columns: the page, who made it, when. */
export const latestChangesAnswer = z.object({
  pages: z.array(pageIdSchema),
  by: z.array(z.string()),
  at: z.array(moment),
});
/** A page's places for boxes of sketches: all of them, and those where something is said. */
export const plannedTextsAnswer = z.object({
  pages: z.array(z.object({ page: pageIdSchema, boxes: z.array(boxIdSchema), written: z.array(boxIdSchema) })),
});
export const textsFoundAnswer = z.object({ pages: z.array(pageIdSchema) });

export const goBackBody = z.strictObject({
  /** The revision whose draft is wanted again. */
  revision: z.number().int().nonnegative(),
  request: requestId.optional(),
});

/** A person's own settings of the workbench, such as columns and saved filters; the workbench knows their shapes. */
export const preferenceBody = z.strictObject({ value: z.json() });
export const preferencesAnswer = z.object({ preferences: z.record(z.string(), z.json()) });

export const contentAnswer = z.object({ id: contentIdSchema, document: documentSchema });

const trailStep = z.object({ page: pageIdSchema, text: z.string(), address: z.string().nullable() });
/** Everything about one page, with the reason of each derived answer. */
export const pageAnswer = z.object({
  page: pageIdSchema,
  revision: z.number().int(),
  title: z.string(),
  type: z.enum(['page', 'heading', 'link']),
  address: z.string().nullable(),
  trail: z.array(trailStep),
  hidden: z.object({ isHidden: z.boolean(), because: pageIdSchema.nullable() }),
  /** Menu by menu: the number of its entry, or null with the reason why it has none. */
  menus: z.array(
    z.object({ menu: menuIdSchema, name: z.string(), number: z.string().nullable(), because: z.enum(MENU_ANSWERS) }),
  ),
  state: z.enum(['draft', 'live', 'edited', 'retired']),
  differences: z.array(z.string()),
  liveAddress: z.string().nullable(),
});

/** One committed change, as it passes in the stream of events. The operations are replayed on the receiver's site. */
export interface CommittedEdit {
  readonly revision: number;
  readonly at: string;
  readonly by: string;
  readonly account: string;
  readonly kind: HistoryEntry['kind'];
  readonly request: string | null;
  readonly words: string;
  readonly operations: readonly unknown[];
}

/** An RFC 9457 problem document. */
export const problemSchema = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number().int(),
  detail: z.string(),
  code: z.string(),
  params: z.record(z.string(), z.union([z.string(), z.number()])).optional(),
  errors: z.array(z.object({ pointer: z.string(), detail: z.string() })).optional(),
});
export type Problem = z.infer<typeof problemSchema>;
