import { readFileSync } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import sharp from 'sharp';
import { writeJob } from '#core/format/job';
import { CARD, GRAY, MANILA, off, onPaper } from '#core/picture/cardScene.arbitrary';
import type { Scene, Shot } from '#core/picture/photographed.arbitrary';
import { photographed } from '#core/picture/photographed.arbitrary';
import { runToCompletion } from '#core/measure/runToCompletion';
import { trace } from '#core/picture/trace';
import type { SurveyBody, SurveyedFile } from '#core/survey/references';
import { foldedStrip } from '../bench/foldedStrip';
import { demoJob } from '../demo/job';
import { cornerAt, newPiece, saved } from './hands';

/**
 * What only the real page can tell; printed, never judged: a loaded machine is no fault of the
 * code.
 */

const quantile = (list: number[], share: number) =>
  [...list].sort((a, b) => a - b)[Math.floor(list.length * share)] ?? 0;
const median = (list: number[]) => quantile(list, 0.5);

test('frames while a corner is dragged, 40 folds and 400 corners', async ({ page, request }) => {
  await newPiece(page, 'Bench card');
  const piece = /pieces\/([^/]+)/.exec(page.url())![1]!;
  const answer = await request.post(`/pieces/${piece}/documents/card`, {
    data: { intent: 'save', base: 0, doc: foldedStrip(40, 400) },
  });
  expect(answer.ok()).toBe(true);
  await page.reload();
  await page.waitForLoadState('networkidle');
  const from = await cornerAt(page, 200);
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(from.x + 6, from.y - 6);
  await page.evaluate(() => {
    const times: number[] = [];
    const work: number[] = [];
    (window as unknown as { bench: object }).bench = { times, work };
    let last = performance.now();
    const tick = (now: number) => {
      times.push(now - last);
      last = now;
      // What this frame's own work took: from its start to when the browser is free again.
      const channel = new MessageChannel();
      channel.port1.onmessage = () => work.push(performance.now() - now);
      channel.port2.postMessage(0);
      if (times.length < 150) requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  });
  for (let i = 0; i < 120; i++)
    await page.mouse.move(from.x + 6 + (i % 20) * 2, from.y - 6 - (i % 15) * 2);
  // Only what was drawn while the hand moved: what rests is reckoned when it is let go.
  const { times, work } = await page.evaluate(() => {
    const { bench } = window as unknown as { bench: { times: number[]; work: number[] } };
    return { times: [...bench.times], work: [...bench.work] };
  });
  await page.mouse.up();
  await saved(page);
  const late = times.filter((t) => t > 17.5).length;
  console.log(
    `dragging a corner: ${times.length} frames, median ${median(times).toFixed(1)} ms apart, ${late} later than one frame (16.7 ms)`,
  );
  console.log(
    `work in a frame: median ${median(work).toFixed(1)} ms (aim 12), 95th of a hundred ${quantile(work, 0.95).toFixed(1)} ms (aim 16), slowest ${Math.max(...work).toFixed(1)} ms (software drawing, no graphics card)`,
  );
});

async function stageTime(page: Page, url: string): Promise<number> {
  const start = Date.now();
  await page.goto(url, { waitUntil: 'commit' });
  // Usable: the drawing answers to the keyboard, so the script has taken over.
  await page.waitForFunction(() =>
    Object.keys(document.querySelector('h1') ?? {}).some((key) => key.startsWith('__reactProps')),
  );
  return Date.now() - start;
}

test('script before the first stage is usable, and how long that takes', async ({
  page,
  browser,
}) => {
  await page.goto('/');
  await page.getByRole('link', { name: /Mobile library van/ }).click();
  await page
    .getByRole('link', { name: /Step-well tray/ })
    .first()
    .click();
  await page.waitForURL(/pieces/);
  const url = page.url().replace(/[^/]+$/, 'card');
  const fresh = await (await browser.newContext()).newPage();
  const client = await fresh.context().newCDPSession(fresh);
  await client.send('Network.enable');
  const scripts = new Map<string, number>();
  const kinds = new Map<string, string>();
  client.on('Network.responseReceived', (e) => kinds.set(e.requestId, e.type));
  client.on('Network.loadingFinished', (e) => scripts.set(e.requestId, e.encodedDataLength));
  const cold = await stageTime(fresh, url);
  await fresh.waitForLoadState('networkidle');
  const bytes = [...scripts]
    .filter(([id]) => kinds.get(id) === 'Script')
    .reduce((sum, [, n]) => sum + n, 0);
  const times: number[] = [];
  for (let i = 0; i < 5; i++)
    times.push(await stageTime(await (await browser.newContext()).newPage(), url));
  console.log(
    `compressed script before the card stage is usable: ${(bytes / 1024).toFixed(0)} kB (aim 250)`,
  );
  console.log(
    `request to usable stage on loopback: first ${cold} ms, median of five fresh browsers ${median(times)} ms (aim 1000)`,
  );
});

test('the server’s memory after a hundred pages', async ({ request, page }) => {
  await page.goto('/');
  const job = await page.getByRole('link', { name: /Mobile library van/ }).getAttribute('href');
  await page.goto(job!);
  const hrefs = await page
    .getByRole('link', { name: /Step-well|Battery|Scuttle|Sill/ })
    .evaluateAll((links) => links.map((a) => a.getAttribute('href')!));
  for (let i = 0; i < 100; i++)
    expect((await request.get(i % 5 === 4 ? job! : hrefs[i % hrefs.length]!)).ok()).toBe(true);
  const status = readFileSync(`/proc/${process.env.PATRONE_SERVER_PID}/status`, 'utf8');
  console.log(
    `server’s resident memory after 100 page loads: ${(Number(/VmRSS:\s+(\d+)/.exec(status)![1]) / 1024).toFixed(0)} MB (aim 300)`,
  );
});

/**
 * The demo's survey with points in a ring and `measures` measures between them, each read in
 * `rounds` rounds.
 */
function surveyOf(measures: number, rounds: number): SurveyedFile[] {
  const points = Math.max(4, Math.ceil(measures / 4));
  const at = (i: number) =>
    [
      1500 * Math.cos((2 * Math.PI * i) / points),
      900 * Math.sin((2 * Math.PI * i) / points),
    ] as const;
  const tapes = Array.from(
    { length: measures },
    (_, k) => [k % points, (k + 1 + Math.floor(k / points) * 3) % points] as const,
  );
  const put = (id: string, body: SurveyBody): SurveyedFile => ({
    id,
    at: '2026-10-01T10:30:00.000Z',
    body,
  });
  const read = (k: number, round: number) => {
    const [a, b] = tapes[k]!.map((i) => at(i));
    return (
      Math.round((Math.hypot(a![0] - b![0], a![1] - b![1]) + Math.sin(k * 7.3 + round)) * 2) / 2
    );
  };
  return [
    ...Array.from({ length: points }, (_, i) =>
      put(`p${i}`, {
        kind: 'point',
        name: `Place ${i + 1}`,
        where: '',
        side: 'right',
        partner: null,
        putAway: false,
      }),
    ),
    ...tapes.map(([a, b], k) =>
      put(`m${k}`, {
        kind: 'measure',
        of: 'distance',
        name: `${a + 1} to ${b + 1}`,
        from: `p${a}`,
        to: `p${b}`,
        where: '',
        u: 1,
        tolerance: null,
        partner: null,
        putAway: false,
      }),
    ),
    ...Array.from({ length: rounds }, (_, r) =>
      put(`r${r}`, {
        kind: 'round',
        stage: 'other',
        name: `Round ${r + 1}`,
        at: `2026-10-${String(r + 2).padStart(2, '0')}T10:00:00.000Z`,
        putAway: false,
        readings: Object.fromEntries(
          tapes.map((_, k) => [`m${k}`, { value: read(k, r), note: '', as: '' }]),
        ),
      }),
    ),
  ];
}

test('the References page with 200 measures in 8 rounds, against one with 12 in 2', async ({
  page,
}) => {
  const times: number[][] = [];
  for (const [measures, rounds] of [
    [12, 2],
    [200, 8],
  ] as const) {
    const demo = demoJob();
    const file = {
      ...demo,
      job: { ...demo.job, name: `${measures} measures` },
      survey: surveyOf(measures, rounds),
      structure: [],
      pieces: [],
    };
    const buffer = Buffer.from(writeJob(file));
    const answer = await page.request.post('/take-in', {
      multipart: { file: { name: 'job.json', mimeType: 'application/json', buffer } },
      maxRedirects: 0,
    });
    const url = `${answer.headers().location}/references`;
    const usable: number[] = [];
    const drawn: number[] = [];
    for (let i = 0; i < 4; i++) {
      const start = Date.now();
      usable.push(await stageTime(page, url));
      await page.getByRole('button', { name: /^Place 1: at/ }).waitFor();
      drawn.push(Date.now() - start);
    }
    times.push([median(usable.slice(1)), median(drawn.slice(1))]);
  }
  const [small, large] = times as [number[], number[]];
  console.log(
    `References of 200 measures × 8 rounds: usable after ${large[0]} ms, its net drawn after ${large[1]} ms; of 12 × 2: ${small[0]} and ${small[1]} ms (ratio ${(large[0]! / small[0]!).toFixed(1)} and ${(large[1]! / small[1]!).toFixed(1)})`,
  );
});

const SHOTS: [string, string, Scene['bench'], 'white' | 'dark' | 'cut out', Partial<Shot>][] = [
  ['manila on the frame, wood, 10°', MANILA, 'wood', 'white', { tiltDeg: 10 }],
  ['manila, wood, 35°, barrel', MANILA, 'wood', 'white', { tiltDeg: 35, barrel: 0.05, fades: 0.4 }],
  ['gray, green bench, 25°, shadow', GRAY, 'green', 'white', { tiltDeg: 25, shadow: 0.55 }],
  [
    'white, middle cut out, wood, 20°',
    'rgb(240,240,238)',
    'wood',
    'cut out',
    { tiltDeg: 20, aroundDeg: 130 },
  ],
];

test('a photograph of twelve megapixels: how true and how fast', async ({ page }) => {
  test.setTimeout(300_000);
  const pictures = [];
  for (const [name, card, bench, middle, shot] of SHOTS) {
    const picture = await photographed(onPaper(card, bench, middle), {
      width: 4000,
      height: 3000,
      tiltDeg: 5,
      aroundDeg: 210,
      rollDeg: 93,
      noise: 4,
      fades: 0.25,
      ...shot,
    });
    const found = runToCompletion(trace(picture, { kind: 'paper', paper: 'a4' }));
    if (!found.ok) throw new Error(`${name}: ${JSON.stringify(found)}`);
    const { rms, worst } = off(found.outline, CARD);
    console.log(
      `${name}: ${rms.toFixed(3)} mm rms, ${worst.toFixed(3)} mm worst (aims 0.3, 0.8), told ± ${found.uMm.toFixed(3)}`,
    );
    pictures.push(picture);
  }
  await newPiece(page, 'Bench photograph');
  await page.getByRole('button', { name: 'Photo' }).click();
  // Nobody chooses a picture sooner; meanwhile the page makes itself ready.
  await page.waitForTimeout(3000);
  const folder = await mkdtemp(join(tmpdir(), 'patrone-bench-'));
  for (const [i, { width, height, data }] of pictures.entries()) {
    const path = join(folder, `card${i}.jpg`);
    await sharp(data, { raw: { width, height, channels: 4 } })
      .removeAlpha()
      .jpeg({ quality: 92 })
      .toFile(path);
    const seen = [];
    for (let turn = 0; turn < 3; turn++) {
      await page.evaluate(clockFromChosen, 'is sure to');
      await page.getByLabel('The picture of the card').setInputFiles(path);
      await expect(page.getByRole('progressbar')).toBeVisible();
      await expect(page.getByText(/is sure to/)).toBeVisible({ timeout: 60_000 });
      seen.push(await page.evaluate(() => (window as unknown as { clock: Promise<Clock> }).clock));
    }
    console.log(
      `${SHOTS[i]![0]}: from the file chosen to what was found on the screen ${seen.map(({ ms }) => ms.toFixed(0)).join(', ')} ms (aim 2000); longest frame meanwhile ${Math.max(...seen.map(({ gap }) => gap)).toFixed(0)} ms`,
    );
  }
  await rm(folder, { recursive: true });
});

/**
 * From a file's being chosen to words' being painted, ms, and the longest the page did not draw
 * meanwhile.
 */
type Clock = { ms: number; gap: number };

/**
 * Lays `clock` on the page's window. By the page's own clock: handing a file to a browser from
 * outside takes its own time.
 */
function clockFromChosen(words: string): void {
  const clock = new Promise<Clock>((done) => {
    document.addEventListener(
      'change',
      () => {
        const start = performance.now();
        let [last, gap, gone] = [start, 0, false];
        const tick = (now: number) => {
          gap = Math.max(gap, now - last);
          last = now;
          const there = document.body.textContent.includes(words);
          // What stood there of the picture before goes first; what is there now is painted by the
          // next frame.
          if (there && gone)
            return requestAnimationFrame((painted) => done({ ms: painted - start, gap }));
          gone ||= !there;
          return requestAnimationFrame(tick);
        };
        requestAnimationFrame(tick);
      },
      { capture: true, once: true },
    );
  });
  Object.assign(window, { clock });
}
