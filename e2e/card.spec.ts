import { readFileSync } from 'node:fs';
import { text } from 'node:stream/consumers';
import { expect, test } from '@playwright/test';
import yauzl from 'yauzl';
import { cornerAt, layFold, newPiece, pickEdge, saved } from './hands';

const card = (text: string) => new RegExp(`^Card ${text}`);

test('a card is dragged, split, curved, joined and holed; undo works after a reload', async ({
  page,
}) => {
  await newPiece(page, 'Gusset');
  await page.getByRole('button', { name: 'Points' }).click();
  await page.getByLabel(/^Points:/).fill('x\ty\n0\t0\n0\t60\n100\t60\n100\t0');
  await page.getByRole('button', { name: 'Make the card' }).click();
  await saved(page);

  await test.step('a dragged corner snaps to its neighbours’ lines', async () => {
    const from = await cornerAt(page, 3);
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move(from.x + 60, from.y + 3, { steps: 8 });
    await page.mouse.up();
    await saved(page);
    // Level with its neighbour to the left, however shaky the hand.
    await expect(page.getByRole('button', { name: / × 60\.0 mm/ })).toBeVisible();
  });

  await test.step('typed: an edge’s length, an arc by radius, a lap', async () => {
    await pickEdge(page, 'D');
    const length = page.getByLabel('Length');
    await length.fill('what?');
    await length.press('Enter');
    await expect(page.getByText('Can’t read that.')).toBeVisible();
    await expect(length).toHaveValue('what?');
    await length.fill('4 1/2"');
    await length.press('Enter');
    await expect(length).toHaveValue('114.30');
    await page.getByRole('button', { name: 'Arc' }).click();
    await page.getByLabel('Radius').fill('90');
    await page.getByLabel('Radius').press('Enter');
    await saved(page);
    await page.getByRole('combobox', { name: 'Joined by' }).click();
    await page.getByRole('option', { name: 'Lap', exact: true }).click();
    await saved(page);
    await page.getByLabel('Overlap').fill('1/2"');
    await page.getByLabel('Overlap').press('Enter');
    await expect(page.getByRole('definition').filter({ hasText: '12.7 mm added' })).toBeVisible();
    await saved(page);
  });

  await test.step('undo twice, reload, redo', async () => {
    const joint = page.getByRole('combobox', { name: 'Joined by' });
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByLabel('Overlap')).toHaveValue('12.0');
    await page.reload();
    await pickEdge(page, 'D');
    await expect(page.getByLabel('Overlap')).toHaveValue('12.0');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(joint).toHaveText('Free edge');
    await page.getByRole('button', { name: 'Redo' }).click();
    await expect(joint).toHaveText('Lap');
    await page.getByRole('button', { name: 'Redo' }).click();
    await expect(page.getByLabel('Overlap')).toHaveValue('12.7');
  });

  await test.step('a fold that crosses another is refused beside the drawing, and kept to be mended', async () => {
    await pickEdge(page, 'B');
    await layFold(page, [1, 4, 0.5], [2, 3, 0.5]);
    await page.keyboard.press('Escape');
    await layFold(page, [4, 3, 0.3], [1, 4, 0.2]);
    await expect(
      page.getByText(/cross: a fold may meet another at a corner but not cross it/),
    ).toBeVisible();
    await expect(page.getByRole('link', { name: /^Card: needs attention/ })).toBeVisible();
    await page.getByRole('button', { name: 'Take this fold off' }).click();
    await expect(page.getByRole('link', { name: /^Card: done, 1 fold/ })).toBeVisible();
  });
});

test('drawn by touching: corners snap square and the first one closes it', async ({ page }) => {
  await newPiece(page, 'Sketch');
  await page.getByRole('button', { name: 'Draw', exact: true }).click();
  const box = (await page.getByRole('group', { name: /Draw the card/ }).boundingBox())!;
  const at = (x: number, y: number) =>
    page.mouse.click(box.x + box.width * x, box.y + box.height * y);
  await at(0.3, 0.7);
  await at(0.6, 0.705);
  await at(0.602, 0.4);
  await at(0.3, 0.398);
  await at(0.3, 0.7);
  await saved(page);
  await expect(page.getByRole('table', { name: 'Edges' }).getByRole('row')).toHaveCount(5);
  await expect(page.getByRole('link', { name: /^Card: done/ })).toBeVisible();
});

test('two pages edit one piece: both versions are shown and neither is lost', async ({
  page,
  context,
}) => {
  await newPiece(page, 'Shared', '100, 60, 100, 60');
  const other = await context.newPage();
  await other.goto(page.url());
  await pickEdge(page, 'D');
  await pickEdge(other, 'D');
  await page.getByLabel('Length').fill('120');
  await page.getByLabel('Length').press('Enter');
  await saved(page);
  await expect(page.getByRole('button', { name: card('120\\.0 mm') })).toBeVisible();
  await page.waitForTimeout(900);
  await other.getByLabel('Length').fill('140');
  await other.getByLabel('Length').press('Enter');
  await expect(
    other.getByRole('heading', { name: 'This card was changed on another page too' }),
  ).toBeVisible();
  await expect(other.getByText('edge D 140.0 mm → 120.0 mm')).toBeVisible();
  await other.getByRole('button', { name: 'Take the other' }).click();
  await expect(other.getByRole('button', { name: card('120\\.0 mm') })).toBeVisible();
  // What was left is a redo away.
  await other.getByRole('button', { name: 'Redo' }).click();
  await expect(other.getByRole('button', { name: card('140\\.0 mm') })).toBeVisible();
});

/** The text of a job in its zip, as another program unpacks it. */
async function textIn(path: string): Promise<string> {
  const zip = await yauzl.openPromise(path);
  for await (const entry of zip.eachEntry())
    if (entry.fileName === 'job.json') return text(await zip.openReadStreamPromise(entry));
  throw new Error('There is no job.json in it');
}

test('a job goes out as a file and comes in again the same to the byte', async ({ page }) => {
  await page.goto('/');
  await page
    .getByRole('link', { name: /Mobile library van/ })
    .first()
    .click();
  const save = async () => {
    const got = page.waitForEvent('download');
    await page.getByRole('link', { name: 'Job as a file' }).click();
    const path = await (await got).path();
    return { bytes: readFileSync(path), text: await textIn(path) };
  };
  const first = await save();
  await page.goto('/');
  await page.locator('input[type=file]').setInputFiles({
    name: 'bad.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{"format":"x"}'),
  });
  await expect(page.getByRole('alert')).toContainText('bad.json: That is not a job file');
  // It is told where the file was chosen, not in the form for a new job.
  await expect(page.getByRole('region', { name: 'New job' })).toHaveCount(0);
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'job.zip', mimeType: 'application/zip', buffer: first.bytes });
  await page.waitForURL(/\/jobs\//);
  await expect(page.getByText(/Came in from job\.zip on \d+ \w+ \d{4}, \d\d:\d\d/)).toBeVisible();
  expect((await save()).text).toBe(first.text);
  await page.getByRole('button', { name: 'Put the job away' }).click();
  await page.getByRole('link', { name: 'Jobs put away' }).click();
  await expect(page.getByRole('link', { name: /Mobile library van/ })).toBeVisible();
});

test('a card from figures: what makes nothing is told, a channel has its folds, and a tube’s paper wrap is as long as its girth', async ({
  page,
}) => {
  await newPiece(page, 'From figures');
  await page.getByRole('button', { name: 'Figures' }).click();
  const choose = async (name: string) => {
    await page.getByRole('combobox', { name: 'What is made' }).click();
    await page.getByRole('option', { name, exact: true }).click();
  };
  const put = async (label: string, figure: string) => {
    await page.getByRole('textbox', { name: label, exact: true }).fill(figure);
    await page.getByRole('textbox', { name: label, exact: true }).press('Enter');
  };
  await choose('Ring');
  await put('Inside diameter', '100');
  await expect(page.getByRole('alert')).toContainText('Out of range: Inside diameter.');
  await expect(page.getByRole('button', { name: 'Make the card' })).toBeDisabled();
  await choose('Channel');
  await put('Length', '8"');
  await put('Across the back', '60');
  // Typed and not made: it is there after a reload.
  await page.reload();
  await page
    .getByRole('button', { name: 'Figures' })
    .or(page.getByRole('heading', { name: 'From figures' }))
    .first()
    .waitFor();
  await expect(page.getByRole('textbox', { name: 'Length', exact: true })).toHaveValue('203.2');
  await page.getByRole('button', { name: 'Make the card' }).click();
  await saved(page);
  await page.getByRole('link', { name: /^Blank:/ }).click();
  await page.waitForURL(/blank$/);
  // 25 + 60 + 25 over the outsides, less what two bends take (DIN 6935: 1.9187 each at R = T = 1
  // mm).
  await expect(page.getByRole('button', { name: /106\.2 mm/ }).first()).toBeVisible();

  await newPiece(page, 'Paper wrap');
  await page.getByRole('button', { name: 'Figures' }).click();
  await choose('Tube end onto a tube');
  await put('Tube, across', '60');
  await expect(page.getByRole('alert')).toContainText('passes beside the other');
  await put('The other tube, outside across', '60.3');
  await page.getByRole('button', { name: 'Make the card' }).click();
  await saved(page);
  await expect(page.getByRole('button', { name: /^Card 188\.5 mm/ })).toBeVisible();
});
