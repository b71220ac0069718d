import { expect } from '@playwright/test';
import type { Page } from '@playwright/test';
import { unfolded } from '#core/blank/fold/folding';
import { uncut } from '#core/cutdown/uncut';
import { unshaped } from '#core/shape/shaping';
import { unsurveyed } from '#core/survey/pieceSurvey';
import { emptyPattern } from '#core/card/emptyPattern';
import { countingIds } from '#core/card/kinds';
import { outlineFromLegs, parseLegs } from '#core/card/legs';
import { patternParts } from '#core/card/outline';
import type { JobFile, PieceFile } from '#core/format/job';
import { writeJob } from '#core/format/job';
import { demoJob } from '../demo/job';

/**
 * What several journeys do on the way: begin a job and a piece, open a demo piece, pick an edge,
 * touch the drawing.
 */

/** What the edges of a demo piece meet, as in a file of that piece alone. */
function structureAlone(name: string): JobFile['structure'] {
  const { structure, pieces } = demoJob();
  const place = pieces.findIndex((piece) => piece.name === name);
  return structure.flatMap((one) => {
    const { body } = one;
    if (body.kind !== 'joint') return [one];
    return body.first.piece === place
      ? [{ ...one, body: { ...body, first: { ...body.first, piece: 0 } } }]
      : [];
  });
}

/**
 * The piece a journey begins with goes in as a job file of its own, by the door that users have:
 * none sees another's.
 */
async function putIn(page: Page, piece: PieceFile, job: string): Promise<string> {
  const file: JobFile = {
    ...demoJob(),
    job: { ...demoJob().job, name: job, archived: null },
    structure: structureAlone(piece.name),
    pieces: [piece],
  };
  const answer = await page.request.post('/take-in', {
    multipart: {
      file: { name: 'job.json', mimeType: 'application/json', buffer: Buffer.from(writeJob(file)) },
    },
    maxRedirects: 0,
  });
  const at = answer.headers().location;
  if (!at) throw new Error(`The job was not taken: ${await answer.text()}`);
  const id = /\/pieces\/([0-9a-f-]{36})/.exec(await (await page.request.get(at)).text())?.[1];
  if (!id) throw new Error('The job has no piece');
  return id;
}

/** Until the page's script has taken over, a touch or a key does nothing. */
const live = (page: Page) =>
  page.waitForFunction(() => {
    const heading = document.querySelector('main')?.firstElementChild;
    return heading != null && Object.keys(heading).some((key) => key.startsWith('__react'));
  });

/** A card by its legs, as it is when it has just been made; none where there are no legs. */
function cardOf(legs: string): PieceFile['card'] {
  if (legs === '') return { current: 0, versions: [] };
  const read = parseLegs(legs, 'mm');
  const built = read.ok ? outlineFromLegs(read.legs, 'leave') : read;
  if (!built.ok) throw new Error(`No card: ${JSON.stringify(built.problems)}`);
  const doc = { ...emptyPattern(), ...patternParts(built.path, countingIds('s')) };
  return { current: 1, versions: [{ number: 1, parent: 0, at: new Date().toISOString(), doc }] };
}

/**
 * A piece in plain steel of 1 mm, its card made of legs or still to be made, opened at its card.
 */
export async function newPiece(page: Page, name: string, legs = '', stage = 'card'): Promise<void> {
  const { part, side, metal, thickness } = demoJob().pieces[0]!;
  const nothing = {
    survey: unsurveyed(),
    folding: unfolded(),
    shaping: unshaped(),
    kind: 'made' as const,
    cutDown: uncut(),
    pictures: [],
    prints: [],
    fits: [],
    welds: [],
    inspections: [],
    notes: '',
    structural: false,
    archived: null,
    came: null,
  };
  const piece = {
    name,
    part,
    side,
    metal,
    thickness,
    thicknessMm: 1,
    created: new Date().toISOString(),
    ...nothing,
  };
  const plan = { current: 0, versions: [] };
  const id = await putIn(page, { ...piece, card: cardOf(legs), plan }, `Job for ${name}`);
  await page.goto(`/pieces/${id}/${stage}`);
  await live(page);
}

/** Begins a job and a piece the way that hands do. */
export async function beginPiece(page: Page, name: string): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: 'New job' }).click();
  await page.getByLabel('Name of the job').fill(`Job for ${name}`);
  await page.getByRole('button', { name: 'Begin the job' }).click();
  await page.getByRole('link', { name: 'New piece' }).click();
  await page.getByLabel('Name of the piece').fill(name);
  await page.getByRole('button', { name: 'On to its card' }).click();
  await expect(page.getByRole('heading', { name: 'Put the card in' })).toBeVisible();
}

export async function legs(page: Page, text: string): Promise<void> {
  await page.getByLabel(/^Legs:/).fill(text);
  await page.getByRole('button', { name: 'Make the card' }).click();
  await saved(page);
}

export const saved = (page: Page) => expect(page.getByText(/^Saved \d\d:\d\d$/)).toBeVisible();

/** A piece of the demo job, in a copy of this journey's own. */
export async function demoPiece(page: Page, name: string, stage: string): Promise<void> {
  const piece = demoJob().pieces.find((p) => p.name === name);
  if (!piece) throw new Error(`The demo job has no ${name}`);
  const id = await putIn(page, piece, `Journey of the ${name}`);
  await page.goto(`/pieces/${id}/${stage.toLowerCase()}`);
  await live(page);
}

/** From one stop of a piece to another by its address. */
export async function goTo(page: Page, stage: string): Promise<void> {
  await page.goto(page.url().replace(/[a-z]+$/, stage.toLowerCase()));
  await live(page);
}

/** Picks an edge of the drawing from the keyboard, as one does with a hand full of metal. */
export async function pickEdge(page: Page, letter: string): Promise<void> {
  const edge = page.getByRole('button', { name: new RegExp(`^Edge ${letter}(,|$)`) });
  // Until the page's script has taken over, a key does nothing.
  await expect(async () => {
    await edge.focus();
    await page.keyboard.press('Enter');
    await expect(edge).toHaveAttribute('aria-pressed', 'true', { timeout: 500 });
  }).toPass();
}

/** Where a corner of the card is on the screen. */
export async function cornerAt(page: Page, number: number): Promise<{ x: number; y: number }> {
  const many = page.locator('[data-corners]');
  if ((await many.count()) > 0)
    // Drawn as one mark: the corner's own part of it begins at the top of its diamond.
    return many.evaluate((path: SVGPathElement, number) => {
      const [, x, y, half] = /^([-\d.]+) ([-\d.]+)l([-\d.]+)/.exec(
        path.getAttribute('d')!.split('M')[number]!,
      )!;
      const at = new DOMPoint(Number(x), Number(y) + Number(half));
      const { x: left, y: top } = at.matrixTransform(path.getScreenCTM()!);
      return { x: left, y: top };
    }, number);
  const box = await page.locator(`[data-corner="${number}"]`).boundingBox();
  return { x: box!.x + box!.width / 2, y: box!.y + box!.height / 2 };
}

/** Touches the card on the line between two corners, at a share of it. */
async function touchBetween(page: Page, a: number, b: number, share: number): Promise<void> {
  const p = await cornerAt(page, a);
  const q = await cornerAt(page, b);
  await page.mouse.click(p.x + (q.x - p.x) * share, p.y + (q.y - p.y) * share);
}

/** Lays a fold between two places, each a share of the way between two corners. */
export async function layFold(
  page: Page,
  from: [number, number, number],
  to: [number, number, number],
): Promise<void> {
  await touchBetween(page, ...from);
  await page.getByRole('button', { name: 'Fold from here' }).first().click();
  await touchBetween(page, ...to);
  await expect(page.getByRole('button', { name: 'Take this fold off' })).toBeVisible();
}

/** The keys of what waits in this browser. */
export const keysKept = (page: Page): Promise<string[]> =>
  page.evaluate(
    () =>
      new Promise<string[]>((done) => {
        const asked = indexedDB.open('patrone');
        asked.onsuccess = () => {
          const database = asked.result;
          const keys = database.transaction('kept').objectStore('kept').getAllKeys();
          keys.onsuccess = () => {
            database.close();
            done(keys.result.map(String));
          };
        };
      }),
  );
