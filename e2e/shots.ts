import { test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { pickEdge } from './hands';

/** One current picture of each main view from the demo data, into docs/screenshots/. */
const shot = async (page: Page, name: string) => {
  await page.waitForLoadState('networkidle');
  await page.mouse.move(640, 3);
  await page.waitForTimeout(400);
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
};

/** The demo job itself, as whoever follows the README meets it. */
async function demoPiece(page: Page, name: string, stage: string): Promise<void> {
  await page.goto('/');
  await page.getByRole('link', { name: /Mobile library van/ }).click();
  await page
    .getByRole('link', { name: new RegExp(name) })
    .first()
    .click();
  await page.waitForURL(/pieces/);
  await page.goto(page.url().replace(/[a-z]+$/, stage.toLowerCase()));
  await page.waitForLoadState('networkidle');
}

test('jobs and pieces', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: /Mobile library van/ }).click();
  await page.waitForURL(/jobs/);
  await shot(page, 'pieces');
  await page.getByRole('link', { name: 'Found', exact: true }).click();
  await page.waitForURL(/found/);
  await shot(page, 'found');
  await page.getByRole('link', { name: 'References', exact: true }).click();
  await page.getByRole('button', { name: 'As found', exact: true }).click();
  await page.evaluate(() => window.scrollTo(0, 0));
  await shot(page, 'references');
});

test('curved two ways', async ({ page }) => {
  await demoPiece(page, 'Lower rear corner', 'Card');
  await page.goto(`${page.url()}/crown`);
  await page.getByText('Thickness after').waitFor();
  await page.getByText(/Getting finer|Laying it flat/).waitFor({ state: 'detached' });
  await shot(page, 'crown');
});

test('the road of a piece', async ({ page }) => {
  await demoPiece(page, 'Rear arch lip', 'Survey');
  await shot(page, 'survey');
  await demoPiece(page, 'Step-well tray', 'Survey');
  await page.getByRole('button', { name: /^Picture: Sanded back/ }).click();
  await page.getByRole('application').waitFor();
  await shot(page, 'picture');
  await demoPiece(page, 'Step-well tray', 'Card');
  await page.keyboard.press('f');
  await shot(page, 'card');
  await page.getByRole('link', { name: /^Blank:/ }).click();
  await shot(page, 'blank');
  await page.getByRole('button', { name: 'Folded' }).click();
  await page.waitForTimeout(1500);
  await shot(page, 'folded');
  await demoPiece(page, 'Sill closing plate', 'Sheet');
  await shot(page, 'sheet');
  await demoPiece(page, 'Front corner panel', 'Cutdown');
  await shot(page, 'cutdown');
  await demoPiece(page, 'Battery shelf', 'Fit');
  await pickEdge(page, 'B');
  await page.waitForTimeout(800);
  await shot(page, 'fit');
  await demoPiece(page, 'Sill closing plate', 'Weld');
  await pickEdge(page, 'D');
  await shot(page, 'weld');
  await demoPiece(page, 'Step-well tray', 'Weld');
  await page.goto(page.url().replace(/weld$/, 'record'));
  await page.getByRole('region', { name: 'What was done' }).waitFor();
  await page.waitForTimeout(800);
  await shot(page, 'record');
});

test('on the night bench', async ({ page }) => {
  await demoPiece(page, 'Step-well tray', 'Blank');
  await page.getByRole('button', { name: 'Night bench' }).click();
  await pickEdge(page, 'B');
  await shot(page, 'night');
});

test('in the machine, and shaped', async ({ page }) => {
  await demoPiece(page, 'Step-well tray', 'Blank');
  await page.getByRole('button', { name: 'Machine', exact: true }).click();
  await page.getByRole('list', { name: 'Steps' }).getByRole('button').nth(4).click();
  await page.waitForTimeout(600);
  await shot(page, 'machine');
  await demoPiece(page, 'Waist-bead closing strip', 'Shape');
  await shot(page, 'shape');
});

test.describe('phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });
  test('fit and weld in one hand', async ({ page }) => {
    await demoPiece(page, 'Battery shelf', 'Fit');
    await pickEdge(page, 'B');
    await page.getByLabel('Gap read, then Enter').scrollIntoViewIfNeeded();
    await shot(page, 'fit-phone');
    await demoPiece(page, 'Sill closing plate', 'Weld');
    await pickEdge(page, 'D');
    await page.getByRole('button', { name: 'Write down a weld' }).click();
    await page.getByRole('button', { name: 'Put in the record' }).scrollIntoViewIfNeeded();
    await shot(page, 'weld-phone');
  });
});
