import { expect } from '@playwright/test';
import type { Page } from '@playwright/test';

/** What several journeys do on the way: begin a job and a piece, open a demo piece, pick an edge, touch the drawing. */

export async function newPiece(page: Page, name: string): Promise<void> {
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

export async function demoPiece(page: Page, name: string, stage: string): Promise<void> {
  await page.goto('/');
  await page.getByRole('link', { name: /Mobile library van/ }).click();
  await page
    .getByRole('link', { name: new RegExp(`^${name}|${name}`) })
    .first()
    .click();
  await page.getByRole('link', { name: new RegExp(`^${stage}:`) }).click();
  await page.waitForURL(new RegExp(`/${stage.toLowerCase()}$`));
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
  const box = await page.locator(`[data-corner="${number}"]`).boundingBox();
  return { x: box!.x + box!.width / 2, y: box!.y + box!.height / 2 };
}

/** Touches the card on the line between two corners, so far along it. */
export async function touchBetween(page: Page, a: number, b: number, share: number): Promise<void> {
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
