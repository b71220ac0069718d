import { MANILA, onPaper } from '../picture/cardScene.arbitrary';
import { photographed } from '../picture/photographed.arbitrary';
import { runToCompletion } from '../measure/runToCompletion';
import { TRACE_TOLERANCE_MM, trace } from '../picture/trace';
import { cutOutOf } from './cutOut';
import { holePath } from './holeForm';

test('a slot and a square cut out of a photographed card are holes of their form', async () => {
  const slot = { diameterMm: 8, form: { kind: 'slot', longMm: 24, turnDeg: 30 } } as const;
  const square = { diameterMm: 12, form: { kind: 'square', turnDeg: 15 } } as const;
  const cut = [holePath([118, 90], slot)!, holePath([90, 140], square)!];
  const picture = await photographed(onPaper(MANILA, 'wood', 'white', cut), {
    width: 1800,
    height: 1350,
    tiltDeg: 22,
    aroundDeg: 200,
    rollDeg: 92,
    noise: 3,
    fades: 0.3,
  });
  const found = runToCompletion(trace(picture, { kind: 'paper', paper: 'a4' }));
  if (!found.ok) throw new Error(JSON.stringify(found));
  const formed = found.openings
    .map((path) => cutOutOf(path, 2 * TRACE_TOLERANCE_MM)!)
    .sort((a, b) => a.at[1] - b.at[1]);
  expect(formed).toHaveLength(2);
  expect(formed[0]).toMatchObject({
    at: [expect.closeTo(118, 0), expect.closeTo(90, 0)],
    diameterMm: expect.closeTo(8, 0),
    form: { kind: 'slot', longMm: expect.closeTo(24, 0), turnDeg: expect.closeTo(30, 0) },
  });
  expect(formed[1]).toMatchObject({
    at: [expect.closeTo(90, 0), expect.closeTo(140, 0)],
    diameterMm: expect.closeTo(12, 0),
    form: { kind: 'square', turnDeg: expect.closeTo(15, 0) },
  });
}, 60_000);
