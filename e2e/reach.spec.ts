import { stopsOf } from '../app/frame/stops';
import type { StopId } from '../app/frame/stops';
import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import type { Locator, Page } from '@playwright/test';
import sharp from 'sharp';
import { beginPiece, demoPiece, goTo, legs, newPiece, pickEdge, saved } from './hands';

/**
 * Whether everyone can use it: contrast, names and labels by axe-core's WCAG 2 A and AA rules; the
 * keyboard alone; a narrow screen.
 */

/** In the page itself, not in one of its own, and only what is wrong: half the time. */
const axe = (page: Page) =>
  new AxeBuilder({ page }).options({ resultTypes: ['violations'] }).setLegacyMode(true);

/** What axe finds with these rules or tags, a line for each place. */
async function found(look: AxeBuilder, bench: string): Promise<string[]> {
  const { violations } = await look.analyze();
  return violations.flatMap((v) =>
    v.nodes.map(
      (node) => `${bench}: ${v.id}: ${node.target.join(' ')} – ${node.failureSummary ?? ''}`,
    ),
  );
}

/** The button in the bar, wherever the focus is and whatever lies over it. */
const turnBench = (page: Page, name: string) =>
  page
    .getByRole('button', { name, includeHidden: true })
    .evaluate((button: HTMLElement) => button.click());

/** Of a page as it stands, by day and by night; by night only colours are others. */
async function faults(page: Page): Promise<string[]> {
  await page.waitForLoadState('networkidle');
  const day = await found(axe(page).withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa']), 'day');
  await turnBench(page, 'Night bench');
  const night = await found(axe(page).withRules(['color-contrast', 'link-in-text-block']), 'night');
  await turnBench(page, 'Day bench');
  return [...day, ...night];
}

test.describe('no page has a fault that axe knows of, on the day bench or the night bench', () => {
  test('the lists and the shop', async ({ page }) => {
    for (const at of ['/', '/shop', '/shop/learnt', '/?search=library']) {
      await page.goto(at);
      expect(await faults(page)).toEqual([]);
    }
    await openDemoJob(page);
    expect(await faults(page)).toEqual([]);
    await page.getByRole('link', { name: 'New piece' }).click();
    await page.waitForURL(/new-piece/);
    expect(await faults(page)).toEqual([]);
  });

  test('what was found, and the references', async ({ page }) => {
    // The demo's own pictures and references: a job that was taken in has the second and not the
    // first.
    await openDemoJob(page);
    await page.getByRole('link', { name: 'Found', exact: true }).click();
    await page.waitForURL(/found/);
    expect(await faults(page)).toEqual([]);
    await page.getByRole('button', { name: /^Sill box/ }).click();
    expect(await faults(page)).toEqual([]);
    await page.getByRole('link', { name: 'References', exact: true }).click();
    await page.waitForURL(/references/);
    await page.getByRole('button', { name: 'As found', exact: true }).click();
    expect(await faults(page)).toEqual([]);
    await page.getByRole('button', { name: 'New measure' }).click();
    expect(await faults(page)).toEqual([]);
    await page.getByRole('button', { name: 'Read', exact: true }).first().click();
    expect(await faults(page)).toEqual([]);
  });

  test('the survey of a piece', async ({ page }) => {
    await demoPiece(page, 'Rear arch lip', 'Survey');
    for (const part of ['found', 'references', 'cutting', 'sheet', 'choice', 'what']) {
      await page.goto(`${page.url().split('?')[0]}?part=${part}`);
      expect(await faults(page)).toEqual([]);
    }
  });

  test('a picture that is drawn over', async ({ page }) => {
    await demoPiece(page, 'Battery shelf', 'Survey');
    const buffer = await sharp({
      create: { width: 640, height: 480, channels: 3, background: '#665544' },
    })
      .jpeg()
      .toBuffer();
    await page
      .locator('input[type=file][multiple]')
      .first()
      .setInputFiles({ name: 'seen.jpg', mimeType: 'image/jpeg', buffer });
    await page.getByRole('button', { name: 'Picture: seen.jpg' }).click();
    await page.getByRole('button', { name: 'Ring' }).click();
    await page.getByRole('application').focus();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('textbox', { name: 'Ring 1' })).toBeVisible();
    expect(await faults(page)).toEqual([]);
  });

  test('card, blank and sheet', async ({ page }) => {
    await demoPiece(page, 'Battery shelf', 'Card');
    await pickEdge(page, 'B');
    expect(await faults(page)).toEqual([]);
    for (const stage of ['Blank', 'Sheet']) {
      await goTo(page, stage);
      expect(await faults(page)).toEqual([]);
    }
    await page.locator('body').click({ position: { x: 3, y: 3 } });
    await page.keyboard.press('?');
    await expect(page.getByRole('heading', { name: 'Key card' })).toBeVisible();
    expect(await faults(page)).toEqual([]);
  });

  test('shape, fit, weld and what was done', async ({ page }) => {
    await demoPiece(page, 'Battery shelf', 'Shape');
    expect(await faults(page)).toEqual([]);
    await goTo(page, 'Fit');
    await pickEdge(page, 'B');
    expect(await faults(page)).toEqual([]);
    await goTo(page, 'Weld');
    await pickEdge(page, 'I');
    await page.getByRole('button', { name: 'Write down a weld' }).click();
    expect(await faults(page)).toEqual([]);
    await page.goto(page.url().replace(/weld.*/, 'record'));
    expect(await faults(page)).toEqual([]);
  });
});

/** The job of the demo, from the list. */
async function openDemoJob(page: Page): Promise<void> {
  // By then the list has pages.
  await page.goto('/?search=library');
  await page
    .getByRole('link', { name: /Mobile library van/ })
    .first()
    .click();
  // The list fades while one goes on from it: only the job itself is looked at.
  await expect(page.getByRole('heading', { name: 'Mobile library van', level: 1 })).toBeVisible();
}

test('with the keyboard alone: stages by number, edges and folds by letter, units and undo; never while typing', async ({
  page,
}) => {
  await demoPiece(page, 'Step-well tray', 'Card');
  await pickEdge(page, 'A');
  await page.keyboard.press('e');
  await expect(page.getByRole('heading', { name: 'Edge B' })).toBeVisible();
  await page.keyboard.press('Shift+E');
  await expect(page.getByRole('heading', { name: 'Edge A' })).toBeVisible();
  await page.keyboard.press('f');
  await expect(page.getByRole('heading', { name: 'Fold 1' })).toBeVisible();
  await page.keyboard.press('f');
  await expect(page.getByRole('heading', { name: 'Fold 2' })).toBeVisible();

  const radius = page.getByLabel('Inside radius');
  await radius.focus();
  await page.keyboard.type('3e7u');
  await expect(radius).toHaveValue('3e7u');
  await expect(page).toHaveURL(/card$/);
  await page.keyboard.press('Escape');
  await expect(radius).toHaveValue('');
  await radius.fill('2');
  // An arrow key steps by half a millimetre once the figure is taken.
  await page.keyboard.press('Enter');
  await page.keyboard.press('ArrowUp');
  await expect(radius).toHaveValue('2.50');
  await radius.blur();

  await page.keyboard.press('u');
  await expect(page.getByRole('button', { name: /^Card 21 17\/64 in × 16 3\/8 in/ })).toBeVisible();
  await page.keyboard.press('u');
  for (const [key, stage] of [
    ['3', 'blank'],
    ['4', 'sheet'],
    ['6', 'fit'],
    ['7', 'weld'],
    ['1', 'survey'],
    ['2', 'card'],
  ] as const) {
    await page.keyboard.press(key);
    await page.waitForURL(new RegExp(`/${stage}$`));
  }
  await expect(page.getByText(/^Saved/)).toBeVisible();
  await page.keyboard.press('z');
  await page.keyboard.press('f');
  await page.keyboard.press('f');
  await expect(page.getByLabel('Inside radius')).not.toHaveValue('2.50');
  await page.keyboard.press('z');
  await expect(page.getByLabel('Inside radius')).toHaveValue('');
});

test('what makes something and goes away leaves the focus on what was made; D goes to what is said of it', async ({
  page,
}) => {
  await beginPiece(page, 'Focus');
  await legs(page, '200\n100\n200\n100');
  const focused = () => page.evaluate(() => document.activeElement?.getAttribute('role') ?? '');
  await expect.poll(focused).toBe('button');
  await pickEdge(page, 'A');
  const lay = page.getByRole('button', { name: 'Lay the fold' });
  await lay.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Fold 1' })).toBeVisible();
  await expect
    .poll(() => page.evaluate(() => document.activeElement?.getAttribute('aria-pressed')))
    .toBe('true');
  for (const key of ['f', 'e', 'h']) {
    await page.keyboard.press(key);
    await page.keyboard.press('d');
    await expect
      .poll(() => page.evaluate(() => document.activeElement?.closest('aside') !== null))
      .toBe(true);
    await page.keyboard.press('Shift+D');
    await page.keyboard.press('Escape');
  }
});

test('a card is shaped with the keyboard alone: a corner put in and moved, a slanted fold, a hole', async ({
  page,
}) => {
  await newPiece(page, 'By keys', '200, 100, 200, 100');
  // Edge B at its middle, 30 farther with Shift, then half a millimetre back: a corner there.
  await page.keyboard.press('e');
  await page.keyboard.press('e');
  await expect(page.getByRole('heading', { name: 'Edge B' })).toBeVisible();
  const place = page.getByLabel(/^A place along it/);
  for (const key of [
    'ArrowRight',
    'Shift+ArrowRight',
    'Shift+ArrowRight',
    'Shift+ArrowRight',
    'ArrowLeft',
  ])
    await page.keyboard.press(key);
  await expect(place).toHaveValue('129.50');
  await page.keyboard.press('c');
  await expect(page.getByRole('heading', { name: /^Corner \d$/ })).toBeVisible();
  await expect(page.getByLabel(/^B, side 1, to here/)).toHaveValue('129.50');
  const up = page.getByLabel('Up, from the bench');
  const was = Number(await up.inputValue());
  await page.keyboard.press('Shift+ArrowUp');
  await page.keyboard.press('ArrowUp');
  await expect(up).toHaveValue((was + 10.5).toFixed(2));
  await saved(page);

  // From the corner a fold to the far edge, a little aside.
  await page.keyboard.press('l');
  await expect(page.getByRole('heading', { name: 'A fold from here' })).toBeVisible();
  for (const key of ['e', 'e', 'e', 'e', 'Shift+ArrowRight']) await page.keyboard.press(key);
  await expect(page.getByLabel(/^Ends on D, from/)).toHaveValue('110.00');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Fold 1' })).toBeVisible();

  // Put down, then a place inside, moved; a hole there, moved with Shift.
  await page.keyboard.press('Escape');
  await expect(page.getByRole('table', { name: 'Edges' })).toBeVisible();
  await page.keyboard.press('i');
  await page.keyboard.press('Shift+ArrowRight');
  const across = Number(await page.getByLabel('Across, from the left').inputValue());
  await page.keyboard.press('h');
  await expect(page.getByRole('heading', { name: 'Hole 1' })).toBeVisible();
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(page.getByLabel('Across, from the left')).toHaveValue((across - 10).toFixed(1));

  // Escape: first out of the field, then what is in hand, then the pick.
  await page.getByLabel('Diameter').fill('12');
  await page.keyboard.press('Escape');
  await expect(page.getByLabel('Diameter')).toHaveValue('8.0');
  await expect(page.getByLabel('Diameter')).not.toBeFocused();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('heading', { name: 'Hole 1' })).toHaveCount(0);
  await saved(page);
});

/** Buttons lower than a gloved finger wants, with how high they are. */
const tooSmall = (within: Locator) =>
  within.getByRole('button').evaluateAll((buttons) =>
    buttons
      .map((b) => [b.textContent ?? '', b.getBoundingClientRect().height] as const)
      .filter(([, h]) => h > 0 && h < 44)
      .map(([text, h]) => `${text}: ${h}`),
  );

test.describe('on a phone and an upright tablet', () => {
  for (const [width, height] of [
    [390, 844],
    [768, 1024],
  ] as const) {
    test(`${width} wide: every stage fits the width, and what one touches is big enough`, async ({
      page,
    }) => {
      await page.setViewportSize({ width, height });
      await demoPiece(page, 'Rear arch lip', 'Survey');
      for (const part of ['', 'found', 'references', 'cutting', 'sheet', 'choice', 'what']) {
        await page.goto(`${page.url().split('?')[0]}${part && `?part=${part}`}`);
        await page.waitForLoadState('networkidle');
        expect(
          await page.evaluate(() => document.documentElement.scrollWidth),
          part,
        ).toBeLessThanOrEqual(width);
        expect(await tooSmall(page.locator('main')), part).toEqual([]);
      }
      const looked: [string, StopId[]][] = [
        ['Battery shelf', stopsOf('made').map(({ id }) => id)],
        ['Front corner panel', ['cutdown']],
      ];
      for (const [piece, stops] of looked) {
        await demoPiece(page, piece, 'Survey');
        for (const stop of stops) {
          await goTo(page, stop);
          if (stop === 'fit') await pickEdge(page, 'B');
          await page.waitForLoadState('networkidle');
          expect(
            await page.evaluate(() => document.documentElement.scrollWidth),
            stop,
          ).toBeLessThanOrEqual(width);
          const drawer = page.getByRole('complementary', { name: 'Drawer' });
          expect(await tooSmall(drawer), stop).toEqual([]);
        }
      }
    });
  }
});
