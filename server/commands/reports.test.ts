import { ofJest, ofPlaywright, sum } from './reports';

test('a suite that does not load counts as failed, and so does no report', () => {
  const report = {
    numPassedTests: 7,
    numFailedTests: 1,
    numRuntimeErrorTestSuites: 1,
    testResults: [
      { name: 'fast', startTime: 0, endTime: 10 },
      { name: 'slow', startTime: 0, endTime: 900 },
    ],
  };
  expect(ofJest(JSON.stringify(report))).toMatchObject({ passed: 7, failed: 2 });
  expect(ofJest(JSON.stringify(report)).slowest[0]).toEqual({ file: 'slow', ms: 900 });
  expect(ofJest('')).toMatchObject({ passed: 0, failed: 1 });
});

test('journeys that did not run are not well', () => {
  const skipped = { tests: [{ status: 'skipped', expectedStatus: 'passed' }] };
  const meant = { tests: [{ status: 'skipped', expectedStatus: 'skipped' }] };
  const report = {
    stats: { expected: 3, flaky: 1, unexpected: 1 },
    errors: [],
    suites: [{ suites: [{ specs: [skipped, meant] }] }],
  };
  expect(ofPlaywright(JSON.stringify(report))).toEqual({ passed: 4, failed: 2 });
  expect(ofPlaywright('{}')).toEqual({ passed: 0, failed: 1 });
  expect(sum([ofPlaywright(''), { passed: 2, failed: 0 }])).toEqual({ passed: 2, failed: 1 });
});
