import { expect, test } from '@playwright/test';
import { newPiece, saved } from './hands';

test('a machine is measured and used: what it cannot make is told, what frees it is offered; a fold is crept up on, and the next piece knows', async ({
  page,
}) => {
  await page.goto('/shop');
  const machines = page.getByRole('region', { name: 'Folders and brakes' });
  await expect(async () => {
    await machines.getByRole('button', { name: 'Another machine' }).click();
    await expect(machines.getByLabel('Name')).toHaveValue(/another/, { timeout: 1000 });
  }).toPass();
  await machines.getByLabel('Name').fill('Bench folder');
  for (const [label, mm] of [['The bar opens by', '20'], ['Bar, from the sheet up to the beam', '90']] as const) {
    await machines.getByLabel(label).fill(mm);
    await machines.getByLabel(label).press('Enter');
  } // prettier-ignore
  const fingers = machines.getByLabel(/Widths of all fingers/);
  await fingers.fill('wide');
  await fingers.press('Enter');
  await expect(machines.getByText(/Widths in millimetres, parted by spaces/)).toBeVisible();
  await fingers.fill('');
  await fingers.press('Enter');
  await page.getByRole('button', { name: 'Keep these settings' }).click();
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();

  await newPiece(page, 'Channel');
  await page.getByRole('button', { name: 'Figures', exact: true }).click();
  await page.getByRole('combobox', { name: 'What is made' }).click();
  await page.getByRole('option', { name: 'Channel' }).click();
  const flange = page.getByLabel('Each flange');
  await flange.fill('45');
  await flange.press('Enter');
  await page.getByRole('button', { name: 'Make the card' }).click();
  await saved(page);
  await page.getByRole('link', { name: /^Blank/ }).click();

  await test.step('no order on that machine, and why; what frees it', async () => {
    await page.getByRole('button', { name: 'Machine' }).click();
    await page.getByRole('combobox', { name: 'Folded on' }).click();
    await page.getByRole('option', { name: 'Bench folder' }).click();
    await expect(page.getByText(/This machine makes them in no order/)).toBeVisible();
    await expect(page.getByRole('list', { name: 'What frees it' })).toContainText('over a bar by hand');
    await page.getByLabel(/An order of your own/).fill('1 1');
    await page.getByRole('button', { name: 'Check' }).click();
    await expect(page.getByText('Name each of the 2 folds once')).toBeVisible();
    await page.getByLabel(/An order of your own/).fill('2 1');
    await page.getByRole('button', { name: 'Check' }).click();
    await expect(page.getByText(/In this order fold 1 cannot be made, as number 2/)).toBeVisible();
  });

  await test.step('on the brake with fingers there is one; done, next', async () => {
    await page.getByRole('combobox', { name: 'Folded on' }).click();
    await page.getByRole('option', { name: 'Box-and-pan brake' }).click();
    const steps = page.getByRole('list', { name: 'Steps' });
    await expect(steps.getByRole('listitem')).toHaveCount(2);
    await page.getByRole('button', { name: 'Done, next' }).click();
    await page.getByRole('button', { name: 'Done, next' }).click();
    await expect(page.getByRole('button', { name: 'All folds made' })).toBeDisabled();
    await page.reload();
    await page.getByRole('button', { name: 'Machine' }).click();
    await expect(page.getByRole('button', { name: 'All folds made' })).toBeVisible();
  });

  await test.step('crept up on, on a phone', async () => {
    await page.setViewportSize({ width: 390, height: 800 });
    await page.getByRole('button', { name: 'Flat', exact: true }).click();
    await page.getByRole('button', { name: /^Fold 1,/ }).focus();
    await page.keyboard.press('Enter');
    const tries = page.getByRole('region', { name: 'What to fold 1 to' });
    await expect(tries).toContainText('First to');
    const keep = tries.getByRole('button', { name: 'Keep this try' });
    const read = async (to: string, back: string) => {
      await tries.getByLabel('Folded to').fill(to);
      await tries.getByLabel('Folded to').press('Enter');
      await tries.getByLabel('Came back to').fill(back);
      await tries.getByLabel('Came back to').press('Enter');
    };
    await read('91', '40');
    await expect(tries.getByText(/comes back by something between nothing and a third/)).toBeVisible();
    await expect(keep).toBeDisabled();
    await read('91', '86.5');
    await keep.click();
    await expect(tries.getByRole('status')).toContainText('now fold to 94.7°');
    await read('92', '88.5');
    await keep.click();
    await expect(tries.getByRole('status')).toContainText('now fold to 93.6°');
    await read('93.6', '89.8');
    await keep.click();
    await expect(tries.getByRole('status')).toContainText('Done: it came back to 89.8°');
    await expect(tries.getByRole('list', { name: 'Tries' }).getByRole('listitem')).toHaveCount(3);
    await page.setViewportSize({ width: 1280, height: 800 });
  });

  await test.step('the next piece begins where this one ended', async () => {
    await newPiece(page, 'Second channel');
    await page.getByRole('button', { name: 'Figures', exact: true }).click();
    await page.getByRole('combobox', { name: 'What is made' }).click();
    await page.getByRole('option', { name: 'Channel' }).click();
    await page.getByRole('button', { name: 'Make the card' }).click();
    await saved(page);
    await page.getByRole('link', { name: /^Blank/ }).click();
    await page.getByRole('button', { name: /^Fold 2,/ }).focus();
    await page.keyboard.press('Enter');
    const advice = page.getByRole('region', { name: 'What to fold 2 to' });
    await expect(advice).toContainText('From 3 bends measured in this shop');
    await expect(advice).toContainText('Such a fold usually took 3 tries');
  });
});
