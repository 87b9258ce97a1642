import { randomUUID } from 'node:crypto';
import { type Socket, connect } from 'node:net';
import { once } from 'node:events';
import pg from 'pg';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { type Result, median, ms, percentile } from './measure.ts';

const ROUNDS = 2000;

/** One acknowledged edit, from request to answer, beside a bare transaction of four awaited statements on the same server. */
export async function benchEdit(url: string, port: number, cookie: string, site: Site): Promise<Result[]> {
  const pages = [...site.nodes.keys()].slice(0, ROUNDS);
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query(
    'CREATE TABLE IF NOT EXISTS bare_page (id text PRIMARY KEY, title jsonb); CREATE TABLE IF NOT EXISTS bare_log (id bigserial PRIMARY KEY, at timestamptz, operations jsonb)',
  );
  for (const page of pages)
    await client.query('INSERT INTO bare_page VALUES ($1, $2) ON CONFLICT DO NOTHING', [page, '{}']);
  const socket = connect(port, '127.0.0.1').setNoDelay();
  await once(socket, 'connect');
  const ours: number[] = [];
  const bare: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const page = pages[round]!;
    const title = { en: `Edited in round ${round}` };
    const operations = [{ name: 'page.set', page, fields: { title } }];
    const began = performance.now();
    await edit(socket, port, cookie, site.key, operations);
    const between = performance.now();
    await bareEdit(client, page, title, operations);
    // The first quarter warms up.
    if (round < ROUNDS / 4) continue;
    ours.push(between - began);
    bare.push(performance.now() - between);
  }
  await client.end();
  socket.destroy();
  const ratio = median(ours) / median(bare);
  return [
    {
      what: `One acknowledged edit, site of ${site.nodes.size.toLocaleString('en')} pages (p95 ${ms(percentile(ours, 0.95))} and ${ms(percentile(bare, 0.95))})`,
      ours: ms(median(ours)),
      limit: `${ms(median(bare))}, a bare four-statement transaction`,
      ratio,
      aim: '≤ 2',
      isMet: ratio <= 2,
    },
  ];
}

async function bareEdit(client: pg.Client, page: PageId, title: object, operations: object): Promise<void> {
  await client.query('BEGIN');
  await client.query({
    name: 'bare-update',
    text: 'UPDATE bare_page SET title = $2 WHERE id = $1',
    values: [page, title],
  });
  await client.query({
    name: 'bare-log',
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
