import { sectionIn, sectionPath } from '#core/blank/bead/section';
import type { Development } from '#core/blank/fold/developed';
import type { Frame, Vec3 } from '#core/blank/fold/refold';
import { placed } from '#core/blank/fold/refold';
import type { PatternDoc } from '#core/card/pattern';
import { inside, points } from '#core/measure/path';
import { outwardAlong, partOfRun, pointAlong, runLength } from '#core/measure/run';
import { flattened } from '#core/measure/segment';
import type { Vec } from '#core/measure/vector';
import { along } from '#core/measure/vector';

/** A bead is drawn in lengths of about this, mm. */
const LENGTH_MM = 6;

/**
 * Strips of a bead's skin as it stands up from the face it runs over: for each length of it four
 * corners per facet of its section. What lies in a bend is left out. `toward` says on which side it
 * stands.
 */
export function beadRelief(
  development: Development,
  pattern: PatternDoc,
  frames: readonly Frame[],
  thicknessMm: number,
): { toward: 'face' | 'back'; quads: [Vec3, Vec3, Vec3, Vec3][]; rims: [Vec3, Vec3][] }[] {
  const polygons = development.faces.map(({ pieces }) =>
    points(
      pieces.map(({ segment }) => segment),
      0.1,
    ),
  );
  const faceOf = (p: Vec) => polygons.findIndex((polygon) => inside(p, polygon));
  return development.beads.flatMap((bead) => {
    const written = pattern.beads.find(({ id }) => id === bead.id);
    if (!written) return [];
    const path = sectionPath(sectionIn(written.section, thicknessMm, thicknessMm));
    const section = [
      ...path.flatMap((s) => flattened(s, 0.08)),
      ...path.slice(-1).map(({ b }) => b),
    ];
    // As wide as the metal that becomes the bead, so that it covers it; at its far crease down to
    // the sheet again.
    const k = bead.flatMm / bead.size.widthMm;
    const profile: Vec[] = [
      ...section.map(([x, y]): Vec => [x * k, y]),
      [(bead.size.widthMm / 2) * k, 0],
    ];
    const sign = bead.toward === 'face' ? 1 : -1;
    const base = bead.toward === 'face' ? 0 : -thicknessMm;
    const quads: [Vec3, Vec3, Vec3, Vec3][] = [];
    const rims: [Vec3, Vec3][] = [];
    for (const run of bead.runs) {
      const long = runLength(run);
      const n = Math.max(1, Math.ceil(long / LENGTH_MM));
      for (let i = 0; i < n; i++) {
        const [from, to] = [(long * i) / n, (long * (i + 1)) / n];
        const middle = partOfRun(run, from, (from + to) / 2).at(-1)?.b;
        const frame = middle && frames[faceOf(middle)];
        if (!frame) continue;
        const at = (mm: number, [x, y]: Vec): Vec3 =>
          placed(frame, along(pointAlong(run, mm)!, outwardAlong(run, mm), x), base + sign * y);
        profile.slice(1).forEach((q, j) => {
          const p = profile[j]!;
          quads.push([at(from, p), at(to, p), at(to, q), at(from, q)]);
        });
        for (const edge of [profile[0]!, profile.at(-1)!])
          rims.push([at(from, edge), at(to, edge)]);
      }
    }
    return [{ toward: bead.toward, quads, rims }];
  });
}
