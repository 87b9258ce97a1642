import type { IncomingMessage } from 'node:http';
import { pino } from 'pino';
import { connect } from '#server/database/connect.ts';
import { Askers } from '#server/live/asking.ts';
import { LiveReading } from '#server/live/live-reading.ts';
import { LiveSites } from '#server/live/live-sites.ts';
import { ReadyAnswer } from '#server/live/ready-answer.ts';
import { Visits } from '#server/live/visits.ts';
import { VisitorSessions } from '#server/visitors/visitor-sessions.ts';
import { Assets } from '#server/live/assets.ts';
import { median } from './measure.ts';

const ROUNDS = 15;

/** Microseconds a request, of nobody who is known and of somebody who is signed in. */
export interface AccessCheck {
  readonly anybody: number;
  readonly signedIn: number;
}

/**
 * What it takes to find out who asks for a page and whether they get it, as the live side does it: its own code with the same site and
 * session, each path in turn, without sending anything. Finding the page among those that are ready is part of it.
 */
export async function benchAccessCheck(url: string, paths: readonly string[], cookie: string): Promise<AccessCheck> {
  const database = connect(url);
  const now = () => new Date();
  const sites = new LiveSites(
    new LiveReading(database),
    'http://bench.example',
    await Assets.load(),
    new Visits(database, pino({ level: 'silent' }), now),
  );
  const askers = new Askers(new VisitorSessions(database, now), 'bench');
  const requestsOf = (headers: readonly string[]) =>
    paths.map((path) => ({
      url: path,
      rawHeaders: ['Host', 'bench.example', 'Accept-Encoding', 'br, gzip', ...headers],
      headers: headers.length > 0 ? { cookie } : {},
    })) as unknown as IncomingMessage[];
  const microseconds = async (headers: readonly string[]): Promise<number> => {
    const requests = requestsOf(headers);
    for (const request of requests) {
      const [, key = '', rest = ''] = /^\/([^/]*)(.*)$/s.exec(request.url!) ?? [];
      await sites.answer(key, rest, '', await askers.find(request));
    }
    const times: number[] = [];
    for (let round = 0; round < ROUNDS; round++) {
      // A session is remembered for some seconds only.
      await askers.find(requests[0]!);
      const began = performance.now();
      for (const request of requests) {
        const asking = askers.remembered(request);
        if (!asking || !(sites.ready(request.url!, asking) instanceof ReadyAnswer))
          throw new Error(`${request.url} is not ready.`);
      }
      times.push(((performance.now() - began) * 1000) / requests.length);
    }
    return median(times);
  };
  const check = { anybody: await microseconds([]), signedIn: await microseconds(['Cookie', cookie]) };
  await database.destroy();
  return check;
}
