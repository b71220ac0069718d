import { DxfWriter, LWPolylineFlags, Units, point2d, point3d } from '@tarikjabiri/dxf';
import { expect, test } from '@playwright/test';
import { newPiece, saved } from './hands';

/**
 * A bracket in inches by a general DXF writer: outline with a rounded end, a hole and a fold on
 * layers of their own.
 */
function bracket(): string {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Inches);
  dxf.addLayer('CUT', 7, 'CONTINUOUS');
  dxf.addLayer('DRILL', 1, 'CONTINUOUS');
  dxf.addLayer('BEND', 3, 'CONTINUOUS');
  const corners = [point2d(0, 0), point2d(8, 0), point2d(8, 4), point2d(0, 4)];
  dxf.addLWPolyline(
    corners.map((point, i) => ({ point, bulge: i === 1 ? 1 : 0 })),
    { flags: LWPolylineFlags.Closed, layerName: 'CUT' },
  );
  dxf.addCircle(point3d(8, 2), 0.5, { layerName: 'DRILL' });
  dxf.addLine(point3d(2, 0), point3d(2, 4), { layerName: 'BEND' });
  dxf.addSpline(
    {
      controlPoints: [point3d(4, 1), point3d(4.5, 3), point3d(5.5, 3), point3d(6, 1)],
      degreeCurve: 3,
    },
    { layerName: 'NOTE' },
  );
  return dxf.stringify();
}

test('drawings of other programs become cards: DXF by its layers and units, SVG by its colours, broken ones are told', async ({
  page,
}) => {
  await newPiece(page, 'Bracket');
  await page.getByRole('button', { name: 'File', exact: true }).click();
  const file = page.getByLabel('The drawing', { exact: true });
  const put = (name: string, text: string) =>
    file.setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });

  await test.step('broken: what is wrong, and nothing taken', async () => {
    await put('broken.svg', '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0');
    await expect(page.getByRole('alert')).toContainText('broken.svg: The SVG is broken');
    await put('notes.pdf', 'not a drawing');
    await expect(page.getByRole('alert')).toContainText('This is no DXF and no SVG');
    await put('points.csv', '0;0\n300;0\nthree hundred;200');
    await expect(page.getByRole('alert')).toContainText('points.csv: Line 3 can’t be read');
  });

  await test.step('SVG without a size: units are asked for, transforms heeded', async () => {
    await put(
      'plate.svg',
      `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 300 200"><g transform="translate(20 10) scale(2)">
        <path stroke="red" d="M0 0h60v40q0 20 -20 20h-40z"/><circle stroke="red" cx="20" cy="20" r="5"/>
        <rect stroke="red" x="30" y="30" width="20" height="6" rx="3"/><rect stroke="red" x="10" y="40" width="8" height="8" transform="rotate(20 14 44)"/></g>
        <g id="notes" style="display:none"><circle cx="150" cy="100" r="90"/></g></svg>`,
    );
    await expect(page.getByText('Say what its figures are.')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Make the card' })).toBeDisabled();
    await page.getByRole('combobox', { name: /The file does not say how large/ }).click();
    await page.getByRole('option', { name: 'Millimetres' }).click();
    await expect(page.getByText(/120\.0 mm by 120\.0 mm; 3 holes, 0 lines to fold/)).toBeVisible();
  });

  await test.step('DXF in inches: outline, hole and fold from their layers', async () => {
    await put('bracket.dxf', bracket());
    await expect(
      page.getByText(/4 sides, 254\.0 mm by 101\.6 mm; 1 hole, 1 line to fold/),
    ).toBeVisible();
    await page.getByRole('button', { name: 'Make the card' }).click();
    await saved(page);
    await expect(page.getByText('254.0 mm × 101.6 mm')).toBeVisible();
    await page
      .getByRole('button', { name: /Fold 1/ })
      .first()
      .focus();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('heading', { name: /Fold 1/ })).toBeVisible();
  });
});
