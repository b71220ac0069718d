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
  server = spawn('node', ['build/program/server.js'], {
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

/** The request arrives and is done; its answer is lost on the way `times` times. */
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

test('“kept” is said only of what is kept: with a full store the page says to leave it open, until there is room again', async ({
  page,
}) => {
  // As a browser answers whose disk is full.
  await page.addInitScript(() => {
    const put = IDBObjectStore.prototype.put;
    IDBObjectStore.prototype.put = function (...given: Parameters<typeof put>) {
      if (sessionStorage.getItem('full')) throw new DOMException('full', 'QuotaExceededError');
      return put.apply(this, given);
    };
  });
  await newPiece(page, 'Full', '100, 60, 100, 60');
  await pickEdge(page, 'D');
  await page.route('**/documents/card', (route) => route.abort());
  await page.evaluate(() => sessionStorage.setItem('full', 'yes'));
  await page.getByLabel('Length').fill('135');
  await page.getByLabel('Length').press('Enter');
  const told = page.getByRole('alert').filter({ hasText: 'Leave this page open' });
  await expect(told).toBeVisible();
  // It stays to be worked on, and what is small enough later is kept.
  await page.getByLabel('Length').fill('140');
  await page.getByLabel('Length').press('Enter');
  await expect(page.getByRole('button', { name: /^Card 140\.0 mm/ })).toBeVisible();
  await page.evaluate(() => sessionStorage.removeItem('full'));
  await expect(told).toBeHidden();
  await page.reload();
  await expect(page.getByRole('button', { name: /^Card 140\.0 mm/ })).toBeVisible();
  await page.unroute('**/documents/card');
  await saved(page);
});

test('what an older program kept in another place of the browser goes in all the same', async ({
  page,
}) => {
  await newPiece(page, 'Older', '100, 60, 100, 60');
  await page.route('**/documents/card', (route) => route.abort());
  await pickEdge(page, 'D');
  await page.getByLabel('Length').fill('135');
  await page.getByLabel('Length').press('Enter');
  await expect(page.getByText(/kept in this browser/)).toBeVisible();
  // Moved to where it was kept before: the text of each thing under its key.
  await page.evaluate(
    () =>
      new Promise<void>((done) => {
        const asked = indexedDB.open('patrone');
        asked.onsuccess = () => {
          const cursor = asked.result
            .transaction('kept', 'readwrite')
            .objectStore('kept')
            .openCursor();
          cursor.onsuccess = () => {
            const at = cursor.result;
            if (!at) return done();
            localStorage.setItem(String(at.key), String(at.value));
            at.delete();
            at.continue();
          };
        };
      }),
  );
  await page.unroute('**/documents/card');
  await page.reload();
  await saved(page);
  await expect(page.getByRole('button', { name: /^Card 135\.0 mm/ })).toBeVisible();
  expect(await page.evaluate(() => localStorage.length)).toBe(0);
});

test('a browser that draws nothing in space says so in its place, and the piece stays as it is', async ({
  page,
}) => {
  await page.addInitScript(() => {
    const context = HTMLCanvasElement.prototype.getContext;
    HTMLCanvasElement.prototype.getContext = function (
      this: HTMLCanvasElement,
      ...[kind, given]: [string, unknown]
    ) {
      return kind.startsWith('webgl') ? null : context.call(this, kind as '2d', given as never);
    } as typeof context;
  });
  await demoPiece(page, 'Sill closing plate', 'Blank');
  await page.getByRole('button', { name: 'Folded' }).click();
  await expect(page.getByText('The view in space could not be shown.')).toBeVisible();
  await expect(page.getByLabel('The road of the piece')).toBeVisible();
  await page.getByRole('button', { name: 'Flat', exact: true }).click();
  await expect(page.getByText('could not be shown')).toBeHidden();
});

test('times are those of whoever reads, on the page as it comes and as it stands', async ({
  browser,
}) => {
  const context = await browser.newContext({ baseURL: URL, timezoneId: 'Asia/Tokyo' });
  const page = await context.newPage();
  const torn: string[] = [];
  page.on('console', (one) => {
    if (one.type() === 'error') torn.push(one.text());
  });
  await demoPiece(page, 'Sill closing plate', 'Record');
  const first = page.locator('time').first();
  const at = (await first.getAttribute('datetime'))!;
  const there = new Date(at).toLocaleTimeString('en-GB', {
    hour: '2-digit',
    minute: '2-digit',
    timeZone: 'Asia/Tokyo',
  });
  await expect(first).toContainText(there);
  // From now on the server knows: so it comes.
  const sent = await (await page.request.get(page.url())).text();
  expect(sent).toContain(there);
  await page.reload();
  await expect(first).toContainText(there);
  expect(torn).toEqual([]);
  await context.close();
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
      // Its own only: the application is no superuser.
      'select pg_terminate_backend(pid) from pg_stat_activity where pid <> pg_backend_pid() and datname = current_database() and usename = current_user',
    );
  }
  await admin.end();
  await saved(page);
  await page.reload();
  await expect(page.getByRole('button', { name: /^Card 140\.0 mm/ })).toBeVisible();
  expect((await fetch(`${URL}/health`)).ok).toBe(true);
});
