/** Prints "passed failed" of a runner's JSON report: Vitest's or Playwright's. Skipped tests count as failed. */
import { readFileSync } from 'node:fs';

const report = JSON.parse(readFileSync(process.argv[2], 'utf8'));
if (report.stats) {
  const { expected, unexpected, flaky, skipped } = report.stats;
  process.stdout.write(`${[expected, unexpected + flaky + skipped + (report.errors?.length ?? 0)].join(' ')}\n`);
} else {
  const files = report.testResults.filter(
    ({ status, assertionResults }) => status === 'failed' && assertionResults.length === 0,
  );
  process.stdout.write(
    `${[report.numPassedTests, report.numTotalTests - report.numPassedTests + files.length].join(' ')}\n`,
  );
}
