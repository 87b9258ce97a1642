import { expect, it } from 'vitest';
import { PatientDatabase } from './patient-database.ts';

it('gives nothing once it is to end, and of what counts that it is none', async () => {
  const ending = new AbortController();
  // Nothing listens there.
  const database = new PatientDatabase('postgres://nobody@127.0.0.1:1/none', ending.signal, () => undefined);
  ending.abort();
  expect(await database.executeSql('SELECT id FROM job', [])).toEqual({ rows: [] });
  const complete = 'WITH results AS (UPDATE job SET state = 1 RETURNING 1) SELECT COUNT(*) FROM results';
  expect(await database.executeSql(complete, [])).toEqual({ rows: [{ count: '0' }] });
  await database.close();
});
