import { expect, test } from '@playwright/test';
import { cornerAt, goTo, newPiece, pickEdge, saved } from './hands';

const tally = (text: string) => new RegExp(text);

test('upturned edges on two neighbouring sides: the corner is notched in one touch, its walls meet as one says', async ({
  page,
}) => {
  await newPiece(page, 'Two edges', '300, 200, 300, 200');
  for (const letter of ['A', 'B']) {
    await pickEdge(page, letter);
    await page.getByLabel('A fold along it, in by').fill('25');
    await page.getByRole('button', { name: 'Lay the fold' }).click();
    await expect(page.getByRole('heading', { name: /^Fold [12]$/ })).toBeVisible();
  }
  await expect(page.getByText(/cross: a fold may meet another/)).toBeInViewport();
  await page.getByRole('button', { name: 'Notch the corner' }).click();
  await expect(page.getByRole('link', { name: /^Card: done, 2 folds/ })).toBeVisible();
  await page.getByText('Corner with fold 1: inner corners touch').click();
  await expect(
    page.getByText(/This wall is cut back 1\.00 mm there, that of fold 1 1\.00 mm/),
  ).toBeVisible();
  await page.getByRole('combobox', { name: 'The two walls' }).click();
  await page.getByRole('option', { name: 'This one over the other' }).click();
  await expect(
    page.getByText(/This wall is cut back 0\.00 mm there, that of fold 1 1\.00 mm/),
  ).toBeVisible();
  await page.getByRole('button', { name: /^A tab behind it, 15\.0 mm wide/ }).click();
  await saved(page);
  await goTo(page, 'Blank');
  await expect(page.getByRole('link', { name: /^Blank: (done|needs attention)/ })).toBeVisible();
});

test('folds are put where one means them: typed from an edge, along the edges, or laid square by hand', async ({
  page,
}) => {
  await newPiece(page, 'Folded strip', '200, 80, 200, 80');

  await test.step('twenty in along an edge', async () => {
    await pickEdge(page, 'C');
    await page.getByLabel('A fold along it, in by').fill('20');
    await page.getByRole('button', { name: 'Lay the fold' }).click();
    await expect(page.getByRole('heading', { name: 'Fold 1' })).toBeVisible();
    await expect(page.getByLabel('In from edge C')).toHaveValue('20.00');
    await page.getByLabel('In from edge C').fill('+5');
    await page.getByLabel('In from edge C').press('Enter');
    await expect(page.getByLabel('In from edge C')).toHaveValue('25.00');
    await page.getByLabel('In from edge C').fill('500');
    await page.getByLabel('In from edge C').press('Enter');
    await expect(page.getByText(/misses the card/)).toBeVisible();
    await expect(page.getByText('80.0 mm long')).toBeVisible();
  });

  await test.step('by hand, shaky: the second end catches square', async () => {
    await page.keyboard.press('Escape');
    const [a, b, c, d] = await Promise.all([1, 2, 3, 4].map((n) => cornerAt(page, n)));
    const along = (p: { x: number; y: number }, q: { x: number; y: number }, t: number) => ({
      x: p.x + (q.x - p.x) * t,
      y: p.y + (q.y - p.y) * t,
    });
    const from = along(a!, b!, 0.3);
    await page.mouse.click(from.x, from.y);
    await page.getByRole('button', { name: 'Fold from here' }).first().click();
    const to = along(d!, c!, 0.3);
    await page.mouse.move(to.x + 6, to.y + 2);
    await expect(page.getByText(/square · 60\.0 mm along/)).toBeVisible();
    await page.mouse.click(to.x + 6, to.y + 2);
    await expect(page.getByRole('heading', { name: 'Fold 2' })).toBeVisible();
    await expect(page.getByText('80.0 mm long')).toBeVisible();
    await expect(page.getByLabel(/^In from edge A/)).toHaveValue('60.00');
  });

  await test.step('its ends typed: no longer parallel to anything, still where it was told', async () => {
    await page.getByLabel(/^Ends on B/).fill('120');
    await page.getByLabel(/^Ends on B/).press('Enter');
    await expect(page.getByLabel(/^In from edge/)).toHaveCount(0);
    await expect(page.getByText('82.5 mm long')).toBeVisible();
    await saved(page);
  });

  await test.step('which way, how far, how the card was made; the blank follows each', async () => {
    const out = page.getByRole('button', { name: tally('^Card as blank would be out by') });
    const before = await out.textContent();
    await page.getByRole('radio', { name: /Card lay on the inside, creased sharp/ }).click();
    await expect(out).not.toHaveText(before!);
    await page.getByLabel(/^Turned through/).fill('270');
    await page.getByLabel(/^Turned through/).press('Enter');
    await expect(page.getByText(/An angle over 0 and up to 180/)).toBeVisible();
    await expect(page.getByLabel(/^Turned through/)).toHaveValue('270');
    await page.getByLabel(/^Turned through/).fill('135');
    await page.getByLabel(/^Turned through/).press('Enter');
    await page.getByRole('button', { name: 'Away from you', exact: true }).click();
    await saved(page);
    await page.getByRole('link', { name: /^Blank:/ }).click();
    await expect(page.getByRole('button', { name: /^Fold 2, 135°/ })).toBeVisible();
    await page.getByRole('button', { name: /^Fold 2 takes/ }).click();
    await expect(page.getByText(/past square, to the tangent/).last()).toBeVisible();
  });
});

test('a corner where one touches; a side bent by its ring; edges made one and parted, saying what becomes of the record', async ({
  page,
}) => {
  await newPiece(page, 'Shaped', '200, 100, 200, 100');
  const [a, b] = [await cornerAt(page, 1), await cornerAt(page, 2)];
  await page.mouse.click(a.x + (b.x - a.x) * 0.252, a.y + 2);
  await page.getByRole('button', { name: 'Corner here' }).first().click();
  await saved(page);
  await expect(page.getByRole('button', { name: 'Corner 5', exact: true })).toBeVisible();
  const middle = await cornerAt(page, 2);
  // Rounded from the nearer corner: a quarter of the way, not 50.4.
  expect(Math.abs(middle.x - (a.x + (b.x - a.x) * 0.25))).toBeLessThan(1.5);

  await test.step('two sides of one edge, each with its own shape', async () => {
    await pickEdge(page, 'D');
    await expect(page.getByRole('heading', { name: 'Side 1 of 2' })).toBeVisible();
    await expect(page.getByLabel('Length').first()).toHaveValue('50.00');
    await page
      .getByRole('group', { name: 'Shape of side 2 of 2' })
      .getByRole('button', { name: 'Arc' })
      .click();
    await page.getByLabel('Radius').fill('80');
    await page.getByLabel('Radius').press('Enter');
    await expect(page.getByLabel('Radius')).toHaveValue('80.0');
    await saved(page);
  });

  await test.step('a straight side pulled by its ring goes through three points', async () => {
    await pickEdge(page, 'C');
    const ring = (await page.locator('[data-bow="1"]').boundingBox())!;
    const [x, y] = [ring.x + ring.width / 2, ring.y + ring.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + 30, y + 3, { steps: 6 });
    await page.mouse.up();
    await expect(page.getByLabel(/^Rise/)).not.toHaveValue('');
    const rise = Number(await page.getByLabel(/^Rise/).inputValue());
    expect(rise).toBeGreaterThan(5);
    // Back to within reach of the chord it is straight again.
    const bowed = (await page.locator('[data-bow="1"]').boundingBox())!;
    await page.mouse.move(bowed.x + bowed.width / 2, bowed.y + bowed.height / 2);
    await page.mouse.down();
    await page.mouse.move(x + 2, y, { steps: 6 });
    await page.mouse.up();
    await expect(page.getByLabel('Length')).toBeVisible();
    await saved(page);
  });

  await test.step('edges made one, and parted at a corner again', async () => {
    await page.getByRole('button', { name: /^(Place|Join)$/ }).click();
    await expect(page.getByText(/What was read and welded on . stays in the record/)).toBeVisible();
    await page.getByRole('button', { name: /^Make one with edge B/ }).click();
    await expect(page.getByRole('table', { name: 'Edges' })).toHaveCount(0);
    await expect(page.getByRole('definition').filter({ hasText: 'made one with B' })).toBeVisible();
    await page.getByRole('button', { name: 'Corner 4', exact: true }).focus();
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'Part the edge here' }).click();
    await saved(page);
    await page.keyboard.press('Escape');
    await expect(page.getByRole('table', { name: 'Edges' }).getByRole('row')).toHaveCount(5);
  });
});

test('joints: what each adds is on the blank, in the story of the edge and in the working', async ({
  page,
}) => {
  await newPiece(page, 'Joined plate', '200, 100, 200, 100');
  const join = async (letter: string, kind: string) => {
    await pickEdge(page, letter);
    await page.getByRole('combobox', { name: 'Joined by' }).click();
    await page.getByRole('option', { name: kind, exact: true }).click();
    await saved(page);
  };
  await join('D', 'Hem');
  await page.getByLabel('Finished width of the hem').fill('10');
  await page.getByLabel('Finished width of the hem').press('Enter');
  await join('C', 'Joggled lap');
  await page.getByLabel('Overlap').fill('14');
  await page.getByLabel('Overlap').press('Enter');
  await join('B', 'Plug-welded flange');
  await page.getByRole('combobox', { name: 'The flange lies' }).click();
  await page.getByRole('option', { name: 'Turned square at the edge' }).click();
  await join('A', 'Butt');
  await page.getByLabel('Left on to trim at fitting').fill('3/32"');
  await page.getByLabel('Left on to trim at fitting').press('Enter');
  await expect(page.getByRole('definition').filter({ hasText: '2.4 mm added' })).toBeVisible();
  await page.getByLabel('Meets').fill('Old floor');
  await saved(page);
  await page.getByRole('link', { name: /^Blank:/ }).click();
  for (const letter of ['A', 'B', 'C', 'D'])
    await expect(
      page.getByRole('button', { name: new RegExp(`^Edge ${letter}, .* added`) }),
    ).toBeVisible();
  await page.getByRole('button', { name: /^Area/ }).click();
  await expect(page.getByText(/^Joints, reliefs/)).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Folded' }).click();
  await expect(page.locator('canvas')).toBeVisible();
});

test('legs by the pencil: a corner of the walk is dragged, and the typed legs follow', async ({
  page,
}) => {
  await newPiece(page, 'Dragged legs');
  await page.getByLabel(/^Legs:/).fill('100\n60\n100\n60');
  const drawing = page.getByRole('group', { name: 'The card so far' });
  const end = drawing.locator('circle[r="18"]').nth(1);
  const at = (await end.boundingBox())!;
  const [x, y] = [at.x + at.width / 2, at.y + at.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x, y - 40, { steps: 5 });
  await page.mouse.up();
  await expect(page.getByLabel(/^Legs:/)).not.toHaveValue(/^100\n60/);
  await expect(page.getByText('misses the start by')).toBeVisible();
  // Left alone and come back to, the legs are still there.
  const typed = await page.getByLabel(/^Legs:/).inputValue();
  await page.getByRole('link', { name: /^Survey:/ }).click();
  await page.getByRole('link', { name: /^Card:/ }).click();
  await expect(page.getByLabel(/^Legs:/)).toHaveValue(typed);
  await page.getByRole('button', { name: 'Leave it: add a side' }).click();
  await page.getByRole('button', { name: 'Make the card' }).click();
  await saved(page);
  await expect(page.getByRole('table', { name: 'Edges' }).getByRole('row')).toHaveCount(6);
});
