import { MatchMemory } from '#core/carryover/match-memory.ts';
import { NOTHING_DECIDED, matchPages } from '#core/carryover/match.ts';
import { wordsOf } from '#core/carryover/words.ts';
import type { MatchPage } from '#core/carryover/match-page.ts';
import { ALL_CONCEPTS, makeSet } from './carryover/labelled-set.ts';
import { type PlanQuality, plansQuality } from './carryover/plan-report.ts';
import { matchingQuality } from './carryover/report.ts';
import { type Result, ms, timeByTurns } from './measure.ts';

const SIZE = 2000;
const MAX_WAIT_MS = 3000;
const MIN_PRECISION = 0.95;
/** What is measured on plans whose pages have titles and hardly more, and its aims. */
const PLAN_AIMS = [
  ['sureRight', 'Sure proposals that are right', 0.97],
  ['sureCovers', 'Pairs that sure proposals cover', 0.8],
  ['splitFound', 'Split pages that are found', 0.7],
  ['partsRight', 'Proposed parts that are parts', 0.8],
  ['gatherFound', 'Gathered pages that are found', 0.7],
  ['severalRight', 'Proposed to be gathered that are', 0.8],
  ['goneAlone', 'Pages that go, left alone', 0.8],
  ['newAlone', 'New pages, left alone', 0.8],
  ['keptRight', 'Kept told from reworked, where it is said', 0.8],
] as const satisfies readonly (readonly [keyof PlanQuality, string, number])[];

/** How quick the matching is for 2,000 old and 2,000 planned pages, and how good on labelled sets. */
export function benchCarryOver(): Result[] {
  const old: MatchPage[] = [];
  const planned: MatchPage[] = [];
  for (let seed = 100; planned.length < SIZE || old.length < SIZE; seed++) {
    const set = makeSet(`s${seed}`, ALL_CONCEPTS[seed % ALL_CONCEPTS.length]!, seed);
    old.push(...set.old);
    planned.push(...set.planned);
  }
  const [from, to] = [old.slice(0, SIZE), planned.slice(0, SIZE)];
  const [ours, reading] = timeByTurns(3, [
    () => matchPages(from, to),
    () =>
      [...from, ...to].map((page) => wordsOf(`${page.title} ${page.address} ${page.headings.join(' ')} ${page.text}`)),
  ]) as [number, number];
  // One planned page is called otherwise, as when somebody plans.
  const memory = new MatchMemory();
  matchPages(from, to, NOTHING_DECIDED, memory);
  let turn = 0;
  const renamed = () => {
    turn++;
    return to.map((page, at) => (at === 700 + turn ? { ...page, title: `Another name ${turn}` } : page));
  };
  const [again] = timeByTurns(3, [() => matchPages(from, renamed(), NOTHING_DECIDED, memory)]) as [number];
  return [
    {
      what: `Match them again when one page has a new title (${(ours / again).toFixed(1)} times as quick)`,
      ours: ms(again),
      limit: ms(ours),
      ratio: again / ours,
      aim: '≤ 1',
      isMet: again <= ours,
    },
    {
      what: `Match ${SIZE.toLocaleString('en')} old with ${SIZE.toLocaleString('en')} planned pages (${(ours / reading).toFixed(0)} times the reading of their words)`,
      ours: ms(ours),
      limit: `${MAX_WAIT_MS} ms`,
      ratio: ours / MAX_WAIT_MS,
      aim: '≤ 1',
      isMet: ours <= MAX_WAIT_MS,
    },
    ...matchingQuality().map(({ sets, pairs, precision, recall }) =>
      share(
        `Precision of what can be accepted, ${pairs} pairs ${sets} (${recall.toFixed(3)} of all proposed)`,
        precision,
        MIN_PRECISION,
      ),
    ),
    ...plansQuality().flatMap((quality) =>
      PLAN_AIMS.map(([key, what, aim]) =>
        share(`${what}, ${quality.pairs} pairs of plans ${quality.sets}`, quality[key], aim),
      ),
    ),
  ];
}

const share = (what: string, ours: number, aim: number): Result => ({
  what,
  ours: ours.toFixed(3),
  limit: String(aim),
  ratio: ours / aim,
  aim: '≥ 1',
  isMet: ours >= aim,
});
