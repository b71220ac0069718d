import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { newPiece, saved } from './hands';

/** Touches a place of the picture that is shown, by shares of its width and height. */
async function touch(page: Page, [u, v]: readonly [number, number]): Promise<void> {
  const box = (await page.locator('svg image').first().boundingBox())!;
  await page.mouse.click(box.x + u * box.width, box.y + v * box.height);
}

/** The outer corners of the frame in docs/card-on-frame.jpg, one to four. */
const FRAME = [
  [0.786, 0.764],
  [0.775, 0.236],
  [0.267, 0.285],
  [0.26, 0.737],
] as const;
/** The rim of its hole of 14 mm. */
const HOLE = [
  [0.539, 0.46],
  [0.5525, 0.4425],
  [0.566, 0.46],
] as const;

test('distances are read on a photograph from what is known on it, and become a profile', async ({
  page,
}) => {
  await newPiece(page, 'Read off', '120, 60, 120, 60');
  await page.getByRole('link', { name: 'Measure on a picture' }).click();
  await page.getByLabel('The picture to measure on').setInputFiles('docs/card-on-frame.jpg');
  const gathered = page.getByRole('region', { name: 'Gathered pins' });

  await test.step('a frame of known sides tells the scale', async () => {
    await expect(page.getByText('No pin is gathered.')).toBeVisible();
    for (const place of FRAME) await touch(page, place);
    await gathered.getByLabel('1 – 2').fill('198');
    await gathered.getByLabel('2 – 3').fill('285');
    await gathered.getByLabel('2 – 3').press('Enter');
    await gathered.getByRole('button', { name: 'Its sides are known' }).click();
    await expect(page.getByText('What is known says how the plane is tilted.')).toBeVisible();
    await expect(page.getByRole('list', { name: 'Known' }).getByRole('listitem')).toHaveCount(6);
  });

  await test.step('a hole of 14 mm is read with its ±, and kept', async () => {
    // Pins near each other are put down zoomed in.
    const box = (await page.locator('svg image').first().boundingBox())!;
    await page.mouse.move(box.x + HOLE[1][0] * box.width, box.y + HOLE[1][1] * box.height);
    await page.mouse.wheel(0, -1200);
    for (const place of HOLE) await touch(page, place);
    await page.getByRole('button', { name: 'Fit the drawing to the screen' }).click();
    await expect(gathered).toContainText(/Ø 1[345]\.\d mm ± \d\.\d mm/);
    await gathered.getByRole('button', { name: 'Keep this reading' }).click();
    await expect(page.getByRole('list', { name: 'Read' })).toContainText(
      'Circle through 5 – 6 – 7: Ø 1',
    );
  });

  await test.step('a known distance that goes against the others is named', async () => {
    await touch(page, FRAME[0]);
    await touch(page, FRAME[2]);
    await gathered.getByLabel('Known to be').fill('300');
    await gathered.getByLabel('Known to be').press('Enter');
    await gathered.getByRole('button', { name: 'This is known' }).click();
    const wrong = page.getByRole('listitem', { name: '1 – 3 is 300.0 mm' });
    await expect(wrong).toContainText('goes against the others');
    await wrong.getByRole('button', { name: 'Take off' }).click();
  });

  await test.step('all of it is there when the page is opened again', async () => {
    await page.waitForTimeout(1500);
    await page.reload();
    await expect(page.getByRole('list', { name: 'Read' })).toContainText(
      'Circle through 5 – 6 – 7: Ø 1',
    );
  });

  await test.step('places become a profile, the profile a strip and a side of the card', async () => {
    for (const place of [FRAME[1], HOLE[1], FRAME[2]]) await touch(page, place);
    await page.getByLabel('Name of the profile').fill('Over the hole');
    await page
      .getByRole('button', { name: 'A profile: first and last on the straight edge' })
      .click();
    await expect(page.getByRole('heading', { name: 'Profiles' })).toBeVisible();
    await saved(page);
    await page.getByLabel(/^Readings/).fill('0 0\n30 4\n60 6\n90 4\n120 0\n120 1');
    await expect(page.getByRole('alert')).toContainText('every station is read once');
    await page.getByLabel(/^Readings/).fill('0 0\n30 4.5\n60 6\n90 4.5\n120 0');
    await expect(page.getByRole('status').filter({ hasText: '1 arc' })).toContainText(
      'no reading lies farther off than 0.0',
    );
    await page.getByRole('button', { name: 'Keep the change' }).click();
    await saved(page);
    for (const name of ['Print it hollow', 'Print it full']) {
      const href = (await page.getByRole('link', { name }).getAttribute('href'))!;
      const strip = await page.request.get(href);
      expect((await strip.body()).subarray(0, 5).toString()).toBe('%PDF-');
      expect(await (await page.request.get(href.replace('as=pdf', 'as=dxf'))).text()).toContain(
        'POLYLINE',
      );
    }
    await page.getByText('Make it a side of the card').click();
    await page.getByRole('button', { name: 'Run the side along it' }).click();
    await expect(page.getByText(/^Side . runs along the contour now\.$/)).toBeVisible();
    await saved(page);
    await page.getByRole('link', { name: 'Back to the card' }).click();
    await expect(page.getByRole('table', { name: 'Edges' }).getByText('120.8 mm')).toBeVisible();
  });
});

test('a frame and a card that are not found are tapped', async ({ page }) => {
  await newPiece(page, 'Tapped');
  await page.getByRole('button', { name: 'Photo' }).click();
  await page.getByLabel('The picture of the card').setInputFiles('docs/screenshots/card.png');
  await expect(page.getByText(/The marks of the scale frame cannot be seen/)).toBeVisible({
    timeout: 30_000,
  });
  await page.getByRole('button', { name: 'Tap the frame’s corners' }).click();
  const pin = page.getByRole('button', { name: /^Pin one/ });
  await pin.focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await page.getByRole('button', { name: 'Look with these' }).click();
  await page
    .getByRole('button', { name: 'Tap the corners of the card' })
    .click({ timeout: 30_000 });
  for (const place of [
    [0.3, 0.7],
    [0.6, 0.7],
    [0.6, 0.3],
    [0.4, 0.3],
    [0.3, 0.5],
    [0.9, 0.9],
  ] as const)
    await touch(page, place);
  await page.getByRole('button', { name: 'Take the last one back' }).click();
  await page.getByRole('button', { name: 'These are its corners' }).click();
  await expect(page.getByText(/^5 straight sides, /)).toBeVisible({ timeout: 30_000 });
  await page.getByRole('button', { name: 'Make the card' }).click();
  await saved(page);
  await expect(page.getByRole('table', { name: 'Edges' }).getByRole('row')).toHaveCount(6);
});

test('a card taped corner to corner: the tape that is off is named; its holes stay one pattern', async ({
  page,
}) => {
  await newPiece(page, 'Taped');
  await page.getByRole('button', { name: 'Tape', exact: true }).click();
  const tape = async (label: string, mm: string) => {
    await page.getByLabel(label, { exact: true }).fill(mm);
    await page.getByLabel(label, { exact: true }).press('Enter');
  };
  const sides = [
    ['1 to 2', '300'],
    ['2 to 3', '200'],
    ['3 to 4', '300'],
    ['1 to 4', '200'],
  ] as const;
  for (const [label, mm] of sides) await tape(label, mm);
  await expect(
    page.getByRole('status').filter({ hasText: 'too few tapes yet to say where' }),
  ).toBeVisible();
  await tape('1 to 3', '360.6');
  await expect(page.getByText('No tape checks another: one more across would.')).toBeVisible();
  await tape('2 to 4', '368.6');
  await expect(page.getByRole('alert')).toContainText('go together');
  await tape('2 to 4', '360.5');
  await expect(page.getByText('One tape more than it takes.')).toBeVisible();
  await page.getByRole('button', { name: 'Make the card' }).click();
  await saved(page);

  await test.step('four holes on a circle, and made six millimetres wider at once', async () => {
    const card = (await page.getByRole('group', { name: 'The card' }).boundingBox())!;
    await page.mouse.click(card.x + card.width / 2, card.y + card.height * 0.55);
    await page.getByText('A pattern of holes here').click();
    await page.getByLabel('Holes in').click();
    await page.getByRole('option', { name: 'A circle about here' }).click();
    await page.getByRole('button', { name: 'Put them in' }).click();
    await saved(page);
    const rules = page.getByRole('list', { name: 'Rules', exact: true });
    const circle = rules.getByRole('listitem', {
      name: 'Holes 1, 2, 3 and 4 on one circle, evenly',
    });
    await circle.getByLabel('Circle, across').fill('80');
    await circle.getByLabel('Circle, across').press('Enter');
    await saved(page);
    await expect(circle).toContainText('Kept so');
    // One of them drilled larger, all of them are.
    await page.getByRole('button', { name: /^Hole 2, 8/ }).focus();
    await page.keyboard.press('Enter');
    await page.getByLabel('Or what a tape reads round a thing of its size').fill('31.416');
    await page.getByLabel('Or what a tape reads round a thing of its size').press('Enter');
    await saved(page);
    for (const number of [1, 2, 3, 4])
      await expect(page.getByRole('button', { name: `Hole ${number}, 10.0 mm` })).toBeVisible();
  });

  await test.step('one made a slot is a slot on the blank and in its table', async () => {
    await page.getByLabel('Form').click();
    await page.getByRole('option', { name: 'Slot' }).click();
    await page.getByLabel('Long over all').fill('24');
    await page.getByLabel('Long over all').press('Enter');
    await saved(page);
    await page.getByRole('link', { name: /^Blank/ }).click();
    await expect(page.getByRole('table', { name: /^Holes/ }).first()).toContainText('24.0 × 10.0');
  });
});
