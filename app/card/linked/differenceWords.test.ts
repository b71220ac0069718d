import { moveCorner, setEdge, splitSide } from '#core/card/edit';
import { emptyPattern } from '#core/card/emptyPattern';
import { countingIds } from '#core/card/kinds';
import { outlineFromPoints } from '#core/card/legs';
import { madeFrom } from '#core/card/link/alignment';
import { seenFrom } from '#core/card/link/linked';
import { patternParts } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import { differenceSaid } from './differenceWords';

const built = outlineFromPoints([
  [0, 0],
  [300, 0],
  [300, 200],
  [0, 200],
]);
if (!built.ok) throw new Error('not built');
const first: PatternDoc = {
  ...emptyPattern(),
  ...patternParts(built.path, countingIds('s')),
  holes: [{ id: 'h', x: 60, y: 60, diameterMm: 8 }],
};
const { doc: made } = madeFrom(first, 'other-side', []);
const show = (mm: number) => `${mm.toFixed(1)} mm`;

/** What is said where the first one has become another. */
function said(now: PatternDoc, here = made): string[] {
  const seen = seenFrom('made', { first: now, made: here });
  if (!seen.ok) throw new Error(JSON.stringify(seen.problems));
  const pair = { here, there: seen.there };
  return seen.differences.map((one) => Object.values(differenceSaid(one, pair, show)).join(': '));
}

test('each kind of difference is told by the thing’s name and both figures', () => {
  const right = first.corners[1]!;
  // Letters run clockwise from the datum corner: D along the bottom, C up the right.
  expect(said(moveCorner(first, right.id, [310, 0]))).toEqual([
    'Edge C: here 200.0 mm long, there 200.2 mm',
    'Edge D: here 300.0 mm long, there 310.0 mm',
  ]);
  const hem = setEdge(first, first.edges[1]!.id, { joint: { kind: 'hem', widthMm: 8, gapMm: 0 } });
  expect(said(hem)).toEqual(['Edge C: here free edge, there hem']);
  const trim = setEdge(first, first.edges[1]!.id, { joint: { kind: 'free', trimMm: 3 } });
  expect(said(trim)).toEqual(['Edge C: its free edge']);
  expect(said({ ...first, holes: [{ ...first.holes[0]!, diameterMm: 10, x: 63, y: 64 }] })).toEqual(
    ['Hole 1: here Ø 8.0 mm, there Ø 10.0 mm; 5.0 mm elsewhere'],
  );
  expect(said({ ...first, holes: [] })).toEqual(['Hole 1: only here']);
  expect(
    said({
      ...first,
      profiles: [
        {
          id: 'p',
          name: 'Lip',
          ordinates: [
            [0, 0],
            [9, 1],
          ],
          toleranceMm: 0.3,
        },
      ],
    }),
  ).toEqual(['Profile “Lip”: only there']);
  const split = splitSide(first, first.sides[0]!.id, 0.5, countingIds('n'));
  expect(split.ok && said(split.doc)).toEqual([
    'Outline: here 4 corners in 4 edges, there 5 corners in 4 edges',
  ]);
  expect(said(first)).toEqual([]);
});
