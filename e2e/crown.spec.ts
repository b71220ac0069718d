import type { Page } from '@playwright/test';
import { expect, test } from '@playwright/test';
import { figureMesh } from '#core/surface/mesh/figures';
import { writeObj } from '#core/surface/file/obj';
import { beginPiece, demoPiece, goTo, newPiece, pickEdge, saved } from './hands';

const type = async (page: Page, label: string | RegExp, text: string) => {
  const field = page.getByLabel(label).first();
  await field.fill(text);
  await field.press('Enter');
};
const laid = async (page: Page) => {
  await expect(page.getByText('Thickness after')).toBeVisible();
  await expect(page.getByText(/Getting finer|Laying it flat/)).toHaveCount(0);
};
const figure = (page: Page, label: string) =>
  page.getByText(label, { exact: true }).locator('xpath=..');

test('from stations to a blank with its strips: typed wrong it is told, another balance changes the outline and keeps its edges', async ({
  page,
}) => {
  await beginPiece(page, 'Door pocket');
  await page.getByRole('link', { name: /^Curved two ways/ }).click();
  await page.getByRole('button', { name: 'By stations' }).click();
  const station = (i: number) => page.getByRole('region', { name: `Station ${i}` });
  const openStation = (i: number) =>
    station(i)
      .getByRole('button', { name: /^Station \d, at/ })
      .click();

  await test.step('three profiles with unequal numbers of points', async () => {
    await station(1)
      .getByLabel(/^Across and height/)
      .fill('0\t0\n70\t22\n140\t30\n210\t22\n280\t0');
    await expect(page.getByText(/A surface needs at least two profiles/)).toBeVisible();
    await openStation(2);
    await station(2)
      .getByLabel(/^Across and height/)
      .fill('0\t8\n140\tfourty\n280\t8');
    await expect(station(2).getByText(/row 2|line 2/i)).toBeVisible();
    await station(2)
      .getByLabel(/^Across and height/)
      .fill('0\t8\n140\t40\n280\t8');
    await openStation(3);
    await station(3)
      .getByLabel(/^Across and height/)
      .fill('0\t0\n90\t20\n190\t20\n280\t0');
    await laid(page);
    await expect(
      station(2).getByRole('button', { name: /: 3 places, within 0\.\d\d mm/ }),
    ).toBeVisible();
    // Two at one place.
    await station(3).getByLabel('Station 3 at').fill('150');
    await station(3).getByLabel('Station 3 at').press('Enter');
    await expect(page.getByText(/Two profiles stand at 150/)).toBeVisible();
    await station(3).getByLabel('Station 3 at').fill('300');
    await station(3).getByLabel('Station 3 at').press('Enter');
    await laid(page);
  });

  await test.step('set between two edges that draw together it is narrower at the end; typed wrong it is told', async () => {
    const wide = async () =>
      Number(/([\d.]+) cm/.exec(await figure(page, 'Area of the panel').innerText())![1]);
    const apart = await wide();
    await page.getByRole('button', { name: 'Between two edges' }).click();
    const edges = page.getByRole('region', { name: 'The two edges' });
    await edges.getByLabel(/where profiles begin/).fill('0\t0\t0\n300\t0\t0');
    await edges.getByLabel(/where they end/).fill('0\t280\n300\t140\t0');
    await expect(edges.getByText(/Line 1 can’t be read: three figures are wanted/)).toBeVisible();
    await edges.getByLabel(/where they end/).fill('0\t280\t0\n300\t140\t0');
    await laid(page);
    await expect(async () => expect(await wide()).toBeLessThan(0.85 * apart)).toPass();
    await page.getByRole('button', { name: 'By themselves' }).click();
    await laid(page);
    await expect(async () => expect(Math.abs((await wide()) - apart)).toBeLessThan(1)).toPass();
  });

  await test.step('what is typed outlives a reload; the whole way raised is a smaller blank than gathered', async () => {
    await page.reload();
    await laid(page);
    await openStation(2);
    await expect(station(2).getByLabel(/^Across and height/)).toHaveValue(/140\t40/);
    const balance = page.getByLabel('From raising to gathering');
    const area = async () =>
      Number(/([\d.]+) cm/.exec(await figure(page, 'Area of the blank').innerText())![1]);
    await balance.focus();
    await page.keyboard.press('Home');
    await expect(page.getByText(/^Raised: all of it stretched/)).toBeVisible();
    await laid(page);
    const raised = await area();
    await page.keyboard.press('End');
    await expect(page.getByText(/^Gathered: all of it shrunk/)).toBeVisible();
    await laid(page);
    expect(await area()).toBeGreaterThan(raised);
    await page.getByLabel('Draw the blanks of all three schools together').check();
    await expect(
      page.getByText(/raised [\d.]+ cm² · both [\d.]+ cm² · gathered [\d.]+ cm²/),
    ).toBeVisible({
      timeout: 30_000,
    });
    await page.getByLabel('Draw the blanks of all three schools together').uncheck();
    await laid(page);
    await page.getByRole('button', { name: 'Make the card' }).click();
    await saved(page);
  });

  await test.step('the card is like any other: joined, blanked, printed with its strips', async () => {
    await expect(page.getByRole('link', { name: /^Card:.*Curved two ways/ })).toBeVisible();
    await pickEdge(page, 'B');
    await page.getByRole('combobox', { name: 'Joined by' }).click();
    await page.getByRole('option', { name: /^Butt$/ }).click();
    await saved(page);
    await goTo(page, 'Blank');
    await expect(page.getByText('Strip 1 across')).toBeVisible();
    await expect(page.getByRole('region', { name: 'Curved two ways' })).toContainText('to gather');
    await page.goto(`${page.url().replace(/blank$/, 'card')}/profiles`);
    await page.getByRole('button', { name: 'Strip 2 across' }).click();
    const strip = await page.getByRole('link', { name: 'Print it hollow' }).getAttribute('href');
    const printed = await page.request.get(strip!);
    expect(printed.headers()['content-type']).toBe('application/pdf');
  });

  await test.step('laid anew in another balance, its edges keep their joints', async () => {
    await page.goto(page.url().replace(/profiles$/, 'crown'));
    await laid(page);
    await page.getByLabel('From raising to gathering').focus();
    await page.keyboard.press('Home');
    await laid(page);
    await expect(page.getByText('Edges keep their letters and joints.')).toBeVisible();
    await page.getByRole('button', { name: 'Make it the card’s outline' }).click();
    await saved(page);
    await pickEdge(page, 'B');
    await expect(page.getByRole('combobox', { name: 'Joined by' })).toHaveText(/Butt/);
  });
});

test('too deep for one piece is said with what to do; folds that would go are named before they do', async ({
  page,
}) => {
  await newPiece(page, 'Deep bowl', '200, 120, 200, 120');
  await page.goto(`${page.url()}/crown`);
  await page.getByRole('combobox', { name: 'What it is like' }).click();
  await page.getByRole('option', { name: 'Cap' }).click();
  await type(page, 'Height', '140');
  await laid(page);
  await expect(page.getByText(/It must be (stretched|gathered) by \d+ %/).first()).toBeVisible();
  await expect(
    page.getByText('The card’s edges are lettered anew, and their joints are free.'),
  ).toBeVisible();
  await test.step('made of two there is less to do in each', async () => {
    const most = async () =>
      Number(/([\d.]+) %/.exec(await figure(page, 'Gather, at most').innerText())![1]);
    const inOne = await most();
    await page.getByText('Made of two', { exact: true }).click();
    await page.getByRole('button', { name: 'Find where to part it' }).click();
    const cuts = page.getByRole('list', { name: 'Cuts' });
    await expect(cuts).toContainText(/weld \d+ mm/, { timeout: 30_000 });
    await cuts.getByRole('button', { name: 'This piece is the first part' }).first().click();
    await laid(page);
    expect(await most()).toBeLessThan(inOne);
    const two = page.getByRole('region', { name: 'Made of two' });
    await expect(two).toContainText('The cut is an edge like any other');
    await two.getByRole('button', { name: 'Show the other part' }).click();
    await laid(page);
    await expect(two).toContainText(/from [1-9]\d to 100 %/);
    await two.getByRole('button', { name: 'The whole panel' }).click();
    await laid(page);
    expect(await most()).toBe(inOne);
  });
  await test.step('or parted where one taps: both parts become pieces that meet at the seam', async () => {
    const two = page.getByRole('region', { name: 'Made of two' });
    const inSpace = page.getByRole('img', { name: 'The panel in space' });
    await two.getByRole('button', { name: 'Tap where to part it' }).click();
    await expect(inSpace.locator('canvas')).toBeVisible();
    const panel = (await inSpace.boundingBox())!;
    const tap = (x: number, y: number) =>
      page.mouse.click(panel.x + panel.width * x, panel.y + panel.height * y);
    await expect(async () => {
      await tap(0.42, 0.5);
      await expect(two.getByText('Tap where it is to end')).toBeVisible({ timeout: 1000 });
    }).toPass({ timeout: 20_000 });
    await tap(0.6, 0.5);
    await expect(two).toContainText('one side of the line that was tapped');
    await laid(page);
    const address = page.url();
    await page.getByRole('button', { name: 'Both parts, the other as a piece of its own' }).click();
    await expect(page).toHaveURL(/\/card$/, { timeout: 30_000 });
    await saved(page);
    const butted = () =>
      page.getByRole('table', { name: 'Edges' }).getByRole('row', { name: /Butt/ });
    await expect(butted()).toHaveCount(1);
    await page.getByRole('link', { name: /^Back to/ }).click();
    const other = page.getByRole('link', { name: /Deep bowl, other part/ }).first();
    await page.goto((await other.getAttribute('href'))!.replace(/[a-z]+$/, 'card'));
    await expect(butted()).toHaveCount(1);
    await expect(async () => {
      await butted().click();
      await expect(page.getByLabel('Meets')).toHaveValue(/^Deep bowl, /, { timeout: 1000 });
    }).toPass();
    await page.goto(address);
    await page
      .getByRole('region', { name: 'Made of two' })
      .getByRole('button', { name: 'The whole panel' })
      .click();
    await laid(page);
  });
  await type(page, 'Height', '9000000');
  await expect(page.getByText(/^At most/)).toBeVisible();
  await type(page, 'Height', '20');
  await laid(page);
  await expect(page.getByText(/^In one piece: this metal takes/)).toBeVisible();
});

test.describe('at phone width', () => {
  test.use({ viewport: { width: 390, height: 844 } });

  test('the panel is held against its strip, and the gaps say where metal is still missing; they are there after a reload', async ({
    page,
  }) => {
    await demoPiece(page, 'Lower rear corner', 'Shape');
    const steps = page.getByRole('list', { name: 'Steps' });
    await expect(steps).toContainText('Raise the middle');
    await expect(async () => {
      await steps
        .getByRole('button', { name: /Raise the middle/ })
        .first()
        .click();
      await expect(page.getByRole('region', { name: 'Where it is worked' })).toBeVisible({
        timeout: 1000,
      });
    }).toPass();
    const tracks = page.getByRole('region', { name: 'Where it is worked' });
    await tracks.getByRole('button', { name: 'Wheel' }).click();
    await expect(tracks.getByRole('status')).toHaveText(
      /^Round 1 of \d: \d+ tracks, [\d.]+ mm in all$/,
    );
    await tracks.getByRole('button', { name: 'Hammer' }).click();
    await expect(tracks.getByRole('status')).toHaveText(/^Round 1 of \d+: \d+ rings?, /);
    const gaps = page.getByRole('region', { name: 'Gaps under the strip' });
    const check = steps
      .getByRole('button', { name: /Check with the strip “Strip 2 across”/ })
      .first();
    await expect(async () => {
      await check.click();
      await expect(gaps).toBeVisible({ timeout: 1000 });
    }).toPass();
    const fields = gaps.getByRole('textbox');
    await fields.nth(0).fill('0');
    await fields.nth(0).press('Enter');
    await fields.nth(3).fill('4');
    await fields.nth(3).press('Enter');
    await fields.nth(6).fill('0');
    await fields.nth(6).press('Enter');
    const said = gaps.getByRole('status', { name: 'What is still to do' });
    await expect(said).toContainText(/raise, about \d\.\d %/);
    await expect(said).toContainText('is still missing');
    await page.reload();
    // Until the page's script has taken over, a touch does nothing.
    await expect(async () => {
      await check.click();
      await expect(gaps).toBeVisible({ timeout: 1000 });
    }).toPass();
    await expect(fields.nth(3)).toHaveValue('4.00');
    // What stands proud has too much.
    await fields.nth(3).fill('-4');
    await fields.nth(3).press('Enter');
    await expect(said).toContainText('too much');
    const wide = await page.evaluate(() => document.documentElement.scrollWidth);
    expect(wide).toBeLessThanOrEqual(390);
  });
});

test('a scan of two hundred thousand triangles is mended, cut to tapped corners and becomes a card', async ({
  page,
}) => {
  const made = figureMesh(
    { kind: 'barrel', alongMm: 700, acrossMm: 320, lengthMm: 400, widthMm: 280 },
    200_000,
  );
  if (!made.ok) throw new Error('no panel');
  // A loose bit beside it, and a hole in it.
  const bit = 'v 900 0 0\nv 910 0 0\nv 900 10 0\n';
  const count = made.mesh.vertices.length / 3;
  const text = writeObj(made.mesh).split('\n');
  text.splice(count + 60_000, 1);
  const scan = `${text.slice(0, count).join('\n')}\n${bit}${text.slice(count).join('\n')}f ${count + 1} ${count + 2} ${count + 3}\n`;
  await newPiece(page, 'Scanned corner');
  await page.goto(`${page.url()}/crown`);
  await page.getByRole('button', { name: 'By a scan' }).click();
  await expect(page.getByRole('button', { name: 'Choose the file' })).toBeDisabled();
  await page.getByRole('combobox', { name: 'Its figures are' }).click();
  await page.getByRole('option', { name: 'Millimetres' }).click();
  const file = page.getByLabel('The file of the scan');
  await file.setInputFiles({
    name: 'corner.obj',
    mimeType: 'text/plain',
    buffer: Buffer.from('v 1 2\nf 1 2 3\n'),
  });
  await expect(page.getByText(/cannot be read at line or triangle 1/)).toBeVisible();
  await file.setInputFiles({
    name: 'corner.obj',
    mimeType: 'text/plain',
    buffer: Buffer.from(scan),
  });
  await expect(page.getByText(/thinned from \d+ triangles to \d+/)).toBeVisible({
    timeout: 40_000,
  });
  await expect(page.getByText(/1 loose bit left out.*1 small hole closed/)).toBeVisible();
  await laid(page);
  const panel = await page.getByRole('img', { name: 'The panel in space' }).boundingBox();
  const tap = async (x: number, y: number) =>
    page.mouse.click(panel!.x + panel!.width * x, panel!.y + panel!.height * y);
  const corners: [number, number][] = [
    [0.42, 0.52],
    [0.52, 0.45],
    [0.62, 0.54],
    [0.53, 0.62],
  ];
  await expect(async () => {
    await tap(...corners[0]!);
    await expect(page.getByRole('button', { name: '1 of 3 corners at least' })).toBeVisible({
      timeout: 1000,
    });
  }).toPass({ timeout: 30_000 });
  for (const corner of corners.slice(1)) await tap(...corner);
  await page.getByRole('button', { name: 'Cut it to these 4 corners' }).click();
  await expect(page.getByRole('button', { name: '0 of 3 corners at least' })).toBeVisible();
  // The panel that was laid before stands until the cut one is there.
  const width = async () =>
    Number(
      /([\d.]+) mm/.exec(
        await page.getByRole('button', { name: /^Blank [\d.]+ mm/ }).innerText(),
      )![1],
    );
  await expect(async () => expect(await width()).toBeLessThan(300)).toPass();
  await laid(page);
  await page.getByRole('button', { name: 'Make the card' }).click();
  await saved(page);
  await expect(page.getByRole('table', { name: 'Edges' }).getByRole('row')).toHaveCount(5);
  // It is there on another day without the file.
  await page.goto(`${page.url()}/crown`);
  await laid(page);
  await expect(page.getByText(/^corner\.obj: nowhere more than/)).toBeVisible();
});
