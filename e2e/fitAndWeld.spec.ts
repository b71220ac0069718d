import { expect, test } from '@playwright/test';
import { demoPiece, pickEdge } from './hands';

test.describe('at phone width', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });

  test('a trial fit: one field, Enter to the next station, and the edge says how it lies', async ({
    page,
  }) => {
    await demoPiece(page, 'Scuttle drain plate', 'Fit');
    await page.getByRole('button', { name: 'Begin the first trial fit' }).click();
    await page.getByRole('button', { name: /^D .*not read yet/ }).click();
    const field = page.getByLabel('Gap read, then Enter');
    await expect(field).toBeFocused();
    expect((await field.boundingBox())!.height).toBeGreaterThanOrEqual(44);
    for (const gap of ['3', '4,5', '6.5']) {
      await page.keyboard.type(gap);
      await page.keyboard.press('Enter');
    }
    await expect(page.getByRole('status').filter({ hasText: 'wide at the far end' })).toBeVisible();
    await expect(
      page.getByRole('img', { name: /Gap along the edge.*trial 1: 3, 4\.5, 6\.5/ }),
    ).toBeVisible();
    await page.reload();
    await expect(page.getByRole('button', { name: /^D .*wide at the far end/ })).toBeVisible();
    await pickEdge(page, 'D');
    await expect(page.getByRole('button', { name: /^Station 3: 6.50 mm/ })).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(
      390,
    );
  });

  test('a weld and what was seen go into the record', async ({ page }) => {
    await demoPiece(page, 'Sill closing plate', 'Weld');
    await pickEdge(page, 'D');
    await expect(page.getByRole('region', { name: 'Cautions' })).toContainText('licensed person');
    // In one hand the weld comes first; what was planned is a touch away.
    await expect(page.getByText(/^Next plug 26, then 13, 19/)).toBeVisible();
    await page.getByText('MIG, 26 plugs, holes 8.0 mm').click();
    await expect(page.getByText('26 plugs over 640.0 mm')).toBeVisible();
    await page.getByRole('button', { name: 'Write down a weld' }).click();
    const entry = page.getByRole('region', { name: 'Weld entry' });
    await expect(entry.getByLabel('First of 26')).toHaveValue('13');
    await entry.getByLabel('Last').fill('99');
    await entry.getByRole('button', { name: 'Put in the record' }).click();
    await expect(entry.getByRole('alert')).toContainText('from 1 to 26');
    await entry.getByLabel('Last').fill('20');
    await entry.getByLabel('Note').fill('Second go, cool again between.');
    await entry.getByRole('button', { name: 'Put in the record' }).click();
    await expect(page.getByText('MIG: Plugs 13–20')).toBeVisible();
    await expect(page.getByText('20 of 52')).toBeVisible();
    // Written on the wrong edge: it is taken back with a reason, stays in the record, and counts no
    // more.
    await page.getByRole('button', { name: 'Take this back' }).first().click();
    await page.getByLabel('Why it is taken back').fill('That was the other flange.');
    await page.getByRole('button', { name: 'Take back', exact: true }).click();
    await expect(page.getByText(/Taken back .*That was the other flange\./)).toBeVisible();
    await expect(page.getByText('MIG: Plugs 13–20')).toBeVisible();
    await expect(page.getByText('12 of 52')).toBeVisible();
    // The right one begins with what the wrong one said, and says in whose place it stands.
    await page.getByRole('button', { name: 'Write the right one' }).click();
    await expect(entry.getByLabel('First of 26')).toHaveValue('13');
    await entry.getByLabel('Last').fill('14');
    await entry.getByRole('button', { name: 'Put in the record' }).click();
    await expect(
      page.getByText(/^In place of the entry of \d+ \w+ \d{4}.*Second go/),
    ).toBeVisible();
    await expect(page.getByText('14 of 52')).toBeVisible();

    await page.getByRole('button', { name: 'Write down an inspection' }).click();
    const look = page.getByRole('region', { name: 'Inspection entry' });
    await look.getByRole('button', { name: 'Not sound' }).click();
    await look.getByLabel('What was seen').fill('Plug 15 has no root.');
    await look.getByRole('button', { name: 'Put in the record' }).click();
    await expect(
      page.getByRole('link', { name: /^Weld: needs attention, 1 finding open/ }),
    ).toBeAttached();
    await page.getByLabel('What was done about it').fill('Drilled out and plugged again.');
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(page.getByText('Then: Drilled out and plugged again.')).toBeVisible();
  });
});
