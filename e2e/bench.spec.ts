import { expect, test } from '@playwright/test';
import { demoPiece, newPiece, pickEdge } from './hands';

/**
 * At the bench: readings and records in the order that hands make them, interrupted as they are.
 */

test('stations of one’s own, flush, a target typed, trial after trial, and the chart of them', async ({
  page,
}) => {
  await newPiece(page, 'Tried plate', '200, 100, 200, 100');
  await page.getByRole('link', { name: /^Fit:/ }).click();
  const trials = page.getByText(/^Trial \d of \d/);
  const first = page.getByRole('button', {
    name: /Begin the first trial fit|Begin another trial fit/,
  });
  await first.click();
  await expect(trials).toBeVisible();
  await pickEdge(page, 'A');
  const field = page.getByLabel('Gap read, then Enter');
  await expect(field).toBeFocused();

  await test.step('one more station, and fewer; what was read stays', async () => {
    await page.keyboard.type('4.2');
    await page.keyboard.press('Enter');
    const stations = page.getByRole('list', { name: 'Stations' }).getByRole('listitem');
    const count = await stations.count();
    await page.getByLabel('One more at').fill('33');
    await page.getByLabel('One more at').press('Enter');
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await expect(stations).toHaveCount(count + 1);
    await page.getByRole('button', { name: 'More stations' }).click();
    await expect(async () => expect(await stations.count()).toBeGreaterThan(count + 1)).toPass();
    await page.getByRole('button', { name: 'Fewer' }).click();
    await expect(page.getByRole('button', { name: /^Station 1: 4.20 mm/ })).toBeVisible();
  });

  await test.step('a caliper types: figure, Enter, figure, Enter; in inches too', async () => {
    await page.getByRole('button', { name: /^Station 1:/ }).click();
    await expect(field).toBeFocused();
    const stations = await page
      .getByRole('list', { name: 'Stations' })
      .getByRole('listitem')
      .count();
    for (let i = 0; i < stations; i++) {
      await page.keyboard.type(i === 1 ? '5/32' : '4.0');
      await page.keyboard.press('Enter');
    }
    await expect(page.getByRole('button', { name: /^Station 2: 3.97 mm/ })).toBeVisible();
    await expect(page.getByRole('status').filter({ hasText: 'on target' })).toBeVisible();
  });

  await test.step('a target of one’s own turns right into wide', async () => {
    await page.getByLabel('Target gap').fill('2');
    await page.getByLabel('Target gap').press('Enter');
    await expect(page.getByRole('status').filter({ hasText: 'wide all along' })).toBeVisible();
    await expect(
      page.getByRole('link', { name: /^Fit: needs attention, 1 edge off/ }),
    ).toBeVisible();
    await page.getByLabel('Target gap').fill('4');
    await page.getByLabel('Target gap').press('Enter');
  });

  await test.step('flush: proud by too much is off, however even the gap', async () => {
    await page.getByRole('button', { name: /^Flush/ }).click();
    await page.getByLabel(/Stands proud/).fill('1.6');
    await page.getByLabel(/Stands proud/).press('Enter');
    await expect(page.getByRole('link', { name: /^Fit: needs attention/ })).toBeVisible();
    await page.getByRole('button', { name: /^Station 1: 1.60 mm/ }).click();
    await page.getByLabel(/Stands proud/).fill('-0.4');
    await page.getByLabel(/Stands proud/).press('Enter');
    // Nothing is joined: one edge of four that lies right is no fit yet.
    await expect(page.getByRole('link', { name: /^Fit: next, 1 of 4 edges read/ })).toBeVisible();
    await page.getByRole('button', { name: 'Gap', exact: true }).click();
  });

  await test.step('another trial: its own readings, both in the chart; what was noticed is kept as a draft', async () => {
    await first.click();
    await expect(trials).toContainText('Trial 2');
    // The edge stays in hand, and so does the field.
    await expect(field).toBeFocused();
    await page.keyboard.type('4.4');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('img', { name: /trial 2: 4\.4.*trial 1: 4/ })).toBeVisible();
    await page.getByText(/^Trial 2 of 2/).click();
    await page.getByLabel('What was noticed').fill('Rocks on the left corner.');
    await page.getByRole('link', { name: /^Card:/ }).click();
    // The address changes before the page does: who is back within that moment has never left, and
    // the fold is open.
    await expect(page.getByText(/^Trial 2 of 2/)).toHaveCount(0);
    await page.getByRole('link', { name: /^Fit:/ }).click();
    await page.getByText(/^Trial 2 of 2/).click();
    await expect(page.getByLabel('What was noticed')).toHaveValue('Rocks on the left corner.');
    await page.getByRole('button', { name: 'Keep this' }).click();
    await expect(page.getByRole('button', { name: 'Keep this' })).toHaveCount(0);
    await page.reload();
    await expect(page.getByLabel('What was noticed')).toHaveValue('Rocks on the left corner.');
  });
});

test('a weld plan changes the tacks; an entry half typed outlives another edge, a reload and a lost server', async ({
  page,
  context,
}) => {
  await demoPiece(page, 'Battery shelf', 'Weld');
  await pickEdge(page, 'B');
  const order = page.getByRole('list', { name: 'Tacks in order' }).getByRole('listitem');
  // 170 mm at 50: ends, middle, quarters.
  await expect(order).toHaveCount(5);
  await expect(order.nth(2)).toContainText('85.0');
  await page.getByLabel('Tacks no farther apart than').fill('20');
  await page.getByLabel('Tacks no farther apart than').press('Enter');
  await expect(order).toHaveCount(10);
  await page.getByRole('button', { name: 'TIG', exact: true }).click();
  await expect(page.getByText(/^Saved/)).toBeVisible();

  await page.getByRole('button', { name: 'Write down a weld' }).click();
  const entry = page.getByRole('region', { name: 'Weld entry' });
  await expect(entry.getByRole('heading', { name: 'TIG on edge B' })).toBeVisible();
  await entry.getByLabel('Last').fill('9');
  await entry.getByLabel('Amps').fill('forty');
  await entry.getByLabel('Who welded').fill('Joss');
  await entry.getByLabel('Note').fill('Filler 1.6, hammered while soft.');
  await pickEdge(page, 'I');
  await pickEdge(page, 'B');
  await expect(entry.getByLabel('Note')).toHaveValue('Filler 1.6, hammered while soft.');
  await page.reload();
  await pickEdge(page, 'B');
  await expect(entry.getByLabel('Last')).toHaveValue('9');
  await entry.getByRole('button', { name: 'Put in the record' }).click();
  await expect(entry.getByRole('alert')).toContainText('plain figures');
  await entry.getByLabel('Amps').fill('42,5');

  await context.setOffline(true);
  await entry.getByRole('button', { name: 'Put in the record' }).click();
  const waits = page.getByRole('status', { name: 'What waits for the server' });
  await expect(waits).toContainText(
    '1 entry waits for the server, and goes in when it answers. Keep this page open till then.',
  );
  await context.setOffline(false);
  await expect(page.getByText('TIG: Tacks 1–9')).toBeVisible();
  await expect(waits).toHaveCount(0);
  await expect(page.getByText('42.5 A')).toBeVisible();
  // The next entry goes on from there, with the same hand and settings.
  await page.getByRole('button', { name: 'Write down a weld' }).click();
  await expect(entry.getByLabel('First of 10')).toHaveValue('10');
  await expect(entry.getByLabel('Who welded')).toHaveValue('Joss');
  await expect(entry.getByLabel('Note')).toHaveValue('');
  await entry.getByRole('button', { name: 'Not now' }).click();

  await page.getByRole('button', { name: 'Write down an inspection' }).click();
  const look = page.getByRole('region', { name: 'Inspection entry' });
  await look.getByRole('combobox', { name: 'How' }).click();
  await page.getByRole('option', { name: 'Thickness after grinding' }).click();
  await look.getByLabel('Thickness left').fill('1.42');
  await look.getByLabel('Thickness left').press('Enter');
  // Nothing is sound until somebody says so.
  await expect(look.getByRole('button', { name: 'Put in the record' })).toBeDisabled();
  await look.getByRole('button', { name: 'Sound', exact: true }).click();
  await look.getByRole('button', { name: 'Put in the record' }).click();
  await expect(page.getByText('1.42 mm.')).toBeVisible();
  await expect(
    page.getByRole('definition').filter({ hasText: '1 looked at, all put right' }),
  ).toBeVisible();
});

test('readings made while the server is away wait in the browser and go in when it is back', async ({
  page,
  context,
}) => {
  await demoPiece(page, 'Battery shelf', 'Fit');
  await page.getByRole('button', { name: 'Begin another trial fit' }).click();
  await expect(page.getByText(/^Trial 2 of 2/)).toBeVisible();
  await pickEdge(page, 'B');
  const field = page.getByLabel('Gap read, then Enter');
  await expect(field).toBeFocused();
  await context.setOffline(true);
  for (const gap of ['1.1', '1.2']) {
    await page.keyboard.type(gap);
    await page.keyboard.press('Enter');
  }
  await expect(page.getByText(/No answer from the server/)).toBeVisible();
  await expect(page.getByRole('button', { name: /^Station 2: 1.20 mm/ })).toBeVisible();
  await context.setOffline(false);
  await expect(page.getByText(/No answer from the server/)).toHaveCount(0, { timeout: 15_000 });
  await page.reload();
  await pickEdge(page, 'B');
  await expect(page.getByRole('button', { name: /^Station 2: 1.20 mm/ })).toBeVisible();
});
