import { performance } from 'node:perf_hooks';
import sharp from 'sharp';
import { highest } from './serverMemory';

/**
 * Thirty pictures of twelve megapixels taken in one after another: time for each, and how high the
 * server's memory stood (aim 500 MB). Wants PATRONE_URL and PATRONE_SERVER_PID, which ./patrone
 * bench sets.
 */
const at = process.env.PATRONE_URL!;
const PICTURES = 30;

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
let bytes = 0;

/** Grain as a camera has it, each time another. */
async function picture(place: number): Promise<Uint8Array<ArrayBuffer>> {
  const grain = await sharp({
    create: {
      width: 1000,
      height: 750,
      channels: 3,
      background: '#888',
      noise: { type: 'gaussian', mean: 128 - place, sigma: 40 },
    },
  })
    .png()
    .toBuffer();
  return new Uint8Array(await sharp(grain).resize(4000, 3000).jpeg({ quality: 90 }).toBuffer());
}

const { maxMb } = await highest(async () => {
  for (let i = 0; i < PICTURES; i++) {
    const body = await picture(i);
    bytes += body.length;
    const start = performance.now();
    const answer = await fetch(`${at}${job}/pictures?owner=job&name=${i}.jpg`, {
      method: 'POST',
      body,
    });
    if (!answer.ok) throw new Error(await answer.text());
    times.push(performance.now() - start);
  }
});
const sorted = [...times].sort((a, b) => a - b);
const eachMb = bytes / PICTURES / 1024 ** 2;
const [median, slowest] = [sorted[PICTURES / 2]!, sorted.at(-1)!];
console.log(
  `\n${PICTURES} pictures of 12 megapixels, ${eachMb.toFixed(1)} MB each: median ${median.toFixed(0)} ms, slowest ${slowest.toFixed(0)} ms; server memory ${maxMb.toFixed(0)} MB at most (aim 500)`,
);
