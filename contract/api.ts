import { z } from 'zod';
import { contentIdSchema, languageSchema, pageIdSchema, siteKeySchema } from '#core/model/ids.ts';
import type { TextDocument } from '#core/model/content.ts';
import { editSchema } from '#core/operations/operation.ts';

/** The roles of accounts, as sets of permissions. */
export const PERMISSIONS = ['site.read', 'site.edit', 'site.publish', 'sites.make'] as const;
export type Permission = (typeof PERMISSIONS)[number];
export const ROLES = {
  manager: ['site.read', 'site.edit', 'site.publish', 'sites.make'],
  reader: ['site.read'],
} as const satisfies Record<string, readonly Permission[]>;
export type Role = keyof typeof ROLES;

const moment = z.iso.datetime();

export const accountSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  email: z.string(),
  role: z.enum(['manager', 'reader']),
});
export type Account = z.infer<typeof accountSchema>;

export const sessionAnswer = z.object({ account: accountSchema.nullable(), liveOrigin: z.string() });
export type SessionAnswer = z.infer<typeof sessionAnswer>;
export const signInBody = z.strictObject({
  email: z.string().trim().min(1, 'Type your mail address.').max(200),
  password: z.string().min(1, 'Type your password.').max(200),
});
export const firstAccountBody = z.strictObject({
  token: z.string().min(1).max(100),
  name: z.string().trim().min(1, 'Type your name.').max(100),
  email: z.email('Type a mail address, such as you@school.example.').max(200),
  password: z.string().min(10, 'Use at least 10 characters.').max(200),
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
export const makeSiteBody = z.strictObject({
  key: siteKeySchema,
  name: z.string().trim().min(1, 'Type a name.').max(120, 'At most 120 characters.'),
  language: languageSchema.default('en'),
});

/** A document of the editor; what it may hold is checked against the editor's schema. */
const documentSchema = z.looseObject({ type: z.literal('doc') }) as unknown as z.ZodType<TextDocument>;
/** At most so many operations in one request. */
export const MOST_OPERATIONS = 5000;
export const operationsBody = z.strictObject({
  /** The revision that the change is meant for. Where it is left out the operations are taken at any revision. */
  revision: z.number().int().nonnegative().optional(),
  /** Made by the sender; the same request sent again is answered as the first time and not applied twice. */
  request: z
    .string()
    .regex(/^[0-9A-Za-z_-]{8,40}$/)
    .optional(),
  operations: z.array(editSchema).min(1).max(MOST_OPERATIONS),
  /** Texts that the operations refer to. */
  contents: z
    .array(z.strictObject({ id: contentIdSchema, document: documentSchema }))
    .max(100)
    .optional(),
});
export type OperationsBody = z.infer<typeof operationsBody>;
export const operationsAnswer = z.object({
  revision: z.number().int(),
  applied: z.array(editSchema),
  inverse: z.array(editSchema),
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
  request: z
    .string()
    .regex(/^[0-9A-Za-z_-]{8,40}$/)
    .optional(),
});
export const undoAnswer = z.object({ revision: z.number().int(), words: z.string() });

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
  below: z.number().int(),
  at: moment.nullable(),
  by: z.string().nullable(),
});
export const removedAnswer = z.object({ branches: z.array(removedBranch) });
export type RemovedBranch = z.infer<typeof removedBranch>;

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
  mainMenu: z.object({ number: z.string().nullable(), because: z.string() }),
  state: z.enum(['draft', 'live', 'edited', 'retired']),
  differences: z.array(z.string()),
  liveAddress: z.string().nullable(),
});

const pageList = z.array(pageIdSchema).max(200_000);
export const releaseBody = z.strictObject({
  pages: z.union([z.literal('all'), pageList]),
  retire: pageList.default([]),
  request: z
    .string()
    .regex(/^[0-9A-Za-z_-]{8,40}$/)
    .optional(),
});
export const releasePlanAnswer = z.object({
  revision: z.number().int(),
  pages: z.array(pageIdSchema),
  retire: z.array(pageIdSchema),
  along: z.array(z.object({ page: pageIdSchema, because: z.enum(['above', 'address', 'below']), of: pageIdSchema })),
  addresses: z.array(z.object({ page: pageIdSchema, before: z.string().nullable(), after: z.string().nullable() })),
});
export const releaseAnswer = z.object({
  number: z.number().int(),
  revision: z.number().int(),
  pages: z.number().int(),
  retired: z.number().int(),
});
export const releasesAnswer = z.object({
  releases: z.array(releaseAnswer.extend({ at: moment, by: z.string() })),
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
