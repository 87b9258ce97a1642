import { createServer } from 'node:http';
import { pino } from 'pino';
import { readConfig } from '../config.ts';
import { connect, connectPool, connectStandby } from '../database/connect.ts';
import { sessionSecret } from '../database/session-secret.ts';
import { listen } from '../database/listen.ts';
import { VISITORS_SIDE } from '../database/channels.ts';
import { runProcess } from '../process.ts';
import { PublicFiles } from '../public-files/public-files.ts';
import { Assets } from './assets.ts';
import { makeLiveHandler } from './handler.ts';
import { Attempts } from '../security/attempts.ts';
import { outbox } from '../standins/outbox-repository.ts';
import { storeOf } from '../library/store-of.ts';
import { LibraryService } from '../library/library-service.ts';
import { Letters } from '../visitors/letters.ts';
import { VisitorSessions } from '../visitors/visitor-sessions.ts';
import { LiveReading } from './live-reading.ts';
import { LiveSites } from './live-sites.ts';
import { workbenchNews } from './workbench-news.ts';
import { Visits } from './visits.ts';

/** A site that nobody asks for in such a time leaves memory with the end of the next one. */
const KEPT_UNASKED_MS = 10 * 60_000;

/** The visitors' process: it reads releases, and signs visitors in and out. */
await runProcess('live', async (ready) => {
  const config = readConfig(process.env);
  const log = pino({ level: config.logLevel });
  const database = connect(config.databaseUrl);
  const assets = await Assets.load();
  const visits = new Visits(database, log, () => new Date());
  const standby = config.standbyUrl === null ? null : connectStandby(config.standbyUrl);
  const reading = new LiveReading(database, standby, log);
  const sites = new LiveSites(reading, config.liveOrigin, assets, visits);
  const forgetting = setInterval(() => sites.forgetUnasked(), KEPT_UNASKED_MS).unref();
  const files = config.publicFiles
    ? await PublicFiles.start(config.publicFiles, `${config.host}:${config.livePort}`, sites, log)
    : null;
  const pool = connectPool(config.databaseUrl);
  const sessions = new VisitorSessions(database, () => new Date());
  const news = workbenchNews({
    database,
    sites,
    sessions,
    onRelease: (key) => files?.renew(key),
    onResync: () => void files?.renewAll(),
  });
  const stopListening = await listen(config.databaseUrl, news.channels, news.resync, VISITORS_SIDE);
  // What was released before it listened, nobody tells it any more.
  reading.heard();
  const store = await storeOf(config);
  const attempts = await Attempts.open(pool);
  const server = createServer(
    makeLiveHandler({
      sites,
      sessions,
      attempts,
      letters: new Letters(database, outbox, () => new Date()),
      assets,
      database,
      store,
      library: new LibraryService({ database, store, now: () => new Date() }),
      mailer: outbox,
      workbenchOrigin: config.origin,
      secret: await sessionSecret(database),
      ownOrigin: config.ownLiveOrigin,
      proxies: config.proxies,
      log,
    }),
  );
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(config.livePort, config.host, resolve);
  });
  ready({ port: config.livePort });
  return async () => {
    server.close();
    server.closeAllConnections();
    await files?.end();
    await visits.flush();
    clearInterval(forgetting);
    await stopListening();
    reading.end();
    await standby?.destroy();
    await database.destroy();
    await pool.end();
  };
});
