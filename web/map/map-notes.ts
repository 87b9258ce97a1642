import type { Derived } from '#core/derive/derived.ts';
import type { MapNote } from '#core/drawing/map-nodes.ts';
import { openQuestions, planOf } from '#core/model/plan.ts';
import { VERDICT_WORDS } from '../tree/feedback-words.tsx';
import { ORIGIN_WORDS, READINESS_WORDS, dayWords } from '../tree/plan-words.tsx';
import type { Lens } from '../workbench/lenses.ts';
import type { GuestWork, Said } from '../workbench/workbench-context.tsx';

/** What the map tells of a plan besides what is planned. */
export interface MapFeedback {
  readonly feedback: Said | null;
  readonly guest: GuestWork | null;
}

/** What the lens says of each node of the map, below its title; undefined where it says nothing. */
export function notesOf(
  lens: Lens,
  { outline }: Derived,
  said: MapFeedback,
): ((row: number) => MapNote | null) | undefined {
  return lens === 'plan' ? (row) => planNote(outline, row, said) : undefined;
}

/** What guests say; origin, readiness, owner, due day and open questions, as far as they are said. */
function planNote({ nodes }: Derived['outline'], row: number, { feedback, guest }: MapFeedback): MapNote | null {
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
    plan.owner,
    plan.due !== null && dayWords(plan.due),
    questions > 0 && (questions === 1 ? '1 question' : `${questions} questions`),
  ].filter(Boolean);
  return words.length === 0 ? null : { origin: plan.origin, words: words.join(' · ') };
}
