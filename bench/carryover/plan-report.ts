import { keptOrReworked } from '#core/carryover/kept-or-reworked.ts';
import { matchPages } from '#core/carryover/match.ts';
import { ACCEPT_FROM } from '#core/carryover/reasons.ts';
import { type PlanSet, developingPlans, unseenPlans } from './plan-set.ts';

/** How good the proposals for plans are; each a share from 0 to 1. */
export interface PlanQuality {
  readonly sets: string;
  readonly pairs: number;
  /** Of what can be accepted without a look, how much is right; and how many of all pairs it covers. */
  readonly sureRight: number;
  readonly sureCovers: number;
  readonly allRight: number;
  readonly allCover: number;
  /** Of the pairs of split pages, how many are proposed; and of what is proposed as a part, how much is one. */
  readonly splitFound: number;
  readonly partsRight: number;
  readonly gatherFound: number;
  readonly severalRight: number;
  /** Pages that go and pages that are new for which nothing is proposed. */
  readonly goneAlone: number;
  readonly newAlone: number;
  /** Of what is said to be kept or reworked, how much is; and of how many pages it is said. */
  readonly keptRight: number;
  readonly keptSaid: number;
}

class Share {
  #right = 0;
  #all = 0;
  add(isRight: boolean): void {
    this.#all += 1;
    if (isRight) this.#right += 1;
  }
  get value(): number {
    return this.#right / this.#all;
  }
  get right(): number {
    return this.#right;
  }
}

/** Matches the sets and compares what is proposed with what a person would say. */
export function planQuality(sets: string, of: readonly PlanSet[]): PlanQuality {
  const [sure, all, parts, several] = [new Share(), new Share(), new Share(), new Share()];
  const [split, gather, gone, fresh] = [new Share(), new Share(), new Share(), new Share()];
  const [kept, said] = [new Share(), new Share()];
  let pairs = 0;
  for (const set of of) {
    const truth = new Set(set.pairs.map((pair) => pair.join(' ')));
    const placed = new Set(set.pairs.map(([old]) => old));
    const proposed = matchPages(set.old, set.planned);
    const isProposed = new Set(proposed.map(({ old, planned }) => `${old} ${planned}`));
    pairs += truth.size;
    for (const { old, planned, kind, confidence } of proposed) {
      const isRight = truth.has(`${old} ${planned}`);
      all.add(isRight);
      if (confidence >= ACCEPT_FROM) sure.add(isRight);
      if (kind === 'part') parts.add(isRight && set.originOf.get(planned) === 'split');
      if (kind === 'one-of-several') several.add(isRight && set.originOf.get(planned) === 'gather');
    }
    for (const [old, planned] of set.pairs) {
      const origin = set.originOf.get(planned)!;
      if (origin === 'keep' || origin === 'rework') {
        const told = keptOrReworked(set.wordsOf.get(old)!, set.contentOf.get(planned)!.words);
        said.add(told !== null);
        if (told !== null) kept.add(told === origin);
      }
      if (origin === 'split') split.add(isProposed.has(`${old} ${planned}`));
      if (origin === 'gather') gather.add(isProposed.has(`${old} ${planned}`));
    }
    const [olds, planneds] = [new Set(proposed.map(({ old }) => old)), new Set(proposed.map(({ planned }) => planned))];
    for (const { key } of set.old) if (!placed.has(key)) gone.add(!olds.has(key));
    for (const [key, origin] of set.originOf) if (origin === 'new') fresh.add(!planneds.has(key));
  }
  return {
    sets,
    pairs,
    sureRight: sure.value,
    sureCovers: sure.right / pairs,
    allRight: all.value,
    allCover: all.right / pairs,
    splitFound: split.value,
    partsRight: parts.value,
    gatherFound: gather.value,
    severalRight: several.value,
    goneAlone: gone.value,
    newAlone: fresh.value,
    keptRight: kept.value,
    keptSaid: said.value,
  };
}

/** The quality on the plans for developing and on the unseen ones. */
export const plansQuality = (): PlanQuality[] => [
  planQuality('for developing', developingPlans()),
  planQuality('unseen', unseenPlans()),
];

if (process.argv[1]?.endsWith('plan-report.ts')) {
  console.log(planQuality('for developing', developingPlans()));
  if (process.argv.includes('--unseen')) console.log(planQuality('unseen', unseenPlans()));
}
