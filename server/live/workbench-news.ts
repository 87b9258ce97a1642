import { ASK_CHANNEL, RELEASE_CHANNEL, TAKEN_CHANNEL, VISITOR_CHANNEL, tell } from '../database/channels.ts';
import type { Database } from '../database/connect.ts';
import type { Heard } from '../database/listen.ts';
import type { VisitorSessions } from '../visitors/visitor-sessions.ts';
import type { LiveSites } from './live-sites.ts';

interface Parts {
  readonly database: Database;
  readonly sites: LiveSites;
  readonly sessions: VisitorSessions;
  /** Takes over a release besides: the files for a web server, as far as there are any. */
  readonly onRelease: (key: string) => void;
  /** Takes over all releases besides. */
  readonly onResync: () => void;
}

/**
 * What a visitors' process does when it hears from the workbench. Asked to confirm, it does so once visitors get what it was told of
 * the site before: notifications come in the order in which they were committed.
 */
export function workbenchNews({ database, sites, sessions, onRelease, onResync }: Parts): {
  channels: Readonly<Record<string, Heard>>;
  resync: () => void;
} {
  const confirm = async (asked: string, connection: number): Promise<void> => {
    const [question, key = ''] = asked.split(' ');
    await sites.renewed(key);
    await tell(database, TAKEN_CHANNEL, [`${question} ${connection}`]);
  };
  return {
    channels: {
      [RELEASE_CHANNEL]: (key) => {
        onRelease(key);
        sites.renew(key);
      },
      [VISITOR_CHANNEL]: (visitor) => sessions.forget(visitor),
      // Where the database is away nobody waits for it.
      [ASK_CHANNEL]: (asked, connection) => void confirm(asked, connection).catch(() => undefined),
    },
    resync: () => {
      onResync();
      sites.renewAll();
      sessions.forgetAll();
    },
  };
}
