#!/usr/bin/env node
// Writes what everyone may see of a site as files: npm run export -- --site KEY --out FOLDER [--address https://…] [--opens files]
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt } from './build.mjs';
import { ensurePackages } from './packages.mjs';
import { dataFolder, startPostgres } from './postgres.mjs';
import { ROOT, StatedError, runShown } from './run.mjs';

/**
 * The database that has the site: that of the demo, or the one without demo data.
 * @param {{ url: (database: string) => string }} server @param {string} key
 */
async function databaseWith(server, key) {
  const { default: pg } = await import('pg');
  for (const name of ['spur_demo', 'spur']) {
    const client = new pg.Client({ connectionString: server.url(name) });
    try {
      await client.connect();
      if ((await client.query('SELECT 1 FROM site WHERE key = $1', [key])).rowCount) return server.url(name);
    } catch {
      // There is no such database, or nothing in it yet.
    } finally {
      await client.end();
    }
  }
  throw new StatedError(`There is no site '${key}' here. Say which: npm run export -- --site KEY --out FOLDER`);
}

/** @type {{ stop: () => void } | null} */
let postgres = null;
let code;
try {
  ensurePackages();
  await ensureBuilt();
  let url = process.env.DATABASE_URL;
  if (!url) {
    const mark = join(dataFolder(), 'starter.pid');
    const isRunning = existsSync(mark) && existsSync(`/proc/${readFileSync(mark, 'utf8')}`);
    const server = await startPostgres(dataFolder());
    // Where Spur runs meanwhile the database is its own to stop.
    if (!isRunning) postgres = server;
    url = await databaseWith(server, process.argv[process.argv.indexOf('--site') + 1] ?? '');
  }
  const command = join(ROOT, 'dist/workbench/export-command.js');
  // What is wrong the command says itself.
  code = await runShown('node', [command, ...process.argv.slice(2)], {
    ...process.env,
    DATABASE_URL: url,
    SPUR_FILES: process.env.SPUR_FILES || join(dataFolder(), 'files'),
  }).then(
    () => 0,
    () => 1,
  );
} catch (fault) {
  console.error(fault instanceof StatedError ? fault.message : fault);
  code = 1;
} finally {
  postgres?.stop();
}
process.exit(code);
