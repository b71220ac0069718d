import { expect, test } from '@playwright/test';
import { cornerAt, newPiece, saved } from './hands';

test('a rough card is ruled, its taper left, and the rules hold when a corner is dragged', async ({
  page,
}) => {
  await newPiece(page, 'Rough patch');
  await page.getByRole('button', { name: 'Points' }).click();
  await page.getByLabel(/^Points:/).fill('0 0\n400 3\n398 251\n1 244');
  await page.getByRole('button', { name: 'Make the card' }).click();
  await saved(page);
  const offers = page.getByRole('list', { name: 'Probably meant' });
  const rules = page.getByRole('list', { name: 'Rules', exact: true });

  await test.step('the measured truth stands before anything is tidied', async () => {
    const taper = offers.getByRole('listitem', { name: 'B and D parallel?' });
    await expect(taper).toContainText(/out of parallel by 4\.0 mm over 397\.1 mm/);
    await expect(taper).toContainText(/nothing moves by more than/);
    await taper.getByRole('button', { name: 'Leave it: it tapers' }).click();
    await expect(rules.getByRole('listitem', { name: 'B and D taper' })).toContainText(
      '4.0 mm over 397.1 mm',
    );
    await expect(taper).toHaveCount(0);
  });

  await test.step('ruled square, with the least movement', async () => {
    await offers
      .getByRole('listitem', { name: 'A square to B?' })
      .getByRole('button', { name: 'Rule it' })
      .click();
    await expect(rules.getByRole('listitem', { name: 'A square to B' })).toContainText(
      'Kept so, whatever is moved.',
    );
    await saved(page);
  });

  await test.step('parts gathered by touch: a length, and what goes against it is named', async () => {
    await page.getByRole('button', { name: 'Rule parts…' }).click();
    await page.getByRole('button', { name: 'Edge A', exact: false }).first().focus();
    await page.keyboard.press('Enter');
    await expect(page.getByText('side A', { exact: true })).toBeVisible();
    const length = page.getByLabel('Length');
    await length.fill('250');
    await length.press('Enter');
    await expect(page.getByText(/As measured out by/)).toBeVisible();
    await page.getByRole('button', { name: 'Rule it' }).click();
    await expect(rules.getByRole('listitem', { name: 'A 250.0 mm long' })).toContainText('Kept so');
    await page.getByRole('button', { name: 'Rule parts…' }).click();
    await page.getByRole('button', { name: 'Edge A', exact: false }).first().focus();
    await page.keyboard.press('Enter');
    await length.fill('200');
    await length.press('Enter');
    await expect(
      page.getByText(/That goes against: A 250\.0 mm long\. Take one of them off first\./),
    ).toBeVisible();
    await page.getByRole('button', { name: 'Put them down' }).click();
  });

  await test.step('a dragged corner: the rules hold', async () => {
    const from = await cornerAt(page, 3);
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move(from.x + 40, from.y - 30, { steps: 6 });
    await page.mouse.up();
    await saved(page);
    for (const name of ['A square to B', 'A 250.0 mm long'])
      await expect(rules.getByRole('listitem', { name })).toContainText(
        'Kept so, whatever is moved.',
      );
    await page.reload();
    await expect(rules.getByRole('listitem', { name: 'A 250.0 mm long' })).toContainText('Kept so');
    await rules
      .getByRole('listitem', { name: 'A 250.0 mm long' })
      .getByRole('button', { name: 'Take the rule off' })
      .click();
    await expect(rules.getByRole('listitem', { name: 'A 250.0 mm long' })).toHaveCount(0);
  });
});

test('a tucked paper gives its crown, and a slit takes from it', async ({ page }) => {
  await newPiece(page, 'Crowned patch', '400\n300\n400\n300');
  await page.getByRole('button', { name: 'Edge A', exact: false }).first().focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('t');
  const tuck = page.getByRole('listitem', { name: 'tuck 1' });
  for (const [label, mm] of [
    ['Laps at the edge by', '12'],
    ['Runs in by', '80'],
  ] as const) {
    await tuck.getByLabel(label).fill(mm);
    await tuck.getByLabel(label).press('Enter');
  }
  // 2·atan(6/80) = 8.578°, in radians 0.14972; √(120 000 / that) = 895.3.
  await expect(
    page.getByText(/The surface is a bowl: 8\.6° in all, as on a mean crown radius of 895\.3 mm/),
  ).toBeVisible();
  await page.getByRole('combobox', { name: /^1 · 8\.6°/ }).click();
  await page.getByRole('option', { name: 'Slit: stands open' }).click();
  await expect(page.getByText(/The surface is a saddle: 8\.6° in all/)).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(page.getByText(/The surface is a saddle/)).toBeVisible();
  await page.getByRole('combobox', { name: /^1 · 8\.6°/ }).click();
  await page.getByRole('option', { name: 'Tuck: lapped over itself' }).click();

  await test.step('taped shut it is a panel, which gathered again is the paper; a line of it is kept straight', async () => {
    await page.getByRole('link', { name: 'Its surface, and the blank for it' }).click();
    await expect(page.getByText(/taped shut, bowed toward you/)).toBeVisible();
    await expect(page.getByText(/^Right to about ±/)).toBeVisible();
    await page.getByLabel('From raising to gathering').focus();
    await page.keyboard.press('End');
    await expect(page.getByText(/Laying it flat|Getting finer/)).toHaveCount(0);
    const size = async () =>
      (await page.getByText('Blank', { exact: true }).last().locator('xpath=..').innerText())
        .match(/\d+\.\d/g)!
        .map(Number);
    const [wide, high] = await size();
    expect(Math.abs(wide! - 400)).toBeLessThan(4);
    expect(Math.abs(high! - 300)).toBeLessThan(4);
    await page.getByRole('button', { name: 'Along', exact: true }).click();
    await page.getByRole('button', { name: 'Keep this line straight on the blank' }).click();
    await expect(
      page.getByText(/A line along at 50 % stays straight, within 0\.0\d mm/),
    ).toBeVisible();
    await page.getByRole('button', { name: /^Let go/ }).click();
    await expect(page.getByText(/stays straight, within/)).toHaveCount(0);
  });

  await page.getByRole('link', { name: 'Back to the card' }).click();
  await page.getByRole('button', { name: 'Take tuck 1 off' }).click();
  await expect(page.getByText('Tucks and slits')).toHaveCount(0);
});

test('a fold is ruled square to the side it ends on; scribed instead of folded, its line stands on the blank and is folded again', async ({
  page,
}) => {
  await newPiece(page, 'Leaning fold', '400\n300\n400\n300');
  const edge = (letter: string) =>
    page.getByRole('button', { name: `Edge ${letter}`, exact: false }).first();
  await edge('A').focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('l');
  // To the middle of A itself, of B, of C.
  for (const key of ['e', 'e', 'e', 'Enter']) await page.keyboard.press(key);
  await expect(page.getByRole('heading', { name: 'Fold 1' })).toBeVisible();
  await page.keyboard.press('Escape');
  const rules = page.getByRole('list', { name: 'Rules', exact: true });
  await page.getByRole('button', { name: 'Rule parts…' }).click();
  for (const part of [page.getByRole('button', { name: /^Fold 1,/ }), edge('B')]) {
    await part.focus();
    await page.keyboard.press('Enter');
  }
  await expect(page.getByText('fold 1, side B')).toBeVisible();
  await page
    .getByText('B and fold 1 parallel', { exact: true })
    .locator('..')
    .getByRole('button', { name: 'Rule it' })
    .click();
  await expect(rules.getByRole('listitem', { name: 'B and fold 1 parallel' })).toContainText(
    'Kept so',
  );
  await page.getByRole('button', { name: /^Fold 1,/ }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Only scribe it, do not fold' }).click();
  await expect(rules.getByRole('listitem')).toHaveCount(0);
  const lines = page.getByRole('region', { name: 'Lines to scribe' });
  await lines.getByLabel(/, for$/).fill('waist bead');
  await saved(page);
  await page.getByRole('link', { name: /^Blank/ }).click();
  await expect(page.getByRole('row', { name: /waist bead/ })).toContainText(/\d \/ [\d.]+; /);
  await page.getByRole('link', { name: /^Card/ }).click();
  await lines.getByRole('button', { name: 'Fold along it' }).click();
  await expect(page.getByRole('heading', { name: 'Fold 1' })).toBeVisible();
  await saved(page);
});
