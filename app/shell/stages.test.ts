import { develop } from '#core/blank/fold/develop';
import { USUAL_SHOP, sheetMetal } from '#core/blank/practice';
import { checkCard } from '#core/card/check';
import { emptyPattern } from '#core/card/kinds';
import { metalById } from '#core/metal/metals';
import { demoJob } from '../../demo/job';
import { roadOf } from './stages';

const roadFor = (name: string, change: Partial<Parameters<typeof roadOf>[0]> = {}) => {
  const piece = demoJob().pieces.find((p) => p.name === name)!;
  const pattern = change.pattern ?? piece.revisions[piece.revision - 1]!.pattern;
  const development = develop(pattern, sheetMetal(metalById(piece.metal), piece.thicknessMm, USUAL_SHOP), USUAL_SHOP);
  return roadOf({
    pattern,
    problems: checkCard(pattern),
    development,
    revision: piece.revision,
    printed: null,
    fit: piece.fits[piece.fits.length - 1] ?? null,
    welds: piece.welds,
    inspections: piece.inspections,
    ...change,
  });
};

test('a new piece starts at its card; nothing later claims to be done', () => {
  const road = roadFor('Step-well tray', { pattern: emptyPattern(), fit: null, welds: [], inspections: [] });
  expect(road.card.state).toBe('next');
  expect([road.blank, road.sheet, road.fit, road.weld].map((stop) => stop.state)).toEqual([
    'ahead',
    'ahead',
    'ahead',
    'ahead',
  ]);
});

test('the stops follow what was read and found', () => {
  const tray = roadFor('Step-well tray', { printed: 3 });
  expect(tray).toMatchObject({
    card: { state: 'done' },
    sheet: { state: 'done' },
    fit: { state: 'done' },
    weld: { state: 'done' },
  });
  expect(roadFor('Step-well tray', { printed: 2 }).sheet.note).toBe('Changed since print');
  expect(roadFor('Battery shelf').fit.state).toBe('attention');
  const open = demoJob().pieces[0]!.inspections.map((i) => ({ ...i, remedy: '' }));
  expect(roadFor('Step-well tray', { inspections: open }).weld.state).toBe('attention');
});
