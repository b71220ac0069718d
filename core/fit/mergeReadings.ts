/**
 * What was read along one edge: places in mm along it, readings in mm, null where nothing was read.
 */
type Readings = {
  own: boolean;
  targetMm: number;
  toleranceMm: number;
  flushMm: number;
  stations: { atMm: number; gapMm: number | null; flushMm: number | null }[];
};

/**
 * A station that two read differently: which one, of the gap or of how it stands, what is there and
 * what is here.
 */
export type ReadingClash = {
  atMm: number;
  of: 'gap' | 'flush';
  thereMm: number | null;
  hereMm: number | null;
};

const READ = ['gapMm', 'flushMm'] as const;
const SET = ['targetMm', 'toleranceMm', 'flushMm'] as const;

/**
 * Readings of one edge that were made from `since`, put onto those that are there `now`: a station
 * that only one read, or read anew, is taken from whoever did; one that both read and not alike is
 * a clash, and nothing is merged. Stations go by their number; places are those of `mine`, which
 * stand on the card as it was read last. Where one has other stations and the other has read on
 * meanwhile, the readings of `now` that are not in `mine` clash. A target set by hand stands over
 * one that follows the joint. `since` is null where the page knew of no readings.
 */
export function mergedReadings<Edge extends Readings>(
  since: Edge | null,
  mine: Edge,
  now: Edge | null,
): { ok: true; merged: Edge } | { ok: false; clashes: ReadingClash[] } {
  if (now === null) return { ok: true, merged: mine };
  const count = mine.stations.length;
  const inStep =
    now.stations.length === count && (since === null || since.stations.length === count);
  const clashes: ReadingClash[] = [];
  const clash = (
    atMm: number,
    what: (typeof READ)[number],
    there: number | null,
    here: number | null,
  ) => clashes.push({ atMm, of: what === 'gapMm' ? 'gap' : 'flush', thereMm: there, hereMm: here });
  const stations = mine.stations.map((station, i) => {
    if (!inStep) return station;
    const merged = { ...station };
    for (const what of READ) {
      const [was, here, there] = [
        since?.stations[i]![what] ?? null,
        station[what],
        now.stations[i]![what],
      ];
      if (here === was) merged[what] = there;
      else if (there !== was && there !== here) clash(station.atMm, what, there, here);
    }
    return merged;
  });
  if (!inStep) {
    // Not to be told apart station by station: whatever was read there since then must be here too.
    for (const [i, station] of now.stations.entries()) {
      for (const what of READ) {
        const was =
          since?.stations.length === now.stations.length ? since.stations[i]![what] : null;
        const here = mine.stations.find((s) => s.atMm === station.atMm)?.[what] ?? null;
        if (station[what] !== null && station[what] !== was && station[what] !== here)
          clash(station.atMm, what, station[what], here);
      }
    }
  }
  if (clashes.length > 0) return { ok: false, clashes };
  // A target set by hand elsewhere stands until it is set anew here.
  const setHere =
    mine.own !== (since?.own ?? false) ||
    (mine.own && SET.some((key) => mine[key] !== since?.[key]));
  const target = setHere || !now.own ? mine : now;
  const { own, targetMm, toleranceMm, flushMm } = target;
  return { ok: true, merged: { ...mine, own, targetMm, toleranceMm, flushMm, stations } };
}
