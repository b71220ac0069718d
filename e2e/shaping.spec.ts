import type { Page } from '@playwright/test';
import { expect, test } from '@playwright/test';
import { demoPiece, goTo, newPiece, pickEdge, saved } from './hands';

const choose = async (page: Page, label: string | RegExp, option: string | RegExp) => {
  await page.getByRole('combobox', { name: label }).click();
  await page.getByRole('option', { name: option }).click();
};
const type = async (page: Page, label: string | RegExp, text: string) => {
  const field = page.getByLabel(label).first();
  await field.fill(text);
  await field.press('Enter');
};
const stepsOf = (page: Page) => page.getByRole('list', { name: 'Steps' }).getByRole('listitem');

test('an arch lip from a typed arc: what its rim must stretch, a test strip that changes the plan, and what is too much', async ({
  page,
}) => {
  await newPiece(page, 'Arch lip', '400 left 90, 160 left 90, 400 left 90, 160');
  await pickEdge(page, 'D');
  await page.getByRole('button', { name: 'Arc', exact: true }).click();
  await type(page, 'Rise (− is hollow)', '-100');
  await page.getByRole('button', { name: 'A flange along it' }).click();
  await type(page, 'Finished width', '20');
  await saved(page);

  await test.step('the blank says how much, and that bites are not known', async () => {
    await goTo(page, 'Blank');
    await pickEdge(page, 'D');
    const flange = page.getByRole('region', { name: 'The flange of edge D' });
    // Chord 400 and rise 100: radius 250; the flat flange is 18.1 wide: 18.1/(250 − 18.1).
    await expect(flange).toContainText('The rim must stretch by 7.8 %');
    await expect(flange.getByRole('row').nth(1)).toContainText('?');
  });

  await test.step('the strip is tried first; its reading counts the bites', async () => {
    await goTo(page, 'Shape');
    const now = page.getByRole('status', { name: 'Now' });
    await expect(now).toContainText('Test strip: stretch it');
    await type(page, 'Edge after', '147');
    await expect(page.getByText(/It got shorter/)).toBeVisible();
    await type(page, 'Edge after', '153');
    await page.getByRole('button', { name: 'Keep the reading' }).click();
    // One reading has no spread: it counts, and a second one is asked for.
    await expect(stepsOf(page).filter({ hasText: 'Stretch edge D' })).toContainText(/\d+ bites/);
    await stepsOf(page).filter({ hasText: 'Test strip' }).getByRole('button').first().click();
    await type(page, 'Edge after', '153.2');
    await page.getByRole('button', { name: 'Keep the reading' }).click();
    await expect(stepsOf(page).filter({ hasText: 'Test strip' })).toHaveCount(0);
    await expect(stepsOf(page).filter({ hasText: 'Stretch edge D' })).toContainText(/\d+ bites/);
    await goTo(page, 'Blank');
    await pickEdge(page, 'D');
    await expect(page.getByRole('region', { name: 'The flange of edge D' })).toContainText(
      'By 2 strips bitten in this shop',
    );
  });

  await test.step('wider, it is too much in one piece: ways out, each within', async () => {
    await goTo(page, 'Card');
    await pickEdge(page, 'D');
    await type(page, 'Finished width', '70');
    await saved(page);
    await goTo(page, 'Blank');
    await pickEdge(page, 'D');
    const flange = page.getByRole('region', { name: 'The flange of edge D' });
    await expect(flange).toContainText('Beyond that in one piece');
    await expect(flange).toContainText(/turned no farther than \d+°/);
    await expect(flange).toContainText(/cuts .* deep/);
    await flange.getByRole('button', { name: /^Make it [\d.]+ mm wide$/ }).click();
    await expect(flange).not.toContainText('Beyond that in one piece');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(flange).toContainText('Beyond that in one piece');
    await flange.getByRole('button', { name: 'A lip of its own, welded on' }).click();
    await saved(page);
    await expect(flange).toContainText('Roll it to the curve');
  });

  await test.step('cut apart it is a piece of its own, its long side the weld', async () => {
    const flange = page.getByRole('region', { name: 'The flange of edge D' });
    await flange.getByRole('button', { name: 'Make it a piece of its own' }).click();
    await flange.getByRole('link', { name: 'Arch lip, strip for D' }).click();
    await expect(page.getByRole('heading', { name: 'Arch lip, strip for D' })).toBeVisible();
    // Chord 400 and rise 100: an arc of 463.6 mm.
    await expect(page.getByRole('region', { name: 'Tally' })).toContainText(
      /463\.\d mm × 7\d\.\d mm/,
    );
  });

  await test.step('what the shop learnt stands on its page, and can be left out', async () => {
    await page.goto('/shop/learnt');
    const learnt = page.getByRole('region', { name: 'Flanges and beads' });
    await expect(learnt).toContainText('A bite stretches');
    await expect(async () => {
      await learnt.getByRole('button', { name: 'Leave out' }).first().click();
      await expect(learnt.getByLabel('Why it does not count')).toBeVisible({ timeout: 1000 });
    }).toPass();
    await learnt.getByLabel('Why it does not count').fill('A journey');
    await learnt.getByLabel('Why it does not count').press('Enter');
    await expect(learnt).toContainText('Left out: A journey');
  });
});

test('a waist bead that crosses a fold is warned of, packed and planned; a step that is moved breaks a rule and says so', async ({
  page,
}) => {
  await demoPiece(page, 'Waist-bead closing strip', 'Card');
  await page.keyboard.press('b');
  await choose(page, 'Where a fold crosses it', 'Not said yet');
  await saved(page);
  await goTo(page, 'Blank');
  await expect(page.getByText(/Bead 1 runs over fold 1 and is crushed there/)).toBeVisible();
  await page.keyboard.press('b');
  const working = page.getByRole('region', { name: 'Working of bead 1' });
  await expect(working).toContainText('13.91 mm');
  await expect(working).toContainText('3 passes');
  await expect(working).toContainText(/A strip .* fills it/);
  await goTo(page, 'Card');
  await page.keyboard.press('b');
  await choose(page, 'Where a fold crosses it', /packed with strip/);
  await saved(page);

  await goTo(page, 'Shape');
  const titles = async () =>
    (await stepsOf(page).allInnerTexts()).map((text) => text.replace(/\s+/g, ' '));
  const placeOf = async (title: string) =>
    (await titles()).findIndex((text) => text.includes(title));
  expect(await placeOf('Roll bead 1')).toBeLessThan(await placeOf('Pack bead 1'));
  expect(await placeOf('Pack bead 1')).toBeLessThan(await placeOf('Make fold 1'));

  await test.step('by the keyboard the fold goes before the bead', async () => {
    const grip = page.getByRole('button', { name: /^Move step \d+, Make fold 1/ });
    await expect(async () => {
      await grip.focus();
      await page.keyboard.press('Space');
      for (let i = 0; i < 3; i++) {
        await page.waitForTimeout(250);
        await page.keyboard.press('ArrowUp');
      }
      await page.waitForTimeout(250);
      await page.keyboard.press('Space');
      await expect(
        page.getByText(/should come before it: what stands up keeps the sheet out of the roller/),
      ).toBeVisible({ timeout: 2000 });
    }).toPass();
    await expect(page.getByRole('link', { name: /Shape.*Order to look at/ })).toBeVisible();
    await page.getByRole('button', { name: 'Back to the order that was reckoned' }).click();
    await expect(page.getByText(/should come before it/)).toHaveCount(0);
  });
});

test('shaped on a phone: counted in gloves, timed, kept without the server; the other side knows what the first took', async ({
  page,
  context,
}) => {
  await demoPiece(page, 'Waist-bead closing strip', 'Shape');
  const first = page.url().split('/').at(-2)!;
  await page.setViewportSize({ width: 390, height: 844 });
  await stepsOf(page).filter({ hasText: 'Roll bead 1' }).getByRole('button').first().click();
  const now = page.getByRole('status', { name: 'Now' });
  await expect(now).toContainText('Roll bead 1');
  // The demo's has been rolled once: this is another try.
  await now.getByRole('button', { name: 'Made again: start the count anew' }).click();
  await now.getByRole('button', { name: 'Start the watch' }).click();
  const pass = now.getByRole('button', { name: '+1 pass' });
  expect((await pass.boundingBox())!.height).toBeGreaterThanOrEqual(60);
  await pass.click();
  await pass.click();

  await test.step('the server is away: nothing is lost', async () => {
    await context.setOffline(true);
    await pass.click();
    await pass.click();
    await expect(now.getByLabel('4 passes made')).toBeVisible();
    await expect(page.getByText(/kept in this browser/)).toBeVisible();
    await context.setOffline(false);
    await expect(page.getByText(/kept in this browser/)).toHaveCount(0, { timeout: 30_000 });
  });
  await now.getByRole('button', { name: 'Stop the watch' }).click();
  await now.getByRole('button', { name: 'Made again: start the count anew' }).click();
  await expect(now).toContainText('Try 3: 4 passes');
  await pass.click();
  await pass.click();
  await pass.click();
  await now.getByLabel('Note').fill('Second try true');
  await page.getByRole('button', { name: /^(This one is done|Done, next)$/ }).click();
  await expect(stepsOf(page).filter({ hasText: 'Roll bead 1' })).toContainText('done');
  await page.reload();
  await expect(stepsOf(page).filter({ hasText: 'Roll bead 1' })).toContainText(
    '3 of 3 passes · done',
  );

  await test.step('a step of one’s own', async () => {
    await page.getByLabel('A step of your own').fill('Planish the ends');
    await page.getByLabel('A step of your own').press('Enter');
    await expect(stepsOf(page).last()).toContainText('Planish the ends');
  });

  await test.step('the other side', async () => {
    await page.setViewportSize({ width: 1280, height: 800 });
    await page.goto(`/pieces/${first}/card/another`);
    await page.getByRole('button', { name: /^Make it/ }).click();
    await page.waitForURL((url) => !url.pathname.includes(first));
    await goTo(page, 'Shape');
    await stepsOf(page).filter({ hasText: 'Roll bead 1' }).getByRole('button').first().click();
    await expect(page.getByRole('status', { name: 'Now' })).toContainText(
      'The first side took 3 passes',
    );
  });
});

test('a fold that runs in an arc: what lies beyond is its flange, as wide as the card was; what would be lost is told first', async ({
  page,
}) => {
  await newPiece(page, 'Rim over an arc', '300 left 90, 130 left 90, 300 left 90, 130');
  await pickEdge(page, 'A');
  await type(page, 'A fold along it, in by', '40');
  await page.getByRole('button', { name: 'Lay the fold' }).click();
  await expect(page.getByRole('heading', { name: 'Fold 1' })).toBeVisible();
  await saved(page);
  await page.getByRole('button', { name: 'It runs in an arc' }).click();
  const arc = page.getByRole('region', { name: 'The fold runs in an arc' });
  await type(page, 'Rise in its middle', '45');
  await expect(arc.getByRole('alert')).toContainText('would leave the card on the way');
  await type(page, 'Rise in its middle', '10');
  // Over 130 an arc that rises 10 has a radius of 216.25; the last ray on the rim goes 246.25/cos
  // 14.8° − 216.25 = 38.4 far.
  await expect(arc).toContainText(/between 30\.0 mm and 38\.\d mm wide/);
  await page.getByRole('button', { name: 'Make it a flange along the arc' }).click();
  await expect(page.getByRole('heading', { name: /Edge A/ })).toBeVisible();
  await expect(page.getByText(/kept at \d+ places/)).toBeVisible();
  await saved(page);
  await goTo(page, 'Blank');
  await pickEdge(page, 'A');
  await expect(page.getByRole('region', { name: 'The flange of edge A' })).toContainText(
    'The rim must shrink',
  );
  await goTo(page, 'Card');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: /^Fold 1, 90°/ })).toBeVisible();
});
