import { defineConfig } from 'vitest/config';

// A test that hangs has to end one day; none may fail because the machine is slow, so the limits are far off.
const LIMIT_MS = 180_000;
const SCREENS = 'e2e/accessible.test.ts';
const limits = { testTimeout: LIMIT_MS, hookTimeout: LIMIT_MS };

export default defineConfig({
  test: {
    // All cores: of two only one would be used.
    maxWorkers: '100%',
    // `isolate: false`: the files share what they import, which none of them leaves changed; to import it anew for
    // each takes longer than the tests.
    projects: [
      { test: { name: 'web', include: ['web/**/*.test.ts'], isolate: false, ...limits } },
      {
        test: {
          name: 'core',
          include: ['core/**/*.test.ts', 'contract/**/*.test.ts', 'demo/**/*.test.ts', 'scripts/**/*.test.ts'],
          isolate: false,
          ...limits,
        },
      },
      {
        test: {
          name: 'server',
          include: ['server/**/*.test.ts'],
          isolate: false,
          ...limits,
        },
      },
      // Looks at each screen, and nothing in it depends on how fast it goes: it runs beside the ones above.
      { test: { name: 'screens', include: [SCREENS], ...limits } },
      // Each has the machine to itself, after all others.
      {
        test: {
          name: 'e2e',
          include: ['e2e/**/*.test.ts'],
          exclude: [SCREENS],
          fileParallelism: false,
          sequence: { groupOrder: 1 },
          ...limits,
        },
      },
    ],
  },
});
