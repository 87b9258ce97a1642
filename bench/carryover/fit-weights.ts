// Fits the weights of the signals on the sets for developing, by logistic regression, and prints them for
// core/carryover/confidence.ts: node --import tsx bench/carryover/fit-weights.ts
import { type Pair, candidatePairs } from '#core/carryover/candidates.ts';
import { NOTHING_DECIDED } from '#core/carryover/match.ts';
import { MatchMemory } from '#core/carryover/match-memory.ts';
import { SIGNALS, compare } from '#core/carryover/pair-signals.ts';
import { WIDEST_LEAD } from '#core/carryover/confidence.ts';
import { matchOneToOne } from '#core/carryover/one-to-one.ts';
import { developing } from './labelled-set.ts';

interface Example {
  readonly values: readonly number[];
  readonly isPair: boolean;
}
const examples: Example[] = [];
const chosen: Example[] = [];
for (const set of developing()) {
  // Without the texts too: many inventories have none.
  for (const withText of [true, false]) {
    const strip = (pages: typeof set.old) =>
      withText ? pages : pages.map((page) => ({ ...page, text: '', headings: [] }));
    const memory = new MatchMemory();
    const { old, planned, weights } = memory.prepare(strip(set.old), strip(set.planned), NOTHING_DECIDED);
    const truth = new Set(set.pairs.map((pair) => pair.join(' ')));
    const pairs = candidatePairs(old, planned, weights);
    const isPair = ([a, b]: Pair) => truth.has(`${old[a]!.key} ${planned[b]!.key}`);
    console.log(
      `${set.name}: ${pairs.length} candidates, ${pairs.filter(isPair).length} of ${truth.size} pairs among them`,
    );
    for (const pair of pairs) {
      const signals = compare(old[pair[0]]!, planned[pair[1]]!, weights);
      examples.push({ values: SIGNALS.map((name) => signals[name]), isPair: isPair(pair) });
    }
    for (const { pair, alike, lead } of matchOneToOne(old, planned, weights, memory).chosen)
      chosen.push({ values: [alike, Math.max(-WIDEST_LEAD, Math.min(WIDEST_LEAD, lead))], isPair: isPair(pair) });
  }
}

function fit(rows: readonly Example[], mayBeNegative?: ReadonlySet<number>, steps = 2500): number[] {
  const size = rows[0]!.values.length + 1;
  const weights = new Array<number>(size).fill(0);
  let rate = 1;
  for (let step = 0; step < steps; step++) {
    const slope = new Array<number>(size).fill(0);
    for (const { values, isPair } of rows) {
      let z = weights[0]!;
      for (let at = 0; at < values.length; at++) z += weights[at + 1]! * values[at]!;
      const error = 1 / (1 + Math.exp(-z)) - (isPair ? 1 : 0);
      slope[0]! += error;
      for (let at = 0; at < values.length; at++) slope[at + 1]! += error * values[at]!;
    }
    for (let at = 0; at < size; at++)
      weights[at]! -= rate * ((slope[at]! / rows.length) * 20 + (at === 0 ? 0 : 0.0004 * weights[at]!));
    // A likeness never speaks against a pair.
    for (let at = 1; at < size; at++) if (mayBeNegative?.has(at) !== true) weights[at] = Math.max(0, weights[at]!);
    rate = Math.max(0.05, rate * 0.9995);
  }
  return weights;
}

const [bias, ...signalWeights] = fit(
  examples,
  // That both have a text says nothing by itself: it takes back what a text is expected to add.
  new Set([SIGNALS.indexOf('hasTexts') + 1]),
);
console.log('bias', bias!.toFixed(2));
SIGNALS.forEach((name, at) => console.log(`  ${name}: ${signalWeights[at]!.toFixed(2)},`));
const [own, ...others] = fit(chosen).map((one) => one.toFixed(2));
console.log(`confidence: ${own}, alike ${others[0]}, lead ${others[1]}`);
