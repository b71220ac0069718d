import fc from 'fast-check';
import { spread } from '../measure/spread.arbitrary';
import { openingTwist } from './openings';
import type { Measure, ReferencePlace, Round, Surveyed } from './references';
import { netKeys, netsOf } from './roundNetwork';

type At = readonly [number, number, number];
const NAMES = ['A', 'B', 'C', 'D'] as const;
const point = (id: string, side: ReferencePlace['side'] = 'right'): Surveyed<ReferencePlace> => ({
  id,
  kind: 'point',
  name: id,
  where: '',
  side,
  partner: null,
  putAway: false,
});
const tape = (from: string, to: string): Surveyed<Measure> => ({
  id: `${from}${to}`,
  kind: 'measure',
  of: 'distance',
  name: '',
  from,
  to,
  where: '',
  u: 1,
  tolerance: null,
  partner: null,
  putAway: false,
});
const ALL = [
  tape('B', 'A'),
  tape('B', 'C'),
  tape('C', 'D'),
  tape('A', 'D'),
  tape('A', 'C'),
  tape('D', 'B'),
];
const apart = (a: At, b: At) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
const read = (at: Record<string, At>, tapes: Surveyed<Measure>[], id = 'r'): Surveyed<Round> => ({
  id,
  kind: 'round',
  stage: 'found',
  name: id,
  at: '2026-10-01T00:00:00.000Z',
  putAway: false,
  readings: Object.fromEntries(
    tapes.map((t) => [t.id, { value: apart(at[t.from!]!, at[t.to!]!), note: '', as: '' }]),
  ),
});

test('an opening is as twisted as its fourth corner stands off the plane, whichever end of a tape is named first', () => {
  fc.assert(
    fc.property(spread(150, 300), spread(-100, 100), (height, shift) => {
      const at = {
        A: [0, 0, 0],
        B: [1000 + shift, 0, 0],
        C: [1000, 800, 0],
        D: [shift, 800, height],
      } as const;
      const found = openingTwist({ corners: [...NAMES] }, ALL, read(at, ALL));
      expect(found).toMatchObject({
        kind: 'told',
        visible: true,
        outOfPlaneMm: expect.closeTo(height, 5),
      });
    }),
  );
  const flat = { A: [0, 0, 0], B: [1000, 0, 0], C: [1000, 800, 0], D: [0, 800, 0] } as const;
  expect(openingTwist({ corners: [...NAMES] }, ALL, read(flat, ALL))).toMatchObject({
    kind: 'told',
    visible: false,
  });
  expect(openingTwist({ corners: [...NAMES] }, ALL, read(flat, ALL.slice(1)))).toEqual({
    kind: 'missing',
    between: [['A', 'B']],
  });
  const wrong = read(flat, ALL);
  wrong.readings.AC!.value = 5000;
  expect(openingTwist({ corners: [...NAMES] }, ALL, wrong)).toMatchObject({ kind: 'impossible' });
});

test('in the plane each side has a net of its own, in space there is one; the side with most points comes first', () => {
  const at = { A: [0, 0, 0], B: [1000, 0, 0], C: [1000, 800, 0], D: [0, 800, 300] } as const;
  const points = [point('D', 'left'), point('A'), point('B'), point('C')];
  const rounds = [read(at, ALL, 'one'), read(at, ALL.slice(0, 2), 'two')];
  expect(netKeys(points, false)).toEqual(['right', 'left']);
  const [one, two] = rounds.map((round) => netsOf(points, ALL, round, false));
  expect(one!.right!.found!.points.map(({ name }) => name)).toEqual(['A', 'B', 'C']);
  // Two tapes place no third point in the plane, but the two they tie stand.
  expect(two!.right).toMatchObject({ loose: expect.any(Array) });
  expect(one!.left).toEqual({ found: null, loose: [] });
  const space = netsOf(points, ALL, rounds[0]!, true);
  expect(Object.keys(space)).toEqual(['space']);
  const placed = new Map(space.space!.found!.points.map((p) => [p.name, p.at as unknown as At]));
  for (const t of ALL)
    expect(apart(placed.get(t.from!)!, placed.get(t.to!)!)).toBeCloseTo(
      apart(at[t.from as 'A'], at[t.to as 'A']),
      5,
    );
});
