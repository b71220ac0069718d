import { area } from '../measure/path';
import type { Result } from '../measure/result';
import { directionAt } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { along, left } from '../measure/vector';
import { outlineOf, pointOfSpot, segmentOfSide, spotOf } from './outline';
import type { CardTuck, PatternDoc } from './pattern';
import type { PaperCurve } from './tucks';
import { paperCurve } from './tucks';

/**
 * A tuck or slit as it lies on the card: the two ends of its mouth on the outline, and where it
 * runs out.
 */
export type Wedge = { tuck: CardTuck; mouth: [Vec, Vec]; point: Vec };

/**
 * Where the tucks and slits of a card lie, square in from the outline; one whose place is gone is
 * left out.
 */
export function wedgesOn(doc: PatternDoc): Wedge[] {
  return doc.tucks.flatMap((tuck) => {
    const spot = spotOf(doc, tuck.at);
    const at = spot && pointOfSpot(doc, spot);
    const side = spot && segmentOfSide(doc, spot.side);
    if (!at || !side) return [];
    const way = directionAt(side, spot.at);
    const half = tuck.widthMm / 2;
    return [
      {
        tuck,
        mouth: [along(at, way, -half), along(at, way, half)],
        point: along(at, left(way), tuck.depthMm),
      },
    ];
  });
}

/**
 * How the surface curves that the card was laid on, by its tucks and slits over its area.
 *
 * Problems: those of `paperCurve`.
 */
export function curveOfCard(doc: PatternDoc): Result<PaperCurve> {
  const tucks = doc.tucks.filter(({ kind }) => kind === 'tuck');
  const slits = doc.tucks.filter(({ kind }) => kind === 'slit');
  return paperCurve(
    tucks.map(({ widthMm, depthMm }) => ({ overlapMm: widthMm, depthMm })),
    slits.map(({ widthMm, depthMm }) => ({ openMm: widthMm, depthMm })),
    area(outlineOf(doc).path),
  );
}
