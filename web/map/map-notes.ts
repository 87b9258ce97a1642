import type { Derived } from '#core/derive/derived.ts';
import { hasGate } from '#core/derive/audience-signs.ts';
import type { MapNote } from '#core/drawing/map-nodes.ts';
import { openQuestions, planOf } from '#core/model/plan.ts';
import { passingOf } from '../tree/access-of.ts';
import { VERDICT_WORDS } from '../tree/feedback-words.tsx';
import { ORIGIN_WORDS, READINESS_WORDS, dayWords } from '../tree/plan-words.tsx';
import type { GuestWork, Said, Workbench } from '../workbench/workbench-context.tsx';

/** What the map tells of a plan besides what is planned. */
export interface MapFeedback {
  readonly feedback: Said | null;
  readonly guest: GuestWork | null;
}

/** What the map's notes are made of. */
type Noted = MapFeedback & Pick<Workbench, 'lens' | 'site' | 'derived' | 'moment'>;

/** What the lens says of each node of the map, below its title; undefined where it says nothing. */
export function notesOf(noted: Noted): ((row: number) => MapNote | null) | undefined {
  const { lens, site, derived, moment } = noted;
  if (lens === 'plan') return (row) => planNote(derived.outline, row, noted);
  if (lens !== 'access') return undefined;
  const passes = passingOf(site, moment);
  return (row) => {
    const who = hasGate(site, derived.outline.nodes[row]!) ? passes(row) : null;
    return who && { origin: null, words: who.map(({ name }) => name).join(', ') };
  };
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
