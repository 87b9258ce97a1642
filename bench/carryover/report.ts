import { matchPages } from '#core/carryover/match.ts';
import { ACCEPT_FROM } from '#core/carryover/reasons.ts';
import { type LabelledSet, developing, unseen } from './labelled-set.ts';

export interface Quality {
  readonly sets: string;
  readonly pairs: number;
  /** Of the pairs with enough confidence to be accepted, how many are right. */
  readonly precision: number;
  /** Of the right pairs, how many are proposed at all, and how many with enough confidence to be accepted. */
  readonly recall: number;
  readonly acceptedRecall: number;
  readonly allPrecision: number;
}

/** How good the matching is on labelled sets, taken together. */
export function qualityOf(name: string, sets: readonly LabelledSet[], withTexts = true): Quality {
  let pairs = 0;
  let proposed = 0;
  let right = 0;
  let accepted = 0;
  let acceptedRight = 0;
  for (const set of sets) {
    const strip = (pages: LabelledSet['old']) =>
      withTexts ? pages : pages.map((page) => ({ ...page, text: '', headings: [] }));
    const truth = new Set(set.pairs.map((pair) => pair.join(' ')));
    pairs += truth.size;
    for (const { old, planned, confidence } of matchPages(strip(set.old), strip(set.planned))) {
      const isRight = truth.has(`${old} ${planned}`);
      proposed++;
      if (isRight) right++;
      if (confidence < ACCEPT_FROM) continue;
      accepted++;
      if (isRight) acceptedRight++;
    }
  }
  return {
    sets: name,
    pairs,
    precision: acceptedRight / accepted,
    recall: right / pairs,
    acceptedRecall: acceptedRight / pairs,
    allPrecision: right / proposed,
  };
}

/** The quality on the sets for developing and on the unseen ones, as whole and with titles and addresses alone. */
export const matchingQuality = (): Quality[] => [
  qualityOf('for developing', developing()),
  qualityOf('for developing, titles and addresses alone', developing(), false),
  qualityOf('unseen', unseen()),
  qualityOf('unseen, titles and addresses alone', unseen(), false),
];

if (process.argv[1]?.endsWith('report.ts'))
  for (const one of process.argv.includes('--unseen') ? matchingQuality() : matchingQuality().slice(0, 2))
    console.log(one);
