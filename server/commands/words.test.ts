import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { dayOf, momentOf } from './backup';
import { missingPackages } from './machine';
import { why } from './postgres';
import { stoppedWords } from './serving';
import { pauseAfter } from './supervise';

test('why something that writes went wrong is the error, not the last line', () => {
  const folder = mkdtempSync(join(tmpdir(), 'words-'));
  const log = join(folder, 'log');
  try {
    expect(why(log, folder)).toBe('no log was written');
    writeFileSync(log, 'begun\nFATAL: no such role\nstopped\n');
    expect(why(log, folder)).toBe('FATAL: no such role');
    writeFileSync(log, 'begun\nstopped\n');
    expect(why(log, folder)).toBe('stopped');
    writeFileSync(log, 'PANIC: could not write: No space left on device\nstopped\n');
    expect(why(log, folder)).toContain('the disk is full');
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});

test('after five deaths in a row the pauses grow to five minutes, and no further', () => {
  const pauses = Array.from({ length: 14 }, (_, i) => pauseAfter(i + 1));
  expect(pauses.slice(0, 7)).toEqual([0, 0, 0, 0, 0, 5, 10]);
  expect(pauses.at(-1)).toBe(300);
  expect(pauseAfter(1000, Infinity)).toBe(0);
});

test('packages are named once each', () => {
  expect(missingPackages(['initdb', 'psql', 'flock'], () => false)).toEqual([
    'postgresql',
    'postgresql-client',
    'util-linux',
  ]);
  expect(missingPackages(['psql', 'chromium'], (one) => one === 'psql')).toEqual(['chromium']);
});

test('what was stopped is a sentence; a backup is named by this machine’s clock', () => {
  expect(stoppedWords([])).toBe('Nothing was running.');
  expect(stoppedWords(['the server', 'the database'])).toBe('Stopped the server and the database.');
  const at = new Date(2026, 0, 5, 7, 8, 9);
  expect([dayOf(at), momentOf(at)]).toEqual(['2026-01-05', '2026-01-05-070809']);
});
