import { PieceSurveySchema, unsurveyed } from '#core/survey/pieceSurvey';
import { only, readFields } from './readFields.server';

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

test('only what was sent is written', () => {
  expect(only<{ a?: number; b?: number }>({ a: 1, b: 2 }, { b: 0 })).toEqual({ b: 2 });
});
