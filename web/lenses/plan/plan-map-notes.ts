import type { Derived } from '#core/derive/derived.ts';
import type { MapNote } from '#core/drawing/map-nodes.ts';
import { openQuestions, planOf } from '#core/model/plan.ts';
import { VERDICT_WORDS } from '../../tree/feedback-words.tsx';
import { ORIGIN_WORDS, READINESS_WORDS, dayWords } from '../../tree/plan-words.tsx';
import type { Noted } from '../lens-definition.ts';

/** What is planned for a page, and what others say of it. */
export const planNotes =
  (noted: Noted) =>
  (row: number): MapNote | null =>
    planNote(noted.derived.outline, row, noted);

/** What guests say; origin, readiness, importance, owner, due day, notes and open questions, as far as they are said. */
function planNote(
  { nodes }: Derived['outline'],
  row: number,
  { feedback, guest }: Pick<Noted, 'feedback' | 'guest'>,
): MapNote | null {
  const node = nodes[row]!;
  const mine = guest?.verdicts[row] ?? null;
  const toSettle = feedback?.totals.open[row] ?? 0;
  const plan = planOf(node);
  const questions = openQuestions(plan);
  const words = [
    mine !== null && `you: ${VERDICT_WORDS[mine].toLowerCase()}`,
    toSettle > 0 && `${toSettle} to settle`,
    plan.origin !== null && ORIGIN_WORDS[plan.origin],
    plan.readiness !== 'not-started' && READINESS_WORDS[plan.readiness].toLowerCase(),
    plan.importance !== null && `importance ${plan.importance}`,
    plan.owner,
    plan.due !== null && dayWords(plan.due),
    plan.notes !== null && 'notes',
    questions > 0 && (questions === 1 ? '1 question' : `${questions} questions`),
  ].filter(Boolean);
  return words.length === 0 ? null : { origin: plan.origin, words: words.join(' · ') };
}
