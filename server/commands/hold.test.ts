import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { hold, makeFolder, serverLeft } from './hold';
import { rest } from './run';

let folder = '';
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'hold-'))));
afterEach(() => rmSync(folder, { recursive: true, force: true }));
const held = () => hold(folder, 'busy', (pid) => `left ${pid}`);

test('of two that start, one is refused, until the other lets go', async () => {
  const first = await held();
  await expect(held()).rejects.toThrow('busy');
  first.letGo();
  await rest(200);
  (await held()).letGo();
});

test('whoever is killed lets go', async () => {
  const child = spawn('flock', ['--nonblock', join(folder, 'lock'), 'sleep', '60'], {
    detached: true,
  });
  await rest(300);
  await expect(held()).rejects.toThrow('busy');
  process.kill(-child.pid!, 'SIGKILL');
  await rest(200);
  (await held()).letGo();
});

test('a number left long ago is another program’s by now', () => {
  expect(serverLeft(folder)).toBeNull();
  writeFileSync(join(folder, 'server.pid'), `${process.pid}\n`);
  expect(serverLeft(folder)).toBeNull();
});

test('a folder that cannot be made is said at once', () => {
  expect(makeFolder(join(folder, 'a', 'b'))).toBe(true);
  expect(makeFolder('/proc/patrone')).toBe(false);
});
