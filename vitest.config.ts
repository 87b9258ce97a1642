import { defineConfig } from 'vitest/config';

// A test that hangs has to end one day; none may fail because the machine is slow, so the limits are far off.
const LIMIT_MS = 180_000;
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
      // Each file has a server, a database and a browser of its own; much of the time they wait for these, so that more
      // of them run beside each other than there are cores.
      {
        test: {
          name: 'browser',
          include: ['e2e/**/*.test.ts'],
          maxWorkers: 3,
          sequence: { groupOrder: 1 },
          ...limits,
        },
      },
    ],
  },
});
