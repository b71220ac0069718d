import fc from 'fast-check';
import { emptyPattern } from '../../card/emptyPattern';
import { countingIds } from '../../card/kinds';
import { patternParts } from '../../card/outline';
import type { Bead, Flange, PatternDoc } from '../../card/pattern';
import { runLength } from '../../measure/run';
import { arcOf, flattened } from '../../measure/segment';
import { spread } from '../../measure/spread.arbitrary';
import type { Vec } from '../../measure/vector';
import { metalById } from '../../metal/metals';
import { alongFlange, remediesOf } from '../flange/along';
import { separateFlangeOf } from '../flange/separateFlange';
import { stripCard } from '../flange/stripCard';
import { sectionPath } from '../bead/section';
import { develop } from './develop';
import { sectionOf } from './beads';
import { DEFAULT_SHOP, sheetMetal } from './practice';

const sheet = sheetMetal(metalById('dc04'), 0.8, DEFAULT_SHOP);
const FLANGE: Flange = {
  card: 'fold',
  widthMm: 15,
  endWidthMm: null,
  turnDeg: 90,
  toward: 'face',
  radiusMm: null,
  how: 'tipped',
  landMm: 12,
};
const BEAD: Omit<Bead, 'id'> = {
  path: { kind: 'between', from: [100, 0], to: [100, 60], bulge: 0 },
  section: { kind: 'arc', widthMm: 12, heightMm: 3 },
  toward: 'face',
  drawsIn: 0.6,
  acrossRadiusMm: null,
  acrossOn: null,
  atFolds: null,
  meets: null,
};

const closed = (corners: readonly Vec[], bulges: Record<number, number> = {}): PatternDoc => {
  const path = corners.map((a, i) => ({
    a,
    b: corners[(i + 1) % corners.length]!,
    bulge: bulges[i] ?? 0,
  }));
  return { ...emptyPattern(), ...patternParts(path, countingIds()) };
};
const rectangle = (wide: number, high: number) =>
  closed([
    [0, 0],
    [wide, 0],
    [wide, high],
    [0, high],
  ]);
const blank = (doc: PatternDoc) => {
  const found = develop(doc, sheet, DEFAULT_SHOP);
  if (!found.ok) throw new Error(JSON.stringify(found.problems));
  return found.development;
};
const withFlange = (doc: PatternDoc, edge: number, flange: Flange): PatternDoc => ({
  ...doc,
  edges: doc.edges.map((one, i) => (i === edge ? { ...one, flange } : one)),
});
/** A plate with an arch cut out of its lower side: half a circle of the radius. */
const arch = (radius: number): PatternDoc =>
  closed(
    [
      [-radius - 80, 0],
      [-radius, 0],
      [radius, 0],
      [radius + 80, 0],
      [radius + 80, radius + 90],
      [-radius - 80, radius + 90],
    ],
    { 1: -1 },
  );

describe('flanges on the blank', () => {
  test('a flange on a straight edge takes as much metal as the same one drawn on the card and folded', () => {
    fc.assert(
      fc.property(spread(8, 40), spread(20, 150), spread(0, 4), (width, turnDeg, radiusMm) => {
        const folded = rectangle(200, 60 + width);
        const fold = {
          id: 'f',
          path: { kind: 'along', side: folded.sides[2]!.id, inMm: width },
          angleDeg: turnDeg,
          toward: 'face',
          radiusMm,
          convention: 'outside-sharp',
        } as const;
        const by = blank({ ...folded, folds: [fold], base: [100, 10] });
        const flanged = (card: Flange['card'], high: number) =>
          blank(
            withFlange(rectangle(200, high), 2, {
              ...FLANGE,
              card,
              widthMm: width,
              turnDeg,
              radiusMm,
            }),
          );
        expect(flanged('fold', 60).size.heightMm).toBeCloseTo(by.size.heightMm, 9);
        expect(flanged('free', 60 + width).size.heightMm).toBeCloseTo(by.size.heightMm, 9);
        // The same tangents to scribe.
        const across = by.lines.filter((l) => l.role === 'tangent').map((l) => l.path[0]!.a[1]);
        for (const d of [flanged('fold', 60), flanged('free', 60 + width)])
          expect(d.lines.filter((l) => l.role === 'turn').map((l) => l.path[0]!.a[1])).toEqual(
            across.map((y) => expect.closeTo(y, 9)),
          );
      }),
      { numRuns: 60 },
    );
  });

  test('along an arc the free edge lies on an arc about the same middle; tapered, as far off as its width there', () => {
    fc.assert(
      fc.property(spread(60, 400), spread(8, 25), spread(8, 25), (radius, start, end) => {
        const doc = arch(radius);
        const edge = doc.edges.findIndex((e) => e.sides.includes(doc.sides[1]!.id));
        const even = blank(withFlange(doc, edge, { ...FLANGE, widthMm: start }));
        const { deductionMm } = even.edges[edge]!.allowance.flange!;
        for (const s of even.edges[edge]!.cut)
          expect(arcOf(s).radius).toBeCloseTo(radius - (start - deductionMm), 6);
        const tapered = blank(
          withFlange(doc, edge, { ...FLANGE, widthMm: start, endWidthMm: end }),
        );
        for (const s of tapered.edges[edge]!.cut.slice(2, -2))
          for (const [x, y] of flattened(s)) {
            // Share of the arch from its start.
            const share = 1 - Math.atan2(y, x) / Math.PI;
            expect(
              Math.abs(radius - Math.hypot(x, y) - (start + (end - start) * share - deductionMm)),
            ).toBeLessThan(0.01);
          }
      }),
      { numRuns: 30 },
    );
  });

  test('a flange on an arc ends square to the edge: rim, table and metal speak of the same', () => {
    // Legs 500/160/500/160, one long edge an arc of R 350 that rises 105.05; flange 60 on 1 mm.
    const radius = 350;
    const half = Math.asin(250 / radius);
    const doc = withFlange(
      closed(
        [
          [0, 0],
          [500, 0],
          [500, 160],
          [0, 160],
        ],
        { 0: Math.tan(half / 2) },
      ),
      0,
      { ...FLANGE, widthMm: 60 },
    );
    const steel = sheetMetal(metalById('dc04'), 1, DEFAULT_SHOP);
    const of = (ends?: Flange['ends']) => {
      const one = {
        ...doc,
        edges: doc.edges.map((e, i) => (i === 0 ? { ...e, flange: { ...e.flange!, ends } } : e)),
      };
      const found = develop(one, steel, DEFAULT_SHOP);
      if (!found.ok) throw new Error(JSON.stringify(found.problems));
      return found.development.edges[0]!;
    };
    const rimDeg = (edge: ReturnType<typeof of>) => {
      const middle = arcOf(edge.net[0]!).centre;
      const beyond = edge.cut.filter(
        (s) => Math.hypot(s.a[0] - middle[0], s.a[1] - middle[1]) > radius + 50,
      );
      const at = (p: Vec) => (Math.atan2(p[0] - middle[0], middle[1] - p[1]) * 180) / Math.PI;
      return [at(beyond[0]!.a), at(beyond[beyond.length - 1]!.b)];
    };
    const square = of();
    expect(square.ends).toEqual({ start: { insetMm: 0, lean: 0 }, end: { insetMm: 0, lean: 0 } });
    const spans = (half * 180) / Math.PI;
    expect(rimDeg(square)).toEqual([expect.closeTo(-spans, 6), expect.closeTo(spans, 6)]);
    const run = square.net;
    const gained = (edge: typeof square) =>
      alongFlange(run, edge.allowance.flange!, 0).stretches.reduce((sum, s) => sum + s.changeMm, 0);
    // Turned square the whole rim comes back to the fold's own length.
    const flat = 60 - square.allowance.flange!.deductionMm;
    expect(gained(square)).toBeCloseTo(-2 * half * flat, 6);
    // Mitred, there is less of it to gather, and nothing to gather at its very ends.
    const mitred = of({ start: { kind: 'mitred', deg: 45 }, end: { kind: 'mitred', deg: 45 } });
    expect(rimDeg(mitred)[1]!).toBeLessThan(spans - 4);
    expect(gained(mitred)).toBeGreaterThan(gained(square) * 0.95);
    expect(Math.abs(gained(mitred))).toBeLessThan(Math.abs(gained(square)));
    const { stations } = alongFlange(run, mitred.allowance.flange!, 0);
    expect(stations[0]).toMatchObject({ widthMm: 0, strain: expect.closeTo(0, 9) as number });
    // Run out over 200 at one end only.
    const out = of({ end: { kind: 'run-out', overMm: 200 } });
    expect(out.ends.end!.lean).toBeCloseTo(200 / flat, 6);
    expect(out.ends.start).toEqual({ insetMm: 0, lean: 0 });
  });

  test('two flanges of unlike widths on one straight run are one metal, stepped', () => {
    const doc = closed([
      [0, 0],
      [100, 0],
      [200, 0],
      [200, 60],
      [0, 60],
    ]);
    const [wide, narrow] = [20, 12];
    const d = blank(
      withFlange(withFlange(doc, 0, { ...FLANGE, widthMm: wide }), 1, {
        ...FLANGE,
        widthMm: narrow,
      }),
    );
    const { deductionMm } = d.edges[0]!.allowance.flange!;
    const step = d.outline.filter(
      ({ segment: { a, b } }) => Math.abs(a[0] - 100) < 1e-6 && Math.abs(b[0] - 100) < 1e-6,
    );
    // One cut from rim to rim, none down to the line and up again.
    expect(step.map(({ segment: { a, b } }) => [a[1], b[1]])).toEqual([
      [expect.closeTo(deductionMm - wide, 6), expect.closeTo(deductionMm - narrow, 6)],
    ]);
  });

  test('stretches of an arch add up to what the whole free edge gains; bows outward shrink', () => {
    fc.assert(
      fc.property(spread(60, 400), spread(8, 25), spread(20, 120), (radius, width, turnDeg) => {
        const doc = arch(radius);
        const flange = blank(withFlange(doc, 1, { ...FLANGE, widthMm: width, turnDeg })).edges[1]!
          .allowance.flange!;
        const run = { a: [-radius, 0], b: [radius, 0], bulge: -1 } as const;
        const inside = alongFlange([run], flange, 0);
        // Half a circle of h(1 − cos A) more radius.
        const gain = inside.stretches.reduce((sum, s) => sum + s.changeMm, 0);
        expect(gain).toBeCloseTo(
          Math.PI * flange.flat[0]![1] * (1 - Math.cos((turnDeg * Math.PI) / 180)),
          6,
        );
        expect(inside.stretches.map(({ kind }) => kind)).toEqual(['stretch']);
        const outside = alongFlange([{ ...run, bulge: 1 }], flange, 0);
        expect(outside.mostShrink).toBeLessThan(0);
      }),
    );
  });

  test('a changing radius is told stretch by stretch, and what is beyond the limit gets cuts that bring it within', () => {
    const flange = blank(withFlange(arch(100), 1, FLANGE)).edges[1]!.allowance.flange!;
    const run = [
      { a: [0, 0], b: [50, 0], bulge: 0 },
      { a: [50, 0], b: [90, 40], bulge: -Math.tan(Math.PI / 8) },
      { a: [90, 40], b: [90, 240], bulge: -0.1 },
    ] as const;
    const along = alongFlange(run, flange, 0);
    expect(along.stretches.map(({ kind }) => kind)).toEqual(['plain', 'stretch', 'stretch']);
    const [, tight, wide] = along.stretches;
    const limit = sheet.forming!.stretch;
    expect(remediesOf(wide!, along, limit)).toBeNull();
    const found = remediesOf(tight!, along, limit)!;
    expect(found.widestMm + found.notches!.deepMm).toBeCloseTo(tight!.worst.widthMm, 9);
    expect(found.notches!.count * found.notches!.opensMm).toBeCloseTo(tight!.changeMm, 9);
    expect(found.openedDeg).toBeLessThan(90);
  });

  test('made apart the panel ends at the line, and the strip is as long as that line', () => {
    for (const how of ['pulled', 'lip'] as const) {
      const d = blank(withFlange(arch(150), 1, { ...FLANGE, how }));
      for (const s of d.edges[1]!.cut) expect(arcOf(s).radius).toBeCloseTo(150, 9);
      const { flange } = d.edges[1]!.allowance;
      expect(separateFlangeOf(d.edges[1]!.net, flange!, 12)).toMatchObject({
        kind: how === 'lip' ? 'lip' : 'angle',
        lengthMm: expect.closeTo(150 * Math.PI, 6),
      });
    }
  });

  test('a strip as a card of its own comes out of the brake as it was told for the flange: so wide at both ends, its fold so far in', () => {
    fc.assert(
      fc.property(
        spread(120, 400),
        spread(10, 30),
        spread(10, 30),
        spread(30, 110),
        spread(10, 25),
        fc.constantFrom('pulled' as const, 'lip' as const),
        (radius, widthMm, endWidthMm, turnDeg, landMm, how) => {
          const made = { ...FLANGE, widthMm, endWidthMm, turnDeg, landMm, how };
          const d = blank(withFlange(arch(radius), 1, made));
          const { flange } = d.edges[1]!.allowance;
          const strip = separateFlangeOf(d.edges[1]!.net, flange!, landMm)!;
          const card = stripCard(strip, made, countingIds('s'));
          if (strip.kind === 'lip' && Math.abs(turnDeg - 90) > 1e-6)
            return expect(card.edges[0]!.joint.kind).toBe('butt');
          const flat = blank(card);
          const corners = flat.outline.map(({ segment }) => segment.a);
          const at = (x: number) =>
            corners.filter((p) => Math.abs(p[0] - x) < 0.5).map((p) => p[1]);
          const wide = (x: number) => Math.max(...at(x)) - Math.min(...at(x));
          // The start of the panel’s edge lies on the right of the strip.
          expect(wide(strip.lengthMm)).toBeCloseTo(strip.widths[0]![1], 1);
          expect(wide(0)).toBeCloseTo(strip.widths.at(-1)![1], 1);
          if (strip.kind === 'angle')
            expect(
              flat.folds[0]!.centre[0]![1] - Math.min(...corners.map((p) => p[1])),
            ).toBeCloseTo(strip.foldInMm, 1);
          else expect(card.edges[0]!.joint.kind).toBe('butt');
        },
      ),
    );
  });
});

describe('beads on the blank', () => {
  test('a bead right across adds its share of what its sampled section is longer than its width', () => {
    const sections: fc.Arbitrary<Bead['section']> = fc.oneof(
      fc.record({
        kind: fc.constant('arc' as const),
        widthMm: spread(8, 20),
        heightMm: spread(0.5, 4),
      }),
      fc.record({
        kind: fc.constant('v' as const),
        widthMm: spread(8, 20),
        heightMm: spread(0.5, 6),
      }),
      fc.record({
        kind: fc.constant('step' as const),
        depthMm: spread(0.5, 5),
        radiusMm: fc.constant(null),
      }),
    );
    fc.assert(
      fc.property(sections, spread(0, 1), spread(20, 180), (section, drawsIn, at) => {
        const bead: Bead = {
          ...BEAD,
          id: 'b',
          section,
          drawsIn,
          path: { kind: 'between', from: [at, 0], to: [at, 60], bulge: 0 },
        };
        const d = blank({
          ...rectangle(200, 60),
          beads: [bead],
          holes: [{ id: 'h', x: 195, y: 30, diameterMm: 4 }],
        });
        const drawn = sectionPath(sectionOf(bead, sheet)).flatMap((s) => [
          ...flattened(s, 1e-7),
          s.b,
        ]);
        let long = 0;
        drawn
          .slice(1)
          .forEach((p, i) => (long += Math.hypot(p[0] - drawn[i]![0], p[1] - drawn[i]![1])));
        const take = long - (drawn.at(-1)![0] - drawn[0]![0]);
        expect(d.size.widthMm).toBeCloseTo(200 + drawsIn * take, 4);
        expect(d.size.heightMm).toBeCloseTo(60, 9);
        // The hole is where it was from the far end, and is drawn back to its place when the bead
        // is rolled.
        const moved = d.holes[0]!.centre[0] - 195;
        expect([0, drawsIn * take].some((mm) => Math.abs(mm - moved) < 1e-3)).toBe(true);
      }),
      { numRuns: 60 },
    );
  });

  test('what test pieces drew in counts for beads right across, and not for one that stops inside', () => {
    const across: Bead = { ...BEAD, id: 'b', drawsIn: null };
    const inside: Bead = {
      ...across,
      id: 'c',
      path: { kind: 'between', from: [40, 30], to: [70, 30], bulge: 0 },
    };
    const found = develop(
      { ...rectangle(200, 60), beads: [across, inside] },
      { ...sheet, drawsIn: 0.5 },
      DEFAULT_SHOP,
    );
    expect(found.ok && found.development.beads.map(({ drawsIn, by }) => [drawsIn, by])).toEqual([
      [0.5, 'shop'],
      [0.2, 'usual'],
    ]);
  });

  test('one that stops inside bulges the edge beside it only', () => {
    const bead: Bead = {
      ...BEAD,
      id: 'b',
      drawsIn: 1,
      path: { kind: 'between', from: [80, 40], to: [120, 40], bulge: 0 },
    };
    const d = blank({ ...rectangle(200, 60), beads: [bead] });
    expect([d.size.widthMm, d.size.heightMm]).toEqual([
      expect.closeTo(200, 9),
      expect.closeTo(60 + 1.909, 3),
    ]);
    const top = d.edges[2]!.net;
    expect([top[0]!.a[1], top.at(-1)!.b[1]]).toEqual([
      expect.closeTo(60, 9),
      expect.closeTo(60, 9),
    ]);
  });

  test('parallel to an edge that is a run of lines and arcs, it keeps its distance; stopped at a fold it leaves the bend alone', () => {
    const doc = arch(120);
    const along: Bead = {
      ...BEAD,
      id: 'b',
      path: { kind: 'along', edge: doc.edges[1]!.id, inMm: 30, startMm: 0, endMm: 0 },
    };
    const d = blank({ ...doc, beads: [{ ...along, drawsIn: 0 }] });
    for (const s of d.beads[0]!.runs[0]!.filter(({ bulge }) => bulge !== 0))
      expect(arcOf(s).radius).toBeCloseTo(150, 6);
    const fold = {
      id: 'f',
      path: { kind: 'along', side: 'p5', inMm: 20 },
      angleDeg: 90,
      toward: 'face',
      radiusMm: null,
      convention: 'outside-sharp',
    } as const;
    const plate = rectangle(200, 60);
    const over = {
      ...plate,
      folds: [{ ...fold, path: { ...fold.path, side: plate.sides[1]!.id, inMm: 60 } }],
    };
    const bead: Bead = {
      ...BEAD,
      id: 'b',
      path: { kind: 'between', from: [0, 30], to: [200, 30], bulge: 0 },
    };
    const through = blank({ ...over, beads: [bead] });
    expect(through.warnings.map(({ code }) => code)).toContain('bead-over-fold');
    expect(through.beads[0]!.runs).toHaveLength(1);
    // From rim to rim of the blank, with the metal of the bend in it.
    expect(runLength(through.beads[0]!.runs[0]!)).toBeCloseTo(through.size.widthMm, 4);
    const stopped = blank({ ...over, beads: [{ ...bead, atFolds: 'stopped' }] });
    expect(stopped.beads[0]!.runs).toHaveLength(2);
    const [near, far] = stopped.folds[0]!.tangents.map(([a]) => a[0]).sort((a, b) => a - b) as [
      number,
      number,
    ];
    const [first, second] = stopped.beads[0]!.runs.map((run) =>
      [run[0]!.a[0], run.at(-1)!.b[0]].sort((a, b) => a - b),
    ).sort((a, b) => a[0]! - b[0]!);
    expect([first![1], second![0]]).toEqual([
      expect.closeTo(near - 12, 6),
      expect.closeTo(far + 12, 6),
    ]);
    expect(stopped.warnings.map(({ code }) => code)).not.toContain('bead-over-fold');
  });
});
