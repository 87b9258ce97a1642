import { z } from 'zod';
import { ASPECTS } from '#core/model/node.ts';
import { contentIdSchema, pageIdSchema } from '#core/model/ids.ts';
import { MAX_COMMENT_LENGTH } from '#core/model/feedback.ts';
import { MAX_APPROVERS, decidedBySchema } from '#core/approval/rule.ts';

const moment = z.iso.datetime();
const words = z.string().trim().max(MAX_COMMENT_LENGTH, `At most ${MAX_COMMENT_LENGTH} characters.`);
/** A proposal has at most so many pages. */
export const MAX_PROPOSED = 500;

export const approvalRuleSchema = z.strictObject({
  /** The branch; null for the whole site. */
  page: pageIdSchema.nullable(),
  by: decidedBySchema,
  count: z.number().int().min(1, 'At least one.').max(MAX_APPROVERS, `At most ${MAX_APPROVERS}.`),
});
export type ApprovalRuleAnswer = z.infer<typeof approvalRuleSchema>;

export const PROPOSAL_STATES = ['open', 'returned', 'withdrawn', 'live'] as const;
const prints = z.record(pageIdSchema, z.string().max(40));
export const decisionSchema = z.object({
  id: z.uuid(),
  /** Null where the account is gone. */
  account: z.uuid().nullable(),
  by: z.string(),
  at: moment,
  kind: z.enum(['approved', 'returned']),
  words: z.string(),
  /** What each page was that they decide about; of an approval these count as long as the page stays so. */
  prints,
});
export type Decision = z.infer<typeof decisionSchema>;

export const proposalSchema = z.object({
  id: z.uuid(),
  account: z.uuid().nullable(),
  by: z.string(),
  isOwn: z.boolean(),
  at: moment,
  note: z.string(),
  pages: z.array(pageIdSchema),
  state: z.enum(PROPOSAL_STATES),
  closedAt: moment.nullable(),
  decisions: z.array(decisionSchema),
  /** The pages about which the caller decides. */
  toDecide: z.array(pageIdSchema),
});
export type Proposal = z.infer<typeof proposalSchema>;

export const approvalAnswer = z.object({
  rules: z.array(approvalRuleSchema),
  /** Those that are open, and the latest 50 that are closed; newest first. */
  proposals: z.array(proposalSchema),
});
export type ApprovalAnswer = z.infer<typeof approvalAnswer>;

export const proposeBody = z.strictObject({
  /** Made by the sender: a request that is sent again proposes nothing twice. */
  id: z.uuid(),
  pages: z.array(pageIdSchema).min(1, 'Choose at least one page.').max(MAX_PROPOSED, `At most ${MAX_PROPOSED} pages.`),
  note: words.default(''),
});
export const decideBody = z
  .strictObject({
    id: z.uuid(),
    kind: z.enum(['approved', 'returned']),
    words: words.default(''),
    /** What the pages were that the caller has looked at. */
    prints,
  })
  .refine(({ kind, words: said }) => kind === 'approved' || said !== '', {
    path: ['words'],
    message: 'Say what is to be different.',
  });
export const removeRuleBody = z.strictObject({ page: pageIdSchema.nullable() });

/** What was changed on pages of a proposal since they were last approved. */
export const changedSinceAnswer = z.object({
  pages: z.array(
    z.object({
      page: pageIdSchema,
      differs: z.array(z.enum(ASPECTS as [string, ...string[]])),
      textBefore: contentIdSchema.nullable(),
      textNow: contentIdSchema.nullable(),
      /** Who had approved it, and when. */
      approvedBy: z.string(),
      at: moment,
    }),
  ),
});
export type ChangedSince = z.infer<typeof changedSinceAnswer>;
