import { randomUUID } from 'node:crypto';
import { type Socket, connect } from 'node:net';
import { once } from 'node:events';
import { setTimeout as pause } from 'node:timers/promises';
import pg from 'pg';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { type Result, median, ms, percentile } from './measure.ts';

const ROUNDS = 2000;
/** Before each, so that none is disturbed by what the one before it leaves to be done. */
const QUIET_MS = 2;

interface Edit {
  readonly page: PageId;
  readonly title: object;
  readonly operations: object;
}

/**
 * One acknowledged edit, from request to answer, beside a bare transaction of four awaited statements on the same server: as `pg` sends
 * them by itself, and with the two that write prepared under names. They take turns.
 * @param colleague the cookie of somebody with roles in branches, who may edit titles everywhere
 */
export async function benchEdit(
  url: string,
  port: number,
  cookie: string,
  site: Site,
  colleague: string,
): Promise<Result[]> {
  const pages = [...site.nodes.keys()].slice(0, ROUNDS);
  const bare = await bareClient(url, pages);
  const prepared = await bareClient(url, pages);
  const socket = connect(port, '127.0.0.1').setNoDelay();
  await once(socket, 'connect');
  const ways: { readonly make: (one: Edit) => Promise<void>; readonly times: number[] }[] = [
    { make: ({ operations }) => edit(socket, port, cookie, site.key, operations), times: [] },
    { make: ({ operations }) => edit(socket, port, colleague, site.key, operations), times: [] },
    { make: (one) => bareEdit(bare, one, false), times: [] },
    { make: (one) => bareEdit(prepared, one, true), times: [] },
  ];
  for (const [round, page] of pages.entries()) {
    const title = { en: `Edited in round ${round}` };
    const one = { page, title, operations: [{ name: 'page.set', page, fields: { title } }] };
    for (const turn of ways.keys()) {
      const { make, times } = ways[(round + turn) % ways.length]!;
      await pause(QUIET_MS);
      const began = performance.now();
      await make(one);
      // The first quarter warms up.
      if (round >= ROUNDS / 4) times.push(performance.now() - began);
    }
  }
  await bare.end();
  await prepared.end();
  socket.destroy();
  const [ours, byColleague, besideBare, besidePrepared] = ways.map(({ times }) => times) as [
    number[],
    number[],
    number[],
    number[],
  ];
  const share = median(byColleague) / median(ours);
  const ratio = median(ours) / median(besideBare);
  const late = percentile(ours, 0.95) / median(ours);
  return [
    {
      what: `One acknowledged edit, site of ${site.nodes.size.toLocaleString('en')} pages (p95 ${ms(percentile(ours, 0.95))} and ${ms(percentile(besideBare, 0.95))})`,
      ours: ms(median(ours)),
      limit: `${ms(median(besideBare))}, a bare four-statement transaction`,
      ratio,
      aim: '≤ 1.5',
      isMet: ratio <= 1.5,
    },
    {
      what: 'The same by a colleague with roles in 50 branches',
      ours: ms(median(byColleague)),
      limit: `${ms(median(ours))}, by somebody who may do everything`,
      ratio: share,
      aim: '≤ 1.05',
      isMet: share <= 1.05,
    },
    {
      what: 'The same',
      ours: ms(median(ours)),
      limit: `${ms(median(besidePrepared))}, its statements prepared under names`,
      ratio: median(ours) / median(besidePrepared),
      aim: 'none set',
      isMet: true,
    },
    {
      what: 'The time in which 95 of 100 edits are acknowledged',
      ours: ms(percentile(ours, 0.95)),
      limit: `${ms(median(ours))}, the median`,
      ratio: late,
      aim: '≤ 2',
      isMet: late <= 2,
    },
  ];
}

async function bareClient(url: string, pages: readonly PageId[]): Promise<pg.Client> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query(
    'CREATE TABLE IF NOT EXISTS bare_page (id text PRIMARY KEY, title jsonb); CREATE TABLE IF NOT EXISTS bare_log (id bigserial PRIMARY KEY, at timestamptz, operations jsonb)',
  );
  await client.query(`INSERT INTO bare_page SELECT unnest($1::text[]), '{}' ON CONFLICT DO NOTHING`, [pages]);
  return client;
}

async function bareEdit(client: pg.Client, { page, title, operations }: Edit, isPrepared: boolean): Promise<void> {
  await client.query('BEGIN');
  await client.query({
    ...(isPrepared && { name: 'bare-update' }),
    text: 'UPDATE bare_page SET title = $2 WHERE id = $1',
    values: [page, title],
  });
  await client.query({
    ...(isPrepared && { name: 'bare-log' }),
    text: 'INSERT INTO bare_log (at, operations) VALUES (now(), $1)',
    values: [JSON.stringify(operations)],
  });
  await client.query('COMMIT');
}

/** One request over a connection that stays open: as bare on our side as the driver is on the other. */
async function edit(socket: Socket, port: number, cookie: string, site: string, operations: object): Promise<void> {
  const body = JSON.stringify({ request: randomUUID(), operations });
  const answered = once(socket, 'data') as Promise<[Buffer]>;
  socket.write(
    [
      `POST /api/sites/${site}/operations HTTP/1.1`,
      `Host: 127.0.0.1:${port}`,
      `Origin: http://127.0.0.1:${port}`,
      'Content-Type: application/json',
      `Content-Length: ${Buffer.byteLength(body)}`,
      `Cookie: ${cookie}`,
      '',
      body,
    ].join('\r\n'),
  );
  const text = String((await answered)[0]);
  if (!text.startsWith('HTTP/1.1 200') || !text.includes('"revision"'))
    throw new Error(`The edit was answered with ${text.slice(0, 300)}`);
}
