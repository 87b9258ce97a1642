import type { Database } from '../database/connect.ts';
import { tablesAsTheyAre } from './tables-as-they-are.ts';
import type { FuzzedRequest } from './fuzz-requests.ts';

/** What came of requests: how many answers of each status, and what was wrong with some. */
export interface FuzzOutcome {
  readonly statuses: ReadonlyMap<number, number>;
  readonly slowestMs: number;
  readonly faults: readonly string[];
}

interface Target {
  readonly origin: string;
  readonly database: Database;
  readonly headers: Readonly<Record<string, string>>;
}

const LONGEST_MS = 10_000;

/**
 * Sends requests one after the other. Wrong is an answer with a status of 500 and above, one that takes more than two seconds, and one
 * that refuses while something of the database has changed.
 */
export async function runFuzz(requests: readonly FuzzedRequest[], target: Target): Promise<FuzzOutcome> {
  const statuses = new Map<number, number>();
  const faults: string[] = [];
  let slowestMs = 0;
  let before = await tablesAsTheyAre(target.database);
  for (const request of requests) {
    const began = performance.now();
    const { status, said } = await send(request, target);
    const took = performance.now() - began;
    slowestMs = Math.max(slowestMs, took);
    statuses.set(status, (statuses.get(status) ?? 0) + 1);
    const words = `${request.name}: ${request.method} ${request.path.slice(0, 300)} ${request.body?.slice(0, 600) ?? ''}`;
    if (status >= 500) faults.push(`${status} ${said} for ${words}`);
    if (took > LONGEST_MS) faults.push(`${Math.round(took)} ms for ${words}`);
    if (request.method === 'GET') continue;
    const after = await tablesAsTheyAre(target.database);
    const changed = [...after].filter(([table, state]) => state !== before.get(table)).map(([table]) => table);
    if (status >= 400 && changed.length > 0) faults.push(`${status}, and ${changed.join(', ')} changed, for ${words}`);
    before = after;
  }
  return { statuses, slowestMs, faults };
}

async function send({ method, path, body }: FuzzedRequest, { origin, headers }: Target) {
  const response = await fetch(origin + path, {
    method,
    headers: { ...headers, Origin: origin, ...(body !== undefined && { 'Content-Type': 'application/json' }) },
    body,
    redirect: 'manual',
  });
  const text = await response.text();
  return { status: response.status, said: response.status < 500 ? '' : text.slice(0, 300) };
}
