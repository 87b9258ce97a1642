import { existsSync } from 'node:fs';
import { createServer } from 'node:http';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { siteKeySchema } from '#core/model/ids.ts';
import { loadDemo } from '#demo/load-demo.ts';
import { offerFirstAccount } from './accounts/account-service.ts';
import { Attempts } from './accounts/attempts.ts';
import { makeApp } from './app.ts';
import { readConfig } from './config.ts';
import { connect, connectPool } from './database/connect.ts';
import { listen } from './database/listen.ts';
import { migrate } from './database/migrate.ts';
import { sessionSecret } from './database/session-secret.ts';
import { EDIT_CHANNEL } from './edits/edit-repository.ts';
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

  // Sites in memory follow what other processes commit; those that are not in memory are read when they are asked for.
  const seen = new Set<string>();
  cache.onEdit((key) => seen.add(key));
  const stopListening = await listen(
    config.databaseUrl,
    EDIT_CHANNEL,
    (payload) => {
      const key = siteKeySchema.safeParse(payload);
      if (key.success)
        void cache.current(key.data).catch((fault: unknown) => log.warn({ fault }, 'could not follow an edit'));
    },
    () => {
      for (const key of seen) void cache.current(siteKeySchema.parse(key)).catch(() => undefined);
    },
  );

  const webFolder = fileURLToPath(new URL('../web', import.meta.url));
  const app = makeApp({
    database,
    pool,
    cache,
    edits,
    attempts: await Attempts.open(pool),
    sessionSecret: await sessionSecret(database),
    liveOrigin: config.liveOrigin,
    now,
    log,
    webFolder: existsSync(webFolder) ? webFolder : null,
  });
  const server = createServer(app);
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(config.port, config.host, resolve);
  });
  ready({ port: config.port, firstAccountToken: await offerFirstAccount(database, now()) });

  return async () => {
    server.close();
    server.closeAllConnections();
    await stopListening();
    await database.destroy();
    await pool.end();
  };
});
