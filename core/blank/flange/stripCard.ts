import { cardOfShape } from '../../card/shape/figures';
import type { NewId } from '../../card/kinds';
import type { Flange, PatternDoc } from '../../card/pattern';
import { widthsOf } from '../../card/flangeWidths';
import { closedPath } from '../../measure/path';
import type { Ramp } from '../../measure/ramp';
import { rampBack, ramped } from '../../measure/ramp';
import { besideRun } from '../../measure/run';
import type { Segment } from '../../measure/segment';
import { line, reversed } from '../../measure/segment';
import { SAME_PLACE_MM } from '../../measure/tolerance';
import type { Vec } from '../../measure/vector';
import { distance } from '../../measure/vector';
import type { SeparateFlange } from './separateFlange';

/**
 * A flange that is made apart as a card of its own: an angle with its fold, measured over its
 * outsides, or a lip that is welded on along its first edge. The face that is up is that of the
 * panel, the flange stands off upward on the sheet, so the start of the panel’s edge is on the
 * right.
 */
export function stripCard(strip: SeparateFlange, flange: Flange, newId: NewId): PatternDoc {
  const { lengthMm: long } = strip;
  if (strip.kind === 'lip') {
    const { path, runs } = lip(strip.weld, strip.widths);
    const card = cardOfShape({ path, runs, holes: [], folds: [], marks: [] }, newId);
    // Welded to the panel along the side that follows its edge.
    return {
      ...card,
      edges: card.edges.map((edge, i) =>
        i === 0 ? { ...edge, joint: { kind: 'butt', trimMm: 0 } } : edge,
      ),
    };
  }
  const { landMm, turnDeg, toward, radiusMm } = flange;
  const fold = { from: [0, landMm] as Vec, to: [long, landMm] as Vec, angleDeg: turnDeg, toward };
  const path = sheet(
    long,
    ramped(widthsOf(flange), (mm) => landMm + mm),
  );
  const card = cardOfShape(
    { path, runs: [1, 1, path.length - 3, 1], holes: [], folds: [fold], marks: [] },
    newId,
  );
  return { ...card, folds: card.folds.map((one) => ({ ...one, radiusMm })) };
}

/**
 * A strip of length `long` and widths `widths`, mm, from the panel’s start of it (right) to its
 * end.
 */
const sheet = (long: number, widths: Ramp) =>
  closedPath([[0, 0], [long, 0], ...widths.map(([share, mm]): Vec => [long * (1 - share), mm])]);

/**
 * A strip along a weld, of widths `widths` on its left, mm; how many sides make the weld, an end,
 * the free rim, and the other end.
 */
function lip(weld: readonly Segment[], widths: Ramp): { path: Segment[]; runs: number[] } {
  const beside = besideRun(
    weld,
    ramped(rampBack(widths), (mm) => -mm),
  );
  // Where the weld turns at a corner the rim is led straight over it.
  const rim = beside.flatMap((s, i): Segment[] => {
    const before = beside[i - 1];
    return before && distance(before.b, s.a) > SAME_PLACE_MM ? [line(before.b, s.a), s] : [s];
  });
  const [start, end] = [weld[0]!.a, weld[weld.length - 1]!.b];
  const back = [...rim].reverse().map(reversed);
  const path = [...weld, line(end, back[0]!.a), ...back, line(back[back.length - 1]!.b, start)];
  return { path, runs: [weld.length, 1, back.length, 1] };
}
