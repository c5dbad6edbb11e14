// Prints "passed failed" from a test runner's own report; a suite that could not run counts as a failure.
import { readFileSync } from 'node:fs';

const [kind, file] = process.argv.slice(2);
const report = JSON.parse(readFileSync(file, 'utf8'));
if (kind === 'jest')
  console.log(
    report.numPassedTests,
    report.numFailedTests + report.numRuntimeErrorTestSuites + (report.numTotalTests === 0 ? 1 : 0),
  );
else
  console.log(
    report.stats.expected,
    report.stats.unexpected + report.stats.flaky + report.errors.length + (report.stats.expected === 0 ? 1 : 0),
  );
