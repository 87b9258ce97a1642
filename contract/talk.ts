import { z } from 'zod';
import { pageIdSchema } from '#core/model/ids.ts';
import { CONCERN_KINDS, MAIL_WISHES, aboutSchema, commentTextSchema } from '#core/talk/thread.ts';

const moment = z.iso.datetime();

/** One comment of a thread. */
export const threadCommentSchema = z.object({
  id: z.uuid(),
  by: z.string(),
  /** Whether it is the caller's own, who may change it and take it back. */
  isOwn: z.boolean(),
  text: z.string(),
  at: moment,
  editedAt: moment.nullable(),
});
export type ThreadComment = z.infer<typeof threadCommentSchema>;

/** Comments of colleagues on one thing: the first one, and the answers to it. */
export const threadSchema = z.object({
  id: z.uuid(),
  page: pageIdSchema,
  about: aboutSchema,
  comments: z.array(threadCommentSchema).min(1),
  /** To whom it was handed over, and by whom, by their names. */
  handed: z.array(z.object({ to: z.string(), by: z.string() })),
  settledBy: z.string().nullable(),
  settledAt: moment.nullable(),
});
export type Thread = z.infer<typeof threadSchema>;

export const threadsAnswer = z.object({
  threads: z.array(threadSchema),
  /** How many are settled on which page: these are asked for page by page. */
  settled: z.array(z.object({ page: pageIdSchema, count: z.number().int() })),
});
export type ThreadsAnswer = z.infer<typeof threadsAnswer>;
export const threadAnswer = z.object({ thread: threadSchema });

/** The sender makes the id: a request that is sent again says nothing twice. */
export const startThreadBody = z.strictObject({
  id: z.uuid(),
  about: aboutSchema.default(null),
  text: commentTextSchema,
});
export const answerThreadBody = z.strictObject({ id: z.uuid(), text: commentTextSchema });
export const changeCommentBody = z.strictObject({ text: commentTextSchema });
export const settleThreadBody = z.strictObject({ isSettled: z.boolean() });
/** Whose conversations go to whom. */
export const handOverBody = z.strictObject({ to: z.uuid() });
export const handOverAnswer = z.object({
  handedOver: z.number().int(),
  /** How many stay, as whoever they would go to may not read their pages. */
  left: z.number().int(),
});
export const followBody = z.strictObject({ isFollowing: z.boolean() });

/** Something that was said and concerns the caller. */
const saidConcern = z.object({
  id: z.uuid(),
  kind: z.enum(CONCERN_KINDS),
  page: pageIdSchema,
  thread: z.uuid().nullable(),
  proposal: z.uuid().nullable(),
  by: z.string(),
  words: z.string(),
  at: moment,
  isRead: z.boolean(),
});
export type SaidConcern = z.infer<typeof saidConcern>;

/** What others have lately changed of one page that is the caller's, or that they follow. */
const editConcern = z.object({
  page: pageIdSchema,
  by: z.array(z.string()),
  /** The latest edit, and how many there were. */
  words: z.string(),
  count: z.number().int(),
  at: moment,
  isRead: z.boolean(),
});
export type EditConcern = z.infer<typeof editConcern>;

export const concernsAnswer = z.object({
  /** Up to when it was looked: what comes later is not read with it. */
  asOf: moment,
  said: z.array(saidConcern),
  edits: z.array(editConcern),
  /** What else was read, under the names that the browser gives it. */
  read: z.array(z.string()),
  follows: z.array(pageIdSchema),
  mails: z.enum(MAIL_WISHES),
});
export type ConcernsAnswer = z.infer<typeof concernsAnswer>;

/** What of the tree can be read: a day that is due, or a finding. */
export const readNameSchema = z.string().regex(/^(due|finding) [0-9A-Za-z]{1,24} [0-9a-z -]{1,60}$/);
export const readConcernsBody = z.strictObject({
  asOf: moment,
  isRead: z.boolean(),
  said: z.array(z.uuid()).max(1000).default([]),
  edits: z.array(pageIdSchema).max(1000).default([]),
  others: z.array(readNameSchema).max(1000).default([]),
});
export const mailsBody = z.strictObject({ mails: z.enum(MAIL_WISHES) });
