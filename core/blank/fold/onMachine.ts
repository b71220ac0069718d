import type { Brake } from '../../machine/brake';
import { thickestAt } from '../../machine/brake';
import type { Problem } from '../../measure/result';
import { care } from '../../measure/result';
import { ROUNDING_MM } from '../../measure/tolerance';
import { distance } from '../../measure/vector';
import type { Development } from './developed';
import { flangeDepth } from './order/flange';

/**
 * What a machine cannot take of each fold, whatever the order: `fold-too-long` (numbers: longMm,
 * mostMm), `sheet-too-thick` (thicknessMm, longMm, mostMm), `radius-under-tip` (radiusMm, tipMm: it
 * comes out no sharper than the bar's tip), `flange-not-held` (flatMm, leastMm; where the machine
 * says what it holds). About: the fold; with `radius-under-tip` all folds of that radius.
 */
export function beyondMachine(development: Development, brake: Brake): Problem[] {
  const leastMm = brake.leastFlangeMm ?? 0;
  return development.folds.flatMap(({ id, bend, centre }, i): Problem[] => {
    const longMm = distance(...centre);
    const mostMm = thickestAt(brake, longMm);
    const { thicknessMm, radiusMm } = bend;
    const flatMm = flangeDepth(development, i);
    const found: Problem[] = [];
    if (longMm > brake.lengthMm + ROUNDING_MM)
      found.push(care('fold-too-long', [id], { longMm, mostMm: brake.lengthMm }));
    if (mostMm !== null && thicknessMm > mostMm + ROUNDING_MM)
      found.push(care('sheet-too-thick', [id], { thicknessMm, longMm, mostMm }));
    // Usually all folds have one radius: that is said once, of all of them.
    const alike = development.folds.filter((one) => one.bend.radiusMm === radiusMm);
    if (radiusMm < brake.noseRadiusMm - ROUNDING_MM && alike[0]!.id === id)
      found.push(
        care(
          'radius-under-tip',
          alike.map((one) => one.id),
          { radiusMm, tipMm: brake.noseRadiusMm },
        ),
      );
    if (flatMm !== null && flatMm < leastMm - ROUNDING_MM)
      found.push(care('flange-not-held', [id], { flatMm, leastMm }));
    return found;
  });
}
