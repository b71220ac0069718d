import { holeAlong } from '../../card/holeForm';
import type { FaceTree } from '../../card/faces';
import type { PatternDoc } from '../../card/pattern';
import { crossingPairs } from '../../measure/crossings';
import type { Problem } from '../../measure/result';
import { care, fewOfAKind } from '../../measure/result';
import { ROUNDING_MM } from '../../measure/tolerance';
import { dot, distance, left, sub, unit } from '../../measure/vector';
import type { Development } from './developed';
import type { Practice, SheetMetal } from './practice';
import { depthBeyond } from './trim';

/**
 * A hole's edge should stay this far from the tangent of a bend: 2.5·T + R (common practice;
 * wording varies).
 */
const holeClearance = (thicknessMm: number, radiusMm: number): number =>
  2.5 * thicknessMm + radiusMm;

/**
 * What wants care on a blank that can be made: `radius-under-least`, `flange-short` (numbers:
 * flatMm, leastMm), `hole-in-bend`, `hole-near-fold` (numbers: clearMm, neededMm), `blank-crosses`
 * (parts of the blank lie on each other in the flat), `walls-cross` (about: two folds whose walls,
 * left as drawn, run into each other), `no-room-for-relief`.
 */
export function warningsOf(
  doc: PatternDoc,
  tree: FaceTree,
  development: Development,
  sheet: SheetMetal,
  practice: Practice,
  missed: readonly string[],
): Problem[] {
  return fewOfAKind([
    ...radii(development, sheet),
    ...flanges(tree, development, practice),
    ...holes(doc, tree, development, sheet),
    ...collisions(development),
    ...development.corners
      .filter(({ crosses }) => crosses)
      .map(({ meeting }) => care('walls-cross', [...meeting.folds])),
    ...missed.map((fold) => care('no-room-for-relief', [fold])),
  ]);
}

const radii = ({ folds }: Development, sheet: SheetMetal): Problem[] =>
  folds
    .filter((fold) => fold.bend.radiusMm < sheet.leastRadiusMm - ROUNDING_MM)
    .map((fold) =>
      care('radius-under-least', [fold.id], {
        radiusMm: fold.bend.radiusMm,
        leastMm: sheet.leastRadiusMm,
      }),
    );

function flanges(tree: FaceTree, { folds }: Development, practice: Practice): Problem[] {
  return tree.faces.flatMap((face) => {
    const bounds = face.bounds.filter((b) => b.kind === 'fold');
    if (bounds.length !== 1) return [];
    const fold = folds[bounds[0]!.fold]!;
    const flatMm = depthBeyond(face, bounds[0]!) - fold.setbackMm;
    if (flatMm >= practice.shortestFlangeMm) return [];
    return [care('flange-short', [fold.id], { flatMm, leastMm: practice.shortestFlangeMm })];
  });
}

function holes(
  doc: PatternDoc,
  tree: FaceTree,
  { folds }: Development,
  sheet: SheetMetal,
): Problem[] {
  return doc.holes.flatMap((hole) =>
    tree.sidesOfFold.flatMap((sides, index) => {
      const fold = folds[index]!;
      const chord = tree.faces[sides.parent]!.bounds.find(
        (b) => b.kind === 'fold' && b.fold === index,
      )!.segment;
      const u = unit(sub(chord.b, chord.a));
      const from = sub([hole.x, hole.y], chord.a);
      const t = dot(from, u);
      const long = holeAlong(hole, u);
      if (t < -long || t > distance(chord.a, chord.b) + long) return [];
      const clearMm = Math.abs(dot(from, left(u))) - fold.setbackMm - holeAlong(hole, left(u));
      if (clearMm < 0) return [care('hole-in-bend', [hole.id, fold.id], { overMm: -clearMm })];
      const neededMm = holeClearance(sheet.thicknessMm, fold.bend.radiusMm);
      return clearMm < neededMm
        ? [care('hole-near-fold', [hole.id, fold.id], { clearMm, neededMm })]
        : [];
    }),
  );
}

/** More parts of a blank on each other than this are not told one by one. */
const MAX_CROSSINGS = 200;

function collisions({ outline }: Development): Problem[] {
  const pairs = crossingPairs(
    outline.map((p) => p.segment),
    MAX_CROSSINGS,
  );
  const about = pairs.flatMap(([i, j]) => {
    const a = outline[i]!;
    const b = outline[j]!;
    return a.kind === 'slit' || b.kind === 'slit' ? [] : [a.edge ?? a.fold, b.edge ?? b.fold];
  });
  const named = [...new Set(about.filter((id): id is string => id !== null))];
  return about.length > 0 ? [care('blank-crosses', named)] : [];
}
