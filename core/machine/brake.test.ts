import fc from 'fast-check';
import { spread } from '../measure/spread.arbitrary';
import type { Vec } from '../measure/vector';
import { placeIn } from '../blank/fold/order/contact';
import type { Brake, Part } from './brake';
import { sectionOf, thickestAt } from './brake';

test('the thickest sheet at a length is what is said for that length or a longer one', () => {
  const thickest = [
    { lengthMm: 600, thicknessMm: 2 },
    { lengthMm: 1250, thicknessMm: 1.5 },
  ];
  expect([100, 600, 601, 1250, 3000].map((long) => thickestAt({ thickest }, long))).toEqual([
    2, 2, 1.5, 1.5, 1.5,
  ]);
  expect(thickestAt({ thickest: [...thickest].reverse() }, 601)).toBe(1.5);
  expect(thickestAt({}, 100)).toBeNull();
});

test('a plate in section runs through a part where sampled points of it do', () => {
  const square: Vec[] = [
    [0, 0],
    [10, 0],
    [10, 10],
    [0, 10],
  ];
  const place = fc.tuple(spread(-15, 25), spread(-15, 25));
  fc.assert(
    fc.property(place, place, (from, to) => {
      const found = placeIn(square, from, to, 0);
      const long = Math.hypot(to[0] - from[0], to[1] - from[1]);
      const inside = Array.from({ length: 2001 }, (_, i) => i / 2000).filter((t) => {
        const [x, y] = [from[0] + (to[0] - from[0]) * t, from[1] + (to[1] - from[1]) * t];
        return x > 0.05 && x < 9.95 && y > 0.05 && y < 9.95;
      }).length;
      expect(Math.abs((found?.longMm ?? 0) - (inside / 2001) * long)).toBeLessThan(
        0.2 + long / 900,
      );
    }),
  );
  // Lying on it with half its thickness it only touches.
  expect(placeIn(square, [-5, 10.5], [15, 10.5], 1)).toBeNull();
});

const inPart = ({ section }: Part, [x, z]: Vec): boolean =>
  section.every(([x1, z1], i) => {
    const [x2, z2] = section[(i + 1) % section.length]!;
    return (x2 - x1) * (z - z1) - (z2 - z1) * (x - x1) >= 0;
  });
const partsOf = (brake: Brake): Part[] => {
  const found = sectionOf(brake, 1);
  if (!found.ok) throw new Error(JSON.stringify(found));
  return found.parts;
};

test('a front given point by point is filled as it is drawn, and a straight one is the same either way', () => {
  const plain: Brake = {
    lengthMm: 1000,
    openMm: 40,
    noseHeightMm: 100,
    noseDepthMm: 60,
    noseRakeDeg: 20,
    noseRadiusMm: 1,
    apronMm: 15,
    fingersMm: null,
  };
  const back = Math.tan((20 * Math.PI) / 180) * 100;
  const pointed = { ...plain, noseMm: [[back, 100]] as [number, number][] };
  // Cut back to 30 at 25 up, out again to 8 at 50, then straight.
  const goose = {
    ...plain,
    noseMm: [
      [30, 25],
      [8, 50],
    ] as [number, number][],
  };
  const front = (z: number) => (z <= 25 ? (30 * z) / 25 : z <= 50 ? 30 - (22 * (z - 25)) / 25 : 8);
  const [a, b, c] = [partsOf(plain), partsOf(pointed), partsOf(goose)];
  fc.assert(
    fc.property(spread(-90, 30), spread(-60, 140), (x, z) => {
      const is = (parts: Part[]) =>
        parts.filter((part) => inPart(part, [x, z])).map(({ name }) => name)[0] ?? null;
      expect(is(b)).toBe(is(a));
      if (z > 0.01 && z < 99.99 && Math.abs(x + front(z)) > 0.01)
        expect(is(c)).toBe(x < -front(z) && x > -60 ? 'bar' : null);
    }),
  );
  for (const noseMm of [
    [[70, 20]],
    [
      [10, 50],
      [20, 50],
    ],
    [[10, 120]],
  ] as [number, number][][])
    expect(sectionOf({ ...plain, noseMm }, 1)).toMatchObject({
      ok: false,
      problems: [{ code: 'machine-figures', about: ['noseMm'] }],
    });
});
