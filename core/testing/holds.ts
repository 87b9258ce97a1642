import fc from 'fast-check';
import { expect } from 'vitest';
import { KEPT_SEEDS } from './kept-seeds.ts';

const DEFAULT_RUNS = 100;

/** The seed of a test, by its name (FNV-1a): a run of the tests is like the one before, and laws differ from each other. */
function seedOf(name: string): number {
  let hash = 0x811c9dc5;
  for (let at = 0; at < name.length; at++) hash = Math.imul(hash ^ name.charCodeAt(at), 0x01000193);
  return hash | 0;
}

/**
 * Runs a law over random values, those first by which it has failed before (`kept-seeds.ts`, by the name of the test); no more
 * often than is set for all, and by other seeds where one is set for all (`fc.configureGlobal`).
 * @throws Error where it fails, with what to keep there
 */
export function holds<Values>(law: fc.IProperty<Values>, parameters: fc.Parameters<Values> = {}): void {
  const name = expect.getState().currentTestName ?? '';
  for (const { seed, path } of KEPT_SEEDS[name] ?? []) fc.assert(law, { seed, path, endOnFailure: true });
  const most = fc.readConfigureGlobal().numRuns ?? Infinity;
  const { seed = seedOf(name) } = fc.readConfigureGlobal();
  const details = fc.check(law, { seed, ...parameters, numRuns: Math.min(parameters.numRuns ?? DEFAULT_RUNS, most) });
  if (!details.failed) return;
  const kept = `'${name}': [{ seed: ${details.seed}, path: '${details.counterexamplePath}' }],`;
  throw new Error(`${fc.defaultReportMessage(details) ?? ''}\n\nKeep it in core/testing/kept-seeds.ts:\n${kept}`, {
    cause: details.errorInstance,
  });
}
