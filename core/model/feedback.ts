import type { PageId } from './ids.ts';

/** What somebody whom a plan was shared with says of a page: it is right, it should be otherwise, or they cannot tell. */
export const VERDICTS = ['agreed', 'change', 'unsure'] as const;
export type Verdict = (typeof VERDICTS)[number];

export const COMMENT_KINDS = ['comment', 'question'] as const;
export type CommentKind = (typeof COMMENT_KINDS)[number];

export const MAX_COMMENT_LENGTH = 4000;
export const MAX_GUEST_NAME_LENGTH = 80;

/** What people have said of the pages of a plan, as far as counting needs it. */
export interface Feedback {
  readonly verdicts: readonly { readonly page: PageId; readonly verdict: Verdict; readonly isSettled: boolean }[];
  readonly comments: readonly { readonly page: PageId; readonly isSettled: boolean }[];
}
