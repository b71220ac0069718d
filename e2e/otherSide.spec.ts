import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { newPiece, pickEdge, saved } from './hands';

/** Makes an edge `mm` long. */
async function lengthOf(page: Page, letter: string, mm: string): Promise<void> {
  await pickEdge(page, letter);
  const length = page.getByLabel(/^Length/).first();
  await length.fill(mm);
  await length.press('Enter');
  await saved(page);
}

test('the other side is made less a little, changed, caught up edge by edge, and gives its own back', async ({
  page,
}) => {
  // Clockwise from the datum corner: A the left side, B the top, C the right, D the bottom.
  await newPiece(page, 'Door skin foot, left', '400, 200, 400, 200');
  const first = page.url().replace(/\/card$/, '');

  await test.step('made: less 3 mm along one edge', async () => {
    await page.getByRole('link', { name: 'Make the other side, or once more' }).click();
    await expect(page.getByLabel('What it is called')).toHaveValue('Door skin foot, right');
    await page.getByLabel('Along edge').click();
    await page.getByRole('option', { name: 'C', exact: true }).click();
    await page.getByRole('button', { name: 'Take something off' }).click();
    // More than there is cannot be taken off, and says so before it is sent.
    const off = page.getByLabel(/Taken off along C/);
    await off.fill('450');
    await off.press('Enter');
    await expect(page.getByRole('alert')).toContainText(
      '450.0 mm cannot be taken off along edge C',
    );
    await expect(page.getByRole('button', { name: 'Make it' })).toBeDisabled();
    await off.fill('3');
    await off.press('Enter');
    await page.getByRole('button', { name: 'Make it' }).click();
    await expect(page.getByRole('heading', { name: 'Door skin foot, right' })).toBeVisible();
    await expect(
      page.getByRole('table', { name: 'Edges' }).getByRole('row', { name: /^B/ }),
    ).toContainText('397.0 mm');
    await expect(page.getByText('Made for the other side of')).toContainText(
      'Door skin foot, left',
    );
  });
  const second = page.url().replace(/\/card$/, '');

  await test.step('laid on another card of the job, turned over, what was taken off stands out', async () => {
    await page.getByRole('link', { name: 'Lay another card on this one' }).click();
    await page.getByLabel('The card that is laid on it').click();
    await page.getByRole('option', { name: 'Door skin foot, left' }).click();
    await expect(page.getByRole('button', { name: 'Turned over' })).toHaveAttribute(
      'aria-pressed',
      'true',
    );
    const rows = page.getByRole('table', { name: 'How far the edges lie apart' }).getByRole('row');
    await expect(rows.filter({ hasText: 'on it' })).toHaveCount(3);
    await expect(rows.filter({ hasText: '−3.0 mm' })).toHaveCount(1);
    // Asked for once more by its address: the same.
    await page.reload();
    await expect(rows.filter({ hasText: '−3.0 mm' })).toHaveCount(1);
    await page.getByRole('link', { name: 'Back to the card' }).click();
  });

  await test.step('a joint of its own; the first is changed meanwhile', async () => {
    await pickEdge(page, 'A');
    await page.getByLabel('Joined by').click();
    await page.getByRole('option', { name: 'Butt', exact: true }).click();
    await saved(page);
    await page.goto(`${first}/card`);
    await lengthOf(page, 'C', '210');
    await page.reload();
    await page.getByRole('link', { name: 'Side by side' }).click();
    await expect(
      page.getByRole('heading', { name: 'Changed here, not taken over by Door skin foot, right' }),
    ).toBeVisible();
  });

  await test.step('the list of the job says so', async () => {
    await page.getByRole('link', { name: /^Back to Job/ }).click();
    await expect(
      page.getByRole('link', { name: 'Card: needs attention, The first has changed' }),
    ).toHaveCount(1);
  });

  await test.step('caught up edge by edge, its own joint kept', async () => {
    await page.goto(`${second}/card`);
    await expect(page.getByRole('status').filter({ hasText: 'changed there since' })).toBeVisible();
    await page.getByRole('link', { name: 'Side by side' }).click();
    const since = page.getByRole('region', { name: 'Changed on Door skin foot, left since' });
    await expect(since).toBeVisible();
    const edges = since.getByRole('listitem');
    const count = await edges.count();
    expect(count).toBeGreaterThan(0);
    await edges.first().getByRole('button', { name: 'Take over' }).click();
    await expect(edges).not.toHaveCount(count);
    while ((await edges.count()) > 0) {
      const left = await edges.count();
      await edges.first().getByRole('button', { name: 'Take over' }).click();
      await expect(edges).not.toHaveCount(left);
    }
    await expect(page.getByRole('region', { name: 'Its own' }).getByRole('listitem')).toHaveCount(
      1,
    );
    const measured = page.getByRole('table', { name: 'Measured against each other' });
    // Less 3 mm along C, and nowhere else.
    await expect(measured.getByRole('row', { name: /^C/ })).toContainText('−3.0 mm');
    await page.getByLabel(/Taken off along C/).fill('5');
    await page.getByLabel(/Taken off along C/).press('Enter');
    await page.getByRole('button', { name: 'Move the edges so' }).click();
    await expect(measured.getByRole('row', { name: /^C/ })).toContainText('−5.0 mm');
    await page.getByRole('link', { name: 'Back to the card' }).click();
    await expect(
      page.getByRole('table', { name: 'Edges' }).getByRole('row', { name: /^A/ }),
    ).toContainText('Butt');
  });

  await test.step('the other way round: the first takes the joint over', async () => {
    await page.goto(`${first}/card`);
    await page.getByRole('link', { name: 'Side by side' }).click();
    const own = page.getByRole('region', { name: 'Door skin foot, right has of its own' });
    await own.getByRole('button', { name: 'Take over' }).click();
    await expect(
      page.getByText('The two are as they were made: nothing to take over.'),
    ).toBeVisible();
    await page.getByRole('link', { name: 'Back to the card' }).click();
    await expect(
      page.getByRole('table', { name: 'Edges' }).getByRole('row', { name: /^A/ }),
    ).toContainText('Butt');
  });

  await test.step('a second try says why it is made', async () => {
    await page.getByRole('link', { name: 'Make the other side, or once more' }).click();
    await page.getByRole('button', { name: 'Once more' }).click();
    await page.getByRole('button', { name: 'Make it' }).click();
    await expect(page.getByText('Say what went wrong, for who makes the next one.')).toBeVisible();
    await page.getByLabel('Why it is made again').fill('Folded the wrong way');
    await page.getByRole('button', { name: 'Make it' }).click();
    await expect(page.getByText(/Made once more after/)).toContainText(
      'Door skin foot, left: Folded the wrong way',
    );
  });
});

test('two pages that change the two pieces at once: nobody takes over what he has not seen', async ({
  page,
}) => {
  await newPiece(page, 'Rail end', '300, 80, 300, 80');
  const first = page.url();
  await page.getByRole('link', { name: 'Make the other side, or once more' }).click();
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByRole('heading', { name: 'Rail end (other side)' })).toBeVisible();
  await page.getByRole('link', { name: 'Side by side' }).click();
  const other = await page.context().newPage();
  await other.goto(first);
  await lengthOf(other, 'B', '320');
  await page.reload();
  await expect(page.getByRole('region', { name: 'Changed on Rail end since' })).toBeVisible();
  await lengthOf(other, 'A', '90');
  await page.getByRole('button', { name: 'Take over' }).first().click();
  await expect(page.getByRole('alert')).toContainText('changed meanwhile');
  await page.getByRole('button', { name: /^Take all/ }).click();
  await expect(page.getByText('The two are as they were made')).toBeVisible();
});
