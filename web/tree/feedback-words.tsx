import { Check, CircleHelp, PencilLine } from 'lucide-react';
import type { Standing } from '#core/derive/feedback-totals.ts';
import type { CommentKind, Verdict } from '#core/model/feedback.ts';

/** The words for what people say of a plan. */
export const VERDICT_WORDS: Readonly<Record<Verdict, string>> = {
  agreed: 'Agreed',
  change: 'Change',
  unsure: 'Unsure',
};
export const VERDICT_MEANING: Readonly<Record<Verdict, string>> = {
  agreed: 'This page is right as it is planned.',
  change: 'Something about it should be different.',
  unsure: 'You cannot say, or have a question first.',
};
export const STANDING_WORDS: Readonly<Record<Standing, string>> = {
  agreed: 'agreed',
  settled: 'settled',
  open: 'to settle',
  unseen: 'not looked at',
};
/** The same where one of them is chosen. */
export const STANDING_FILTER_WORDS: Readonly<Record<Standing, string>> = {
  agreed: 'Agreed',
  settled: 'Settled',
  open: 'To settle',
  unseen: 'Not looked at',
};
/** What somebody did who said something: "Ulla Storm asked on 3 May". */
export const SAID_WORDS: Readonly<Record<CommentKind, string>> = {
  comment: 'wrote',
  question: 'asked',
  proposal: 'proposed this',
};
const SIGNS = { agreed: Check, change: PencilLine, unsure: CircleHelp };

/** A verdict as a sign; its word stands beside it. */
export function VerdictSign({ verdict, size = 14 }: { readonly verdict: Verdict; readonly size?: number }) {
  const Sign = SIGNS[verdict];
  return <Sign size={size} aria-hidden className="shrink-0" />;
}
