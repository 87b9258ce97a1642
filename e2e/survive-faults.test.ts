import { expect, it } from 'vitest';
import { killAtRandom } from './support/faults.ts';

const ROUNDS = 5;
const CLIENTS = 8;

it('loses no acknowledged edit and no letter of a text that many write, and shows no half release, whatever is killed while people work', async () => {
  let seed = 20261126;
  const random = () => {
    seed = (seed * 1103515245 + 12345) % 2147483648;
    return seed / 2147483648;
  };
  const report = await killAtRandom(ROUNDS, CLIENTS, random);
  expect(report).toMatchObject({ lost: [], mixed: [], notOnce: [], leadsBack: true, diedAlone: [] });
  expect(report).toMatchObject({ lostWords: [], isOneText: true });
  // It would hold of nothing as well.
  expect(report.acknowledged).toBeGreaterThan(100);
  expect(report.reads).toBeGreaterThan(100);
  expect(report.releases).toBeGreaterThan(10);
  expect(report.words).toBeGreaterThan(100);
}, 240_000);
