import { defineConfig } from 'vitest/config';

// A test that hangs has to end one day; none may fail because the machine is slow, so the limits are far off.
const LIMIT_MS = 180_000;
const limits = { testTimeout: LIMIT_MS, hookTimeout: LIMIT_MS };

export default defineConfig({
  test: {
    projects: [
      { test: { name: 'web', include: ['web/**/*.test.ts'], ...limits } },
      {
        test: {
          name: 'core',
          include: ['core/**/*.test.ts', 'contract/**/*.test.ts', 'demo/**/*.test.ts', 'scripts/**/*.test.ts'],
          ...limits,
        },
      },
      {
        test: {
          name: 'server',
          include: ['server/**/*.test.ts'],
          ...limits,
        },
      },
      {
        test: {
          name: 'e2e',
          include: ['e2e/**/*.test.ts'],
          fileParallelism: false,
          ...limits,
        },
      },
    ],
  },
});
