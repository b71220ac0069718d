import { readFileSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import sharp from 'sharp';

/**
 * Thirty pictures of twelve megapixels taken in one after another: time for each, and how high the
 * server's memory stood (aim 500 MB). Wants PATRONE_URL and PATRONE_SERVER_PID, which ./patrone
 * bench sets.
 */
const at = process.env.PATRONE_URL!;
const memory = () =>
  Number(
    /VmRSS:\s+(\d+)/.exec(
      readFileSync(`/proc/${process.env.PATRONE_SERVER_PID!}/status`, 'utf8'),
    )![1],
  ) / 1024;

const job = (
  await fetch(`${at}/?index`, {
    method: 'POST',
    redirect: 'manual',
    body: new URLSearchParams({
      intent: 'create',
      name: 'Pictures',
      vehicle: '',
      owner: '',
      notes: '',
    }),
  })
).headers.get('location')!;
const times: number[] = [];
let most = memory();
const looking = setInterval(() => (most = Math.max(most, memory())), 20);
let bytes = 0;
for (let i = 0; i < 30; i++) {
  // Grain as a camera has it, each time another.
  const grain = await sharp({
    create: {
      width: 1000,
      height: 750,
      channels: 3,
      background: '#888',
      noise: { type: 'gaussian', mean: 128 - i, sigma: 40 },
    },
  })
    .png()
    .toBuffer();
  const picture = await sharp(grain).resize(4000, 3000).jpeg({ quality: 90 }).toBuffer();
  bytes += picture.length;
  const start = performance.now();
  const answer = await fetch(`${at}${job}/pictures?owner=job&name=${i}.jpg`, {
    method: 'POST',
    body: new Uint8Array(picture),
  });
  if (!answer.ok) throw new Error(await answer.text());
  times.push(performance.now() - start);
}
clearInterval(looking);
const sorted = [...times].sort((a, b) => a - b);
console.log(
  `\n30 pictures of 12 megapixels, ${(bytes / 30 / 1024 ** 2).toFixed(1)} MB each: median ${sorted[15]!.toFixed(0)} ms, slowest ${sorted[29]!.toFixed(0)} ms; server memory ${most.toFixed(0)} MB at most (aim 500)`,
);
