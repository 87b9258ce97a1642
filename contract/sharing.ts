import { z } from 'zod';
import { fileIdSchema } from '#core/files/file.ts';
import { pageIdSchema } from '#core/model/ids.ts';
import { HEADER_STYLES } from '#core/model/layout.ts';
import { sketchIdSchema } from '#core/model/plan.ts';
import { variantIdSchema } from '#core/model/sketch.ts';
import {
  COMMENT_KINDS,
  MAX_COMMENT_LENGTH,
  MAX_GUEST_NAME_LENGTH,
  VERDICTS,
  aboutBoardSchema,
  aboutSketchSchema,
  proposesSchema,
} from '#core/model/feedback.ts';
import { requestId } from './api.ts';

const moment = z.iso.datetime();
const mailAddress = z.email('Type a mail address, such as you@school.example.').max(200);
const letter = z.string().trim().max(MAX_COMMENT_LENGTH, `At most ${MAX_COMMENT_LENGTH} characters.`);
const addresses = z.array(mailAddress).max(50, 'At most 50 addresses at a time.');

/** A link works at most so long. */
export const MAX_SHARE_DAYS = 366;

/** A link by which people without an account see the plan of a site. */
export const shareAnswer = z.object({
  id: z.uuid(),
  /** For whom, in the manager's words. */
  name: z.string(),
  /** Where it leads: a path on the workbench's own origin. */
  path: z.string(),
  hasPassphrase: z.boolean(),
  madeBy: z.string(),
  madeAt: moment,
  expiresAt: moment,
  /** `over`: its time has run out. A link that was withdrawn never works again. */
  state: z.enum(['open', 'over', 'withdrawn']),
  lastOpenedAt: moment.nullable(),
  /** How many people have said something, and how much. */
  guests: z.number().int(),
  verdicts: z.number().int(),
  comments: z.number().int(),
});
export type ShareAnswer = z.infer<typeof shareAnswer>;
export const sharesAnswer = z.object({ shares: z.array(shareAnswer) });

export const makeShareBody = z.strictObject({
  name: z.string().trim().min(1, 'Say who it is for.').max(MAX_GUEST_NAME_LENGTH),
  /** How many days it works. */
  days: z.number().int().min(1, 'At least one day.').max(MAX_SHARE_DAYS, `At most ${MAX_SHARE_DAYS} days.`),
  passphrase: z.string().min(6, 'Use at least 6 characters.').max(200).optional(),
  /** Who is invited by mail. */
  invite: addresses.default([]),
  /** What the invitation says besides the link. */
  letter: letter.default(''),
});
export const inviteBody = z.strictObject({
  invite: addresses.min(1, 'Type a mail address.'),
  letter: letter.default(''),
});

export const verdictSchema = z.enum(VERDICTS);
const verdictAnswer = z.object({
  share: z.uuid(),
  guest: z.uuid(),
  page: pageIdSchema,
  verdict: verdictSchema,
  by: z.string(),
  at: moment,
  /** Who settled it, or null while it waits. */
  settledBy: z.string().nullable(),
});
const commentAnswer = z.object({
  id: z.uuid(),
  share: z.uuid(),
  guest: z.uuid(),
  /** Null for what is said of a board. */
  page: pageIdSchema.nullable(),
  kind: z.enum(COMMENT_KINDS),
  /** For a proposal why it is made, which may be empty. */
  text: z.string(),
  /** What a proposal proposes; null for what is none. */
  proposes: proposesSchema.nullable(),
  /** What of the page's sketch it is about, or the board; null for the page as a whole. */
  about: z.union([aboutSketchSchema, aboutBoardSchema]).nullable(),
  /** Whether the page was made what is proposed. */
  isAccepted: z.boolean(),
  by: z.string(),
  at: moment,
  /** What a manager answers, and who; empty and null while there is no answer. */
  answer: z.string(),
  answeredBy: z.string().nullable(),
  settledBy: z.string().nullable(),
});
export type VerdictAnswer = z.infer<typeof verdictAnswer>;
export type CommentAnswer = z.infer<typeof commentAnswer>;

/** Which variant of a sketch somebody would take. */
const choiceAnswer = z.object({
  share: z.uuid(),
  guest: z.uuid(),
  sketch: sketchIdSchema,
  variant: variantIdSchema,
  by: z.string(),
  at: moment,
});
export type ChoiceAnswer = z.infer<typeof choiceAnswer>;

/** What was said by all links of a site, or by one. */
export const feedbackAnswer = z.object({
  verdicts: z.array(verdictAnswer),
  comments: z.array(commentAnswer),
  choices: z.array(choiceAnswer),
});
export type FeedbackAnswer = z.infer<typeof feedbackAnswer>;

/** Settles all that waits on these pages, or opens it again. */
export const settleBody = z.strictObject({ pages: z.array(pageIdSchema).min(1).max(5000), isSettled: z.boolean() });
/** A request that is sent again with the same `request` accepts once. */
export const acceptProposalBody = z.strictObject({ request: requestId.optional() });
export const answerCommentBody = z.strictObject({ answer: letter, isSettled: z.boolean() });

/** What a link leads to. */
export const sharedPlanAnswer = z.object({
  site: z.string(),
  /** Whom the link is for, who made it, and until when it works. */
  name: z.string(),
  madeBy: z.string(),
  expiresAt: moment,
  revision: z.number().int(),
  /** Under which name this browser comments, or null before one was given. */
  guest: z.object({ id: z.uuid(), name: z.string() }).nullable(),
  feedback: feedbackAnswer,
});
export type SharedPlanAnswer = z.infer<typeof sharedPlanAnswer>;
/** What stands around the content of a page, for drawing its sketch. */
export const surroundAnswer = z.object({
  siteName: z.string(),
  title: z.string(),
  trail: z.array(z.string()),
  header: z.enum(HEADER_STYLES),
  menus: z.object({
    utility: z.array(z.string()),
    header: z.array(z.string()),
    side: z.array(z.string()),
    footer: z.array(z.string()),
  }),
  hasFooter: z.boolean(),
  facts: z.array(z.string()),
});
/** What the pictures on boards show, for those who do not see them; those that the library has no more are left out. */
export const boardPicturesAnswer = z.object({
  pictures: z.array(z.object({ file: fileIdSchema, content: z.string(), words: z.string() })),
});
export const passphraseBody = z.strictObject({ passphrase: z.string().min(1, 'Type the passphrase.').max(200) });
export const guestBody = z.strictObject({
  name: z.string().trim().min(1, 'Type your name.').max(MAX_GUEST_NAME_LENGTH),
  /** Where answers are sent to, if they are wanted by mail. */
  email: mailAddress.or(z.literal('')).default(''),
});
/** `null` takes the verdict back. */
export const giveVerdictBody = z.strictObject({ verdict: verdictSchema.nullable() });
/** `null` takes the choice back. */
export const chooseVariantBody = z.strictObject({ variant: variantIdSchema.nullable() });
export const addCommentBody = z.discriminatedUnion('kind', [
  z.strictObject({
    /** Null for what is said of a board. */
    page: pageIdSchema.nullable(),
    kind: z.enum(['comment', 'question']),
    text: letter.min(1, 'Type what you want to say.'),
    about: z.union([aboutSketchSchema, aboutBoardSchema]).nullable().default(null),
  }),
  z.strictObject({
    page: pageIdSchema,
    kind: z.literal('proposal'),
    /** Why. */
    text: letter.default(''),
    proposes: proposesSchema,
  }),
]);

/** A mail that Spur has sent: it stands in the outbox, the stand-in for a mail server. */
export const mailAnswer = z.object({
  id: z.uuid(),
  to: z.string(),
  subject: z.string(),
  text: z.string(),
  at: moment,
});
export type MailAnswer = z.infer<typeof mailAnswer>;
export const outboxAnswer = z.object({ mails: z.array(mailAnswer) });
