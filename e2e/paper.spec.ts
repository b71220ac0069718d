import { execFileSync } from 'node:child_process';
import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { demoPiece, newPiece, pickEdge, saved } from './hands';

/** What leaves the house on paper, read back with Debian's poppler, page by page. */

async function printed(page: Page): Promise<string> {
  const got = page.waitForEvent('download');
  await page.getByRole('link', { name: /^Print on/ }).click();
  return (await got).path();
}
const pagesOf = (pdf: string): string[] =>
  execFileSync('pdftotext', ['-layout', pdf, '-'], { encoding: 'utf8' })
    .split('\f')
    .filter((text) => text.trim() !== '');

test('every page says what it is: piece, revision, its own name, the bars to check the printer by', async ({
  page,
}) => {
  await demoPiece(page, 'Step-well tray', 'Sheet');
  await expect(page.getByRole('link', { name: 'Print on 8 pages (PDF)' })).toBeVisible();
  const whole = pagesOf(await printed(page));
  const pages = whole.slice(0, 8);
  // After the drawing the table to mark out by: corners, lines from edges, drills, a diagonal to
  // prove it.
  const marking = whole.slice(8).join(' ');
  expect(marking).toContain('Marking out Step-well tray');
  expect(marking).toMatch(/Begin with edge F.* square up edge B/);
  // Each wall is a thickness (1.2) short at either corner.
  expect(marking).toMatch(/13\s+549\.40\s+334\.60\s+257\.60/);
  expect(marking).toMatch(/1\s+Brake line\s+78\.20 from edge N/);
  expect(marking).toMatch(/Prove it across: \d+ to \d+ \d+\.\d\d/);
  const names = pages.map((text) => /\b([AB][1-4])\b/.exec(text)?.[1]);
  expect(new Set(names)).toEqual(new Set(['A1', 'A2', 'A3', 'A4', 'B1', 'B2', 'B3', 'B4']));
  for (const text of pages) {
    expect(text).toContain('Step-well tray');
    expect(text).toMatch(/revision \d/);
    expect(text).toMatch(/Journey of the Step-well tray · .* 1\.20 mm · \d+ \w+ \d{4}/);
    expect(text).toContain('100 mm');
    expect(text).toContain('4 in');
  }
  // Letters and folds stand on the pattern itself, each once or on both pages of an overlap.
  const all = pages.join(' ');
  for (const letter of 'ABCDEFGHIJKLMNOP')
    expect(all).toMatch(new RegExp(`(^|\\s)${letter}(\\s|$)`));
  for (let fold = 1; fold <= 6; fold++)
    expect(all).toMatch(new RegExp(`${fold}: 90°\\s+(toward you|away)`));
  await page.getByRole('button', { name: 'The card', exact: true }).click();
  await page.getByRole('button', { name: 'A3', exact: true }).click();
  const card = pagesOf(await printed(page));
  expect(card.length).toBeLessThan(8);
  expect(card[0]).toContain('card');
});

test('what was sent out and has changed since is said on the road, until it is sent out again', async ({
  page,
}) => {
  await newPiece(page, 'Sent plate', '120, 80, 120, 80');
  await page.getByRole('link', { name: /^Sheet: next/ }).click();
  await printed(page);
  await expect(page.getByRole('link', { name: /^Sheet: done, Printed/ })).toBeVisible();
  await page.getByRole('link', { name: /^Card:/ }).click();
  await pickEdge(page, 'D');
  await page.getByLabel('Length').fill('121');
  await page.getByLabel('Length').press('Enter');
  await saved(page);
  await expect(
    page.getByRole('link', { name: /^Sheet: needs attention, Changed since print/ }),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('link', { name: /^Sheet: done/ })).toBeVisible();
  await page.getByRole('button', { name: 'Redo' }).click();
  await page.getByRole('link', { name: /^Sheet: needs attention/ }).click();
  await printed(page);
  await expect(page.getByRole('link', { name: /^Sheet: done, Printed/ })).toBeVisible();
});

test('of two versions one’s own can be put on top; the other stays in the history', async ({
  page,
  context,
}) => {
  await newPiece(page, 'Two hands', '100, 60, 100, 60');
  const other = await context.newPage();
  await other.goto(page.url());
  for (const [hand, mm] of [
    [page, '120'],
    [other, '140'],
  ] as const) {
    await pickEdge(hand, 'D');
    await hand.getByLabel('Length').fill(mm);
    await hand.getByLabel('Length').press('Enter');
    if (hand === page) await saved(page);
    await page.waitForTimeout(900);
  }
  await expect(
    other.getByRole('heading', { name: 'This card was changed on another page too' }),
  ).toBeVisible();
  // Until one has chosen, nothing is saved, and a reload brings the question back with both.
  await other.reload();
  await expect(other.getByText('edge D 140.0 mm → 120.0 mm')).toBeVisible();
  await other.getByRole('button', { name: /^Keep mine|^Put mine/ }).click();
  await expect(other.getByRole('button', { name: /^Card 140\.0 mm/ })).toBeVisible();
  await saved(other);
  await other.getByRole('button', { name: 'Undo' }).click();
  await expect(other.getByRole('button', { name: /^Card 120\.0 mm/ })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('button', { name: /^Card 120\.0 mm/ })).toBeVisible();
});
