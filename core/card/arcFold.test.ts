import fc from 'fast-check';
import { alongFlange } from '../blank/flange/along';
import { develop } from '../blank/fold/develop';
import type { Development } from '../blank/fold/developed';
import { DEFAULT_SHOP, sheetMetal } from '../blank/fold/practice';
import { closedPath } from '../measure/path';
import { spread } from '../measure/spread.arbitrary';
import type { Vec } from '../measure/vector';
import { distance } from '../measure/vector';
import { metalById } from '../metal/metals';
import { flangeAlongArc } from './arcFold';
import { emptyPattern } from './emptyPattern';
import { countingIds } from './kinds';
import { mirrored } from './mirror';
import { patternParts, segmentsOfEdge, spotNearest } from './outline';
import type { PatternDoc } from './pattern';
import { widthsOf } from './flangeWidths';
import { readPattern } from './read';
import { rampAt } from '../measure/ramp';

const SHEET = sheetMetal(metalById('dc04'), 0.8, DEFAULT_SHOP);

/**
 * A plate of length `long` whose upper part is to be turned: a straight fold at a height, the rim
 * above it through some points.
 */
function plate(
  long: number,
  rim: readonly Vec[],
  foldAt: number,
): { doc: PatternDoc; fold: string } {
  const doc: PatternDoc = {
    ...emptyPattern(),
    ...patternParts(closedPath([[0, 0], [long, 0], ...rim]), countingIds('p')),
  };
  const at = (p: Vec) => {
    const { side, at: share } = spotNearest(doc, p)!.spot;
    return { side, share };
  };
  const fold = {
    id: 'turn',
    path: { kind: 'between' as const, from: at([0, foldAt]), to: at([long, foldAt]) },
    angleDeg: 90,
    toward: 'face' as const,
    radiusMm: null,
    convention: 'outside-sharp' as const,
  };
  return { doc: { ...doc, folds: [fold], base: [long / 2, 5] }, fold: fold.id };
}

function blank(doc: PatternDoc): Development {
  const found = develop(doc, SHEET, DEFAULT_SHOP);
  if (!found.ok) throw new Error(JSON.stringify(found.problems));
  return found.development;
}

/** The middle and radius of an arc over a chord at a height, of rise `rise` (below 0: sinking). */
function circle(long: number, foldAt: number, rise: number) {
  const radius = (long ** 2 / 4 + rise ** 2) / (2 * Math.abs(rise));
  return { radius, middle: [long / 2, foldAt + rise - Math.sign(rise) * radius] as Vec };
}

/** As far in from its ends as a flange is clipped there, mm. */
const END_MM = 75;
const figures = fc.record({
  long: spread(260, 500),
  foldAt: spread(60, 120),
  wide: spread(36, 46),
  lean: spread(-8, 8),
  rise: fc.oneof(spread(4, 18), spread(-18, -4)),
});

test('a straight rim over an arc: the flange is as wide everywhere as the rim is off the circle, and the blank reaches there less the bend’s deduction', () => {
  fc.assert(
    fc.property(figures, ({ long, foldAt, wide, lean, rise }) => {
      const top = (x: number) => foldAt + wide + (lean * x) / long;
      const { doc, fold } = plate(
        long,
        [
          [long, top(long)],
          [0, top(0)],
        ],
        foldAt,
      );
      const found = flangeAlongArc(doc, fold, rise, countingIds('n'));
      if (!found.ok) throw new Error(JSON.stringify(found.problems));
      expect(readPattern(structuredClone(found.doc)).ok).toBe(true);
      expect(found.doc.folds).toEqual([]);
      const edge = found.doc.edges.find(({ id }) => id === found.edge)!;
      const run = segmentsOfEdge(found.doc, edge);
      const { radius, middle } = circle(long, foldAt, rise);
      for (const { a } of run) expect(distance(a, middle)).toBeCloseTo(radius, 4);
      const d = blank(found.doc);
      const { flange } = d.edges.find(({ id }) => id === found.edge)!.allowance;
      // On each ray square to the arc, from its middle: where the rim of the card is, in closed
      // form.
      const cut = d.edges.find(({ id }) => id === found.edge)!.cut;
      const bowedOut = rise > 0 ? 1 : -1;
      let seen = 0;
      for (const { a: p } of cut) {
        const off = distance(p, middle);
        const way: Vec = [
          (bowedOut * (p[0] - middle[0])) / off,
          (bowedOut * (p[1] - middle[1])) / off,
        ];
        const foot: Vec = [
          middle[0] + bowedOut * radius * way[0],
          middle[1] + bowedOut * radius * way[1],
        ];
        // Near its ends it is clipped, so that it does not foul its neighbours.
        if (foot[0] < END_MM || foot[0] > long - END_MM) continue;
        // foot + w·way lies on the straight rim.
        const w = (top(foot[0]) - foot[1]) / (way[1] - (lean / long) * way[0]);
        const reach = (p[0] - foot[0]) * way[0] + (p[1] - foot[1]) * way[1];
        // Rays that leave past the end of the rim are as wide as beside them.
        if (foot[0] + w * way[0] < 0 || foot[0] + w * way[0] > long) continue;
        expect(Math.abs(reach - (w - flange!.deductionMm))).toBeLessThan(found.offMm + 0.25);
        seen++;
      }
      expect(seen).toBeGreaterThan(0);
      expect(found.offMm).toBeLessThan(0.2);
      // Bowed toward what turns it is shrunk, hollow it is stretched.
      const along = alongFlange(run, flange!, 0);
      expect(rise > 0 ? along.mostShrink : along.mostStretch).not.toBe(0);
      expect(rise > 0 ? along.mostStretch : along.mostShrink).toBeCloseTo(0, 1);
    }),
    { numRuns: 60 },
  );
});

test('turned over, and with the rim in several parts and its ends leaning, it is the same flange the other way round', () => {
  fc.assert(
    fc.property(figures, spread(4, 20), ({ long, foldAt, wide, rise }, lean) => {
      const { doc, fold } = plate(
        long,
        [
          [long, foldAt + 6],
          [long - lean, foldAt + wide],
          [long / 3, foldAt + wide + 7],
          [lean, foldAt + wide],
        ],
        foldAt,
      );
      const [one, other] = [doc, mirrored(doc)].map((card) =>
        flangeAlongArc(card, fold, rise, countingIds('n')),
      );
      if (!one!.ok || !other!.ok) throw new Error(JSON.stringify([one, other]));
      const flanges = [one!, other!].map((found) =>
        widthsOf(found.doc.edges.find(({ id }) => id === found.edge)!.flange!),
      );
      for (let share = 0; share <= 1; share += 1 / 16)
        expect(rampAt(flanges[0]!, share)).toBeCloseTo(rampAt(flanges[1]!, 1 - share), 1);
      const turned = mirrored(one!.doc).edges.find(({ id }) => id === one!.edge)!.flange!;
      for (let share = 0; share <= 1; share += 1 / 16)
        expect(rampAt(widthsOf(turned), share)).toBeCloseTo(rampAt(flanges[0]!, 1 - share), 6);
    }),
    { numRuns: 40 },
  );
});

test('what cannot be is told by its cause, and nothing is lost silently', () => {
  const { doc, fold } = plate(
    300,
    [
      [300, 130],
      [0, 130],
    ],
    90,
  );
  const code = (card: PatternDoc, rise: number) => {
    const found = flangeAlongArc(card, fold, rise, countingIds('n'));
    return found.ok ? 'ok' : found.problems[0]!.code;
  };
  expect(code(doc, 0)).toBe('arc-fold-rise');
  expect(code(doc, 160)).toBe('arc-fold-rise');
  expect(code(doc, 45)).toBe('arc-fold-leaves');
  expect(code(doc, -95)).toBe('arc-fold-leaves');
  expect(code(doc, NaN)).toBe('arc-fold-rise');
  expect(code({ ...doc, folds: [{ ...doc.folds[0]!, convention: 'inside-sharp' }] }, 8)).toBe(
    'arc-fold-made',
  );
  expect(code({ ...doc, holes: [{ id: 'h', x: 150, y: 120, diameterMm: 6 }] }, 8)).toBe(
    'arc-fold-holds',
  );
  expect(code({ ...doc, holes: [{ id: 'h', x: 150, y: 60, diameterMm: 6 }] }, 8)).toBe('ok');
  // Between the chord and the arc: on the panel where it bows out, on the flange where it bows in.
  expect(code({ ...doc, holes: [{ id: 'h', x: 150, y: 92, diameterMm: 2 }] }, 12)).toBe('ok');
  expect(code({ ...doc, holes: [{ id: 'h', x: 150, y: 88, diameterMm: 2 }] }, -12)).toBe(
    'arc-fold-holds',
  );
  const along = {
    id: 'b',
    path: {
      kind: 'along' as const,
      edge: doc.edges.find(({ sides }) => sides.includes(doc.sides[2]!.id))!.id,
      inMm: 8,
      startMm: 0,
      endMm: 0,
    },
    section: { kind: 'v' as const, widthMm: 6, heightMm: 2 },
    toward: 'face' as const,
    drawsIn: null,
    acrossRadiusMm: null,
    acrossOn: null,
    atFolds: null,
    meets: null,
  };
  expect(code({ ...doc, beads: [along] }, 8)).toBe('arc-fold-holds');
  expect(
    code(
      {
        ...doc,
        tucks: [
          {
            id: 't',
            kind: 'tuck',
            at: { side: doc.sides[2]!.id, share: 0.5 },
            widthMm: 2,
            depthMm: 9,
          },
        ],
      },
      8,
    ),
  ).toBe('arc-fold-holds');
  expect(code({ ...doc, folds: [] }, 8)).toBe('fold-off-outline');
  const pointed = plate(
    300,
    [
      [300, 90.5],
      [150, 260],
      [0, 90.5],
    ],
    90,
  );
  expect(flangeAlongArc(pointed.doc, pointed.fold, 8, countingIds('n'))).toMatchObject({
    ok: false,
    problems: [{ code: 'arc-fold-rim' }],
  });
});
