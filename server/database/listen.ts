import { setTimeout as pause } from 'node:timers/promises';
import pg from 'pg';
import type { Database } from './connect.ts';

/** What is told to a channel, and the listening connection's own number. */
export type Heard = (payload: string, connection: number) => void;

/** The listening connections that bear a name, by their numbers. */
export const listenersNamed = (database: Database, name: string): Promise<number[]> =>
  database('pg_stat_activity').where({ application_name: name }).whereRaw('datname = current_database()').pluck('pid');

/**
 * Listens to channels of PostgreSQL on one connection of its own (each listening connection is woken by every
 * notification), and opens it again when it breaks. `resync` runs whenever the connection was opened anew: what was
 * told while it was away has been missed. Gives the function that ends it.
 * @param name what the connection bears in the database, so that others can count who listens
 */
export async function listen(
  url: string,
  channels: Readonly<Record<string, Heard>>,
  resync: () => void,
  name = 'spur',
): Promise<() => Promise<void>> {
  let client: pg.Client | null = null;
  let isEnded = false;
  const open = async (): Promise<void> => {
    const next = new pg.Client({ connectionString: url, application_name: name });
    next.on('notification', ({ channel, payload }) => channels[channel]?.(payload ?? '', numberOf(next)));
    next.on('error', () => void reopen(next));
    next.on('end', () => void reopen(next));
    await next.connect();
    for (const channel of Object.keys(channels)) await next.query(`LISTEN ${pg.escapeIdentifier(channel)}`);
    client = next;
  };
  const reopen = async (broken: pg.Client): Promise<void> => {
    if (isEnded || client !== broken) return;
    client = null;
    for (let wait = 100; !isEnded; wait = Math.min(wait * 2, 5000)) {
      await pause(wait);
      try {
        await open();
        return resync();
      } catch {
        // The database is still away: try again, a little later each time.
      }
    }
  };
  await open();
  return async () => {
    isEnded = true;
    await client?.end();
  };
}

/** PostgreSQL's number of the process that serves a connection; pg keeps it to cancel by, and does not declare it. */
const numberOf = (client: pg.Client): number => (client as unknown as { processID: number }).processID;
