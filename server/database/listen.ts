import { setTimeout as pause } from 'node:timers/promises';
import pg from 'pg';

/**
 * Listens to channels of PostgreSQL on one connection of its own (each listening connection is woken by every
 * notification), and opens it again when it breaks. `resync` runs whenever the connection was opened anew: what was
 * told while it was away has been missed. Gives the function that ends it.
 */
export async function listen(
  url: string,
  channels: Readonly<Record<string, (payload: string) => void>>,
  resync: () => void,
): Promise<() => Promise<void>> {
  let client: pg.Client | null = null;
  let isEnded = false;
  const open = async (): Promise<void> => {
    const next = new pg.Client({ connectionString: url });
    next.on('notification', ({ channel, payload }) => channels[channel]?.(payload ?? ''));
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
