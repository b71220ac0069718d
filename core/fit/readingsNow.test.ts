import { emptyPattern } from '../card/emptyPattern';
import { countingIds } from '../card/kinds';
import { outlineFromPoints } from '../card/legs';
import { mirrored } from '../card/mirror';
import { patternParts } from '../card/outline';
import { readingsNow } from './readingsNow';

test('a card turned over keeps each reading at its own place on the metal, and twice is as before', () => {
  const built = outlineFromPoints([
    [0, 0],
    [200, 0],
    [180, 80],
    [0, 60],
  ]);
  if (!built.ok) throw new Error('no outline');
  const doc = { ...emptyPattern(), ...patternParts(built.path, countingIds()) };
  const station = (atMm: number, gapMm: number | null) => ({ atMm, gapMm, flushMm: null });
  const record = {
    edge: doc.edges[0]!.id,
    turned: false,
    stations: [station(10, 0.5), station(150, 2), station(190, null)],
  };
  expect(readingsNow(doc, record)).toBe(record);
  const over = readingsNow(mirrored(doc), record);
  expect(over).toEqual({
    ...record,
    turned: true,
    stations: [station(10, null), station(50, 2), station(190, 0.5)],
  });
  expect(readingsNow(doc, over)).toEqual(record);
  expect(readingsNow(mirrored(doc), { ...record, edge: 'gone' }).stations).toEqual(record.stations);
});
