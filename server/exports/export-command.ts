import { withoutTrailing } from '#core/model/cut-text.ts';
import { resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { siteKeySchema } from '#core/model/ids.ts';
import { readConfig } from '../config.ts';
import { connect } from '../database/connect.ts';
import { Assets } from '../live/assets.ts';
import { htmlOfAll, loadRelease } from '../live/live-repository.ts';
import { writeFolder } from './export-folder.ts';
import { storeOf } from '../library/store-of.ts';
import { staticFiles } from './static-site.ts';

/** `npm run export`: writes what everyone may see of a site as files. It ends with a sentence and code 1 where it cannot. */
async function main(): Promise<void> {
  const { values } = parseArgs({
    options: {
      site: { type: 'string' },
      out: { type: 'string' },
      address: { type: 'string' },
      opens: { type: 'string' },
    },
  });
  const key = siteKeySchema.safeParse(values.site);
  if (!key.success || !values.out)
    throw new Error(
      'Say which site and where to: npm run export -- --site KEY --out FOLDER [--address https://…] [--opens files]',
    );
  if (values.opens !== undefined && values.opens !== 'files')
    throw new Error(
      'What follows --opens is files: then links name the file in each folder, and the site works from a disk.',
    );
  const config = readConfig(process.env);
  const { databaseUrl, liveOrigin } = config;
  const database = connect(databaseUrl);
  try {
    const release = await loadRelease(database, key.data);
    if (!release) throw new Error(`There is no site ‘${key.data}’ with something live.`);
    const address = withoutTrailing(values.address ?? `${liveOrigin}/${key.data}`, '/');
    const total = release.site.nodes.size;
    let pages = 0;
    let told = 0;
    const tell = () => {
      pages++;
      if (!process.stderr.isTTY || Date.now() - told < 500) return;
      told = Date.now();
      process.stderr.write(`\r${pages} of at most ${total} pages`);
    };
    const began = Date.now();
    const files = staticFiles(
      {
        release,
        address,
        assets: await Assets.load(),
        textsOf: (contents) => htmlOfAll(database, release.site, contents),
        store: await storeOf(config),
        isWithoutHost: values.opens === 'files',
        now: Date.now(),
      },
      tell,
    );
    const count = await writeFolder(resolve(values.out), files);
    const seconds = (Date.now() - began) / 1000;
    if (process.stderr.isTTY) process.stderr.write('\r');
    console.log(`${pages} pages in ${count} files, in ${seconds.toFixed(1)} s: ${resolve(values.out)}`);
  } finally {
    await database.destroy();
  }
}

try {
  await main();
} catch (fault) {
  console.error((fault as Error).message);
  process.exitCode = 1;
}
