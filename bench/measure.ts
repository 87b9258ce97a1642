/** One row of the table: ours beside the limit, both measured in this run. */
export interface Result {
  readonly what: string;
  readonly ours: string;
  readonly limit: string;
  readonly ratio: number;
  readonly aim: string;
  readonly isMet: boolean;
}

export const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1]!;
export const percentile = (values: readonly number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))]!;

/** The median milliseconds of each of several pieces of work, run by turns so that a busy moment hits all alike. */
export function timeByTurns(rounds: number, work: readonly (() => unknown)[]): number[] {
  const times: number[][] = work.map(() => []);
  for (let round = 0; round < rounds + 3; round++) {
    work.forEach((one, index) => {
      const began = performance.now();
      one();
      // The first rounds warm up.
      if (round >= 3) times[index]!.push(performance.now() - began);
    });
  }
  return times.map(median);
}

export const ms = (value: number): string => (value < 10 ? `${value.toFixed(2)} ms` : `${value.toFixed(0)} ms`);
