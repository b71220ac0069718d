import { execFileSync } from 'node:child_process';
import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { demoPiece } from './hands';

const part = (page: Page, name: RegExp) =>
  page.getByRole('navigation', { name: 'Parts of the survey' }).getByRole('button', { name });
const rail = (page: Page) =>
  page
    .getByRole('navigation', { name: 'The road of the piece' })
    .getByRole('link', { name: /^Survey/ });
const choose = async (page: Page, label: string, option: string | RegExp) => {
  await page.getByLabel(label, { exact: true }).last().click();
  await page.getByRole('option', { name: option, exact: typeof option === 'string' }).click();
};

test('cut out has no clean stop until what it takes away can be put back; the one measure that helps is named, read, and enough', async ({
  page,
}) => {
  await demoPiece(page, 'Rear arch lip', 'survey');
  const survey = page.url();
  await expect(rail(page)).toHaveAccessibleName('Survey: needs attention, 1 reference to lose');
  await expect(
    page.getByText('Do not cut yet: Tail lamp bolt could not be put back'),
  ).toBeVisible();
  // It is refused as a plain step, and can be written down where it has happened already: the stop
  // is not clean then either.
  await part(page, /^Bracing/).click();
  await expect(page.getByRole('button', { name: 'Write down that it is cut out' })).toBeDisabled();
  await page.getByLabel('It is cut out already').check();
  await page.getByRole('button', { name: 'Write down that it is cut out' }).click();
  await expect(page.getByText('Tail lamp bolt went out with the old metal')).toBeVisible();
  await expect(rail(page)).toHaveAccessibleName('Survey: needs attention, 1 reference to lose');
  await page.getByRole('button', { name: 'It is not cut out after all' }).click();
  await expect(page.getByText('Do not cut yet')).toBeVisible();

  // The job says it too, on the list of its pieces.
  await page.getByRole('link', { name: 'Journey of the Rear arch lip', exact: true }).click();
  await expect(
    page
      .getByRole('listitem')
      .filter({ hasText: 'Rear arch lip' })
      .getByRole('link', { name: /Survey.*attention/ }),
  ).toBeVisible();
  await expect(page.getByRole('region', { name: 'What moved' })).toContainText(
    'Upper hinge to sill drain −10.5 mm since “As found”',
  );

  await page.goto(survey);
  const lamp = page.getByRole('region', { name: 'References' });
  await expect(lamp).toContainText('Best next: tape it to Sill drain hole');
  await page.getByRole('button', { name: 'Put it on the list' }).click();
  await expect(page.getByText('It is on the list: read it in a round.')).toBeVisible();
  await page.getByRole('link', { name: 'Read a round' }).click();
  await page.getByRole('cell', { name: '–' }).last().click();
  await page.getByRole('textbox', { name: 'Reads' }).fill('1490');
  await page.getByRole('textbox', { name: 'Reads' }).press('Enter');
  await expect(page.getByText('All is saved.')).toBeVisible();
  await page.goto(survey);
  await expect(rail(page)).toHaveAccessibleName('Survey: done, Can be put back');
  await part(page, /^Bracing/).click();
  await page.getByRole('button', { name: 'It is cut out', exact: true }).click();
  await expect(rail(page)).toHaveAccessibleName('Survey: done, Cut out');
  await page.getByLabel('How, and what was seen').fill('With a thin disc, 25 mm left all round');
  await expect(async () => {
    await page.reload();
    await expect(page.getByLabel('How, and what was seen')).toHaveValue(
      'With a thin disc, 25 mm left all round',
      { timeout: 500 },
    );
  }).toPass();
  // One more that goes, after the cut: nothing read since then would place it.
  await part(page, /^References/).click();
  await page
    .getByRole('button', { name: 'Door hinge, lower bolt, left is gone when it is cut out' })
    .or(page.getByRole('button', { name: 'Striker bolt, left is gone when it is cut out' }))
    .first()
    .click();
  await expect(rail(page)).toHaveAccessibleName('Survey: needs attention, 1 reference to lose');
});

test('a structural piece cut out without a brace is warned of; a brace and a round with it, before the cut, are enough', async ({
  page,
}) => {
  await demoPiece(page, 'Sill closing plate', 'survey');
  await expect(rail(page)).toHaveAccessibleName('Survey: done, Cut out');
  await part(page, /^Bracing/).click();
  await expect(page.getByText('It holds the vehicle up.')).toBeVisible();
  for (const name of [/Tube across/, /Batten along/])
    await page.getByRole('checkbox', { name }).uncheck();
  await expect(page.getByText('was cut out with no brace of its own in. Stop')).toBeVisible();
  await expect(rail(page)).toHaveAccessibleName('Survey: needs attention, Cut with no brace');
  await page.getByRole('button', { name: 'New brace' }).click();
  await page.getByLabel('Name of the brace').fill('Angle across the sill');
  await page.getByRole('button', { name: 'It is in now' }).click();
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  // It went in after the cut: that held nothing.
  await expect(page.getByRole('checkbox', { name: /Angle across the sill/ })).toBeChecked();
  await expect(page.getByText('was cut out with no brace of its own in. Stop')).toBeVisible();
  await page.getByRole('checkbox', { name: /Tube across/ }).check();
  await expect(page.getByText('was cut out with no brace of its own in. Stop')).toBeHidden();

  const layers = page.getByRole('region', { name: 'Where the layers are cut' });
  await choose(page, 'Layer', 'Inner skin');
  await page.getByLabel('Cut this far in').fill('3 1/2"');
  await layers.getByRole('button', { name: 'Add this cut' }).click();
  await expect(page.getByText('are cut 6.1 mm from each other')).toBeVisible();
  await layers.getByRole('button', { name: 'Take off the cut of the inner skin' }).last().click();
  await expect(rail(page)).toHaveAccessibleName('Survey: done, Cut out');

  // Old metal by the micrometer: one Enter each, paint told from steel, and nothing thinner
  // offered.
  await part(page, /^What sheet/).click();
  const reading = page.getByRole('textbox', { name: 'Micrometer reading' });
  for (const mm of ['2.3', '2.02']) {
    await reading.fill(mm);
    await reading.press('Enter');
  }
  await expect(page.getByRole('status', { name: 'What the old sheet was' })).toContainText(
    '2.01 mm',
  );
  await expect(page.getByRole('listitem').filter({ hasText: 'paint or scale?' })).toHaveCount(1);
  const sheets = page.getByRole('region', { name: 'Sheet that can be had' });
  await expect(sheets.getByRole('rowheader').first()).toContainText('2.00 mm');
  await expect(sheets.getByRole('rowheader', { name: /^1\./ })).toHaveCount(0);
  await sheets
    .getByRole('row', { name: /^2.50 mm/ })
    .getByRole('button', { name: 'Make it of this' })
    .click();
  await expect(part(page, /^What it is/)).toContainText('2.50 mm');
});

test('a finding grows from look to look, says which piece mends it, and what is guessed is told by how much they grow', async ({
  page,
}) => {
  await demoPiece(page, 'Step-well tray', 'survey');
  await page.getByRole('link', { name: 'All that was found' }).click();
  await expect(page.getByRole('status', { name: 'How findings grow' })).toContainText(
    '2.4 times as large',
  );
  await page.getByRole('button', { name: 'New finding' }).click();
  await page.getByLabel('What was found').fill('Scuttle corner');
  const look = async (length: string, width: string) => {
    await page.getByLabel('Length').fill(length);
    await page.getByLabel('Width').fill(width);
  };
  await page.getByRole('button', { name: 'Measure it' }).click();
  await look('20', '10');
  await page.getByRole('button', { name: 'Add this look' }).click();
  await page.getByRole('button', { name: 'It has grown' }).click();
  await choose(page, 'How it was found out', 'Cut open');
  // Keeping takes the measure that is still open beside it.
  await look('4"', '1 37/64"');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  const card = page
    .getByRole('list', { name: 'Findings' })
    .getByRole('listitem')
    .filter({ hasText: 'Scuttle corner' });
  await expect(card).toContainText('grew 20.4 times');
  await expect(card).toContainText('No piece mends it yet.');
  // 2.6, 2.6, 2.0 and now 20.4: their geometric mean.
  await expect(page.getByRole('status', { name: 'How findings grow' })).toContainText('4.1 times');
  await page
    .getByRole('region', { name: 'Pieces that mend it' })
    .getByRole('button', { name: 'Step-well tray' })
    .click();
  await expect(card).toContainText('Mended by Step-well tray');
  await card.getByRole('link', { name: 'Step-well tray' }).click();
  await expect(page.getByRole('region', { name: 'Findings it mends' })).toContainText(
    'Scuttle corner',
  );
});

test('patch, panel or buy: ranges, chances and what would tip it; typed badly it is told, the choice and its reason stay', async ({
  page,
}) => {
  await demoPiece(page, 'Battery shelf', 'survey');
  await part(page, /^Patch, panel/).click();
  const add = async (kind: string, hours: string[], money: [string, string]) => {
    await page.getByRole('button', { name: 'Another way' }).click();
    await choose(page, 'What is done', kind);
    const fields = page.getByRole('region', { name: 'The ways' });
    for (const [label, value] of [
      [/, at best$/, hours[0]],
      ['Likely', hours[1]],
      ['At worst', hours[2]],
      ['Material', money[0]],
      ['Bought for', money[1]],
    ] as const)
      await fields.getByLabel(label).last().fill(value!);
    await fields.getByLabel('Bought for').last().press('Tab');
  };
  await add('Make a patch', ['4', '6', '5'], ['20', '0']);
  await expect(
    page.getByText('At best, likely and at worst have to rise: 4 h, 6 h, 5 h.'),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Put it beside the others' }).click();
  await expect(page.getByRole('status', { name: 'What would tip it' })).toBeHidden();
  await page.getByLabel('At worst').fill('11');
  await page.getByLabel('At worst').press('Tab');
  await page.getByRole('button', { name: 'Put it beside the others' }).click();
  await add('Buy it', ['2', '6', '12'], ['0', '1,180']);
  await expect(page.getByText('Write 1180 or 1.180, whichever is meant.')).toBeVisible();
  await page.getByLabel('Bought for').last().fill('180');
  await page.getByLabel('Bought for').last().press('Tab');
  await page.getByRole('button', { name: 'Put it beside the others' }).click();
  const tips = page.getByRole('status', { name: 'What would tip it' });
  // (4+6+11)/3 h at 45 and 20 of material are 335 on average: with 180 paid, 3.4 h of putting right
  // cost as much.
  await expect(tips).toContainText('“Buy it”');
  await expect(tips).toContainText('It wins if putting it right takes under 3.4 h.');
  await page.getByRole('button', { name: 'Take this way' }).first().click();
  await page.getByLabel('Why').fill('It bolts in: nobody will see it');
  await expect(part(page, /^Patch, panel/)).toContainText('Make a patch');
  await page.waitForTimeout(700);
  await page.reload();
  await expect(page.getByLabel('Why')).toHaveValue('It bolts in: nobody will see it');
});

test('a measuring sheet has every measure and the pictures of its points; a round is typed in from it as a list', async ({
  page,
}) => {
  await demoPiece(page, 'Rear arch lip', 'survey');
  await page.getByRole('link', { name: 'Read a round' }).click();
  const got = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Print a measuring sheet' }).click();
  const path = await (await got).path();
  const text = execFileSync('pdftotext', ['-layout', path, '-'], { encoding: 'utf8' });
  for (const words of [
    'Measuring sheet',
    'Upper hinge to lower hinge',
    'Door gap, rear, middle',
    'Reads, mm',
    'Round',
  ])
    expect(text).toContain(words);
  await page.getByRole('button', { name: 'New round' }).click();
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByRole('columnheader', { name: /^Tacked/ })).toBeVisible();
  await page.getByRole('button', { name: 'Read', exact: true }).last().click();
  await page.getByRole('button', { name: 'As a list' }).click();
  const list = page.getByRole('list', { name: 'All measures' });
  for (const [label, figure] of [
    ['Upper hinge to lower hinge', '905.5'],
    ['Upper hinge to striker', '36 in'],
    ['Lower hinge to striker', '940'],
  ] as const) {
    await expect(list.getByRole('textbox', { name: label, exact: true })).toBeVisible();
    await list.getByRole('textbox', { name: label, exact: true }).fill(figure);
    await page.keyboard.press('Enter');
  }
  await expect(list.getByRole('listitem').nth(1)).toContainText('⚠ +5.4 mm');
  await expect(page.getByText('All is saved.')).toBeVisible();
  await page.getByRole('button', { name: 'Done reading' }).click();
  await expect(page.getByRole('columnheader', { name: /3 of 18 read/ })).toBeVisible();
  // Left and right side by side, and what six tapes can say of a twist.
  await expect(page.getByRole('region', { name: 'Left and right' })).toContainText('−6.0 mm');
  await expect(page.getByRole('region', { name: 'Twist of openings' })).toContainText(
    'no twist shows, but these tapes would not show one under',
  );
});
