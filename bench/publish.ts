import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Knex } from 'knex';
import type { PageId } from '#core/model/ids.ts';
import { LayeredMap } from '#core/model/layered-map.ts';
import type { LiveNode, Site } from '#core/model/site.ts';
import { writeFolder } from '#server/exports/export-folder.ts';
import { FolderStore } from '#server/library/file-store.ts';
import { type StaticFile, staticFiles } from '#server/exports/static-site.ts';
import { Assets } from '#server/live/assets.ts';
import { htmlOfAll, loadRelease } from '#server/live/live-repository.ts';
import { insertSite } from '#server/sites/site-repository.ts';
import { generateSite } from './generate-site.ts';
import { type Result, median } from './measure.ts';
import { searchTexts } from './search.ts';

const SMALL = 100;
const LARGE = 10_000;
const EXPORTED = 1_000;
const ROUNDS = 25;

/** Releases of one page in a small and a large site, a first release of a large one, and a site as files. */
export async function benchPublish(
  database: Knex,
  account: string,
  post: (path: string, body: object) => Promise<void>,
): Promise<Result[]> {
  const onePage = async (site: Site): Promise<number> => {
    const [page] = [...site.nodes.keys()].slice(-1);
    const times: number[] = [];
    for (let round = 0; round < ROUNDS + 5; round++) {
      await post(`/api/sites/${site.key}/operations`, {
        operations: [{ name: 'page.set', page, fields: { description: { en: `Round ${round}` } } }],
      });
      const began = performance.now();
      await post(`/api/sites/${site.key}/releases`, { pages: [page], settings: [] });
      if (round >= 5) times.push(performance.now() - began);
    }
    return median(times);
  };
  const [small, large, first] = [
    generateSite(SMALL, 'publish-small'),
    generateSite(LARGE, 'publish-large'),
    { ...generateSite(LARGE, 'publish-first') },
  ];
  for (const site of [small, large]) await insertSite(database, site, account);
  await insertSite(
    database,
    { ...first, live: new LayeredMap<PageId, LiveNode>(), liveSettings: null },
    account,
    searchTexts(first),
  );
  const [ofSmall, ofLarge] = [await onePage(small), await onePage(large)];

  const began = performance.now();
  await post(`/api/sites/${first.key}/releases`, { pages: 'all' });
  const ofAll = performance.now() - began;
  const bareWriting = await writeAgain(database, first.key, ['live_node', 'search_document', 'search_word']);

  return [
    {
      what: `A release of one page, in a site of ${LARGE.toLocaleString('en')} pages`,
      ours: `${ofLarge.toFixed(1)} ms`,
      limit: `${ofSmall.toFixed(1)} ms, in a site of ${SMALL}`,
      ratio: ofLarge / ofSmall,
      aim: '≤ 3',
      isMet: ofLarge / ofSmall <= 3,
    },
    {
      what: `A first release of ${LARGE.toLocaleString('en')} pages with texts of 2 kB`,
      ours: `${ofAll.toFixed(0)} ms`,
      limit: `${bareWriting.toFixed(0)} ms, the same rows and indexes written by PostgreSQL alone`,
      ratio: ofAll / bareWriting,
      aim: '≤ 2',
      isMet: ofAll / bareWriting <= 2,
    },
    await exported(database, account),
  ];
}

/** The milliseconds in which PostgreSQL writes a site's rows of these tables, ready made, with their indexes. */
async function writeAgain(database: Knex, site: string, tables: readonly string[]): Promise<number> {
  for (const table of tables) await database.raw(`CREATE TABLE again_${table} (LIKE ${table} INCLUDING ALL)`);
  const began = performance.now();
  await database.transaction(async (trx) => {
    for (const table of tables)
      await trx.raw(`INSERT INTO again_${table} SELECT * FROM ${table} WHERE site = ?`, [site]);
  });
  return performance.now() - began;
}

/** A site as files, beside writing the same files ready made. */
async function exported(database: Knex, account: string): Promise<Result> {
  const site = generateSite(EXPORTED, 'publish-files');
  await insertSite(database, site, account);
  const folder = await mkdtemp(join(tmpdir(), 'spur-export-'));
  try {
    const release = (await loadRelease(database, site.key))!;
    const assets = await Assets.load();
    let pages = 0;
    const began = performance.now();
    const kept: StaticFile[] = [];
    const files = staticFiles(
      {
        release,
        address: 'https://files.example/site',
        assets,
        textsOf: (contents) => htmlOfAll(database, release.site, contents),
        store: new FolderStore(join(folder, 'no-files')),
        now: Date.now(),
      },
      () => pages++,
    );
    const keeping = (async function* () {
      for await (const file of files) {
        kept.push(file);
        yield file;
      }
    })();
    await writeFolder(join(folder, 'ours'), keeping);
    const seconds = (performance.now() - began) / 1000;
    const bareBegan = performance.now();
    await writeFolder(
      join(folder, 'bare'),
      (async function* () {
        yield* kept;
      })(),
    );
    const bare = (performance.now() - bareBegan) / 1000;
    return {
      what: `A site of ${pages.toLocaleString('en')} pages as files`,
      ours: `${Math.round(pages / seconds).toLocaleString('en')} pages/s`,
      limit: `${Math.round(pages / bare).toLocaleString('en')} pages/s, the same files written only`,
      ratio: bare / seconds,
      aim: '≥ 0.8',
      isMet: bare / seconds >= 0.8,
    };
  } finally {
    await rm(folder, { recursive: true });
  }
}
