#!/usr/bin/env node
// Starts Spur from a fresh clone: packages, PostgreSQL, the build, migrations, demo data, both servers.
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { ensureBuilt } from './build.mjs';
import { ensurePackages } from './packages.mjs';
import { dataFolder, ensureDatabase, startPostgres } from './postgres.mjs';
import { ROOT, StatedError, startProcess } from './run.mjs';

const HELP = `npm start                 start with the demo sites (made the first time)
npm start -- --empty      start without demo data; prints a one-time link for the first account
npm start -- --fresh      make the demo data anew: everything in the demo database is lost

Settings, from the environment: SPUR_PORT (4400), SPUR_LIVE_PORT (4401), SPUR_HOST (127.0.0.1),
SPUR_LIVE_ORIGIN, SPUR_DATA (.spur), DATABASE_URL (use that server instead), SPUR_LOG (warn),
SPUR_FILES (.spur/files, where uploaded files lie),
SPUR_FILES_SERVICE, _BUCKET (spur), _REGION (us-east-1), _KEY and _SECRET (an S3-compatible service for them),
SPUR_LIVE_DATABASE_URL (a standby that visitors' pages are read from),
SPUR_PUBLIC_FILES (a folder of files for nginx), SPUR_PROXIES (proxies in front that are believed),
SPUR_OLD_SITE_PORT (4402, the demo's former website), SPUR_DIRECTORY_PORT (4403, the demo's directory), SPUR_OIDC_ISSUER (the organisation's sign-in), SPUR_CRAWL_ALLOW (hosts outside of the public net).`;

/** @type {import('node:child_process').ChildProcess[]} */
const children = [];
/** @type {{ revive: () => boolean, stop: () => void } | null} */
let postgres = null;
let isEnding = false;

async function end(/** @type {number} */ code) {
  if (isEnding) return;
  isEnding = true;
  await Promise.all(
    children.map(
      (child) =>
        new Promise((resolve) => {
          if (child.exitCode !== null || child.signalCode !== null) return resolve(undefined);
          child.once('exit', resolve);
          child.kill('SIGTERM');
          setTimeout(() => child.kill('SIGKILL'), 5000).unref();
        }),
    ),
  );
  try {
    postgres?.stop();
  } catch (fault) {
    console.error(fault instanceof Error ? fault.message : fault);
  }
  process.exit(code);
}

/** PostgreSQL that was killed is started again; it recovers from its log, and the servers find it by themselves. */
function revivePostgres() {
  if (isEnding || !postgres) return;
  try {
    if (postgres.revive()) console.log('PostgreSQL had ended and was started again.');
  } catch (fault) {
    console.error(fault instanceof Error ? fault.message : fault);
  }
}

/** Starts one server and waits until it says that it is ready. @param {string} file @param {NodeJS.ProcessEnv} env */
function startServer(file, env) {
  return new Promise((/** @type {(message: Record<string, unknown>) => void} */ resolve, reject) => {
    const child = startProcess(`${ROOT}/dist/${file}`, [], env);
    children.push(child);
    let isReady = false;
    child.on('message', (/** @type {Record<string, unknown>} */ message) => {
      if (message.failed) reject(new StatedError(String(message.message)));
      if (!message.ready) return;
      isReady = true;
      resolve(message);
    });
    child.once('exit', (code, signal) => {
      if (!isReady)
        return reject(new StatedError(`${file} ended with ${signal ?? `code ${code}`} before it was ready.`));
      if (isEnding) return;
      console.error(
        `${file} ended unexpectedly (${signal ?? `code ${code}`}). Stopping the rest; start again by 'npm start'.`,
      );
      void end(1);
    });
  });
}

/** One start at a time has the private PostgreSQL. A mark that a killed one left behind counts for nothing. */
function claim(/** @type {string} */ folder) {
  const mark = join(folder, 'starter.pid');
  const before = existsSync(mark) ? Number(readFileSync(mark, 'utf8')) : 0;
  const said =
    before > 0 && existsSync(`/proc/${before}/cmdline`) ? readFileSync(`/proc/${before}/cmdline`, 'utf8') : '';
  if (said.includes('start.mjs'))
    throw new StatedError(
      `It is running already, from the same folder, as process ${before}. Stop that one first: kill ${before}`,
    );
  mkdirSync(folder, { recursive: true });
  writeFileSync(mark, String(process.pid));
}

function readArguments() {
  try {
    return parseArgs({
      options: { empty: { type: 'boolean' }, fresh: { type: 'boolean' }, help: { type: 'boolean', short: 'h' } },
    });
  } catch (fault) {
    throw new StatedError(`${fault instanceof Error ? fault.message : fault}\n\n${HELP}`);
  }
}

/** The host of the addresses that are printed: the one that Spur listens on, or this machine where it listens on all. */
function shownHost() {
  const host = process.env.SPUR_HOST || '127.0.0.1';
  if (host === '0.0.0.0' || host === '::') return '127.0.0.1';
  return host.includes(':') ? `[${host}]` : host;
}

async function main() {
  const { values } = readArguments();
  if (values.help) return void console.log(HELP);
  if (values.empty && values.fresh)
    throw new StatedError(
      '--empty and --fresh exclude each other: one starts without demo data, the other makes it anew.',
    );
  const began = Date.now();
  ensurePackages();
  await ensureBuilt();
  let url = process.env.DATABASE_URL;
  if (url && values.fresh)
    throw new StatedError(
      '--fresh drops the demo database, and Spur does not drop databases of a server of yours. Drop it yourself, then start without --fresh.',
    );
  if (!url) {
    claim(dataFolder());
    const server = await startPostgres(dataFolder());
    postgres = server;
    url = await ensureDatabase(server, values.empty ? 'spur' : 'spur_demo', values.fresh ?? false);
  }
  const env = {
    ...process.env,
    DATABASE_URL: url,
    SPUR_DEMO: values.empty ? 'no' : 'yes',
    SPUR_FILES: process.env.SPUR_FILES || join(dataFolder(), 'files'),
    NODE_ENV: 'production',
  };
  const workbench = await startServer('workbench/main.js', env);
  const live = await startServer('live/main.js', env);
  const host = shownHost();
  const address = `http://${host}:${workbench.port}`;
  console.log(`\nSpur is ready (${((Date.now() - began) / 1000).toFixed(1)} s).\n`);
  console.log(`  Workbench        ${address}`);
  console.log(`  Visitors' side   http://${host}:${live.port}/<site>/`);
  if (workbench.firstAccountToken) {
    console.log(
      `\n  There is no account yet. Make the first one here (the link works once, for a day):\n  ${address}/welcome#${workbench.firstAccountToken}`,
    );
  }
  if (workbench.hasDemoAccounts) {
    console.log('\n  Demo accounts, all with the password slipway-42:');
    console.log('  ines@pellow-quay.example    Ines Carrow, looks after the installation');
    console.log('  marek@pellow-quay.example   Marek Holt, looks after the installation');
    console.log('  mira@pellow-quay.example    Mira Sand, editor of the courses');
    console.log('  teo@pellow-quay.example     Teo Brandt, publishes the news');
    console.log('  lis@pellow-quay.example     Lis Ardern, keeps the menus');
    console.log('  oona@pellow-quay.example    Oona Trask, reads');
    console.log('  kofi@words.example          Kofi Marlow, writes about the boats built, and reads nothing else');
  }
  console.log('\n  Ctrl+C stops everything.\n');
  setInterval(revivePostgres, 3000).unref();
}

process.on('SIGINT', () => void end(0));
process.on('SIGTERM', () => void end(0));
process.on('SIGHUP', () => void end(0));
try {
  await main();
} catch (fault) {
  console.error(fault instanceof StatedError ? `Spur cannot start. ${fault.message}` : fault);
  await end(1);
}
