import fc from 'fast-check';
import { emptyPattern } from '#core/card/emptyPattern';
import { countingIds } from '#core/card/kinds';
import { edgeLength } from '#core/card/outline';
import type { Vec } from '#core/measure/vector';
import { spread } from '#core/measure/spread.arbitrary';
import { cardThrough, measured, pointingPx, profileThrough, withoutPin } from './measuring';
import type { Measuring } from './measuring';

/**
 * A sheet of 300 × 200 that fills half of a picture taken square on: two pixels to the millimetre,
 * v running down.
 */
const SIZE = { wide: 1200, high: 800 };
const shareOf = ([x, y]: Vec): Vec => [(200 + 2 * x) / SIZE.wide, (600 - 2 * y) / SIZE.high];
const SHEET: Vec[] = [
  [0, 0],
  [300, 0],
  [300, 200],
  [0, 200],
];
const given: Measuring = {
  picture: '',
  pins: [...SHEET, [60, 50], [100, 90], [140, 50]].map((p) => shareOf(p as Vec)),
  known: [
    { from: 0, to: 1, mm: 300 },
    { from: 1, to: 2, mm: 200 },
    { from: 2, to: 3, mm: 300 },
    { from: 3, to: 0, mm: 200 },
  ],
  square: [
    [0, 1, 2],
    [1, 2, 3],
  ],
  spans: [[4, 6]],
  rounds: [[4, 5, 6]],
};

test('known distances are read back, others and round things read as they are, up in the picture is up', () => {
  const found = measured(given, SIZE, { spans: [[0, 2]], rounds: [] });
  if (!found.ok) throw new Error(JSON.stringify(found.problems));
  const read = found.asked.map(({ mm }) => mm);
  [300, 200, 300, 200, 80, Math.hypot(300, 200)].forEach((mm, i) =>
    expect(read[i]).toBeCloseTo(mm, 2),
  );
  // Through (60, 50), (100, 90) and (140, 50) runs the circle about (100, 50).
  expect(found.round[0]!.mm).toBeCloseTo(80, 2);
  expect(found.tilt).toBe('known');
  const card = cardThrough(
    [0, 1, 2, 3].map((pin) => found.placed[pin]!),
    emptyPattern(),
    countingIds('s'),
  );
  if (!card.ok) throw new Error(JSON.stringify(card.problems));
  expect(card.doc.edges.map((edge) => Math.round(edgeLength(card.doc, edge))).sort()).toEqual([
    200, 200, 300, 300,
  ]);
  expect(card.doc.measured).toMatchObject({ by: 'picture' });
  expect(card.doc.measured!.uMm).toBeGreaterThan(0);
  expect(pointingPx(6000, 4000)).toBe(4);
});

test('a pin taken out takes what hung on it along, and what hangs on others stays on them', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 6 }), (pin) => {
      const left = withoutPin(given, pin);
      const at = (of: Measuring) => (i: number) => JSON.stringify(of.pins[i]);
      const spoken = (of: Measuring) =>
        [
          ...of.known.map(({ from, to, mm }) => [[from, to].map(at(of)), mm]),
          ...of.square.map((three) => three.map(at(of))),
          ...of.spans.map((two) => two.map(at(of))),
          ...of.rounds.map((rim) => rim.map(at(of))),
        ].map((one) => JSON.stringify(one));
      const gone = JSON.stringify(JSON.stringify(given.pins[pin])).slice(1, -1);
      expect(spoken(left)).toEqual(spoken(given).filter((one) => !one.includes(gone)));
    }),
  );
});

test('places as a profile: first and last on the edge, drops to the side on which most lies, however the picture was turned', () => {
  const drops = [0, 4, 9, 7, 2, 0];
  fc.assert(
    fc.property(spread(-Math.PI, Math.PI), fc.boolean(), (turn, over) => {
      const places = drops.map((drop, i): Vec => {
        const [x, y] = [40 * i, over ? drop : -drop];
        return [
          x * Math.cos(turn) - y * Math.sin(turn) + 17,
          x * Math.sin(turn) + y * Math.cos(turn) - 5,
        ];
      });
      const { ordinates } = profileThrough(places, 'Lip', countingIds('p'));
      ordinates.forEach(([s, drop], i) => {
        expect(s).toBeCloseTo(40 * i, 1);
        expect(drop).toBeCloseTo(drops[i]!, 1);
      });
    }),
  );
});
