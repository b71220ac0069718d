/** What the runners say of themselves, in their own reports, added up. */

/** How many passed and failed, and of those that failed what was said, a few lines each. */
export type Count = { passed: number; failed: number; failures: readonly string[] };
export const sum = (counts: readonly Count[]): Count => ({
  passed: counts.reduce((all, one) => all + one.passed, 0),
  failed: counts.reduce((all, one) => all + one.failed, 0),
  failures: counts.flatMap((one) => one.failures),
});

/** Lines that are kept of what is said of one failure, the first of it, and their length. */
const MAX_LINES = 12;
const MAX_LENGTH = 200;

// Runners colour what they say.
const COLOURS = /\u001b\[[0-9;]*m/g;

/** What failed, and the first lines of what was said of it. */
export function failure(name: string, said: string): string {
  const lines = said
    .replaceAll(COLOURS, '')
    .split('\n')
    .filter((line) => line.trim() !== '')
    .slice(0, MAX_LINES)
    .map((line) => `    ${line.slice(0, MAX_LENGTH)}`);
  return [name, ...lines].join('\n');
}

type JestReport = {
  numPassedTests: number;
  numFailedTests: number;
  numRuntimeErrorTestSuites: number;
  testResults: {
    name: string;
    startTime: number;
    endTime: number;
    message: string;
    assertionResults: { status: string; fullName: string; failureMessages: string[] }[];
  }[];
};

const parsed = <T>(text: string): T | null => {
  try {
    return JSON.parse(text) as T;
  } catch {
    return null;
  }
};

const NO_REPORT: Count = { passed: 0, failed: 1, failures: ['a runner left no report'] };

/** Of Jest's report. A suite that does not even load counts as failed, and so does no report. */
export function ofJest(text: string): Count & { slowest: { file: string; ms: number }[] } {
  const report = parsed<JestReport>(text);
  if (!report) return { ...NO_REPORT, slowest: [] };
  const slowest = report.testResults
    .map(({ name, startTime, endTime }) => ({ file: name, ms: endTime - startTime }))
    .sort((a, b) => b.ms - a.ms)
    .slice(0, 10);
  const failures = report.testResults.flatMap(({ name, message, assertionResults }) =>
    assertionResults.length === 0 && message !== ''
      ? [failure(name, message)]
      : assertionResults
          .filter(({ status }) => status === 'failed')
          .map(({ fullName, failureMessages }) => failure(fullName, failureMessages.join('\n'))),
  );
  const { numPassedTests: passed, numFailedTests, numRuntimeErrorTestSuites } = report;
  return { passed, failed: numFailedTests + numRuntimeErrorTestSuites, failures, slowest };
}

type Said = { message?: string };
type PlaywrightTest = {
  status: string;
  expectedStatus: string;
  results: { errors: Said[] }[];
};
type PlaywrightSpec = { title: string; file: string; tests: PlaywrightTest[] };
type PlaywrightSuite = { suites?: PlaywrightSuite[]; specs?: PlaywrightSpec[] };
type PlaywrightReport = PlaywrightSuite & {
  stats: { expected: number; flaky: number; unexpected: number };
  errors: Said[];
};

const specsOf = ({ suites = [], specs = [] }: PlaywrightSuite): PlaywrightSpec[] => [
  ...specs,
  ...suites.flatMap(specsOf),
];

/** Journeys that did not run though they should have: what was not looked at is not well. */
const isMissed = ({ status, expectedStatus }: PlaywrightTest): boolean =>
  status === 'skipped' && expectedStatus !== 'skipped';

/** Of Playwright's report. No report counts as failed, and so does what did not run. */
export function ofPlaywright(text: string): Count {
  const report = parsed<PlaywrightReport>(text);
  if (!report?.stats) return NO_REPORT;
  const { expected, flaky, unexpected } = report.stats;
  const specs = specsOf(report);
  const missed = specs.flatMap(({ tests }) => tests).filter(isMissed).length;
  const failures = specs.flatMap(({ title, file, tests }) =>
    tests
      .filter((one) => one.status === 'unexpected' || isMissed(one))
      .map(({ results }) =>
        failure(
          `${file}: ${title}`,
          results.flatMap(({ errors }) => errors.map(({ message = '' }) => message)).join('\n'),
        ),
      ),
  );
  const others = report.errors.map(({ message = '' }) => failure('journeys', message));
  return {
    passed: expected + flaky,
    failed: unexpected + report.errors.length + missed,
    failures: [...failures, ...others],
  };
}
