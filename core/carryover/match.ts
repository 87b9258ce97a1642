import type { Pair } from './candidates.ts';
import { confidenceOf } from './confidence.ts';
import { isThin } from './thin-pairs.ts';
import type { MatchPage } from './match-page.ts';
import { furtherPairs } from './further-pairs.ts';
import { type ComparedPair, matchOneToOne } from './one-to-one.ts';
import { MatchMemory } from './match-memory.ts';
import type { PairSignals } from './pair-signals.ts';
import type { Reason } from './reasons.ts';

/** How a proposed pair stands among the others: one old page for one planned, a part of an old page, one of several. */
export type PairKind = 'one' | 'part' | 'one-of-several';

export interface ProposedPair {
  readonly old: string;
  readonly planned: string;
  readonly kind: PairKind;
  /** From 0 to 1: about so many of a hundred such pairs are right. */
  readonly confidence: number;
  readonly reasons: readonly Reason[];
}

/** What a person has decided already: nothing of it is proposed otherwise. */
export interface Decided {
  /** Which old page belongs to which planned one. Further pages may be proposed for these, never other ones. */
  readonly pairs: readonly (readonly [old: string, planned: string])[];
  /** Old pages that were let go. */
  readonly old: ReadonlySet<string>;
  /** Planned pages that are new. */
  readonly planned: ReadonlySet<string>;
  /** Whether the pair was said not to belong together. */
  readonly isDeclined: (old: string, planned: string) => boolean;
}
export const NOTHING_DECIDED: Decided = { pairs: [], old: new Set(), planned: new Set(), isDeclined: () => false };

/** Pairs of less confidence are mere guesses: nothing is proposed then. */
export const PROPOSE_FROM = 0.2;
/** What speaks for a pair is too thin for more than this, however far ahead of others it is: somebody has to look at it. */
const MOST_FOR_THIN = 0.8;

/**
 * Proposes which old page each planned page comes from. The pairs are the best set as a whole, not one by one; then
 * pages that are left over come to a page that has a partner already, where they are a part of it or the same once more.
 * With a `memory` of earlier matchings only what has changed since is worked out again; the pairs are the same.
 * Laws, tested: swapping the two sides swaps the pairs; the order of the lists makes no difference; what is decided stays.
 */
export function matchPages(
  oldPages: readonly MatchPage[],
  plannedPages: readonly MatchPage[],
  decided: Decided = NOTHING_DECIDED,
  memory = new MatchMemory(),
): ProposedPair[] {
  // Sorted, so that sums are made in the same order whatever the order of the lists.
  const { old, planned, weights } = memory.prepare(byKey(oldPages), byKey(plannedPages), decided);
  const settled = placesOf(old, planned, decided.pairs);
  const settledOld = new Set(settled.map(([a]) => a));
  const settledPlanned = new Set(settled.map(([, b]) => b));
  const { compared, chosen } = matchOneToOne(old, planned, weights, memory, {
    // Two pages that both have their partners are no matter any more.
    isOut: ([a, b]) => (settledOld.has(a) && settledPlanned.has(b)) || decided.isDeclined(old[a]!.key, planned[b]!.key),
    settled,
  });
  const confident = chosen
    .map((one) => {
      const confidence = confidenceOf(one.alike, one.lead);
      const isCapped = isThin(old[one.pair[0]]!, planned[one.pair[1]]!, one.signals, weights);
      return { ...one, confidence: isCapped ? Math.min(MOST_FOR_THIN, confidence) : confidence };
    })
    .filter(({ confidence }) => confidence >= PROPOSE_FROM);
  const partners = [...confident.map(({ pair }) => pair), ...settled];
  const proposed = (one: ComparedPair, kind: PairKind, confidence: number): ProposedPair => ({
    old: old[one.pair[0]]!.key,
    planned: planned[one.pair[1]]!.key,
    kind,
    confidence,
    reasons: reasonsOf(one.signals),
  });
  const further = (side: 0 | 1, kind: PairKind) =>
    furtherPairs(old, planned, compared, partners, side)
      .filter(({ confidence }) => confidence >= PROPOSE_FROM)
      .map((one) => proposed(one, kind, one.confidence));
  return [
    ...confident.map((one) => proposed(one, 'one', one.confidence)),
    ...further(1, 'part'),
    ...further(0, 'one-of-several'),
  ].sort((a, b) => b.confidence - a.confidence || (a.old + a.planned < b.old + b.planned ? -1 : 1));
}

function reasonsOf(signals: PairSignals): Reason[] {
  const strength: readonly (readonly [Reason, number])[] = [
    ['home', signals.home * 3],
    ['same-title', signals.sameTitle * 2],
    ['title', signals.sameTitle === 1 ? 0 : Math.max(signals.title, signals.slip)],
    ['address', signals.address * 0.9],
    ['text', signals.text * 1.6],
    ['heading', signals.sameTitle === 1 ? 0 : signals.heading * 0.8],
    ['section', signals.section * 0.5],
  ];
  return strength
    .filter(([, value]) => value > 0.3)
    .sort(([, a], [, b]) => b - a)
    .map(([reason]) => reason);
}

/** The places of pairs of keys in the two lists; pairs of which one is not there are passed over. */
function placesOf(
  old: readonly { readonly key: string }[],
  planned: readonly { readonly key: string }[],
  pairs: Decided['pairs'],
): Pair[] {
  const oldAt = new Map(old.map(({ key }, at) => [key, at]));
  const plannedAt = new Map(planned.map(({ key }, at) => [key, at]));
  return pairs.flatMap(([from, to]): Pair[] => {
    const [a, b] = [oldAt.get(from), plannedAt.get(to)];
    return a === undefined || b === undefined ? [] : [[a, b]];
  });
}

const byKey = (pages: readonly MatchPage[]): MatchPage[] =>
  [...pages].sort((a, b) => (a.key < b.key ? -1 : a.key > b.key ? 1 : 0));
