import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import pg from 'pg';
import { demoPiece, newPiece, pickEdge, saved } from './hands';

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
  await expect(async () => expect((await fetch(`${URL}/health`)).ok).toBe(true)).toPass({
    timeout: 15_000,
  });
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
  // The program that answers is newer than the page: its documents carry a version the page does
  // not know.
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

/** The request arrives and is done; its answer is lost on the way, so often. */
async function loseAnswers(page: Page, url: string, times: number): Promise<void> {
  let left = times;
  await page.route(url, async (route) => {
    if (left-- <= 0) return route.continue();
    await route.fetch();
    await route.abort();
  });
}

test('an answer lost on the way is no quarrel with oneself: the card goes on, the weld is in the record once', async ({
  page,
}) => {
  await demoPiece(page, 'Battery shelf', 'Weld');
  await loseAnswers(page, '**/welds', 1);
  await pickEdge(page, 'B');
  await page.getByRole('button', { name: 'Write down a weld' }).click();
  const entry = page.getByRole('region', { name: 'Weld entry' });
  await entry.getByLabel('Note').fill('Once only.');
  await entry.getByRole('button', { name: 'Put in the record' }).click();
  // It waits, and goes once more under the key it was written by.
  const waits = page.getByRole('status', { name: 'What waits for the server' });
  await expect(waits).toContainText('1 entry waits for the server');
  await expect(waits).toHaveCount(0, { timeout: 15_000 });
  await expect(page.getByText('Once only.')).toHaveCount(1);

  await page.getByRole('link', { name: /^Card:/ }).click();
  await page.waitForURL(/card$/);
  await loseAnswers(page, '**/documents/card', 2);
  await pickEdge(page, 'J');
  for (const mm of ['171', '172', '173']) {
    await page.getByLabel('Length').first().fill(mm);
    await page.getByLabel('Length').first().press('Enter');
    await page.waitForTimeout(700);
  }
  await saved(page);
  await expect(page.getByRole('heading', { name: /changed on another page/ })).toHaveCount(0);
  await page.reload();
  await pickEdge(page, 'J');
  await expect(page.getByLabel('Length').first()).toHaveValue('173.00');
});

test('the database’s connections die while a card is edited: the server stays up, and the edit is saved', async ({
  page,
}) => {
  await newPiece(page, 'Held', '100, 60, 100, 60');
  await pickEdge(page, 'D');
  const admin = new pg.Client({ connectionString: process.env.DATABASE_URL });
  await admin.connect();
  for (const mm of ['120', '130', '140']) {
    await page.getByLabel('Length').fill(mm);
    await page.getByLabel('Length').press('Enter');
    await page.waitForTimeout(460);
    await admin.query(
      'select pg_terminate_backend(pid) from pg_stat_activity where pid <> pg_backend_pid() and datname = current_database()',
    );
  }
  await admin.end();
  await saved(page);
  await page.reload();
  await expect(page.getByRole('button', { name: /^Card 140\.0 mm/ })).toBeVisible();
  expect((await fetch(`${URL}/health`)).ok).toBe(true);
});
