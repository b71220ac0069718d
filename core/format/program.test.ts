import { readFileSync } from 'node:fs';
import { PROGRAM } from './program';

test('the version is that of the package, and the changes begin with it', () => {
  const { version } = JSON.parse(readFileSync('package.json', 'utf8')) as { version: string };
  expect(PROGRAM).toBe(version);
  expect(/^## (\S+)/m.exec(readFileSync('CHANGELOG.md', 'utf8'))?.[1]).toBe(version);
});
