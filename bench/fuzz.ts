import { connect } from '#server/database/connect.ts';
import { insertSite } from '#server/sites/site-repository.ts';
import { someRequests } from '#server/testing/fuzz-requests.ts';
import { runFuzz } from '#server/testing/run-fuzz.ts';
import { generateSite } from './generate-site.ts';
import { type Result, ms } from './measure.ts';

const REQUESTS = Number(process.env.SPUR_FUZZ_REQUESTS ?? 20_000);
const SEED = Number(process.env.SPUR_FUZZ_SEED ?? Date.now());
const SIZE = 40;

/** Hostile requests to a workbench process, made of the routes' schemas: what of them is answered wrongly. The seed is told, so that a run can be repeated. */
export async function benchFuzz(url: string, origin: string, cookie: string): Promise<Result[]> {
  const database = connect(url);
  const site = generateSite(SIZE, 'fuzzed');
  await insertSite(database, site, null);
  const known = {
    sites: [site.key, site.key, 'nowhere'],
    pages: [...site.nodes.keys()].slice(0, 20),
    others: { release: ['1', '2'], revision: ['0', '1'] },
  };
  const requests = someRequests(known, REQUESTS, SEED);
  const { faults, statuses, slowestMs } = await runFuzz(requests, { origin, database, headers: { Cookie: cookie } });
  await database.destroy();
  for (const fault of faults.slice(0, 20)) console.error(fault);
  const counts = [...statuses].sort(([a], [b]) => a - b).map(([status, count]) => `${count} × ${status}`);
  return [
    {
      what: `Hostile requests answered wrongly, of ${REQUESTS.toLocaleString('en')} (seed ${SEED}; ${counts.join(', ')}; slowest ${ms(slowestMs)})`,
      ours: String(faults.length),
      limit: '0',
      ratio: Number.NaN,
      aim: '0',
      isMet: faults.length === 0,
    },
  ];
}
