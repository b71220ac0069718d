import { expect, test } from '@playwright/test';
import { demoPiece, goTo, pickEdge } from './hands';

test('a bought panel goes from the parcel to its first weld without any card', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'New job' }).click();
  await page.getByLabel('Name of the job').fill('Bought panel');
  await page.getByRole('button', { name: 'Begin the job' }).click();
  await page.getByRole('link', { name: 'New piece' }).click();
  await page.getByLabel('Name of the piece').fill('Front corner');
  await page.getByLabel('Where it comes from').click();
  await page.getByRole('option', { name: 'Bought' }).click();
  await page.getByRole('button', { name: 'On to its edges' }).click();
  await expect(page.getByRole('heading', { name: 'Name its edges' })).toBeVisible();
  // Its road has no card, blank, sheet or shape.
  const road = page.getByRole('navigation', { name: 'The road of the piece' });
  await expect(road.getByRole('link')).toHaveCount(4);

  // Fit and Weld say what comes first.
  await goTo(page, 'fit');
  await expect(page.getByRole('heading', { name: 'First name its edges' })).toBeVisible();
  await page.getByRole('link', { name: 'Name the edges' }).click();

  const drawer = page.getByRole('complementary', { name: 'Drawer' });
  const edge = (letter: string) => drawer.getByRole('group', { name: `Edge ${letter}` });
  for (const [letter, length, meets] of [
    ['A', '520', 'Door pillar'],
    ['B', '340', 'Scuttle side'],
    ['C', '515', ''],
    ['D', '1400', ''],
  ] as const) {
    await edge(letter).getByLabel('Length').fill(length);
    await edge(letter).getByLabel('Meets').fill(meets);
  }
  await drawer.getByRole('heading').click();
  await expect(drawer.getByRole('alert')).toContainText('These edges cannot go round: D is 1400');
  await edge('D').getByLabel('Length').fill('356');
  await drawer.getByRole('button', { name: 'These are its edges' }).click();
  await expect(drawer.getByRole('heading', { name: 'Before it is tried' })).toBeVisible();

  // Received, laid on the old panel; nothing says it is kept before somebody does.
  await drawer.getByRole('button', { name: 'On the old panel' }).click();
  await drawer.getByRole('button', { name: 'Kept' }).click();
  await drawer.getByLabel('Micrometer reading').fill('0.9');
  await page.keyboard.press('Enter');
  await drawer.getByRole('button', { name: 'Reckon with 0.90 mm' }).click();
  await expect(drawer.getByRole('button', { name: /^Reckon with/ })).toHaveCount(0);

  // Too wide: a band is taken out of it.
  await drawer.getByLabel('Something is wrong with it').click();
  await page.getByRole('option', { name: 'Too long' }).click();
  await drawer.getByLabel('By', { exact: true }).fill('8');
  await drawer.getByLabel('How it is put right').fill('A band of 8 taken out beside the crease');
  await expect(road.getByRole('link', { name: /Cut down/ })).toHaveAccessibleName(/1 fault/);
  await drawer.getByLabel('Hours it took').fill('3.5');
  await drawer.getByRole('button', { name: 'It is put right' }).click();
  await drawer.getByLabel('Something is cut, drilled or stopped').click();
  await page.getByRole('option', { name: 'Flange trimmed' }).click();
  await drawer.getByLabel('Trimmed by').fill('4');
  await drawer.getByRole('button', { name: 'Done', exact: true }).click();
  await expect(road.getByRole('link', { name: /Cut down/ })).toHaveAccessibleName(/done, To size/);

  await pickEdge(page, 'A');
  await drawer.getByLabel('Joined by').click();
  await page.getByRole('option', { name: 'Butt', exact: true }).click();
  await page.reload();
  await expect(road.getByRole('link', { name: /Cut down/ })).toHaveAccessibleName(/done, To size/);

  // Tried and welded, edge by edge.
  await road.getByRole('link', { name: /^Fit/ }).click();
  await drawer.getByRole('button', { name: 'Begin the first trial fit' }).click();
  await pickEdge(page, 'A');
  await expect(drawer.getByRole('heading', { name: /Edge A/ })).toBeVisible();
  await road.getByRole('link', { name: /^Weld/ }).click();
  await pickEdge(page, 'A');
  await drawer.getByRole('button', { name: 'Write down a weld' }).click();
  await page.getByRole('button', { name: 'Put in the record' }).click();
  await expect(road.getByRole('link', { name: /^Weld/ })).toHaveAccessibleName(/tacks|Tacked/);
  await goTo(page, 'record');
  await expect(page.getByText(/^Put right: Too long by 8\.0 mm/)).toBeVisible();
});

test('a card drawn later has the edges that were named, and what was read on them', async ({
  page,
}) => {
  await demoPiece(page, 'Front corner panel', 'card');
  const drawer = page.getByRole('complementary');
  await page.getByLabel(/^Legs: a length/).fill('340 left 89.1\n520 left 91.7\n356 left 90.1\n515');
  await page.getByRole('button', { name: 'Make the card' }).click();
  await expect(page.getByRole('heading', { name: 'Which edge is which?' })).toBeVisible();
  await expect(drawer.getByLabel(/^Edge B, 340/)).toHaveText(/B on the drawing/);
  await page.getByRole('button', { name: 'Make the card' }).click();
  await expect(page.getByRole('button', { name: /^Edge B/ })).toBeVisible();
  await goTo(page, 'fit');
  await expect(page.getByText(/Edge C|C/).first()).toBeVisible();
  await expect(page.getByText('2 of 4')).toBeVisible();
});
