import { defineConfig } from 'vitest/config';

/** The tests that mutants of the core are held against: all that need nothing but it, each law for a moment only. */
export default defineConfig({
  test: {
    include: ['core/**/*.test.ts', 'contract/**/*.test.ts'],
    setupFiles: ['core/testing/shorter-laws.ts'],
    testTimeout: 60_000,
  },
});
