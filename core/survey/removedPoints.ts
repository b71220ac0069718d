import type { Adjustment } from '../measure/network/network';
import { readIn } from './moved';
import type { PieceSurvey } from './pieceSurvey';
import type { PutBack } from './putBack';
import { putBack } from './putBack';
import type { ReferencePlace, Round, Surveyed } from './references';
import { inHand, roundsOf } from './inHand';
import { distancesRead, networkOf } from './roundNetwork';

export type RemovedPoint = PutBack & {
  point: Surveyed<ReferencePlace>;
  /** Whether it can be put back as well as is asked. */
  good: boolean;
};
export type RemovedPoints = {
  points: RemovedPoint[];
  /**
   * The points with the distances between them, as far as these place them; null where they place
   * none.
   */
  network: Adjustment | null;
  /** Points in question that are not placed by what has been read. */
  undetermined: string[];
  /**
   * Reckoned in the plane, but the tapes do not lie in one: they fit each other worse than they can
   * be out.
   */
  notPlane: boolean;
};

/**
 * Tapes that belong to one plane fit each other within about this many times what they are said to
 * be out by.
 */
const MAX_PLANAR_MISFIT = 3;

/** The rounds that count for what is cut out: those read before. */
export const roundsBefore = (
  all: readonly Surveyed[],
  { cutOut }: Pick<PieceSurvey, 'cutOut'>,
): Surveyed<Round>[] => roundsOf(all).filter(({ at }) => cutOut === null || at <= cutOut.at);

/**
 * How well each point that a piece takes away could be put back, from the distances read between
 * points of the job: of each the latest reading before the old metal was cut out. In the plane only
 * points on the sides of the vehicle count that points taken away are on. Points that another piece
 * takes away count as staying: pieces go one at a time.
 */
export function removedPoints(survey: PieceSurvey, all: readonly Surveyed[]): RemovedPoints {
  const gone = new Set(survey.takes);
  const points = inHand(all, 'point');
  const removed = points.filter(({ id }) => gone.has(id));
  if (removed.length === 0) return { points: [], network: null, undetermined: [], notPlane: false };
  const sides = new Set(removed.map(({ side }) => side));
  const here = survey.space ? points : points.filter(({ side }) => sides.has(side));
  const rounds = roundsBefore(all, survey).reverse();
  const read = distancesRead(here, inHand(all, 'measure'), (measure) => {
    const latest = rounds.find((round) => readIn(round, measure) !== null);
    return latest ? readIn(latest, measure) : null;
  });
  const { found, loose } = networkOf(here, read, survey.space ? 3 : 2);
  const placed = new Map(found?.points.map((point) => [point.name, point] as const));
  const back = putBack(
    survey.space ? 3 : 2,
    [...placed.values()].map(({ name, at, elsewhere }) => ({
      name,
      at,
      elsewhere,
      lost: gone.has(name),
    })),
    read.filter(({ from, to }) => placed.has(from) && placed.has(to)),
  );
  const known = new Map(back.ok ? back.lost.map((one) => [one.name, one] as const) : []);
  return {
    points: removed.map((point): RemovedPoint => {
      const one = known.get(point.id) ?? {
        name: point.id,
        uMm: null,
        ellipse: null,
        bestNext: null,
      };
      return { ...one, point, good: one.uMm !== null && one.uMm <= survey.toleranceMm };
    }),
    network: found,
    undetermined: [
      ...new Set([...loose, ...removed.flatMap(({ id }) => (placed.has(id) ? [] : [id]))]),
    ],
    notPlane:
      !survey.space && (found?.redundancy ?? 0) > 0 && (found?.sigma0 ?? 0) > MAX_PLANAR_MISFIT,
  };
}
