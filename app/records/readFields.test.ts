import { DEFAULT_SHOP } from '#core/blank/fold/practice';
import { ShopSchema } from '#core/blank/shopSchema';
import { PieceSurveySchema, unsurveyed } from '#core/survey/pieceSurvey';
import { readFields, writtenOver } from './readFields.server';

test('of a stored record every field that can be read is read, whatever stands in the others', () => {
  const stored = {
    takes: ['p1'],
    oldMetal: 'thick',
    toleranceMm: -3,
    space: true,
    options: [{ id: 'o', of: 'patch', name: '', hours: [3, 2, 1], material: 1, price: 0 }],
    unheardOf: 1,
  };
  expect(readFields(PieceSurveySchema, stored, unsurveyed())).toEqual({
    ...unsurveyed(),
    takes: ['p1'],
    space: true,
  });
  expect(readFields(PieceSurveySchema, {}, unsurveyed())).toEqual(unsurveyed());
});

test('of a list what can be read is read, and what is written beside it leaves the rest as it is', () => {
  const sheet = { metal: 'dc04', thicknessMm: 1, from: 'bought', name: 'New sheet' };
  const stored = { name: 7, units: 'in', sheets: [sheet, { metal: 'moonstone' }] };
  const read = readFields(ShopSchema, stored, DEFAULT_SHOP);
  expect(read).toEqual({ ...DEFAULT_SHOP, units: 'in', sheets: [sheet] });
  expect(writtenOver(stored, read, { ...read, hourRate: 55 })).toEqual({ ...stored, hourRate: 55 });
  expect(writtenOver(stored, read, { ...read, sheets: [] })).toMatchObject({ name: 7, sheets: [] });
});
