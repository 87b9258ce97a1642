import { createHash } from 'node:crypto';
import {
  cpSync,
  existsSync,
  mkdirSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress, gzip } from 'node:zlib';
import { ROOT } from './run.mjs';

const SOURCES = [
  'core',
  'contract',
  'server',
  'web',
  'demo',
  'package.json',
  'package-lock.json',
  'vite.config.ts',
  'scripts/build.mjs',
];

/** A hash over the names, sizes and times of all that the build reads. */
function sourcesHash() {
  const hash = createHash('sha256');
  const look = (/** @type {string} */ path) => {
    const info = statSync(path);
    if (info.isDirectory()) for (const name of readdirSync(path).sort()) look(join(path, name));
    else if (!/\.test\.tsx?$/.test(path)) hash.update(`${path}|${info.size}|${info.mtimeMs}\n`);
  };
  for (const source of SOURCES) look(join(ROOT, source));
  return hash.digest('hex');
}

/**
 * Builds the servers (esbuild) and the interface (Vite) into `dist/`, where the sources have changed since: beside it first,
 * then in its place, so that a Spur that runs from it meets no half of it.
 */
export async function ensureBuilt() {
  const stamp = join(ROOT, 'dist', '.built-from');
  const wanted = sourcesHash();
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  console.log('Building …');
  const [esbuild, vite] = await Promise.all([import('esbuild'), import('vite')]);
  const fresh = join(ROOT, 'dist.new');
  rmSync(fresh, { recursive: true, force: true });
  mkdirSync(fresh);
  await esbuild.build({
    absWorkingDir: ROOT,
    entryPoints: {
      'workbench/main': 'server/main.ts',
      'workbench/export-command': 'server/exports/export-command.ts',
      'workbench/match-worker': 'server/carry-over/match-worker.ts',
      'workbench/pdf-worker': 'server/library/pdf-worker.ts',
      'live/main': 'server/live/main.ts',
    },
    outdir: fresh,
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    packages: 'external',
    sourcemap: true,
    logLevel: 'warning',
  });
  for (const folder of ['live', 'workbench'])
    cpSync(join(ROOT, 'server/live/assets'), join(fresh, folder, 'assets'), { recursive: true });
  // Whatever it is otherwise: with another one the interface would have React's slower build, for developing.
  const { NODE_ENV = '' } = process.env;
  process.env.NODE_ENV = 'production';
  await vite.build({
    root: join(ROOT, 'web'),
    configFile: join(ROOT, 'vite.config.ts'),
    build: { outDir: join(fresh, 'web') },
    logLevel: 'warn',
  });
  if (NODE_ENV === '') delete process.env.NODE_ENV;
  else process.env.NODE_ENV = NODE_ENV;
  await compressAssets(join(fresh, 'web', 'assets'));
  writeFileSync(join(fresh, '.built-from'), wanted);
  const [built, former] = [join(ROOT, 'dist'), join(ROOT, 'dist.old')];
  rmSync(former, { recursive: true, force: true });
  if (existsSync(built)) renameSync(built, former);
  renameSync(fresh, built);
  rmSync(former, { recursive: true, force: true });
}

/** Compresses scripts and styles once, as far as it goes: `express-static-gzip` sends what stands beside them under `.br` and `.gz`. */
async function compressAssets(/** @type {string} */ folder) {
  const files = readdirSync(folder).filter((name) => /\.(?:js|css)$/.test(name));
  await Promise.all(
    files.map(async (name) => {
      const bytes = readFileSync(join(folder, name));
      writeFileSync(join(folder, `${name}.br`), await promisify(brotliCompress)(bytes));
      writeFileSync(join(folder, `${name}.gz`), await promisify(gzip)(bytes, { level: 9 }));
    }),
  );
}
