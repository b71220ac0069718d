import { ofJest, ofPlaywright, sum } from './reports';

test('a suite that does not load counts as failed, and so does no report', () => {
  const report = {
    numPassedTests: 7,
    numFailedTests: 1,
    numRuntimeErrorTestSuites: 1,
    testResults: [
      { name: 'fast', startTime: 0, endTime: 10, message: 'Cannot find x', assertionResults: [] },
      {
        ...{ name: 'slow', startTime: 0, endTime: 900, message: '' },
        assertionResults: [
          { status: 'passed', fullName: 'a', failureMessages: [] },
          { status: 'failed', fullName: 'b', failureMessages: ['\u001b[31mone\u001b[0m\n\ntwo'] },
        ],
      },
    ],
  };
  expect(ofJest(JSON.stringify(report))).toMatchObject({
    passed: 7,
    failed: 2,
    failures: ['fast\n    Cannot find x', 'b\n    one\n    two'],
  });
  expect(ofJest(JSON.stringify(report)).slowest[0]).toEqual({ file: 'slow', ms: 900 });
  expect(ofJest('')).toMatchObject({ passed: 0, failed: 1 });
});

test('journeys that did not run are not well, and each that failed says why', () => {
  const of = (title: string, status: string, expectedStatus: string, message?: string) => ({
    title,
    file: 'a.spec.ts',
    tests: [{ status, expectedStatus, results: [{ errors: message ? [{ message }] : [] }] }],
  });
  const specs = [
    of('left out', 'skipped', 'passed'),
    of('meant to be', 'skipped', 'skipped'),
    of('wrong', 'unexpected', 'passed', 'no such button'),
  ];
  const report = {
    stats: { expected: 3, flaky: 1, unexpected: 1 },
    errors: [],
    suites: [{ suites: [{ specs }] }],
  };
  expect(ofPlaywright(JSON.stringify(report))).toEqual({
    passed: 4,
    failed: 2,
    failures: ['a.spec.ts: left out', 'a.spec.ts: wrong\n    no such button'],
  });
  expect(ofPlaywright('{}')).toMatchObject({ passed: 0, failed: 1 });
  const well = { passed: 2, failed: 0, failures: [] };
  expect(sum([ofPlaywright(''), well])).toMatchObject({ passed: 2, failed: 1 });
});
