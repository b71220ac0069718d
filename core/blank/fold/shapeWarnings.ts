import { foldsAcross, meetings } from '../../card/beadPath';
import { endsOfFold } from '../../card/foldPlace';
import { holeReach } from '../../card/holeForm';
import { outlineOf, segmentsOfEdge } from '../../card/outline';
import type { PatternDoc } from '../../card/pattern';
import type { Box } from '../../measure/path';
import { box, boxOf } from '../../measure/path';
import { pointAlong, runLength } from '../../measure/run';
import type { Problem } from '../../measure/result';
import { care, fewOfAKind } from '../../measure/result';
import { directionAt, line, nearest } from '../../measure/segment';
import { SAME_PLACE_MM } from '../../measure/tolerance';
import type { Vec } from '../../measure/vector';
import { cross, distance, dot, nearestOnSegment } from '../../measure/vector';
import { alongFlange, remediesOf } from '../flange/along';
import type { PlannedBead } from './beads';
import type { Development } from './developed';
import type { SheetMetal } from './practice';

/** Minimum distance of a bead from an edge or a bend, in bead widths (common practice). */
const CLEAR_WIDTHS = 3;
/** Corners turned by more than this in a run are corners for a flange, degrees. */
const CORNER_DEG = 10;

/**
 * What wants care of beads, flanges round curves and flared holes: `bead-over-fold`,
 * `bead-near-edge`, `bead-near-fold` (numbers: clearMm from the middle of the bead, neededMm),
 * `bead-over-hole`, `beads-cross`, `beads-meet`; `flange-strained` (numbers: strain, limit),
 * `flange-round-corner`, `flange-over-fold`; `flare-tears`, `flare-near-edge`, `flare-near-fold`.
 */
export const shapeWarnings = (
  doc: PatternDoc,
  beads: readonly PlannedBead[],
  development: Development,
  sheet: SheetMetal,
): Problem[] =>
  fewOfAKind([
    ...beads.flatMap((bead, i) => ofBead(doc, bead, beads.slice(i + 1))),
    ...ofFlanges(doc, development, sheet),
    ...ofFlares(doc, development),
  ]);

function ofBead(doc: PatternDoc, planned: PlannedBead, others: readonly PlannedBead[]): Problem[] {
  const { bead, line: lies, size } = planned;
  const { run } = lies;
  const found: Problem[] = [];
  const across = new Set(foldsAcross(doc, lies).map(({ fold }) => fold));
  if (bead.atFolds === null)
    for (const fold of across) found.push(care('bead-over-fold', [bead.id, fold]));
  const neededMm = CLEAR_WIDTHS * size.widthMm;
  // Where it runs out over the rim it comes as near as can be, and is meant to.
  const places = placesAlong(run, size.widthMm).filter(({ fromEnds }) =>
    fromEnds.every((mm, i) => !lies.out[i] || mm > neededMm),
  );
  const nearestOf = (off: (p: Vec) => number): number =>
    Math.min(Infinity, ...places.map(({ at }) => off(at)));
  const about = boxOf(places.map(({ at }) => at));
  for (const edge of doc.edges) {
    const own = segmentsOfEdge(doc, edge);
    if (places.length === 0 || boxesApart(about, box(own)) >= neededMm) continue;
    const clearMm = nearestOf((p) => Math.min(...own.map((s) => nearest(s, p).distance)));
    if (clearMm < neededMm)
      found.push(care('bead-near-edge', [bead.id, edge.id], { clearMm, neededMm }));
  }
  for (const fold of doc.folds) {
    const ends = endsOfFold(doc, fold);
    if (!ends || across.has(fold.id)) continue;
    const clearMm = nearestOf((p) => nearestOnSegment(p, ...ends).distance);
    if (clearMm < neededMm)
      found.push(care('bead-near-fold', [bead.id, fold.id], { clearMm, neededMm }));
  }
  for (const hole of doc.holes) {
    const off = Math.min(...run.map((s) => nearest(s, [hole.x, hole.y]).distance));
    if (off < holeReach(hole) + size.widthMm / 2)
      found.push(care('bead-over-hole', [bead.id, hole.id]));
  }
  for (const other of others) {
    const crossed = run.some((s) => other.line.run.some((r) => meetings(s, r).length > 0));
    const room = (size.widthMm + other.size.widthMm) / 2;
    const ends = (of: PlannedBead): Vec[] => [of.line.run[0]!.a, of.line.run.at(-1)!.b];
    const touches = (a: PlannedBead, b: PlannedBead) =>
      ends(a).some((p) => b.line.run.some((s) => nearest(s, p).distance < room));
    if (touches(planned, other) || touches(other, planned))
      found.push(care('beads-meet', [bead.id, other.bead.id]));
    else if (crossed) found.push(care('beads-cross', [bead.id, other.bead.id]));
  }
  return found;
}

/** How far two upright rectangles lie apart at the least, mm. */
const boxesApart = (a: Box, b: Box): number =>
  Math.max(a.minX - b.maxX, b.minX - a.maxX, a.minY - b.maxY, b.minY - a.maxY, 0);

/** Places along a run about `apart` mm from each other, each with its distance from either end. */
function placesAlong(
  run: PlannedBead['line']['run'],
  apartMm: number,
): { at: Vec; fromEnds: [number, number] }[] {
  const long = runLength(run);
  const n = Math.min(200, Math.max(2, Math.ceil(long / apartMm)));
  return Array.from({ length: n + 1 }, (_, i) => {
    const mm = (long * i) / n;
    return { at: pointAlong(run, mm)!, fromEnds: [mm, long - mm] };
  });
}

function ofFlanges(doc: PatternDoc, { edges }: Development, sheet: SheetMetal): Problem[] {
  return doc.edges.flatMap((edge, i): Problem[] => {
    const flange = edges[i]!.allowance.flange;
    if (!flange || !edge.flange) return [];
    const found: Problem[] = [];
    const run = segmentsOfEdge(doc, edge);
    run.slice(1).forEach((s, k) => {
      const [from, to] = [directionAt(run[k]!, 1), directionAt(s, 0)];
      const turnDeg = (Math.atan2(cross(from, to), dot(from, to)) * 180) / Math.PI;
      if (Math.abs(turnDeg) > CORNER_DEG)
        found.push(care('flange-round-corner', [edge.id], { turnDeg }));
    });
    const folds = doc.folds.filter((fold) =>
      (endsOfFold(doc, fold) ?? []).some((p) => inRun(run, p)),
    );
    const apart = flange.made === 'pulled' || flange.made === 'lip';
    if (!apart) for (const fold of folds) found.push(care('flange-over-fold', [edge.id, fold.id]));
    if (!sheet.forming) return found;
    const along = alongFlange(run, flange, edge.flange.landMm);
    // Notched on purpose it is meant to be beyond what one piece could take.
    const worst = along.stretches.filter(
      (s) =>
        edge.flange!.how !== 'notched' &&
        remediesOf(s, along, s.strain > 0 ? sheet.forming!.stretch : sheet.forming!.shrink),
    );
    const [most] = worst.sort((a, b) => Math.abs(b.strain) - Math.abs(a.strain));
    if (most)
      found.push(
        care('flange-strained', [edge.id], {
          strain: most.strain,
          limit: (most.strain > 0 ? sheet.forming.stretch : sheet.forming.shrink).strain,
        }),
      );
    return found;
  });
}

/** Whether a place lies on a run, not at its very ends. */
const inRun = (run: readonly PlannedBead['line']['run'][number][], p: Vec): boolean =>
  run.some((s) => nearest(s, p).distance < SAME_PLACE_MM) &&
  distance(p, run[0]!.a) > SAME_PLACE_MM &&
  distance(p, run.at(-1)!.b) > SAME_PLACE_MM;

function ofFlares(doc: PatternDoc, { holes, folds }: Development): Problem[] {
  return holes.flatMap(({ id, flare }): Problem[] => {
    const hole = doc.holes.find((one) => one.id === id);
    if (!flare || !hole) return [];
    const found: Problem[] = [];
    if (!flare.cracking.within)
      found.push(
        care('flare-tears', [id], { strain: flare.edgeStrain, limit: flare.cracking.strain }),
      );
    const centre: Vec = [hole.x, hole.y];
    const reach = flare.insideMm / 2 + flare.radiusMm;
    const neededMm = flare.heightMm;
    const { path, sideIds } = outlineOf(doc);
    const off = path.map((s) => nearest(s, centre).distance - reach);
    const nearestSide = off.indexOf(Math.min(...off));
    const edge = doc.edges.find(({ sides }) => sides.includes(sideIds[nearestSide] ?? ''));
    if (edge && off[nearestSide]! < neededMm)
      found.push(
        care('flare-near-edge', [id, edge.id], {
          clearMm: Math.max(0, off[nearestSide]!),
          neededMm,
        }),
      );
    doc.folds.forEach((fold, i) => {
      const ends = endsOfFold(doc, fold);
      if (!ends) return;
      const clearMm = nearest(line(...ends), centre).distance - reach - folds[i]!.setbackMm;
      if (clearMm < neededMm)
        found.push(
          care('flare-near-fold', [id, fold.id], { clearMm: Math.max(0, clearMm), neededMm }),
        );
    });
    return found;
  });
}
