import type { Page } from '@playwright/test';
import { expect, test } from '@playwright/test';
import { demoPiece, goTo, keysKept, newPiece, saved } from './hands';

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
  await machines.getByText('Its shape in figures').click();
  for (const [label, mm] of [
    ['The bar opens by', '20'],
    ['Bar, from the sheet up to the beam', '90'],
  ] as const) {
    await machines.getByLabel(label).fill(mm);
    await machines.getByLabel(label).press('Enter');
  }
  await test.step('a figure is changed by drawing at its ring, and typed back', async () => {
    const height = machines.getByLabel('Bar, from the sheet up to the beam');
    const ring = (await machines
      .getByLabel('Bench folder in section')
      .locator('circle')
      .nth(1)
      .boundingBox())!;
    const [x, y] = [ring.x + ring.width / 2, ring.y + ring.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x, y + 40, { steps: 6 });
    await page.mouse.up();
    await expect(async () => expect(Number(await height.inputValue())).toBeLessThan(85)).toPass();
    await height.fill('90');
    await height.press('Enter');
    await expect(height).toHaveValue('90.0');
  });
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
  await page.waitForURL(/blank$/);

  await test.step('no order on that machine, and why; what frees it', async () => {
    await page.getByRole('button', { name: 'Machine' }).click();
    await page.getByRole('combobox', { name: 'Folded on' }).click();
    await page.getByRole('option', { name: 'Bench folder' }).click();
    await expect(page.getByText(/In no order can this machine make them all/)).toBeVisible();
    await expect(page.getByRole('list', { name: 'What frees it' })).toContainText(
      'over a bar by hand',
    );
    await page.getByLabel(/An order of your own/).fill('1 1');
    await page.getByRole('button', { name: 'Check' }).click();
    await expect(page.getByText(/Name each fold once, by its number, as 1 2/)).toBeVisible();
    await page.getByLabel(/An order of your own/).fill('2 1');
    await page.getByRole('button', { name: 'Check' }).click();
    await expect(page.getByText(/In this order fold 1 cannot be made, as number 2/)).toBeVisible();
    await expect(page.getByLabel('Hits here').first()).toBeVisible();
    await page.getByLabel(/An order of your own/).fill('');
    await page.getByRole('button', { name: 'Check' }).click();
    await expect(page.getByText(/In no order can this machine make them all/)).toBeVisible();
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
    await pickFold(page, 1);
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
    await expect(
      tries.getByText(/comes back by something between nothing and a third/),
    ).toBeVisible();
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
    await page.waitForURL(/blank$/);
    await pickFold(page, 2);
    const advice = page.getByRole('region', { name: 'What to fold 2 to' });
    await expect(advice).toContainText('From 3 bends measured in this shop');
    await expect(advice).toContainText('Such a fold usually took 3 tries');
  });
});

/** Picks a fold on the blank: a touch on the page before goes for nothing. */
async function pickFold(page: Page, number: number): Promise<void> {
  await expect(async () => {
    await page
      .getByRole('button', { name: new RegExp(`^Fold ${number},`) })
      .focus({ timeout: 1000 });
    await page.keyboard.press('Enter');
    await expect(page.getByRole('region', { name: `What to fold ${number} to` })).toBeVisible({
      timeout: 1500,
    });
  }).toPass();
}

/** The piece at hand is made of the figures of a tray. */
async function trayOf(
  page: Page,
  name: string,
  figures: readonly (readonly [string, string])[],
): Promise<void> {
  await newPiece(page, name);
  await page.getByRole('button', { name: 'Figures', exact: true }).click();
  await page.getByRole('combobox', { name: 'What is made' }).click();
  await page.getByRole('option', { name: 'Tray', exact: true }).click();
  for (const [label, value] of figures) {
    await page.getByLabel(label, { exact: true }).fill(value);
    await page.getByLabel(label, { exact: true }).press('Enter');
  }
  await page.getByRole('button', { name: 'Make the card' }).click();
  await saved(page);
  await page.getByRole('link', { name: /^Blank/ }).click();
  await page.waitForURL(/blank$/);
}

test('a tray that goes in no order as it is: why is read, what frees it is taken, it is folded to its end, and water runs off it', async ({
  page,
}) => {
  await trayOf(page, 'Deep tray', []);
  const steps = page.getByRole('list', { name: 'Steps' });
  const now = page.getByRole('status', { name: 'Now' });

  await test.step('no order: the reason, and the remedy taken', async () => {
    await page.getByRole('button', { name: 'Machine' }).click();
    await page.getByRole('combobox', { name: 'Folded on' }).click();
    await page.getByRole('option', { name: 'Folder with one bar' }).click();
    await expect(page.getByText(/In no order can this machine make them all/)).toBeVisible();
    const frees = page.getByRole('list', { name: 'What frees it' });
    await frees
      .getByRole('button', { name: /^Do so with/ })
      .first()
      .click();
    await expect(page.getByRole('list', { name: 'Settled' })).toBeVisible();
    await expect(steps.getByRole('listitem').last()).toContainText('by hand');
  });

  await test.step('folded step by step; what is done is in the record and not in this browser', async () => {
    await expect(now).toContainText('1 of');
    await page.getByRole('button', { name: 'Done, next' }).click();
    await expect(now).toContainText('2 of');
    // Looked at, another step is not done.
    await steps.getByRole('button').first().click();
    await expect(now).toContainText('1 of');
    await page.getByRole('button', { name: 'To what is next' }).click();
    await expect
      .poll(async () => (await keysKept(page)).filter((key) => key.includes('folding')))
      .toEqual([]);
    await page.reload();
    await page.getByRole('button', { name: 'Machine' }).click();
    await expect(now).toContainText('2 of');
    const card = await page.request.get(`${page.url().replace('/blank', '')}/bench-card.pdf`);
    expect(card.status()).toBe(200);
    expect((await card.body()).subarray(0, 5).toString()).toBe('%PDF-');
    await page.getByRole('button', { name: 'In space' }).click();
    await expect(page.getByRole('img', { name: /in the machine, in space/ })).toBeVisible();
  });

  await test.step('how it lies: water stands, and what is offered makes it fall', async () => {
    await page.getByRole('button', { name: 'Folded', exact: true }).click();
    await page.getByText('Where the water goes').click();
    const water = page.getByRole('region', { name: 'Water' });
    const read = async (label: string, value: string) => {
      await water.getByLabel(label).fill(value);
      await water.getByLabel(label).press('Enter');
    };
    await read('Rises to the right', '3');
    await read('Rises to the top', '1');
    await expect(water.getByRole('list', { name: 'Where it runs' })).toContainText(
      'the drain belongs there',
    );
    await water.getByRole('button', { name: 'Drawn side down' }).click();
    await expect(water.getByRole('status').first()).toContainText(
      'Everything falls, and nothing stands.',
    );
    await read('Rises to the right', '0.5');
    await expect(water).toContainText('less than 2°');
    await water.getByRole('button', { name: /^Lay it at/ }).click();
    await expect(water.getByRole('status').first()).toContainText(
      'Everything falls, and nothing stands.',
    );
    await read('Rises to the right', '80');
    await read('Rises to the top', '40');
    await expect(
      water.getByText(/A face cannot rise by 80° one way and 40° square to it/),
    ).toBeVisible();
  });

  await test.step('the radius it got is read: this piece is out by the difference, the next is cut for it', async () => {
    await page.getByRole('button', { name: 'Flat', exact: true }).click();
    await pickFold(page, 1);
    await page.getByText('Inside radius that fold 1 got').click();
    const radius = page.getByRole('region', { name: 'Radius of fold 1' });
    await radius.getByLabel('Inside radius').fill('2');
    await radius.getByLabel('Inside radius').press('Enter');
    await expect(radius).toContainText(/both legs together come out 0\.\d+ mm longer/);
    await radius.getByRole('button', { name: 'Keep this radius' }).click();
    await expect(page.getByText('Inside radius that fold 1 got: 2.00 mm')).toBeVisible();
    // This piece stays as it was cut; another of the same sheet is reckoned with what came out.
    const takes = page.getByRole('button', { name: /^Fold 1 takes/ });
    const before = await takes.textContent();
    await trayOf(page, 'Next tray', []);
    await expect(takes).not.toHaveText(before!);
    // Left out, it counts for nobody: the other journeys of this shop among them.
    await page.goto('/shop/learnt');
    const reading = page.getByRole('listitem').filter({ hasText: '2.00 mm came out' });
    await expect(async () => {
      await reading.getByRole('button', { name: 'Leave out' }).click();
      await expect(reading.getByLabel('Why it does not count')).toBeVisible({ timeout: 1000 });
    }).toPass();
    await expect(reading.getByRole('list', { name: 'Pieces that change' })).toContainText(
      'Next tray',
    );
    await reading.getByLabel('Why it does not count').fill('Read on the outside');
    await reading.getByRole('button', { name: 'Leave it out' }).click();
    await expect(reading.getByText('Left out: Read on the outside')).toBeVisible();
  });
});

test('an edge is turned over before the folds or after them, and the order at the bench is the same', async ({
  page,
}) => {
  await demoPiece(page, 'Battery shelf', 'Blank');
  await page.getByRole('button', { name: 'Machine' }).click();
  const settled = page.getByRole('list', { name: 'Settled' });
  await expect(settled).toContainText('Edge J is turned over before the folds.');

  const isTurnedFirst = async () => {
    await goTo(page, 'Shape');
    const steps = page.getByRole('list', { name: 'Steps' }).getByRole('listitem');
    await expect(steps.filter({ hasText: /Make fold 1/ })).toHaveCount(1);
    const said = await steps.allTextContents();
    const at = (what: RegExp) => said.findIndex((text) => what.test(text));
    expect(at(/edge J/)).toBeGreaterThanOrEqual(0);
    return at(/edge J/) < at(/Make fold/);
  };
  expect(await isTurnedFirst()).toBe(true);
  const turn = async (when: string) => {
    await goTo(page, 'Blank');
    await page.getByRole('button', { name: 'Machine' }).click();
    const kept = page.waitForResponse(/folding$/);
    await settled.getByRole('button', { name: `Edge J: ${when}` }).click();
    expect((await kept).ok()).toBe(true);
  };
  await turn('after them');
  await expect(settled).toContainText('Edge J is turned over after the folds.');
  expect(await isTurnedFirst()).toBe(false);
  await turn('before them');
});

test('a channel too deep for its machine is parted at a fold: both parts are pieces that meet, and this one folds', async ({
  page,
}) => {
  await newPiece(page, 'Deep channel');
  await page.getByRole('button', { name: 'Figures', exact: true }).click();
  await page.getByRole('combobox', { name: 'What is made' }).click();
  await page.getByRole('option', { name: 'Channel' }).click();
  await page.getByLabel('Each flange').fill('80');
  await page.getByLabel('Each flange').press('Enter');
  await page.getByRole('button', { name: 'Make the card' }).click();
  await saved(page);
  await page.getByRole('link', { name: /^Blank/ }).click();
  await page.waitForURL(/blank$/);
  await page.getByRole('button', { name: 'Machine' }).click();
  await page.getByRole('combobox', { name: 'Folded on' }).click();
  await page.getByRole('option', { name: 'Folder with one bar' }).click();
  await page.getByRole('button', { name: /^Part it at fold 1/ }).click();
  await expect(page.getByRole('list', { name: 'Steps' }).getByRole('listitem')).toHaveCount(1);
  await saved(page);
  await expect(page.getByRole('link', { name: /^Card: done, 1 fold/ })).toBeVisible();
  await page.getByRole('link', { name: /^Back to/ }).click();
  const other = page.getByRole('link', { name: /Deep channel, other part/ }).first();
  await page.goto((await other.getAttribute('href'))!.replace(/[a-z]+$/, 'card'));
  // Its flange of 80 was measured outside; inner corners touch, so the thickness is less.
  await expect(page.getByRole('button', { name: /^Card 300\.0 mm × 79\.0 mm/ })).toBeVisible();
  await page.getByRole('table', { name: 'Edges' }).getByRole('row', { name: /Butt/ }).click();
  await expect(page.getByLabel('Meets')).toHaveValue(/^Deep channel, /);
});
