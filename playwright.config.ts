import { defineConfig } from '@playwright/test';
import { SIGNED_IN } from './e2e/callers';
import { chromiumOptions } from './tools/chromium';

const port = Number(process.env.LUMBIX_TEST_PORT ?? 4710);

/** The whole of Lumbix as a person would start it, on ports and data of the tests' own, behind a balancer of two web processes. */
export default defineConfig({
  testDir: 'e2e',
  workers: 1,
  timeout: 40_000,
  expect: { timeout: 10_000 },
  reporter: [['list'], ['json', { outputFile: 'test-results/interface.json' }]],
  use: {
    baseURL: `http://127.0.0.1:${port + 4}`,
    locale: 'en-GB',
    viewport: { width: 1280, height: 800 },
    screenshot: 'only-on-failure',
    launchOptions: chromiumOptions,
  },
  projects: [
    { name: 'sign-in', testMatch: 'sign-in.setup.ts' },
    // Signed in with every role, unless a test says otherwise.
    { name: 'interface', dependencies: ['sign-in'], use: { storageState: SIGNED_IN } },
  ],
  webServer: [
    {
      command: './start --fresh',
      url: `http://127.0.0.1:${port + 8}/api/health`,
      timeout: 180_000,
      gracefulShutdown: { signal: 'SIGTERM', timeout: 15_000 },
      env: {
        LUMBIX_PORT: String(port + 7),
        LUMBIX_SECOND_PORT: String(port + 8),
        LUMBIX_CRM_PORT: String(port + 5),
        LUMBIX_PG_PORT: String(port + 6),
        LUMBIX_STORAGE_PORT: String(port + 9),
        // The tests begin with an empty register.
        LUMBIX_HISTORY: 'no',
        // The tests ask more in a minute than a person does.
        LUMBIX_RATE_FACTOR: '100',
        LUMBIX_DATA: process.env.LUMBIX_TEST_DATA
          ? `${process.env.LUMBIX_TEST_DATA}/interface`
          : '.data-test/interface',
      },
    },
    {
      command: `npx tsx e2e/balancer.ts ${port + 4} ${port + 7} ${port + 8}`,
      port: port + 4,
      timeout: 180_000,
    },
  ],
});
