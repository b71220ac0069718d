import type { Measure, ReferencePlace, Surveyed } from './references';
import { pairsOf } from './sides';

const point = (
  id: string,
  side: ReferencePlace['side'],
  partner: string | null = null,
): Surveyed<ReferencePlace> => ({
  id,
  kind: 'point',
  name: id,
  where: '',
  side,
  partner,
  putAway: false,
});
const measure = (
  id: string,
  from: string | null,
  to: string | null,
  change: Partial<Measure> = {},
): Surveyed<Measure> => ({
  id,
  kind: 'measure',
  of: 'distance',
  name: id,
  from,
  to,
  where: '',
  u: 1,
  tolerance: null,
  partner: null,
  putAway: false,
  ...change,
});

const points = [
  point('L1', 'left', 'R1'),
  point('L2', 'left'),
  point('R1', 'right'),
  point('R2', 'right', 'L2'),
  point('M', 'centre'),
];
const pairs = (measures: Surveyed<Measure>[]) =>
  pairsOf(points, measures).map(({ left, right }) => `${left.id} ${right.id}`);

test('measures between partner points are partners, whichever end is named first and whichever stands first', () => {
  const [a, b] = [measure('a', 'L1', 'L2'), measure('b', 'R2', 'R1')];
  expect(pairs([a, b])).toEqual(['a b']);
  expect(pairs([b, a])).toEqual(['a b']);
  expect(pairs([a])).toEqual([]);
});

test('a point of the middle is its own partner; a diagonal across has the other diagonal', () => {
  expect(pairs([measure('a', 'M', 'R1'), measure('b', 'L1', 'M')])).toEqual(['b a']);
  expect(pairs([measure('a', 'L1', 'R2'), measure('b', 'L2', 'R1')])).toHaveLength(1);
  // Straight across it is its own: no pair of one.
  expect(pairs([measure('a', 'L1', 'R1')])).toEqual([]);
});

test('gaps and heights are partners where that is said, and only with their like', () => {
  const gap = (id: string, partner: string | null = null) =>
    measure(id, null, null, { of: 'gap', partner });
  expect(pairs([gap('g', 'h'), gap('h')])).toEqual(['g h']);
  expect(pairs([gap('g'), gap('h')])).toEqual([]);
  expect(pairs([gap('g', 'h'), measure('h', null, null, { of: 'height' })])).toEqual([]);
});
