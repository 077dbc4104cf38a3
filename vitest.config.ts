import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

const folder = (path: string) => fileURLToPath(new URL(path, import.meta.url));
const SERVER = 'tests/server/**/*.test.ts';

export default defineConfig({
  resolve: { alias: { '#core': folder('./core'), '~': folder('./app') } },
  test: {
    testTimeout: 30_000,
    hookTimeout: 60_000,
    projects: [
      {
        extends: true,
        test: {
          name: 'alone',
          include: ['{app,core,render,server,standins,tests}/**/*.test.ts'],
          exclude: [SERVER],
          maxWorkers: 2,
          sequence: { groupOrder: 0 },
        },
      },
      // These share one database cluster, so one file runs after the other, and nothing beside them.
      {
        extends: true,
        test: { name: 'server', include: [SERVER], fileParallelism: false, sequence: { groupOrder: 1 } },
      },
    ],
    coverage: {
      provider: 'v8',
      include: ['core/{template,production}/**/*.ts', 'server/{productions,records}/**/*.ts'],
      exclude: ['**/*.test.ts'],
      reporter: ['json-summary'],
      reportsDirectory: 'test-results/coverage',
    },
  },
});
