import { createServer } from 'node:http';
import { pino } from 'pino';
import { readConfig } from '../config.ts';
import { RELEASE_CHANNEL } from '../database/channels.ts';
import { connect } from '../database/connect.ts';
import { listen } from '../database/listen.ts';
import { runProcess } from '../process.ts';
import { Assets } from './assets.ts';
import { makeLiveHandler } from './handler.ts';
import { LiveSites } from './live-sites.ts';

/** The visitors' process: it reads releases and nothing else. */
await runProcess('live', async (ready) => {
  const config = readConfig(process.env);
  const log = pino({ level: config.logLevel });
  const database = connect(config.databaseUrl);
  const assets = await Assets.load();
  const sites = new LiveSites(database, config.liveOrigin, assets.stylesheet);
  const stopListening = await listen(config.databaseUrl, { [RELEASE_CHANNEL]: (key) => sites.forget(key) }, () =>
    sites.forgetAll(),
  );
  const server = createServer(makeLiveHandler(sites, assets, log));
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(config.livePort, config.host, resolve);
  });
  ready({ port: config.livePort });
  return async () => {
    server.close();
    server.closeAllConnections();
    await stopListening();
    await database.destroy();
  };
});
