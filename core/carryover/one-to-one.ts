import { bestAssignment } from './assign.ts';
import { type Pair, candidatePairs } from './candidates.ts';
import { likeness } from './confidence.ts';
import type { MatchMemory } from './match-memory.ts';
import type { PairSignals, WordWeights } from './pair-signals.ts';
import { tieBreak } from './tie-break.ts';
import { Neighbours } from './neighbours.ts';
import type { PreparedPage } from './prepare-pages.ts';

export interface ComparedPair {
  readonly pair: Pair;
  readonly signals: PairSignals;
  readonly alike: number;
}

export interface OneToOne {
  readonly compared: readonly ComparedPair[];
  /** The best assignment of old pages to planned ones, each with how far ahead of its nearest rival it is. */
  readonly chosen: readonly (ComparedPair & { readonly lead: number })[];
}

/** Pairs that are less alike than this (in logarithms of odds) are not proposed. */
export const MIN_LIKENESS = -4.6;

/** What is settled before the matching. */
export interface Bounds {
  /** Pairs that are out of the question. */
  readonly isOut: (pair: Pair) => boolean;
  /** Pairs that are made already. */
  readonly settled: readonly Pair[];
}
const NO_BOUNDS: Bounds = { isOut: () => false, settled: [] };

/** How much more alike two pages are that stand in groups that became each other. */
const NEIGHBOURS_COUNT = 2.2;
/** A home page hardly ever becomes another page, nor another page the home page. */
const HOME_AND_OTHER = 3;
/** A further version of a page gives way to the page itself. */
const VERSION_COUNTS = 0.4;
/** Pairs that are less alike than this are a guess. */
const GUESS = -2;
/** So far ahead of its rivals a pair is known well enough to speak for its neighbours. */
const KNOWN_LEAD = 1.5;

/**
 * Compares all pairs that are worth it, and takes the best set of pairs in which each page stands once. It does so twice:
 * the second time what is known of the neighbours counts too.
 */
export function matchOneToOne(
  old: readonly PreparedPage[],
  planned: readonly PreparedPage[],
  weights: WordWeights,
  memory: MatchMemory,
  { isOut, settled }: Bounds = NO_BOUNDS,
): OneToOne {
  const compareAll = (pairs: readonly Pair[]): ComparedPair[] =>
    pairs
      .filter((pair) => !isOut(pair))
      .map((pair) => {
        const signals = memory.compare(old[pair[0]]!, planned[pair[1]]!);
        const isVersion = old[pair[0]]!.isVersion !== planned[pair[1]]!.isVersion;
        const isMixed = old[pair[0]]!.isHome !== planned[pair[1]]!.isHome;
        const against = (isVersion ? VERSION_COUNTS : 0) + (isMixed ? HOME_AND_OTHER : 0);
        return { pair, signals, alike: likeness(signals) - against };
      });
  const first = compareAll(candidatePairs(old, planned, weights));
  const settledOld = new Set(settled.map(([a]) => a));
  const settledPlanned = new Set(settled.map(([, b]) => b));
  const isFree = ({ pair }: ComparedPair) => !settledOld.has(pair[0]) && !settledPlanned.has(pair[1]);
  const before = assigned(old, planned, first.filter(isFree));
  const neighbours = new Neighbours(old, planned, [
    ...settled,
    ...before.filter(({ lead }) => lead > KNOWN_LEAD).map(({ pair }) => pair),
  ]);
  const codeOf = ([a, b]: Pair) => a * planned.length + b;
  const seen = new Set(first.map(({ pair }) => codeOf(pair)));
  // Pages whose pair is a mere guess look for a better one among their neighbours too.
  const sure = before.filter(({ alike }) => alike > GUESS);
  const left = neighbours.leftOver(
    new Set([...settledOld, ...sure.map(({ pair }) => pair[0])]),
    new Set([...settledPlanned, ...sure.map(({ pair }) => pair[1])]),
  );
  // A page may stand in two groups: each pair is compared once.
  const further = [...new Map(left.map((pair) => [codeOf(pair), pair]))].filter(([code]) => !seen.has(code));
  const compared = [...first, ...compareAll(further.map(([, pair]) => pair))].map((one) => ({
    ...one,
    alike: one.alike + NEIGHBOURS_COUNT * neighbours.share(one.pair),
  }));
  const free = compared.filter(isFree);
  const all = assigned(old, planned, free);
  // What is far more like a page that has a better partner follows that page, and leaves its own place to others.
  const followers = followersOf(free, all);
  const others = free.filter(({ pair }) => !followers.old.has(pair[0]) && !followers.planned.has(pair[1]));
  const isNone = followers.old.size + followers.planned.size === 0;
  return { compared, chosen: isNone ? all : assigned(old, planned, others) };
}

/** So much more alike a page has to be to one that has a partner than to its own, to follow that one. */
const FOLLOWS_BY = 3;
/** A page may follow one whose own pair is this much less alike: then it is one of two of much the same kind. */
const NEARLY = 1;

/** The pages whose chosen pair is far behind what they are like to a page that has a better partner. */
function followersOf(
  compared: readonly ComparedPair[],
  chosen: OneToOne['chosen'],
): { old: ReadonlySet<number>; planned: ReadonlySet<number> } {
  const ofOld = new Map(chosen.map((one) => [one.pair[0], one.alike]));
  const ofPlanned = new Map(chosen.map((one) => [one.pair[1], one.alike]));
  const old = new Set<number>();
  const planned = new Set<number>();
  for (const { pair, alike } of compared) {
    const [left, right] = [ofOld.get(pair[0]), ofPlanned.get(pair[1])];
    if (left === undefined || right === undefined) continue;
    if (alike > left + FOLLOWS_BY && right >= alike - NEARLY) old.add(pair[0]);
    if (alike > right + FOLLOWS_BY && left >= alike - NEARLY) planned.add(pair[1]);
  }
  return { old, planned };
}

/** The best set of pairs, each with its lead. */
function assigned(
  old: readonly PreparedPage[],
  planned: readonly PreparedPage[],
  all: readonly ComparedPair[],
): OneToOne['chosen'] {
  const compared = all.filter(({ alike }) => alike > MIN_LIKENESS);
  const edges = compared.map(({ pair, alike }) => ({
    pair,
    // Where two pairs are as good as each other the keys decide, so that the order of the lists does not.
    weight: alike - MIN_LIKENESS + tieBreak(old[pair[0]]!.key, planned[pair[1]]!.key),
  }));
  const chosen = bestAssignment(edges, old.length, planned.length).map((at) => compared[at]!);
  const bestOfOld = new Map(chosen.map((one) => [one.pair[0], one]));
  const bestOfPlanned = new Map(chosen.map((one) => [one.pair[1], one]));
  const rivals = new Map<ComparedPair, number>(chosen.map((one) => [one, MIN_LIKENESS]));
  for (const one of compared) {
    const ofOld = bestOfOld.get(one.pair[0]);
    const ofPlanned = bestOfPlanned.get(one.pair[1]);
    if (ofOld === one) continue;
    // A rival that has a better place of its own is none.
    if (ofOld && one.alike >= (ofPlanned?.alike ?? -Infinity))
      rivals.set(ofOld, Math.max(rivals.get(ofOld)!, one.alike));
    if (ofPlanned && one.alike >= (ofOld?.alike ?? -Infinity))
      rivals.set(ofPlanned, Math.max(rivals.get(ofPlanned)!, one.alike));
  }
  return chosen.map((one) => ({ ...one, lead: one.alike - rivals.get(one)! }));
}
