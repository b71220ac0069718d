import { edgeOfRecord } from '../card/recordPlace';
import type { Reading } from '../fit/gapCondition';
import type { Meeting } from './meetings';
import { placeHere } from './meetings';

/** What a trial, a weld and an inspection say as far as a joint asks. */
type Read = { edge: string; turned: boolean; stations: Reading[] };
type Tried = { at: string; revision: number; withdrawn: object | null; edges: Read[] };
type Made = { revision: number; placesMm: number[]; turned: boolean };
type Welded = {
  edge: string;
  work: string;
  from: number | null;
  to: number | null;
  made: Made | null;
  withdrawn: object | null;
};
type Inspected = { edge: string; withdrawn: object | null };

/** The records of a piece beyond a joint. */
export type RecordsBeyond<F, W, I> = {
  fits: readonly F[];
  welds: readonly W[];
  inspections: readonly I[];
};

/**
 * What was read and done of a joint on the page of the piece beyond it, as if it had been written
 * down at this edge: `edge` is this one, places lie along it as the card is now. What was taken back
 * is left out.
 */
export type Across<F extends Tried, W, I> = {
  /** The last trial beyond that read anything here, and what it read. */
  fit: { trial: F; edge: F['edges'][number] } | null;
  welds: W[];
  inspections: I[];
};

/** Ends that are nearer than this share of an edge are one: a joint along all of it. */
const WHOLE = 0.02;

/** Whether a meeting takes up all of an edge of `lengthMm`. */
const alongAll = ({ span }: Pick<Meeting, 'span'>, lengthMm: number): boolean =>
  Math.abs(span.toMm - span.fromMm) >= (1 - WHOLE) * lengthMm;

/**
 * The records beyond one joint, seen from here. `own`: the id of this edge, its length (mm), and
 * whether this card is turned over. Spots keep their places; a run (seam, stitch) is one of this
 * edge only where the joint takes up all of it.
 */
export function acrossOf<F extends Tried, W extends Welded, I extends Inspected>(
  meeting: Meeting,
  records: RecordsBeyond<F, W, I>,
  own: { edge: string; lengthMm: number; turned: boolean },
): Across<F, W, I> {
  const { edge: met } = meeting;
  if (!met) return { fit: null, welds: [], inspections: [] };
  const { pattern } = met.piece;
  /** Places on this edge, mm, of a record that was made at places along the edge beyond. */
  const here = (record: { edge: string; turned: boolean }, placesMm: readonly number[]) => {
    const found = edgeOfRecord(pattern, record);
    if (found?.edge.id !== met.edge.id) return null;
    return placesMm.map((mm) => {
      const there = found.along(mm);
      return there === null ? null : placeHere(meeting, there);
    });
  };
  const isHere = (edge: string) => here({ edge, turned: pattern.turned }, []) !== null;

  const fits = records.fits.flatMap((trial) => {
    if (trial.withdrawn) return [];
    return trial.edges.flatMap((read): NonNullable<Across<F, W, I>['fit']>[] => {
      const places = here(
        read,
        read.stations.map(({ atMm }) => atMm),
      );
      const stations = read.stations.flatMap((station, i) => {
        const atMm = places?.[i] ?? null;
        return atMm === null || (station.gapMm === null && station.flushMm === null)
          ? []
          : // Flush is read from this piece: what stands proud there lies low here.
            [{ ...station, atMm, flushMm: station.flushMm === null ? null : -station.flushMm }];
      });
      if (stations.length === 0) return [];
      const edge = { ...read, edge: own.edge, turned: own.turned };
      stations.sort((a, b) => a.atMm - b.atMm);
      return [{ trial, edge: { ...edge, stations } }];
    });
  });

  const welds = records.welds.flatMap((weld): W[] => {
    if (weld.withdrawn || !isHere(weld.edge)) return [];
    const { made } = weld;
    const run = weld.work === 'seam' || weld.work === 'stitch';
    if (run) return alongAll(meeting, own.lengthMm) ? [{ ...weld, edge: own.edge }] : [];
    // Numbers run along the other edge: without their places nobody knows which these are.
    const places = made
      ? (here({ edge: weld.edge, turned: made.turned }, made.placesMm) ?? [])
      : [];
    const placesMm = places.filter((mm) => mm !== null);
    if (made && placesMm.length === 0 && made.placesMm.length > 0) return [];
    return [
      {
        ...weld,
        edge: own.edge,
        from: null,
        to: null,
        made: { revision: made?.revision ?? 0, placesMm, turned: own.turned },
      },
    ];
  });

  return {
    fit: fits.sort((a, b) => a.trial.at.localeCompare(b.trial.at)).at(-1) ?? null,
    welds,
    inspections: records.inspections.flatMap((one) =>
      one.withdrawn || !isHere(one.edge) ? [] : [{ ...one, edge: own.edge }],
    ),
  };
}

/**
 * The last trial of a piece with what was read of its joints beyond them: an edge that was read there
 * later, or not at all here, goes by that. Null where neither reads anything. `now` is the card as it
 * is: what was only read beyond is a trial of it.
 */
export function fitWithAcross<F extends Tried>(
  last: F | null,
  across: Iterable<Pick<Across<F, never, never>, 'fit'>>,
  now: { revision: number; digest: string | null },
): F | null {
  const read = [...across].flatMap(({ fit }) => (fit ? [fit] : []));
  if (read.length === 0) return last;
  const newest = read.reduce((a, b) => (a.trial.at > b.trial.at ? a : b));
  const base: F = last ?? { ...newest.trial, ...now, edges: [] };
  const takes = read.filter(({ trial, edge }) => {
    const own = base.edges.find((one) => one.edge === edge.edge);
    const reads = own?.stations.some(({ gapMm, flushMm }) => gapMm !== null || flushMm !== null);
    return !reads || trial.at > base.at;
  });
  const taken = new Set(takes.map(({ edge }) => edge.edge));
  return {
    ...base,
    edges: [...base.edges.filter(({ edge }) => !taken.has(edge)), ...takes.map(({ edge }) => edge)],
  };
}
