/**
 * What was read along one edge: places in mm along it from its start (`turned`: the start the edge
 * had after the card was turned over), readings in mm, null where nothing was read.
 */
type Readings = {
  turned: boolean;
  own: boolean;
  targetMm: number;
  toleranceMm: number;
  flushMm: number;
  stations: { atMm: number; gapMm: number | null; flushMm: number | null }[];
};
type Station = Readings['stations'][number];

export type ReadingOf = 'gap' | 'flush';

/**
 * A place that two read differently: mm along the edge, gap or flush, what is there and what is
 * here, mm; null where nothing was read.
 */
export type ReadingClash = {
  atMm: number;
  of: ReadingOf;
  thereMm: number | null;
  hereMm: number | null;
};

export type MergedReadings<Edge> = {
  /** All that is not disputed; where two differ it has what is there. */
  merged: Edge;
  clashes: ReadingClash[];
  /**
   * The two do not mean the same places (the card was turned over, the edge has another length,
   * other stations were set): nothing of what is here is in `merged`.
   */
  elsewhere: boolean;
};

export const FIELD_OF = { gap: 'gapMm', flush: 'flushMm' } as const;
const KINDS = ['gap', 'flush'] as const;
const SET = ['targetMm', 'toleranceMm', 'flushMm'] as const;

/** Places within this are the same place: they are kept to a tenth, mm. */
const SAME_PLACE_MM = 0.051;

const samePlaces = (a: Readings, b: Readings): boolean =>
  a.turned === b.turned &&
  a.stations.length === b.stations.length &&
  a.stations.every(({ atMm }, i) => Math.abs(atMm - b.stations[i]!.atMm) < SAME_PLACE_MM);

const sameReadings = (a: Readings, b: Readings): boolean =>
  samePlaces(a, b) &&
  a.stations.every((one, i) =>
    KINDS.every((of) => one[FIELD_OF[of]] === b.stations[i]![FIELD_OF[of]]),
  );

const anyRead = ({ stations }: Readings): boolean =>
  stations.some(({ gapMm, flushMm }) => gapMm !== null || flushMm !== null);

/**
 * Readings of one edge that were made from `since` (null: none were known), put onto those that are
 * there `now`: what only one read, or read anew, is taken from whoever did; what both read and not
 * alike is told. Readings are put together only where they mean the same places: a reading is never
 * moved. A target set by hand stands over one that follows the joint.
 */
export function mergedReadings<Edge extends Readings>(
  since: Edge | null,
  mine: Edge,
  now: Edge | null,
): MergedReadings<Edge> {
  const taken = (merged: Edge): MergedReadings<Edge> => ({ merged, clashes: [], elsewhere: false });
  if (now === null) return taken(mine);
  if (!samePlaces(mine, now)) {
    // Other places: whoever alone has read since then stands.
    const readThere = since === null ? anyRead(now) : !sameReadings(since, now);
    const readHere = since === null ? anyRead(mine) : !sameReadings(since, mine);
    if (!readThere) return taken(withTarget(mine));
    if (!readHere) return taken(withTarget(now));
    return { merged: now, clashes: apart(mine, now), elsewhere: true };
  }
  const known = since !== null && samePlaces(since, mine) ? since : null;
  const clashes: ReadingClash[] = [];
  const stations = mine.stations.map((station, i): Station => {
    const merged = { ...station };
    for (const of of KINDS) {
      const field = FIELD_OF[of];
      const [was, here, there] = [
        known?.stations[i]![field] ?? null,
        station[field],
        now.stations[i]![field],
      ];
      if (here === was || here === there) merged[field] = there;
      else if (there !== was) {
        merged[field] = there;
        clashes.push({ atMm: station.atMm, of, thereMm: there, hereMm: here });
      }
    }
    return merged;
  });
  return { merged: withTarget({ ...mine, stations }), clashes, elsewhere: false };

  /** A target set by hand elsewhere stands until it is set anew here. */
  function withTarget(readings: Edge): Edge {
    const setHere =
      mine.own !== (since?.own ?? false) ||
      (mine.own && SET.some((key) => mine[key] !== since?.[key]));
    const { own, targetMm, toleranceMm, flushMm } = setHere || !now!.own ? mine : now!;
    return { ...readings, own, targetMm, toleranceMm, flushMm };
  }
}

/** What was read at places that the other does not have, or where it has read otherwise. */
function apart(mine: Readings, now: Readings): ReadingClash[] {
  const at = ({ stations }: Readings, atMm: number) =>
    stations.find((one) => Math.abs(one.atMm - atMm) < SAME_PLACE_MM);
  const comparable = mine.turned === now.turned;
  return KINDS.flatMap((of) => {
    const field = FIELD_OF[of];
    const there = now.stations.flatMap((one): ReadingClash[] => {
      const hereMm = comparable ? (at(mine, one.atMm)?.[field] ?? null) : null;
      return one[field] === null || one[field] === hereMm
        ? []
        : [{ atMm: one.atMm, of, thereMm: one[field], hereMm }];
    });
    const here = mine.stations.flatMap((one): ReadingClash[] =>
      one[field] === null || (comparable && at(now, one.atMm)?.[field] != null)
        ? []
        : [{ atMm: one.atMm, of, thereMm: null, hereMm: one[field] }],
    );
    return [...there, ...here];
  });
}
