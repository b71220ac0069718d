import { expect, test } from '@playwright/test';
import { newPiece, saved } from './hands';

test('a photograph of a card becomes a card, and its blank is printed', async ({
  page,
  request,
  browser,
}) => {
  const frame = await request.get('/scale-frame.pdf?paper=a4');
  expect((await frame.body()).subarray(0, 5).toString()).toBe('%PDF-');
  await newPiece(page, 'Photographed');
  await page.getByRole('button', { name: 'Photo' }).click();
  const picture = page.getByLabel('The picture of the card');

  await test.step('a picture without a frame is refused, and says what to do', async () => {
    await picture.setInputFiles('docs/screenshots/card.png');
    await expect(page.getByText(/The marks of the scale frame cannot be seen/)).toBeVisible({
      timeout: 30_000,
    });
  });

  await test.step('what is found is told with how sure it is, and taken or left', async () => {
    await picture.setInputFiles('docs/card-on-frame.jpg');
    await expect(
      page.getByText(/5 straight sides and 2 arcs|4 straight sides and 2 arcs/),
    ).toBeVisible({
      timeout: 30_000,
    });
    await expect(page.getByText(/is sure to ± 0\.\d/)).toBeVisible();
    await expect(page.getByLabel(/^Hole \d: 10\.\d mm across, rubbed or drawn/)).toBeChecked();
    await page.getByLabel(/^Hole \d: 14\.0 mm across/).uncheck();
    await expect(page.getByRole('combobox', { name: /^Line 1, 10\d\.\d mm long/ })).toHaveText(
      'Folded along',
    );
    await page.getByRole('button', { name: 'Make the card' }).click();
    await saved(page);
  });

  await test.step('it is a card like any other, the picture behind it', async () => {
    await expect(page.getByRole('heading', { name: 'The card', exact: true })).toBeVisible();
    await expect(page.getByRole('slider', { name: 'How much of the picture shows' })).toBeVisible();
    await expect(page.getByText('Folds').first()).toBeVisible();
    await page.reload();
    await expect(page.getByRole('slider', { name: 'How much of the picture shows' })).toBeVisible();
  });

  await test.step('a browser that never saw the photograph has it behind the card too', async () => {
    const other = await (await browser.newContext()).newPage();
    await expect(async () => {
      await other.goto(page.url());
      await expect(
        other.getByRole('slider', { name: 'How much of the picture shows' }),
      ).toBeVisible({
        timeout: 3000,
      });
    }).toPass();
    await expect(other.locator('svg image')).toHaveAttribute('href', /^\/pictures\//);
    await other.context().close();
  });

  await test.step('and its blank leaves the house', async () => {
    const id = /pieces\/([0-9a-f-]{36})/.exec(page.url())![1]!;
    const blank = await request.get(`/pieces/${id}/pattern/blank.pdf?paper=a4`);
    expect(blank.status()).toBe(200);
    expect((await blank.body()).subarray(0, 5).toString()).toBe('%PDF-');
    const dxf = await (await request.get(`/pieces/${id}/pattern/card.dxf`)).text();
    expect(dxf).toContain('CIRCLE');
  });
});
