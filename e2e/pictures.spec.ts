import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import sharp from 'sharp';
import { goTo, newPiece } from './hands';

/** A picture as a phone makes one: turned on its side, with the place it was taken at. */
const photograph = async (colour: string, width = 640, height = 480): Promise<Buffer> =>
  sharp({ create: { width, height, channels: 3, background: colour } })
    .withExif({
      IFD0: { Make: 'Secret' },
      IFD2: { DateTimeOriginal: '2026:10:01 09:40:00' },
      IFD3: { GPSLatitude: '51/1 30/1 0/1', GPSLatitudeRef: 'N' },
    })
    .withMetadata({ orientation: 6 })
    .jpeg()
    .toBuffer();
const file = (name: string, buffer: Buffer, mimeType = 'image/jpeg') => ({
  name,
  mimeType,
  buffer,
});
const put = (page: Page, files: ReturnType<typeof file>[]) =>
  page.locator('input[type=file][multiple]').first().setInputFiles(files);
const small = (page: Page, name: string) => page.getByRole('button', { name: `Picture: ${name}` });

test('pictures from the chooser: the good ones go in, each other one is told in a line; marks and words are there after a reload', async ({
  page,
}) => {
  await newPiece(page, 'Pictured', '', 'survey');
  const whole = await photograph('#775544');
  await put(page, [
    file('one.jpg', whole),
    file('torn.jpg', whole.subarray(0, whole.length - 300)),
    file('phone.heic', Buffer.from('\0\0\0\x18ftypheic\0\0\0\0mif1heic'), 'image/heic'),
    file('notes.txt', Buffer.from('no picture'), 'text/plain'),
    file('huge.jpg', Buffer.alloc(26 * 1024 ** 2)),
    file(
      'two.png',
      await sharp(await photograph('#4466aa'))
        .png()
        .toBuffer(),
      'image/png',
    ),
  ]);
  await expect(small(page, 'one.jpg')).toBeVisible();
  await expect(small(page, 'two.png')).toBeVisible();
  for (const said of [
    'torn.jpg is damaged',
    'phone.heic is in a phone’s own format',
    'notes.txt is no picture',
    'huge.jpg is larger than 25 MB',
  ])
    await expect(page.getByRole('alert').filter({ hasText: said })).toBeVisible();
  // The same picture again is the same picture.
  await put(page, [file('one.jpg', whole)]);
  await expect(page.getByText('one.jpg is going up')).toHaveCount(0);
  await expect(small(page, 'one.jpg')).toHaveCount(1);

  await small(page, 'one.jpg').click();
  const sheet = page.getByRole('application');
  const box = (await sheet.boundingBox())!;
  const at = (x: number, y: number) => [box.x + box.width * x, box.y + box.height * y] as const;
  await page.getByRole('button', { name: 'Ring' }).click();
  await page.mouse.move(...at(0.5, 0.5));
  await page.mouse.down();
  await page.mouse.move(...at(0.55, 0.5), { steps: 4 });
  await page.mouse.up();
  await page.getByRole('textbox', { name: 'Ring 1' }).fill('through');
  // A pin by the keys alone.
  await sheet.focus();
  await page.keyboard.press('p');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Shift+ArrowUp');
  await page.getByLabel('What is seen here').fill('Hole under the mat');
  await expect(page.getByText('Saving …')).toBeVisible();
  await expect(page.getByText('Saving …')).toHaveCount(0);
  await page.reload();
  await small(page, 'Hole under the mat').click();
  await expect(page.getByRole('textbox', { name: 'Ring 1' })).toHaveValue('through');
  await expect(page.getByRole('textbox', { name: 'Pin 2' })).toBeVisible();
  await expect(page.getByText('Taken 1 Oct 2026, 09:40')).toBeVisible();
  // Standing upright, and with nothing in it that is nobody's business.
  await expect(page.getByText('480 × 640')).toBeVisible();
  const kept = await page.request.get(
    (await page.getByRole('link', { name: 'The whole picture' }).getAttribute('href'))!,
  );
  // Kept by the browser, but shown only to whoever may still see it.
  expect(kept.headers()['cache-control']).toBe('private, no-cache');
  const again = await page.request.get(kept.url(), {
    headers: { 'If-None-Match': kept.headers().etag! },
  });
  expect(again.status()).toBe(304);
  const bytes = await kept.body();
  expect(bytes.includes('Secret')).toBe(false);
  expect((await sharp(bytes).metadata()).orientation).toBe(6);
  // Changed and closed at once, it is saved all the same.
  await page.getByLabel('What is seen here').fill('Hole under the mat, right');
  await page.getByRole('button', { name: 'Close the picture' }).click();
  await small(page, 'Hole under the mat, right').click();
  await page.getByLabel('What is seen here').fill('Hole under the mat');
  // One laid over the other, by the divider.
  await page.getByRole('button', { name: 'Lay over it: two.png' }).click();
  await expect(page.getByRole('slider')).toBeVisible();
  await page.getByRole('button', { name: 'One alone' }).click();
  // Put away it is out of the way, and not gone.
  await page.getByRole('button', { name: 'Put away' }).click();
  await expect(page.getByRole('button', { name: 'Take out again' })).toBeVisible();
  await page.getByRole('button', { name: 'Close the picture' }).click();
  await expect(small(page, 'Hole under the mat')).toHaveCount(0);
  await page.getByRole('button', { name: '1 put away' }).click();
  await expect(small(page, 'Hole under the mat')).toBeVisible();
});

test('a picture taken while the server is away waits, also when the page is closed, and goes up later', async ({
  page,
}) => {
  await newPiece(page, 'Pictured away', '', 'survey');
  await page.route('**/pictures?**', (route) => route.abort());
  await put(page, [file('later.jpg', await photograph('#226633'))]);
  await expect(
    page.getByText('later.jpg waits for the server; it is kept in this browser'),
  ).toBeVisible();
  await page.reload();
  await expect(
    page.getByText('later.jpg waits for the server; it is kept in this browser'),
  ).toBeVisible();
  await page.unroute('**/pictures?**');
  await expect(small(page, 'later.jpg')).toBeVisible({ timeout: 15_000 });
  await expect(page.getByText('waits for the server')).toHaveCount(0);
  await page.reload();
  await expect(small(page, 'later.jpg')).toHaveCount(1);
  // Cancelled, it comes to nothing.
  await page.route('**/pictures?**', (route) => route.abort());
  await put(page, [file('never.jpg', await photograph('#223366'))]);
  await page.getByRole('button', { name: 'Cancel' }).click();
  await page.unroute('**/pictures?**');
  await page.reload();
  await expect(page.getByText('never.jpg')).toHaveCount(0);
});

test('a job goes out with its pictures and comes in with them; one whose file is lost says so', async ({
  page,
}) => {
  await newPiece(page, 'Packed', '', 'survey');
  await put(page, [file('kept.jpg', await photograph('#884422'))]);
  await expect(small(page, 'kept.jpg')).toBeVisible();
  await page.getByRole('link', { name: 'Job for Packed', exact: true }).click();
  const out = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Job as a file' }).click();
  const path = await (await out).path();
  await page.goto('/');
  await page.getByLabel('Job file to take in').setInputFiles(path);
  await expect(page.getByText(/^Came in from/)).toBeVisible();
  await page
    .getByRole('list', { name: 'Pieces' })
    .getByRole('link', { name: /Packed/ })
    .click();
  await page.waitForURL(/\/pieces\//);
  await goTo(page, 'survey');
  await expect(small(page, 'kept.jpg')).toBeVisible();
  await page.route('**/pictures/*/small', (route) => route.fulfill({ status: 404, body: 'gone' }));
  await page.reload();
  await expect(page.getByText('Its file is missing or damaged')).toBeVisible();
});
