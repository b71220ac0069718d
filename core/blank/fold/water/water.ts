import type { Result } from '../../../measure/result';
import { dot, right, sub, unit } from '../../../measure/vector';
import type { PatternDoc } from '../../../card/pattern';
import type { Development } from '../developed';
import type { Run } from './runs';
import { waterRuns } from './runs';
import type { Lies, Lying } from './slopes';
import { lying as lyingOf } from './slopes';

/** A lap across which water runs: the part it comes from has to lie on top. */
export type LapMet = { edge: string; top: 'this' | 'other' };

export type Water = {
  lying: Lying;
  runs: Run[];
  /** Faces that fall by less than they are to, by index. */
  tooFlat: number[];
  /** Whether nothing stands and every face falls as it is to. */
  dry: boolean;
};

export type WaterAsked = {
  lies: Lies;
  /** Holes that are open for water. */
  drains: readonly string[];
  /** What every face is to fall by at the least, degrees. */
  fallDeg: number;
};

/** Water that stands no deeper than this is wiped off by driving, mm. */
const WET_MM = 0.5;

/**
 * Where the water goes on a folded piece as it lies. Problems: those of `lying`.
 *
 * @param anglesDeg folds at other angles than they are to be, by index
 */
export function waterOn(
  development: Development,
  { lies, drains, fallDeg }: WaterAsked,
  anglesDeg?: readonly number[],
): Result<{ water: Water }> {
  const found = lyingOf(development, lies, anglesDeg);
  if (!found.ok) return found;
  const { lying } = found;
  const runs = waterRuns(development, lying, drains);
  const tooFlat = lying.slopes.flatMap((slope, face) =>
    slope.fallDeg < fallDeg - 1e-9 ? [face] : [],
  );
  const dry =
    tooFlat.length === 0 &&
    runs.every(
      ({ end }) => end.kind !== 'stands' || (end.depthMm !== null && end.depthMm <= WET_MM),
    );
  return { ok: true, water: { lying, runs, tooFlat, dry } };
}

/**
 * The laps of a piece across which water runs, and which part has to lie on top there so that none
 * faces it.
 */
export function lapsMet(
  development: Development,
  doc: Pick<PatternDoc, 'edges'>,
  { slopes }: Lying,
): LapMet[] {
  const laps = new Set(
    doc.edges
      .filter(({ joint }) => joint.kind === 'lap' || joint.kind === 'joggle')
      .map(({ id }) => id),
  );
  const met = new Map<string, number>();
  for (const { edge, face, segment } of development.net) {
    const down = slopes[face]?.down;
    if (!edge || !laps.has(edge) || !down) continue;
    // Outward of a rim that runs counter-clockwise is to its right; long sides count for more.
    const side = sub(segment.b, segment.a);
    met.set(edge, (met.get(edge) ?? 0) + dot(down, right(unit(side))) * Math.hypot(...side));
  }
  return [...met].flatMap(([edge, out]): LapMet[] =>
    Math.abs(out) < 1 ? [] : [{ edge, top: out > 0 ? 'this' : 'other' }],
  );
}

/**
 * What makes everything fall: a fold taken to another angle, or the piece laid otherwise. Both were
 * tried before they are told.
 */
export type FallRemedy =
  | { kind: 'fold'; fold: number; toDeg: number }
  | { kind: 'lie'; alongDeg: number; acrossDeg: number };

/** Step and maximum of the fold angle that is tried, and step and maximum of the lean, degrees. */
const [FOLD_STEP_DEG, FOLD_MOST_DEG, LIE_STEP_DEG, LIE_MOST_DEG] = [0.5, 25, 0.5, 6];

/**
 * The least that a single fold, and laying the piece, would have to change so that everything falls
 * and nothing stands.
 */
export function fallRemedies(development: Development, asked: WaterAsked): FallRemedy[] {
  const angles = development.folds.map(({ bend }) => bend.angleDeg);
  const dry = (other: WaterAsked, at: readonly number[]) => {
    const found = waterOn(development, other, at);
    return found.ok && found.water.dry;
  };
  const folds: (FallRemedy & { by: number })[] = [];
  for (const [fold, angle] of angles.entries())
    for (let by = FOLD_STEP_DEG; by <= FOLD_MOST_DEG; by += FOLD_STEP_DEG) {
      const toDeg = [angle - by, angle + by].find(
        (deg) =>
          deg > 0 &&
          deg < 180 &&
          dry(
            asked,
            angles.map((was, i) => (i === fold ? deg : was)),
          ),
      );
      if (toDeg === undefined) continue;
      folds.push({ kind: 'fold', fold, toDeg, by });
      break;
    }
  const { lies } = asked;
  const tilts: { along: number; across: number; by: number }[] = [];
  for (let along = -LIE_MOST_DEG; along <= LIE_MOST_DEG; along += LIE_STEP_DEG)
    for (let across = -LIE_MOST_DEG; across <= LIE_MOST_DEG; across += LIE_STEP_DEG)
      tilts.push({ along, across, by: Math.hypot(along, across) });
  const tilt = tilts
    .filter(({ by }) => by > 0 && by <= LIE_MOST_DEG)
    .sort((a, b) => a.by - b.by)
    .map(({ along, across }) => ({
      ...lies,
      alongDeg: lies.alongDeg + along,
      acrossDeg: lies.acrossDeg + across,
    }))
    .filter(({ alongDeg, acrossDeg }) => Math.abs(alongDeg) <= 90 && Math.abs(acrossDeg) <= 90)
    .find((other) => dry({ ...asked, lies: other }, angles));
  return [
    ...folds.sort((a, b) => a.by - b.by).map(({ by: _, ...remedy }) => remedy),
    ...(tilt ? [{ kind: 'lie' as const, alongDeg: tilt.alongDeg, acrossDeg: tilt.acrossDeg }] : []),
  ];
}
