import { segmentsOfEdge } from '../../card/outline';
import type { Edge, Flange, PatternDoc } from '../../card/pattern';
import { widthsOf } from '../../card/flangeWidths';
import type { Ramp } from '../../measure/ramp';
import { isEven, leastOfRamp, mostOfRamp, rampAt, ramped } from '../../measure/ramp';
import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import { arcOf, isStraight } from '../../measure/segment';
import { ROUNDING_MM } from '../../measure/tolerance';
import type { BlankFlange, JointAllowance } from '../blank';
import { bendAllowance, measuredOutside } from './allowance';
import { jointAllowance } from './joint';
import type { SheetMetal } from './practice';
import { achievedRadius } from './achievedRadius';

type Line = JointAllowance['lines'][number];

const unlessEven = (adds: Ramp): Pick<JointAllowance, 'addMm' | 'adds'> => ({
  addMm: adds[0]![1],
  ...(!isEven(adds) && { adds }),
});
const lineAt = (outs: Ramp, role: Line['role']): Line => ({
  outMm: outs[0]![1],
  ...(!isEven(outs) && { outs }),
  role,
});

/**
 * What an edge adds to the blank: its flange, if it has one, and beyond that its joint. A tipped
 * flange is as long across as a straight fold's; what is made apart adds nothing, and takes away
 * what the card has of it.
 *
 * Problems: `flange-narrow` (numbers: widthMm, leastMm), `flange-past-centre` (numbers: widthMm,
 * radiusMm: on a hollow arc), those of `bendAllowance` and of `jointAllowance`.
 */
export function edgeAllowance(
  doc: PatternDoc,
  edge: Edge,
  sheet: SheetMetal,
): Result<{ allowance: JointAllowance }> {
  const joint = jointAllowance(edge.joint, sheet);
  if (!joint.ok || !edge.flange) return joint;
  const found = flangeAllowance(edge.flange, sheet);
  if (!found.ok) return found;
  const { flange, lines } = found;
  const own = joint.allowance;
  // The hollowest arc that the metal beyond the line has to be laid inside of.
  const widthMm = mostOfRamp(flange.adds) + own.addMm;
  for (const s of segmentsOfEdge(doc, edge)) {
    if (isStraight(s) || s.bulge > 0) continue;
    const { radius } = arcOf(s);
    if (radius <= widthMm)
      return failure({ code: 'flange-past-centre', numbers: { widthMm, radiusMm: radius } });
  }
  const apart = flange.made === 'pulled' || flange.made === 'lip';
  return {
    ok: true,
    allowance: {
      ...own,
      ...unlessEven(ramped(flange.adds, (mm) => mm + own.addMm)),
      takeUpMm: own.takeUpMm - (apart ? 0 : flange.deductionMm),
      lines: [
        ...lines,
        ...own.lines.map(({ outMm, role }) =>
          lineAt(
            ramped(flange.adds, (mm) => mm + outMm),
            role,
          ),
        ),
      ],
      turn:
        own.turn ??
        (apart || mostOfRamp(flange.adds) <= 0
          ? null
          : {
              thicknessMm: flange.bend.thicknessMm,
              angleDeg: flange.bend.angleDeg,
              deductionMm: flange.deductionMm,
              toward: flange.toward,
            }),
      ends: edge.flange.ends ?? {},
      middleMm: flange.adds[0]![1] + own.middleMm,
      flange,
    },
  };
}

/**
 * A flange by itself: how far the blank goes beyond the card's line for it, and the tangents of its
 * bend.
 */
export function flangeAllowance(
  given: Flange,
  sheet: SheetMetal,
): Result<{ flange: BlankFlange; lines: Line[] }> {
  const bend = {
    thicknessMm: sheet.thicknessMm,
    radiusMm: achievedRadius(given.radiusMm ?? sheet.usualRadiusMm, sheet.radii ?? []),
    angleDeg: given.turnDeg,
  };
  const reckoned = bendAllowance(bend, sheet.rule);
  if (!reckoned.ok) return reckoned;
  const found = measuredOutside(reckoned, bend);
  const widths = widthsOf(given);
  const leastMm = Math.max(found.outsideSetbackMm, found.deductionMm);
  const narrow = leastOfRamp(widths);
  if (narrow < leastMm - ROUNDING_MM)
    return failure({ code: 'flange-narrow', numbers: { widthMm: narrow, leastMm } });
  const apart = given.how === 'pulled' || given.how === 'lip';
  // From the card's line to the line the flange is turned about.
  const fold = ramped(widths, (mm) => (given.card === 'fold' ? 0 : -mm));
  const flat = ramped(widths, (mm) => mm - found.deductionMm);
  const flange: BlankFlange = {
    made: given.how,
    toward: given.toward,
    bend,
    allowanceMm: found.allowanceMm,
    deductionMm: found.deductionMm,
    setbackMm: found.outsideSetbackMm,
    formula: found.formula,
    fold,
    flat,
    adds: apart ? fold : ramped(fold, (mm, share) => mm + rampAt(flat, share)),
  };
  const tangent = (offMm: number): Line =>
    lineAt(
      ramped(fold, (mm) => mm + offMm),
      'turn',
    );
  const lines = apart
    ? []
    : [tangent(-found.outsideSetbackMm), tangent(found.allowanceMm - found.outsideSetbackMm)];
  return { ok: true, flange, lines };
}
