import { createHash } from 'node:crypto';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { buffer } from 'node:stream/consumers';
import { request as plainRequest } from 'node:http';
import { crc32, deflateSync } from 'node:zlib';
import yazl from 'yazl';
import { demoJob } from '../demo/job';
import { ask, form, rest } from './client';

const chunk = (name: string, body: Uint8Array): Buffer => {
  const named = Buffer.concat([Buffer.from(name, 'latin1'), body]);
  const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
  length.writeUInt32BE(body.length);
  sum.writeUInt32BE(crc32(named));
  return Buffer.concat([length, named, sum]);
};

/** Passes of Adam7: where each begins and how far apart its pixels are (W3C PNG, section 8.2). */
// prettier-ignore
const ADAM7 = [[0, 0, 8, 8], [4, 0, 8, 8], [0, 4, 4, 8], [2, 0, 4, 4], [0, 2, 2, 4], [1, 0, 2, 2], [0, 1, 1, 2]] as const;

/** A black PNG: grey (kind 0) or RGBA (kind 6), 1, 8 or 16 bits a channel, small however large it is. */
function blackPng(side: number, bits: 1 | 8 | 16, kind: 0 | 6, interlaced: boolean): Buffer {
  const head = Buffer.alloc(13);
  head.writeUInt32BE(side, 0);
  head.writeUInt32BE(side, 4);
  head.set([bits, kind, 0, 0, interlaced ? 1 : 0], 8);
  const rowBytes = (pixels: number) => 1 + Math.ceil((pixels * bits * (kind === 6 ? 4 : 1)) / 8);
  const rawBytes = interlaced
    ? ADAM7.reduce((sum, [x, y, dx, dy]) => {
        const [wide, high] = [Math.ceil((side - x) / dx), Math.ceil((side - y) / dy)];
        return sum + (wide > 0 && high > 0 ? high * rowBytes(wide) : 0);
      }, 0)
    : side * rowBytes(side);
  return Buffer.concat([
    Buffer.from('\x89PNG\r\n\x1a\n', 'latin1'),
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(Buffer.alloc(rawBytes), { level: 1 })),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

type Packed = { name: string; bytes: Buffer };
/** A job file as a zip, with what is given in it beside the text of the job. */
async function pack(job: object, files: readonly Packed[]): Promise<Buffer> {
  const zip = new yazl.ZipFile();
  zip.addBuffer(Buffer.from(JSON.stringify(job)), 'job.json');
  for (const { name, bytes } of files) zip.addBuffer(bytes, name);
  zip.end();
  return buffer(zip.outputStream);
}

/** A job that speaks of a picture as 100 × 100, and the pack that has it in it. */
function packOf(png: Buffer, said = { width: 100, height: 100 }): Promise<Buffer> {
  const digest = createHash('sha256').update(png).digest('hex');
  const at = new Date().toISOString();
  const facts = { type: 'png', ...said, bytes: png.length, name: 'p.png', taken: null };
  const more = { at, putAway: null, caption: '', marks: [], on: { owner: 'job' } };
  const job = {
    ...demoJob(),
    pieces: [],
    survey: [],
    structure: [],
    pictures: [{ digest, ...facts, ...more }],
  };
  return pack(job, [{ name: `pictures/${digest}.png`, bytes: png }]);
}

const sent = (body: Uint8Array): RequestInit => {
  const file = new FormData();
  file.append('file', new Blob([new Uint8Array(body)]), 'job.patrone.zip');
  return { method: 'POST', body: file };
};

/** A request as it stands, with nothing made of its address; the status of its answer. */
const asWritten = (at: string, path: string): Promise<number> =>
  new Promise((done, fail) => {
    const { hostname, port, host } = new URL(at);
    plainRequest({ hostname, port, path, headers: { Host: host } }, (answer) => {
      answer.resume();
      done(answer.statusCode ?? 0);
    })
      .on('error', fail)
      .end();
  });

export type Files = { refused: number; waitedMs: number; memoryMb: number; wrong: string[] };

/**
 * Pictures and job files made to be large when they are unpacked, zips that lead out of their
 * folder, and requests that cannot be parsed: each is refused in words, leaves nothing in `pictures`,
 * and keeps nobody who wants a page or a paper waiting longer than `tooLongMs`. `memory`: what the
 * server holds, MB, looked at all the while.
 */
export async function heavyFiles(
  at: string,
  { job, piece }: { job: string; piece: string },
  pictures: string,
  memory: () => number,
  tooLongMs: number,
): Promise<Files> {
  const wrong: string[] = [];
  const names = () => new Set(readdirSync(pictures, { recursive: true, encoding: 'utf8' }));
  const before = names();
  let [over, waitedMs, memoryMb, refused] = [false, 0, 0, 0];
  const beside = (async () => {
    while (!over) {
      for (const path of [
        '/health',
        `/pieces/${piece}/card.data`,
        `/pieces/${piece}/pattern/blank.pdf`,
      ]) {
        const found = await ask(at + path);
        if (!found || found.status >= 500) wrong.push(`${path}: ${found?.status ?? 'no answer'}`);
        waitedMs = Math.max(waitedMs, found?.ms ?? Infinity);
      }
      memoryMb = Math.max(memoryMb, memory());
      await rest(50);
    }
  })();

  const huge = blackPng(30_000, 1, 0, false);
  const pixels = blackPng(7000, 8, 0, true);
  const held = blackPng(5000, 16, 6, true);
  const small = blackPng(100, 8, 6, false);
  const escaping = Buffer.from(
    (
      await pack({ ...demoJob(), structure: [], pieces: [] }, [
        { name: 'AA/BB/x.txt', bytes: small },
      ])
    )
      .toString('latin1')
      .replaceAll('AA/BB/x.txt', '../../x.txt'),
    'latin1',
  );
  const picture = (bytes: Buffer): [string, RequestInit] => [
    `/jobs/${job}/pictures?owner=job&name=p.png`,
    { method: 'POST', body: new Blob([new Uint8Array(bytes)]) },
  ];
  const unfit: [string, [string, RequestInit]][] = [
    ['a picture of 30 000²', picture(huge)],
    ['an interlaced picture of 16 bits', picture(held)],
    ['a pack with a picture of 30 000², said to be 100²', ['/take-in', sent(await packOf(huge))]],
    ['a pack with an interlaced picture of 16 bits', ['/take-in', sent(await packOf(held))]],
    [
      'a pack with a picture of another size than it says',
      ['/take-in', sent(await packOf(pixels))],
    ],
    ['a pack that leads out of its folder', ['/take-in', sent(escaping)]],
    ['a pack with a picture that is none', ['/take-in', sent(await packOf(Buffer.from('none')))]],
    ['a pack that breaks off', ['/take-in', sent((await packOf(small)).subarray(0, 300))]],
    [
      'a form without a boundary',
      [
        '/take-in',
        { method: 'POST', headers: { 'Content-Type': 'multipart/form-data' }, body: 'file' },
      ],
    ],
    ['a name with a NUL', ['/sign-in', form({ name: 'a\0b', phrase: 'a wrong phrase' })]],
    ['a person with a NUL', ['/people', form({ intent: 'add', name: 'a\0b', role: 'works' })]],
  ];
  const names0 = names();
  for (const [what, [path, init]] of unfit) {
    const answer = await ask(at + path, init);
    if (!answer || answer.status < 400 || answer.status >= 500)
      wrong.push(`${what}: ${answer?.status ?? 'no answer'} ${answer?.text.slice(0, 120) ?? ''}`);
    else refused++;
  }
  const left = [...names()].filter((name) => !names0.has(name));
  if (left.length > 0) wrong.push(`what was refused left ${left.length} files: ${left[0]}`);
  const elsewhere = await asWritten(at, 'http://elsewhere/sign-in');
  if (elsewhere !== 400) wrong.push(`an address of elsewhere: ${elsewhere}`);
  const capitals = await ask(`${at}/pieces/${piece.toUpperCase()}/card`);
  if (capitals?.status !== 200) wrong.push(`an id in capitals: ${capitals?.status}`);
  // What is allowed and takes its time: nobody but the next picture waits for it.
  const allowed = await Promise.all(
    Array.from({ length: 3 }, () => ask(...absolute(at, picture(pixels)))),
  );
  for (const one of allowed)
    if (one?.status !== 200) wrong.push(`a picture of 49 million pixels: ${one?.status}`);
  const good = await ask(
    `${at}/take-in`,
    sent(await packOf(pixels, { width: 7000, height: 7000 })),
  );
  if (good?.status !== 302) wrong.push(`a good pack: ${good?.status} ${good?.text.slice(0, 120)}`);
  over = true;
  await beside;
  const kept = [...names()].filter((name) => !before.has(name));
  if (kept.filter((name) => name.startsWith(join('incoming', ''))).length > 0)
    wrong.push('something stayed in the folder for what comes in');
  if (waitedMs > tooLongMs) wrong.push(`somebody beside them waited ${waitedMs.toFixed(0)} ms`);
  if (memoryMb > MAX_MEMORY_MB) wrong.push(`memory went to ${memoryMb.toFixed(0)} MB`);
  return { refused, waitedMs, memoryMb, wrong };
}

/** As much as the server may hold, MB, whatever comes in. */
const MAX_MEMORY_MB = 700;

const absolute = (at: string, [path, init]: [string, RequestInit]): [string, RequestInit] => [
  at + path,
  init,
];
