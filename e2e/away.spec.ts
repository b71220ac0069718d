import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { expect, test } from '@playwright/test';
import { newPiece, pickEdge, saved } from './hands';

// A server of its own, so that stopping it disturbs no other journey.
const PORT = 4172;
const URL = `http://127.0.0.1:${PORT}`;
test.use({ baseURL: URL });

let server: ChildProcess | undefined;
async function start(): Promise<void> {
  server = spawn('node', ['build/node/server.js'], {
    env: { ...process.env, NODE_ENV: 'production', PORT: String(PORT) },
    stdio: 'inherit',
  });
  await expect(async () => expect((await fetch(`${URL}/health`)).ok).toBe(true)).toPass({ timeout: 15_000 });
}
const stop = () =>
  new Promise<void>((done) => {
    if (!server || server.exitCode !== null) return done();
    server.once('exit', () => done());
    server.kill();
  });
test.beforeAll(start);
test.afterAll(stop);

test('the server stops while a card is edited: the edit is kept, through a closed page too, and saved when it is back', async ({
  page,
}) => {
  await newPiece(page, 'Kept', '100, 60, 100, 60');
  await pickEdge(page, 'D');
  await stop();
  await page.getByLabel('Length').fill('135');
  await page.getByLabel('Length').press('Enter');
  await expect(page.getByText(/kept in this browser/)).toBeVisible();
  await expect(page.getByRole('button', { name: /^Card 135\.0 mm/ })).toBeVisible();
  await start();
  await saved(page);

  await stop();
  await page.getByLabel('Length').fill('150');
  await page.getByLabel('Length').press('Enter');
  await expect(page.getByText(/kept in this browser/)).toBeVisible();
  await start();
  await page.reload();
  await saved(page);
  await expect(page.getByRole('button', { name: /^Card 150\.0 mm/ })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('button', { name: /^Card 150\.0 mm/ })).toBeVisible();

  // Where nothing can be shown, what failed is said.
  await page.getByRole('link', { name: /^Back to/ }).click();
  await page.getByRole('link', { name: /all jobs/ }).click();
  await expect(page.getByRole('heading', { name: 'Jobs on the floor' })).toBeVisible();
  await stop();
  await page
    .getByRole('link', { name: /Job for Kept/ })
    .first()
    .click();
  await expect(page.getByRole('heading', { name: 'The server does not answer' })).toBeVisible();
  await start();
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('heading', { name: 'Job for Kept' })).toBeVisible();
});

test('a page left open over an update starts over with the new program, its edit kept and saved', async ({
  page,
}) => {
  await newPiece(page, 'Old page', '100, 60, 100, 60');
  await pickEdge(page, 'D');
  // The program that answers is newer than the page: its documents carry a version the page does not know.
  let newer = 0;
  await page.route('**/documents/card', async (route) => {
    if (newer++ > 0) return route.continue();
    const { doc } = route.request().postDataJSON() as { doc: { version: number } };
    const state = {
      doc: { ...doc, version: doc.version + 1 },
      number: 9,
      savedAt: null,
      canUndo: false,
      canRedo: false,
    };
    await route.fulfill({ status: 409, json: state });
  });
  const loaded = page.waitForEvent('load');
  await page.getByLabel('Length').fill('135');
  await page.getByLabel('Length').press('Enter');
  await loaded;
  await expect(page.getByRole('button', { name: /^Card 135\.0 mm/ })).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(page.getByRole('button', { name: /^Card 135\.0 mm/ })).toBeVisible();
});
