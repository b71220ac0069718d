import fc from 'fast-check';
import { frustum } from '../../card/shape/cone';
import { countingIds } from '../../card/kinds';
import { outlineOf, segmentsOfEdge } from '../../card/outline';
import type { Flange } from '../../card/pattern';
import { area } from '../../measure/path';
import { runLength } from '../../measure/run';
import type { Segment } from '../../measure/segment';
import { arcOf, line, segmentLength } from '../../measure/segment';
import { spread } from '../../measure/spread.arbitrary';
import { metalById } from '../../metal/metals';
import { flangeAllowance } from '../fold/flange';
import { DEFAULT_SHOP, sheetMetal } from '../fold/practice';
import { radiiAlong, separateFlangeOf } from './separateFlange';
import { stripCard } from './stripCard';

const SHEET = sheetMetal(metalById('dc04'), 0.8, DEFAULT_SHOP);
const LIP: Flange = {
  card: 'fold',
  widthMm: 20,
  endWidthMm: null,
  turnDeg: 60,
  toward: 'face',
  radiusMm: null,
  how: 'lip',
  landMm: 12,
};

function laid(run: readonly Segment[], flange: Flange) {
  const found = flangeAllowance(flange, SHEET);
  if (!found.ok) throw new Error(JSON.stringify(found.problems));
  const strip = separateFlangeOf(run, found.flange, 12)!;
  const card = stripCard(strip, flange, countingIds('s'));
  return { strip, card, weld: segmentsOfEdge(card, card.edges[0]!) };
}

test('round a disc a lip is the unrolled frustum: as large, with its weld on the circle of its larger or smaller end', () => {
  fc.assert(
    fc.property(
      spread(60, 300),
      spread(10, 40),
      fc.oneof(spread(15, 80), spread(100, 150)),
      fc.boolean(),
      (radius, widthMm, turnDeg, hollow) => {
        // All round but for a slit, which the card of a whole circle has nowhere to begin.
        const half = (to: number): Segment => ({
          a: to > 0 ? [radius, 0] : [-radius, 0],
          b: to > 0 ? [-radius, 0] : [radius, 0],
          bulge: 1,
        });
        const round = [half(1), half(-1)];
        const run = hollow
          ? round.map(({ a, b }): Segment => ({ a: b, b: a, bulge: -1 })).reverse()
          : round;
        const cos = Math.cos((turnDeg * Math.PI) / 180);
        // The free edge of the lip in space: outward of a disc, inward of a hole.
        const rim = radius + (hollow ? -1 : 1) * widthMm * cos;
        if (rim < 5) return;
        const { card, weld } = laid(run, { ...LIP, widthMm, turnDeg });
        const high = widthMm * Math.sin((turnDeg * Math.PI) / 180);
        const cone = frustum(2 * Math.max(radius, rim), 2 * Math.min(radius, rim), high);
        if (!cone.ok) throw new Error(JSON.stringify(cone));
        const own = rim > radius ? cone.innerRadiusMm : cone.outerRadiusMm;
        for (const s of weld) expect(arcOf(s).radius).toBeCloseTo(own, 5);
        expect(runLength(weld)).toBeCloseTo(2 * Math.PI * radius, 6);
        expect(area(outlineOf(card).path)).toBeCloseTo(Math.PI * (radius + rim) * widthMm, 4);
      },
    ),
  );
});

/** Runs of lines and arcs that go smoothly on. */
const runs = fc
  .array(fc.record({ long: spread(20, 150), turn: fc.oneof(fc.constant(0), spread(-1.2, 1.2)) }), {
    minLength: 1,
    maxLength: 4,
  })
  .map((parts) => {
    let [x, y, heading] = [0, 0, 0];
    return parts.map(({ long, turn }): Segment => {
      const chord = turn === 0 ? long : (2 * long * Math.sin(turn / 2)) / turn;
      const a: [number, number] = [x, y];
      [x, y] = [x + chord * Math.cos(heading + turn / 2), y + chord * Math.sin(heading + turn / 2)];
      heading += turn;
      return { a, b: [x, y], bulge: Math.tan(turn / 4) };
    });
  });

test('along any smooth run the weld keeps its length, and the free rim is as long as it is in space: 1 − κh·cos A of each part', () => {
  fc.assert(
    fc.property(runs, spread(8, 15), spread(20, 150), (run, widthMm, turnDeg) => {
      const { strip, card, weld } = laid(run, { ...LIP, widthMm, turnDeg });
      if (strip.kind !== 'lip') throw new Error('no lip');
      expect(runLength(weld)).toBeCloseTo(runLength(run), 6);
      const cos = Math.cos((turnDeg * Math.PI) / 180);
      const inSpace = run.reduce(
        (sum, s) => sum + segmentLength(s) + 4 * Math.atan(s.bulge) * widthMm * cos,
        0,
      );
      // The weld, an end, the rim.
      expect(runLength(segmentsOfEdge(card, card.edges[2]!))).toBeCloseTo(inSpace, 4);
    }),
  );
});

test('square to the panel it is a straight strip; two radii are told as two, one as one', () => {
  const arch: Segment = { a: [0, 0], b: [200, 0], bulge: -0.4 };
  expect(
    radiiAlong((laid([arch], { ...LIP, turnDeg: 90 }).strip as { weld: Segment[] }).weld),
  ).toEqual([null]);
  const run: Segment[] = [line([0, 0], [100, 0]), { a: [100, 0], b: [200, 0], bulge: 0.2 }];
  const { strip } = laid(run, LIP);
  expect(strip.kind === 'lip' && radiiAlong(strip.weld)).toEqual([
    expect.closeTo(arcOf(run[1]!).radius * 2, 6),
    null,
  ]);
});

test('turned in from the rim of the card, the strip is as long as the line it is welded to', () => {
  const disc: Segment = { a: [100, 0], b: [-100, 0], bulge: 1 };
  const { strip } = laid([disc], { ...LIP, card: 'free', turnDeg: 90 });
  expect(strip.lengthMm).toBeCloseTo(Math.PI * 80, 6);
});
