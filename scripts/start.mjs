#!/usr/bin/env node
// Starts Spur from a fresh clone: packages, PostgreSQL, the build, migrations, demo data, both servers.
import { parseArgs } from 'node:util';
import { ensureBuilt } from './build.mjs';
import { ensurePackages } from './packages.mjs';
import { dataFolder, ensureDatabase, startPostgres } from './postgres.mjs';
import { ROOT, Told, startProcess } from './run.mjs';

const HELP = `npm start                 start with the demo sites (made the first time)
npm start -- --empty      start without demo data; prints a one-time link for the first account
npm start -- --fresh      make the demo data anew: everything in the demo database is lost

Settings, from the environment: SPUR_PORT (4400), SPUR_LIVE_PORT (4401), SPUR_HOST (127.0.0.1),
SPUR_LIVE_ORIGIN, SPUR_DATA (.spur), DATABASE_URL (use that server instead), SPUR_LOG (warn).`;

/** @type {import('node:child_process').ChildProcess[]} */
const children = [];
/** @type {{ stop: () => void } | null} */
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

/** Starts one server and waits until it says that it is ready. @param {string} file @param {NodeJS.ProcessEnv} env */
function startServer(file, env) {
  return new Promise((/** @type {(message: Record<string, unknown>) => void} */ resolve, reject) => {
    const child = startProcess(`${ROOT}/dist/${file}`, [], env);
    children.push(child);
    child.on('message', (/** @type {Record<string, unknown>} */ message) => {
      if (message.ready) resolve(message);
    });
    child.once('exit', (code, signal) => {
      reject(new Told(`${file} ended before it was ready (see above).`));
      if (isEnding || children.some((other) => other !== child && other.exitCode !== null)) return;
      console.error(
        `${file} ended unexpectedly (${signal ?? `code ${code}`}). Stopping everything; 'npm start' starts again.`,
      );
      void end(1);
    });
  });
}

async function main() {
  const { values } = parseArgs({
    options: { empty: { type: 'boolean' }, fresh: { type: 'boolean' }, help: { type: 'boolean', short: 'h' } },
  });
  if (values.help) return void console.log(HELP);
  if (values.empty && values.fresh)
    throw new Told('--empty and --fresh exclude each other: one starts without demo data, the other makes it anew.');
  const began = Date.now();
  ensurePackages();
  await ensureBuilt();
  let url = process.env.DATABASE_URL;
  if (url && values.fresh)
    throw new Told(
      '--fresh drops the demo database, and Spur does not drop databases of a server of yours. Drop it yourself, then start without --fresh.',
    );
  if (!url) {
    const server = await startPostgres(dataFolder());
    postgres = server;
    url = await ensureDatabase(server, values.empty ? 'spur' : 'spur_demo', values.fresh ?? false);
  }
  const env = { ...process.env, DATABASE_URL: url, SPUR_DEMO: values.empty ? 'no' : 'yes', NODE_ENV: 'production' };
  const workbench = await startServer('workbench/main.js', env);
  const live = await startServer('live/main.js', env);
  const address = `http://127.0.0.1:${workbench.port}`;
  console.log(`\nSpur is ready (${((Date.now() - began) / 1000).toFixed(1)} s).\n`);
  console.log(`  Workbench        ${address}`);
  console.log(`  Visitors' side   http://127.0.0.1:${live.port}/<site>/`);
  if (workbench.firstAccountToken) {
    console.log(
      `\n  There is no account yet. Make the first one here (the link works once, for a day):\n  ${address}/welcome#${workbench.firstAccountToken}`,
    );
  } else if (!values.empty && !process.env.DATABASE_URL) {
    console.log('\n  Demo accounts, all with the password slipway-42:');
    console.log('  ines@pellow-quay.example    Ines Carrow, manager');
    console.log('  marek@pellow-quay.example   Marek Holt, manager');
    console.log('  oona@pellow-quay.example    Oona Trask, may only read');
  }
  console.log('\n  Ctrl+C stops everything.\n');
}

process.on('SIGINT', () => void end(0));
process.on('SIGTERM', () => void end(0));
process.on('SIGHUP', () => void end(0));
try {
  await main();
} catch (fault) {
  console.error(fault instanceof Told ? `Spur cannot start. ${fault.message}` : fault);
  await end(1);
}
