/** What the runners say of themselves, in their own reports, added up. */

export type Count = { passed: number; failed: number };
export const sum = (counts: readonly Count[]): Count => ({
  passed: counts.reduce((all, one) => all + one.passed, 0),
  failed: counts.reduce((all, one) => all + one.failed, 0),
});

type JestReport = {
  numPassedTests: number;
  numFailedTests: number;
  numRuntimeErrorTestSuites: number;
  testResults: { name: string; startTime: number; endTime: number }[];
};

const parsed = <T>(text: string): T | null => {
  try {
    return JSON.parse(text) as T;
  } catch {
    return null;
  }
};

/** Of Jest's report. A suite that does not even load counts as failed, and so does no report. */
export function ofJest(text: string): Count & { slowest: { file: string; ms: number }[] } {
  const report = parsed<JestReport>(text);
  if (!report) return { passed: 0, failed: 1, slowest: [] };
  const slowest = report.testResults
    .map(({ name, startTime, endTime }) => ({ file: name, ms: endTime - startTime }))
    .sort((a, b) => b.ms - a.ms)
    .slice(0, 10);
  const { numPassedTests: passed, numFailedTests, numRuntimeErrorTestSuites } = report;
  return { passed, failed: numFailedTests + numRuntimeErrorTestSuites, slowest };
}

type PlaywrightTest = { status: string; expectedStatus: string };
type PlaywrightSuite = { suites?: PlaywrightSuite[]; specs?: { tests: PlaywrightTest[] }[] };
type PlaywrightReport = PlaywrightSuite & {
  stats: { expected: number; flaky: number; unexpected: number };
  errors: unknown[];
};

/** Journeys that did not run though they should have: what was not looked at is not well. */
const missed = ({ suites = [], specs = [] }: PlaywrightSuite): number =>
  suites.reduce((all, one) => all + missed(one), 0) +
  specs
    .flatMap(({ tests }) => tests)
    .filter(({ status, expectedStatus }) => status === 'skipped' && expectedStatus !== 'skipped')
    .length;

/** Of Playwright's report. No report counts as failed, and so does what did not run. */
export function ofPlaywright(text: string): Count {
  const report = parsed<PlaywrightReport>(text);
  if (!report?.stats) return { passed: 0, failed: 1 };
  const { expected, flaky, unexpected } = report.stats;
  return {
    passed: expected + flaky,
    failed: unexpected + report.errors.length + missed(report),
  };
}
