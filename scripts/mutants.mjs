#!/usr/bin/env node
// Mutants of one part of the core or the contract: `npm run mutants -- derive`, `npm run mutants -- contract`.
import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensurePackages } from './packages.mjs';
import { ROOT, StatedError, runShown } from './run.mjs';

const [part = ''] = process.argv.slice(2);
const folder = part === 'contract' ? 'contract' : `core/${part}`;
try {
  if (part === '' || !existsSync(join(ROOT, folder)))
    throw new StatedError(
      "Say which part: 'npm run mutants -- derive', or operations, changes, arrange, checks … contract.",
    );
  ensurePackages();
  mkdirSync(join(ROOT, '.spur-test'), { recursive: true });
  const report = join('.spur-test', `mutants-${part.replaceAll('/', '-')}.json`);
  const options = { jsonReporter: { fileName: report } };
  await runShown('npx', ['stryker', 'run', '--mutate', `${folder}/**/*.ts,!${folder}/**/*.test.ts`], {
    ...process.env,
    SPUR_MUTANTS_REPORT: JSON.stringify(options),
  });
  /** @type {{ files: Record<string, { mutants: { status: string }[] }> }} */
  const { files } = JSON.parse(readFileSync(join(ROOT, report), 'utf8'));
  const statuses = Object.values(files).flatMap((file) => file.mutants.map((mutant) => mutant.status));
  const count = (/** @type {string[]} */ ...names) => statuses.filter((status) => names.includes(status)).length;
  const killed = count('Killed', 'Timeout');
  const tried = killed + count('Survived', 'NoCoverage');
  console.log(`${part}: ${killed} of ${tried} mutants killed (${((100 * killed) / tried).toFixed(1)} %); ${report}`);
} catch (fault) {
  console.error(fault instanceof StatedError ? fault.message : fault);
  process.exit(1);
}
