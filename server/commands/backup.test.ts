import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { asText, digestOf, restorePictures, sumsOf, unpack } from './backup';

let folder = '';
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'backup-'))));
afterEach(() => rmSync(folder, { recursive: true, force: true }));
const put = (name: string, bytes: string | Uint8Array) => {
  const file = join(folder, name);
  mkdirSync(join(file, '..'), { recursive: true });
  writeFileSync(file, bytes);
  return file;
};

test('sums are those of sha256sum, and its lines are read', async () => {
  await fc.assert(
    fc.asyncProperty(fc.uint8Array({ maxLength: 5000 }), async (bytes) => {
      const file = put('any', bytes);
      const line = execFileSync('sha256sum', [file], { encoding: 'utf8' });
      const sums = sumsOf(line);
      expect(sums).toEqual([{ digest: await digestOf(file), name: file }]);
      expect(asText(sums)).toBe(line);
    }),
    { numRuns: 20 },
  );
});

test('what is no backup is none, whatever it is', async () => {
  mkdirSync(join(folder, 'apart'));
  const parts = put('parts/sums.sha256', 'no sums\n');
  execFileSync('tar', ['-cf', join(folder, 'half.tar'), '-C', join(parts, '..'), 'sums.sha256']);
  for (const file of [
    put('text', 'no backup'),
    put('dump', 'PGDMP and nothing'),
    put('empty', ''),
    join(folder, 'half.tar'),
    join(folder, 'nowhere'),
  ])
    expect(await unpack(file, join(folder, 'apart'))).toBeNull();
});

const DIGEST = 'a'.repeat(64);
const place = `pictures/aa/${DIGEST}.jpg`;

test('only what is named as a picture is put where pictures lie', async () => {
  for (const name of [
    '../../etc/passwd',
    `pictures/bb/${DIGEST}.jpg`,
    `${place}/x`,
    'pictures/aa/x.jpg',
  ])
    await expect(
      restorePictures({ dump: '', folder, pictures: [{ digest: DIGEST, name }] }, folder, folder),
    ).rejects.toThrow('no picture');
});

test('a picture comes from the backup, from beside it, or is counted as missing', async () => {
  const file = put('one', 'the picture');
  const digest = (await digestOf(file))!;
  const name = `pictures/${digest.slice(0, 2)}/${digest}.png`;
  put(`beside/${name}`, 'the picture');
  put(`apart/${name}`, 'something else');
  const of = {
    dump: '',
    folder: join(folder, 'apart'),
    pictures: [
      { digest, name },
      { digest: DIGEST, name: place },
    ],
  };
  expect(await restorePictures(of, join(folder, 'data'), join(folder, 'beside'))).toBe(1);
  expect(readFileSync(join(folder, 'data', name), 'utf8')).toBe('the picture');
});
