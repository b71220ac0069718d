import fc from 'fast-check';
import { closedPath } from '../measure/path';
import { pointAlong } from '../measure/run';
import { spread } from '../measure/spread.arbitrary';
import { distance } from '../measure/vector';
import { atGap, exitsOf } from './beadExits';
import { beadLine } from './beadPath';
import { emptyPattern } from './emptyPattern';
import { countingIds } from './kinds';
import { edgeLength, patternParts, segmentsOfEdge } from './outline';
import type { Bead, PatternDoc } from './pattern';

const bead = (path: Bead['path']): Bead => ({
  id: 'b',
  path,
  section: { kind: 'arc', widthMm: 10, heightMm: 2 },
  toward: 'face',
  drawsIn: null,
  acrossRadiusMm: null,
  acrossOn: null,
  atFolds: null,
  meets: null,
});
const plate = (long: number, high: number): PatternDoc => ({
  ...emptyPattern(),
  ...patternParts(
    closedPath([
      [0, 0],
      [long, 0],
      [long, high],
      [0, high],
    ]),
    countingIds('p'),
  ),
});
const edgeWith = (doc: PatternDoc, side: number) =>
  doc.edges.find(({ sides }) => sides.includes(doc.sides[side]!.id))!;

test('a bead along an edge leaves by both neighbours, as far along them as it lies in; a place told is the place where it ends', () => {
  fc.assert(
    fc.property(
      spread(80, 400),
      spread(60, 200),
      spread(5, 50),
      fc.constantFrom(0, 12),
      (long, high, inMm, endMm) => {
        const doc = plate(long, high);
        const one = bead({ kind: 'along', edge: edgeWith(doc, 0).id, inMm, startMm: 0, endMm });
        const exits = exitsOf(doc, one);
        expect(exits).toHaveLength(endMm === 0 ? 2 : 1);
        // Up the left side from its end, up the right side from its start.
        expect(exits[0]!.endMm).toBeCloseTo(inMm, 6);
        if (endMm === 0) expect(exits[1]!.startMm).toBeCloseTo(inMm, 6);
        const { run } = beadLine(doc, one)!;
        exits.forEach((exit, i) => {
          const edge = doc.edges.find(({ id }) => id === exit.edge)!;
          expect(exit.startMm + exit.endMm).toBeCloseTo(edgeLength(doc, edge), 6);
          const p = i === 0 ? run[0]!.a : run.at(-1)!.b;
          expect(distance(pointAlong(segmentsOfEdge(doc, edge), exit.startMm)!, p)).toBeLessThan(
            1e-6,
          );
        });
      },
    ),
  );
});

test('across a gap it is told how far two are apart: higher on the right plate by a length is off by it from either end', () => {
  fc.assert(
    fc.property(
      spread(80, 300),
      spread(60, 150),
      spread(10, 40),
      spread(-5, 5),
      (long, high, inMm, off) => {
        const [left, right] = [plate(long, high), plate(long / 2, high)];
        const of = (doc: PatternDoc, mm: number) =>
          exitsOf(
            doc,
            bead({ kind: 'along', edge: edgeWith(doc, 0).id, inMm: mm, startMm: 0, endMm: 0 }),
          );
        const found = atGap(of(left, inMm), of(right, inMm + off))!;
        expect(Math.abs(found.fromStartMm)).toBeCloseTo(Math.abs(off), 6);
        expect(found.fromStartMm).toBeCloseTo(-found.fromEndMm, 6);
      },
    ),
  );
  expect(atGap([], [])).toBeNull();
});
