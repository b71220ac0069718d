import fc from 'fast-check';
import { area, box } from '../measure/path';
import { spread } from '../measure/spread.arbitrary';
import type { Vec } from '../measure/vector';
import { checkingStripOf } from '../sheet/checkingStrip';
import { checkCard } from './check';
import { contourSide } from './contourSide';
import { emptyPattern } from './emptyPattern';
import { countingIds } from './kinds';
import { outlineFromPoints } from './legs';
import { edgeLength, outlineOf, patternParts } from './outline';
import type { Ordinate } from './profile';
import { profileOf } from './profile';

const drops = fc.array(spread(0, 18), { minLength: 3, maxLength: 9 });
const contourOf = (list: readonly number[], longMm: number): Ordinate[] =>
  list.map((drop, i) => [
    (i * longMm) / (list.length - 1),
    i === 0 || i === list.length - 1 ? 0 : drop,
  ]);

test('a side that becomes a contour takes its area along, out or in, turned however; the edge stays one and its ends stay', () => {
  fc.assert(
    fc.property(
      drops,
      spread(0, 6),
      fc.constantFrom<'out' | 'in'>('out', 'in'),
      (list, turn, way) => {
        const corners: Vec[] = [
          [0, 0],
          [300, 0],
          [320, 200],
          [-10, 210],
        ];
        const turned = corners.map(([x, y]): Vec => [
          x * Math.cos(turn) - y * Math.sin(turn),
          x * Math.sin(turn) + y * Math.cos(turn),
        ]);
        const built = outlineFromPoints(turned);
        const profile = profileOf(contourOf(list, 300), 0.3);
        if (!built.ok || !profile.ok) throw new Error('not built');
        const doc = { ...emptyPattern(), ...patternParts(built.path, countingIds('s')) };
        // Whichever way the outline was begun, the side of 300.
        const side = doc.sides.find(
          (_, i) => Math.abs(Math.hypot(...minus(outlineOf(doc).path[i]!)) - 300) < 1e-6,
        )!;
        const found = contourSide(doc, side.id, profile.arcs, way, countingIds('n'));
        if (!found.ok) throw new Error(JSON.stringify(found));
        // The area between the straight edge and the contour, by going round both.
        const last = profile.arcs.at(-1)!.b;
        const under = area([...profile.arcs, { a: last, b: [0, 0], bulge: 0 }]);
        const grown = area(outlineOf(found.doc).path) - area(outlineOf(doc).path);
        expect(grown).toBeCloseTo(way === 'out' ? under : -under, 5);
        expect(found.doc.edges).toHaveLength(doc.edges.length);
        expect(found.doc.corners.slice(0, 1)).toEqual(doc.corners.slice(0, 1));
        const edge = found.doc.edges.find(({ sides }) => sides.includes(side.id))!;
        const along = profile.arcs.reduce((sum, s) => sum + edgeLengthOf(s), 0);
        expect(edgeLength(found.doc, edge)).toBeCloseTo(along, 6);
        expect(checkCard(found.doc).filter(({ severity }) => severity === 'stop')).toEqual([]);
      },
    ),
    { numRuns: 60 },
  );
});
const minus = ({ a, b }: { a: Vec; b: Vec }) => [b[0] - a[0], b[1] - a[1]] as const;
const edgeLengthOf = ({ a, b, bulge }: { a: Vec; b: Vec; bulge: number }) => {
  const chord = Math.hypot(b[0] - a[0], b[1] - a[1]);
  // Length of an arc by its chord and the angle it turns by, 4·atan(bulge).
  const half = 2 * Math.atan(Math.abs(bulge));
  return half < 1e-9 ? chord : (chord * half) / Math.sin(half);
};

test('a side of another length is refused', () => {
  const built = outlineFromPoints([
    [0, 0],
    [250, 0],
    [250, 90],
    [0, 90],
  ]);
  const profile = profileOf(
    [
      [0, 0],
      [100, 8],
      [300, 0],
    ],
    0.3,
  );
  if (!built.ok || !profile.ok) throw new Error('not built');
  const doc = { ...emptyPattern(), ...patternParts(built.path, countingIds('s')) };
  expect(contourSide(doc, doc.sides[0]!.id, profile.arcs, 'out', countingIds('n'))).toMatchObject({
    ok: false,
    problems: [{ code: 'contour-length', numbers: { contourMm: 300, sideMm: 250 } }],
  });
});

test('strips: hollow and full share their contour and make a rectangle together; both go round once, counter-clockwise', () => {
  fc.assert(
    fc.property(drops, spread(60, 900), (list, longMm) => {
      const profile = {
        id: 'p',
        name: 'Lip',
        ordinates: contourOf(list, longMm).map(([s, d]): [number, number] => [s, d + 3]),
        toleranceMm: 0.3,
      };
      const [hollow, full] = [checkingStripOf(profile, 'hollow'), checkingStripOf(profile, 'full')];
      if (!hollow.ok || !full.ok) throw new Error('no strip');
      const [over, under] = [hollow.layers.cut, full.layers.cut];
      const [a, b] = [box(over), box(under)];
      expect(area(over)).toBeGreaterThan(0);
      expect(area(under)).toBeGreaterThan(0);
      // However the contour hangs over at its ends.
      const whole = longMm * (a.maxY - b.minY);
      expect(area(over) + area(under)).toBeCloseTo(whole, 4);
      expect(hollow.layers.scribe).toHaveLength(list.length);
      for (const { labels } of [hollow, full]) {
        expect(labels[0]!.text).toBe('1');
        expect(labels.at(-2)!.text).toBe(String(list.length));
      }
    }),
    { numRuns: 40 },
  );
});
