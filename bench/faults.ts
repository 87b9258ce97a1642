import { killAtRandom } from '../e2e/support/faults.ts';
import type { Result } from './measure.ts';

const ROUNDS = 200;
const CLIENTS = 8;

/** What is lost, and what of two releases is seen at once, while processes and PostgreSQL are killed at random moments. */
export async function benchFaults(): Promise<Result[]> {
  const { acknowledged, lost, reads, mixed, releases, notOnce, leadsBack, diedAlone, words, lostWords, isOneText } =
    await killAtRandom(ROUNDS, CLIENTS, Math.random);
  const faults =
    lost.length +
    mixed.length +
    notOnce.length +
    diedAlone.length +
    lostWords.length +
    (leadsBack ? 0 : 1) +
    (isOneText ? 0 : 1);
  if (faults > 0) console.error({ lost, mixed, notOnce, leadsBack, diedAlone, lostWords, isOneText });
  return [
    {
      what: `Faults seen in ${ROUNDS} kills under ${CLIENTS} clients (${acknowledged.toLocaleString('en')} edits and releases acknowledged, ${releases.toLocaleString('en')} releases, ${reads.toLocaleString('en')} pages read, ${words.toLocaleString('en')} words written in one text)`,
      ours: String(faults),
      limit: '0',
      ratio: Number.NaN,
      aim: '0',
      isMet: faults === 0,
    },
  ];
}
