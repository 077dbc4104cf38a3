import { defineConfig } from '@playwright/test';
import { chromiumOptions } from './tools/chromium';

const port = Number(process.env.LUMBIX_TEST_PORT ?? 4710);

/** The whole of Lumbix as a person would start it, on ports and data of the tests' own. */
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
  webServer: {
    command: './start --fresh',
    url: `http://127.0.0.1:${port + 4}/api/health`,
    timeout: 180_000,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 15_000 },
    env: {
      LUMBIX_PORT: String(port + 4),
      LUMBIX_CRM_PORT: String(port + 5),
      LUMBIX_PG_PORT: String(port + 6),
      LUMBIX_DATA: process.env.LUMBIX_TEST_DATA ? `${process.env.LUMBIX_TEST_DATA}/interface` : '.data-test/interface',
    },
  },
});
