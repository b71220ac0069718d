import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { writeJob } from '#core/format/job';
import { demoJob } from '../demo/job';

/** A job with the demo's references, its rounds as far as they are wanted. */
async function surveyedJob(page: Page, name: string, rounds: number): Promise<string> {
  const demo = demoJob();
  const survey = demo.survey.filter(({ id }) => !/^r\d/.test(id) || Number(id.slice(1)) < rounds);
  const file = { ...demo, job: { ...demo.job, name }, survey, structure: [], pieces: [] };
  const answer = await page.request.post('/take-in', {
    multipart: {
      file: { name: 'job.json', mimeType: 'application/json', buffer: Buffer.from(writeJob(file)) },
    },
    maxRedirects: 0,
  });
  return answer.headers().location!;
}
const choose = async (page: Page, label: string, option: string) => {
  await page.getByLabel(label, { exact: true }).click();
  await page.getByRole('option', { name: option, exact: true }).click();
};

test('a round of ten readings on a phone, the server gone half way: one figure after another, what moved shown at once, nothing lost', async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const job = await surveyedJob(page, 'Read on a phone', 1);
  await page.goto(`${job}/references`);
  await expect(async () => {
    await page.getByRole('button', { name: 'New round' }).click();
    await expect(page.getByRole('region', { name: 'A round' })).toBeVisible({ timeout: 500 });
  }).toPass();
  await expect(page.getByLabel('Name of the round')).toHaveValue('Braced');
  await page.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByRole('columnheader', { name: /^Braced/ })).toBeVisible();
  await page.getByRole('button', { name: 'Read', exact: true }).last().click();
  const reads = page.getByRole('textbox', { name: 'Reads' });
  const read = async (figure: string, next: string) => {
    await reads.fill(figure);
    await reads.press('Enter');
    await expect(page.getByRole('heading', { level: 2, name: next })).toBeVisible();
  };
  await expect(
    page.getByRole('heading', { level: 2, name: 'Upper hinge to lower hinge' }),
  ).toBeVisible();
  await read('905', 'Upper hinge to striker');
  // By more than the tape can be out, and said so before one goes on.
  await reads.fill('913.5');
  await reads.press('Tab');
  await expect(page.getByText('+4.5 mm moved: more than the readings can be out')).toBeVisible();
  await reads.press('Enter');
  await read('941', 'Lower hinge to sill drain');
  await read('1387', 'Striker to sill drain');
  // Skipped, and come back to.
  await page.getByRole('button', { name: 'Skip' }).click();
  await page.getByRole('button', { name: 'Back' }).click();
  await read('54 1/2" - 548', 'Striker to arch bolt');
  await expect(page.getByText('All is saved.')).toBeVisible();
  await page.route('**/survey', (route) => route.abort());
  await read('848', 'Sill drain to arch bolt');
  await read('534.5', 'Upper hinge to roof rail');
  await page.getByRole('button', { name: 'Add a note' }).click();
  await page.getByLabel('Note').fill('held at the far end by Pip');
  await read('1094', 'Striker to roof rail');
  await expect(
    page.getByText('what you read is kept in this browser and goes up later'),
  ).toBeVisible();
  await page.reload();
  // With the reader closed as well, it is told that something waits; opened, it goes on where it
  // was left.
  await expect(page.getByText('What was read in “Braced” is kept in this browser')).toBeVisible({
    timeout: 20_000,
  });
  await page.getByRole('button', { name: 'Read', exact: true }).last().click();
  await expect(page.getByText('8/18')).toBeVisible();
  await expect(page.getByRole('heading', { level: 2, name: 'Striker to roof rail' })).toBeVisible();
  await page.unroute('**/survey');
  await read('853', 'Arch bolt to roof rail');
  await read('1154.5', 'Upper hinge to sill drain');
  await expect(page.getByText('All is saved.')).toBeVisible({ timeout: 15_000 });
  await page.reload();
  await expect(page.getByRole('columnheader', { name: /Braced.*10 of 18 read/s })).toBeVisible();
  await expect(
    page.getByRole('row', { name: /Upper hinge to striker.*913.5 mm.*moved/s }),
  ).toBeVisible();
  await expect(page.getByRole('row', { name: /Striker to sill drain.*836.3 mm/s })).toBeVisible();
  await expect(page.getByRole('region', { name: 'What moved' })).toContainText(
    'Upper hinge to striker +4.5 mm since “As found”',
  );
});

test('points and tapes by hand: what cannot be told is said, and with tapes to spare the misread one is named', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'New job' }).click();
  await page.getByLabel('Name of the job').fill('Taped by hand');
  await page.getByRole('button', { name: 'Begin the job' }).click();
  await page.getByRole('link', { name: 'References' }).click();
  await expect(
    page.getByText('Name the points that will still be there after the cutting'),
  ).toBeVisible();
  for (const name of ['A', 'B', 'C']) {
    await page.getByRole('button', { name: 'New point' }).click();
    await page.getByLabel('Name of the point').fill(name);
    await page.getByRole('button', { name: 'Keep' }).click();
    await expect(
      page.getByRole('region', { name: 'Points' }).getByRole('button', { name, exact: true }),
    ).toBeVisible();
  }
  for (const [from, to] of [
    ['A', 'B'],
    ['B', 'C'],
    ['A', 'C'],
  ]) {
    await page.getByRole('button', { name: 'New measure' }).click();
    await choose(page, 'From', from!);
    await choose(page, 'To', to!);
    await page.getByRole('button', { name: 'Keep' }).click();
    await expect(page.getByRole('rowheader', { name: `${from} to ${to}` })).toBeVisible();
  }
  await page.getByRole('button', { name: 'New round' }).click();
  await page.getByRole('button', { name: 'Keep' }).click();
  await page.getByRole('button', { name: 'Read', exact: true }).click();
  for (const figure of ['300', '400', '500']) {
    await page.getByRole('textbox', { name: 'Reads' }).fill(figure);
    await page.getByRole('textbox', { name: 'Reads' }).press('Enter');
  }
  await page.getByRole('button', { name: 'See what moved' }).click();
  const said = page.getByRole('status', { name: 'What the tapes say' });
  await expect(said).toContainText('3 tapes for 3 points, not one to spare');
  await expect(page.getByRole('button', { name: /^C: at 300\.0 mm, 400\.0 mm/ })).toBeVisible();

  // The demo's first round: one tape is a centimetre out, and the net of the others shows which.
  const job = await surveyedJob(page, 'One misread', 3);
  await page.goto(`${job}/references`);
  // Until the page's script has taken over, a touch does nothing.
  await expect(async () => {
    await page.getByRole('button', { name: 'As found', exact: true }).click();
    await expect(said).toContainText(
      'from Door hinge, upper bolt to Sill drain hole is most likely misread',
      { timeout: 2000 },
    );
  }).toPass();
  await expect(page.getByRole('region', { name: 'What moved' })).toContainText(
    'in “As found” it is the tape most likely misread',
  );
});
