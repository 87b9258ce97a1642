import { openQuestions } from '#core/model/plan.ts';
import type { Waiting, WaitingFacts } from '../lens-definition.ts';
import { inWords } from '../waiting-words.ts';

/** Open questions, and what was said of the plan and is not settled. */
export function planWaiting({ derived, toSettle }: WaitingFacts): Waiting {
  let questions = 0;
  for (const { plan } of derived.outline.nodes) if (plan !== null) questions += openQuestions(plan);
  return {
    count: questions + toSettle,
    words: inWords(
      (questions > 0 || toSettle === 0) && (questions === 1 ? '1 open question' : `${questions} open questions`),
      toSettle > 0 && `${toSettle} comments to settle`,
    ),
  };
}
