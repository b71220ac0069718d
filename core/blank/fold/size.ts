import { holeArea } from '../../card/holeForm';
import { area, box } from '../../measure/path';
import type { Vec } from '../../measure/vector';
import { distance } from '../../measure/vector';
import type { BlankHole, BlankPiece, BlankSize } from '../blank';
import type { BlankFace } from './developed';
import type { SheetMetal } from './practice';

/** Size, area by its parts, weight, and how far the card would be out if it were cut as it is. */
export function sizeOf(of: {
  net: readonly BlankPiece[];
  outline: readonly BlankPiece[];
  faces: readonly BlankFace[];
  holes: readonly BlankHole[];
  shifts: readonly Vec[];
  sheet: SheetMetal;
  /** The most that a single bead draws in, mm. */
  drawnMm: number;
  /** The most that an edge adds or takes off, square to it, mm. */
  addedMm: number;
}): BlankSize {
  const path = of.outline.map((p) => p.segment);
  const bounds = box(path);
  const facesMm2 = of.faces.reduce((sum, face) => sum + area(face.pieces.map((p) => p.segment)), 0);
  const netMm2 = area(of.net.map((p) => p.segment));
  const holesMm2 = of.holes.reduce((sum, h) => sum + holeArea(h), 0);
  const cutMm2 = area(path);
  const areaMm2 = cutMm2 - holesMm2;
  let differenceMm = Math.max(of.drawnMm, of.addedMm);
  for (const a of of.shifts)
    for (const b of of.shifts) differenceMm = Math.max(differenceMm, distance(a, b));
  return {
    widthMm: bounds.maxX - bounds.minX,
    heightMm: bounds.maxY - bounds.minY,
    areaMm2,
    parts: {
      facesMm2,
      zonesMm2: netMm2 - facesMm2,
      jointsMm2: cutMm2 - netMm2,
      holesMm2: -holesMm2,
    },
    massKg: (areaMm2 / 1e6) * of.sheet.thicknessMm * of.sheet.weight,
    differenceMm,
  };
}
