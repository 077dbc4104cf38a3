import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

const folder = (path: string) => fileURLToPath(new URL(path, import.meta.url));

export default defineConfig({
  resolve: { alias: { '#core': folder('./core'), '~': folder('./app') } },
  test: {
    include: ['{app,core,render,server,standins,tests}/**/*.test.ts'],
    testTimeout: 30_000,
    hookTimeout: 60_000,
    // Two cores; the server tests share one database and run one after the other.
    fileParallelism: false,
    coverage: {
      provider: 'v8',
      include: ['core/{template,production}/**/*.ts', 'server/{productions,records}/**/*.ts'],
      exclude: ['**/*.test.ts'],
      reporter: ['json-summary'],
      reportsDirectory: 'test-results/coverage',
    },
  },
});
