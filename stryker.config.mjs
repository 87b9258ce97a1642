// Mutants of the core: `npm run mutants -- derive` changes one part of it a line at a time, and says which changes no
// test notices. Not part of `npm test`: a part takes from minutes to an hour.
export default {
  testRunner: 'vitest',
  plugins: ['@stryker-mutator/vitest-runner'],
  vitest: { configFile: 'vitest.mutants.config.ts' },
  coverageAnalysis: 'perTest',
  // Constants of modules are worked out before any test runs, so each such mutant would run all tests.
  ignoreStatic: true,
  concurrency: 2,
  timeoutMS: 20_000,
  tempDirName: '.spur-test/mutants',
  reporters: ['clear-text', 'json'],
  ...JSON.parse(process.env.SPUR_MUTANTS_REPORT ?? '{}'),
  clearTextReporter: { allowColor: false, logTests: false, allowEmojis: false },
  ignorePatterns: ['dist', '.spur', '.spur-test', 'docs'],
};
