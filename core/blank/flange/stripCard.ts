import { closedPath } from '../../measure/path';
import type { Vec } from '../../measure/vector';
import { cardOfShape } from '../../card/shape/figures';
import type { NewId } from '../../card/kinds';
import type { Flange, PatternDoc } from '../../card/pattern';
import { widthsOf } from '../../card/pattern';
import type { Ramp } from '../../measure/ramp';
import { ramped } from '../../measure/ramp';
import type { FlangeStrip } from './along';

/**
 * A flange that is made apart as a card of its own: an angle with its fold, measured over its outsides, or a lip that is welded on
 * along its first edge. The face that is up is that of the panel, the flange stands off upward on the sheet, so the start of the
 * panel’s edge is on the right. Null for a lip that is part of a flat ring: that is no strip.
 */
export function stripCard(strip: FlangeStrip, flange: Flange, newId: NewId): PatternDoc | null {
  const { lengthMm: long } = strip;
  if (strip.kind === 'lip') {
    if (strip.ringRadiusMm !== null) return null;
    const card = cardOfShape({ path: sheet(long, strip.widths), runs: null, holes: [], folds: [], marks: [] }, newId);
    // Welded to the panel along the side that follows its edge.
    return { ...card, edges: card.edges.map((edge, i) => (i === 0 ? { ...edge, joint: { kind: 'butt', trimMm: 0 } } : edge)) };
  }
  const { landMm, turnDeg, toward, radiusMm } = flange;
  const fold = { from: [0, landMm] as Vec, to: [long, landMm] as Vec, angleDeg: turnDeg, toward };
  const card = cardOfShape({ path: sheet(long, ramped(widthsOf(flange), (mm) => landMm + mm)), runs: null, holes: [], folds: [fold], marks: [] }, newId);
  return { ...card, folds: card.folds.map((one) => ({ ...one, radiusMm })) };
} // prettier-ignore

/** A strip so long, so wide from the panel’s start of it (right) to its end. */
const sheet = (long: number, widths: Ramp) => closedPath([[0, 0], [long, 0], ...widths.map(([share, mm]): Vec => [long * (1 - share), mm])]); // prettier-ignore
