import { existsSync } from 'node:fs';
import { createServer } from 'node:http';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { loadDemo } from '#demo/load-demo.ts';
import { hasDemoAccounts } from './accounts/account-repository.ts';
import { offerFirstAccount } from './accounts/account-service.ts';
import { Attempts } from './accounts/attempts.ts';
import { openSessions } from './accounts/remembered-sessions.ts';
import { makeListener } from './app.ts';
import { readConfig } from './config.ts';
import { EDIT_CHANNEL, SESSION_CHANNEL } from './database/channels.ts';
import { connect, connectPool } from './database/connect.ts';
import { listen } from './database/listen.ts';
import { migrate } from './database/migrate.ts';
import { sessionSecret } from './database/session-secret.ts';
import { EditService } from './edits/edit-service.ts';
import { runProcess } from './process.ts';
import { SiteCache } from './sites/site-cache.ts';

/** The workbench's process: migrations, demo data, the API and the interface. */
await runProcess('workbench', async (ready) => {
  const config = readConfig(process.env);
  const log = pino({ level: config.logLevel });
  const database = connect(config.databaseUrl);
  await migrate(database);
  const pool = connectPool(config.databaseUrl);
  const cache = new SiteCache(database);
  const now = () => new Date();
  const edits = new EditService(database, cache, now);
  if (config.withDemo) await loadDemo(database, edits);

  const sessions = openSessions(pool, now);
  const warn = (fault: unknown) => log.warn({ fault }, 'could not follow an edit');
  const stopListening = await listen(
    config.databaseUrl,
    {
      [EDIT_CHANNEL]: (told) => void cache.follow(told).catch(warn),
      [SESSION_CHANNEL]: (id) => sessions.forget(id),
    },
    () => {
      sessions.forgetAll();
      void cache.followAll().catch(warn);
    },
  );

  const webFolder = fileURLToPath(new URL('../web', import.meta.url));
  const listener = makeListener({
    database,
    sessions,
    cache,
    edits,
    attempts: await Attempts.open(pool),
    sessionSecret: await sessionSecret(database),
    liveOrigin: config.liveOrigin,
    now,
    log,
    webFolder: existsSync(webFolder) ? webFolder : null,
  });
  const server = createServer(listener);
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(config.port, config.host, resolve);
  });
  ready({
    port: config.port,
    firstAccountToken: await offerFirstAccount(database, now()),
    hasDemoAccounts: await hasDemoAccounts(database),
  });

  return async () => {
    server.close();
    server.closeAllConnections();
    await stopListening();
    await database.destroy();
    await pool.end();
  };
});
