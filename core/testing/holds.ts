import fc from 'fast-check';
import { expect } from 'vitest';
import { KEPT_SEEDS } from './kept-seeds.ts';

const DEFAULT_RUNS = 100;

/**
 * Runs a law over random values, those first by which it has failed before (`kept-seeds.ts`, by the name of the test); no more
 * often than is set for all (`fc.configureGlobal`).
 * @throws Error where it fails, with what to keep there
 */
export function holds<Values>(law: fc.IProperty<Values>, parameters: fc.Parameters<Values> = {}): void {
  const name = expect.getState().currentTestName ?? '';
  for (const { seed, path } of KEPT_SEEDS[name] ?? []) fc.assert(law, { seed, path, endOnFailure: true });
  const most = fc.readConfigureGlobal().numRuns ?? Infinity;
  const details = fc.check(law, { ...parameters, numRuns: Math.min(parameters.numRuns ?? DEFAULT_RUNS, most) });
  if (!details.failed) return;
  const kept = `'${name}': [{ seed: ${details.seed}, path: '${details.counterexamplePath}' }],`;
  throw new Error(`${fc.defaultReportMessage(details) ?? ''}\n\nKeep it in core/testing/kept-seeds.ts:\n${kept}`, {
    cause: details.errorInstance,
  });
}
