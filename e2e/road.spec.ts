import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import DxfParser from 'dxf-parser';
import { beginPiece, layFold, legs, newPiece, saved } from './hands';

const MM = 25.4 / 72;

const DOTS_PER_MM = 20;

/**
 * The first page as Debian's poppler prints it, 20 dots to the millimetre: every unbroken dark run
 * over 20 mm, mm.
 */
function runsOf(pdf: string): { across: Set<number>; up: Set<number> } {
  const stem = join(mkdtempSync(join(tmpdir(), 'patrone-')), 'page');
  execFileSync('pdftoppm', [
    '-r',
    String(DOTS_PER_MM * 25.4),
    '-gray',
    '-f',
    '1',
    '-l',
    '1',
    '-singlefile',
    pdf,
    stem,
  ]);
  const file = readFileSync(`${stem}.pgm`);
  const head = /^P5\s+(\d+)\s+(\d+)\s+255\s/.exec(file.subarray(0, 40).toString('latin1'))!;
  const [width, height] = [Number(head[1]), Number(head[2])];
  const dark = (x: number, y: number) => file[head[0].length + y * width + x]! < 128;
  const collect = (
    lines: number,
    length: number,
    at: (line: number, i: number) => boolean,
  ): Set<number> => {
    const found = new Set<number>();
    for (let l = 0; l < lines; l++) {
      let run = 0;
      for (let i = 0; i <= length; i++) {
        if (i < length && at(l, i)) run++;
        else {
          if (run > 20 * DOTS_PER_MM) found.add(run / DOTS_PER_MM);
          run = 0;
        }
      }
    }
    return found;
  };
  return {
    across: collect(height, width, (y, x) => dark(x, y)),
    up: collect(width, height, (x, y) => dark(x, y)),
  };
}
/**
 * Whether a line of a length was printed; a drawn line reaches half its own width past each end.
 */
const printed = (runs: Set<number>, mm: number, lineWidth: number) =>
  [...runs].some((run) => Math.abs(run - lineWidth - mm) < 0.1);

test('a new piece, from nothing to a printed blank', async ({ page }) => {
  await beginPiece(page, 'Bracket');

  await test.step('the card: legs typed, with a slip told and nothing lost', async () => {
    await page.getByLabel(/^Legs:/).fill('60\n30\nsixty');
    await expect(page.getByRole('alert')).toContainText('Leg 3');
    await expect(page.getByLabel(/^Legs:/)).toHaveValue(/sixty/);
    await page.getByLabel(/^Legs:/).fill('60\n30\n60.5\n30');
    await expect(page.getByText('misses the start by')).toContainText('0.5 mm');
    await legs(page, '60\n30\n60\n30');
    await expect(page.getByRole('button', { name: /^Card 60\.0 mm × 30\.0 mm/ })).toBeVisible();
  });

  await test.step('a fold 25 from the left, radius 1.6', async () => {
    await layFold(page, [1, 2, 25 / 60], [4, 3, 25 / 60]);
    await page.getByLabel(/^In from edge A/).fill('25');
    await page.getByLabel(/^In from edge A/).press('Enter');
    await page.getByLabel('Inside radius').fill('1.6');
    await page.keyboard.press('Enter');
    await saved(page);
  });

  await test.step('the blank agrees with the DIN 6935 table: T 1, R 1.6 takes 2.1 off', async () => {
    await page.getByRole('link', { name: /^Blank:/ }).click();
    await expect(page.getByRole('button', { name: /^Fold 1 takes 2\.10 mm/ })).toBeVisible();
    await page.getByRole('button', { name: /^Blank 57\.9 mm × 30\.0 mm/ }).click();
    await expect(page.getByText('Size of the blank')).toBeVisible();
    await page.keyboard.press('Escape');
    // The setback R + T = 2.6 in from the mark; the larger face is the base, so the brake line is
    // the one farther from A: 22.4 and the allowance, π/2·(1.6 + 0.376·1) = 3.10.
    const scribe = page.getByRole('table', { name: 'Fold lines to scribe' });
    await expect(scribe).toContainText('Far tangent22.40 from edge A');
    await expect(scribe).toContainText('Brake line25.50 from edge A');
    await page.keyboard.press('u');
    await expect(page.getByRole('button', { name: /^Blank 2 9\/32/ })).toBeVisible();
    await page.keyboard.press('u');
    await page.getByRole('button', { name: 'Folded' }).click();
    await expect(page.getByRole('img', { name: '1 of 1 folds made' })).toBeVisible();
    await page.getByRole('slider').focus();
    await page.keyboard.press('Home');
    await expect(page.getByText('Flat', { exact: true }).last()).toBeVisible();
  });

  await test.step('printed: the sizes on paper are right to a tenth of a millimetre', async () => {
    await page.getByRole('link', { name: /^Sheet:/ }).click();
    const got = page.waitForEvent('download');
    await page.getByRole('link', { name: /^Print on 1 page/ }).click();
    const pdf = await (await got).path();
    const info = execFileSync('pdfinfo', [pdf], { encoding: 'utf8' });
    const [w, h] = /Page size:\s+([\d.]+) x ([\d.]+)/
      .exec(info)!
      .slice(1)
      .map((pt) => Number(pt) * MM);
    expect(Math.abs(w! - 210)).toBeLessThan(0.1);
    expect(Math.abs(h! - 297)).toBeLessThan(0.1);
    const runs = runsOf(pdf);
    expect(printed(runs.across, 60 - 2.0961, 0.3)).toBe(true);
    expect(printed(runs.up, 30, 0.3)).toBe(true);
    const words = execFileSync('pdftotext', ['-layout', pdf, '-'], { encoding: 'utf8' });
    expect(words).toContain('Bracket');
    expect(words).toContain('revision');
    for (const bar of [100, 101.6]) {
      expect(printed(runs.across, bar, 0.25)).toBe(true);
      expect(printed(runs.up, bar, 0.25)).toBe(true);
    }
    await expect(page.getByRole('link', { name: /^Sheet: done, Printed/ })).toBeVisible();
  });

  await test.step('the cutter’s file opens in another reader', async () => {
    const got = page.waitForEvent('download');
    await page.getByRole('link', { name: 'DXF for a cutter' }).click();
    const parsed = new DxfParser().parseSync(readFileSync(await (await got).path(), 'utf8'))!;
    const xs = parsed.entities.flatMap((e) =>
      e.layer === 'CUT' && 'vertices' in e ? (e.vertices as { x: number }[]).map((v) => v.x) : [],
    );
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(60 - 2.0961, 3);
  });
});

test('a large blank goes over many pages of any paper, each the size it says', async ({ page }) => {
  await newPiece(page, 'Long plate', '600, 400, 600, 400');
  await page.getByRole('link', { name: /^Sheet:/ }).click();
  for (const [paper, w, h] of [
    ['A3', 297, 420],
    ['Letter', 215.9, 279.4],
    ['Tabloid', 279.4, 431.8],
  ] as const) {
    await page.getByRole('button', { name: paper, exact: true }).click();
    const got = page.waitForEvent('download');
    await page.getByRole('link', { name: /^Print on/ }).click();
    const pdf = await (await got).path();
    const info = execFileSync('pdfinfo', [pdf], { encoding: 'utf8' });
    const size = /Page size:\s+([\d.]+) x ([\d.]+)/
      .exec(info)!
      .slice(1)
      .map((pt) => Number(pt) * MM)
      .sort((a, b) => a - b);
    expect(Math.abs(size[0]! - w)).toBeLessThan(0.1);
    expect(Math.abs(size[1]! - h)).toBeLessThan(0.1);
    expect(Number(/Pages:\s+(\d+)/.exec(info)![1])).toBeGreaterThanOrEqual(3);
  }
});
