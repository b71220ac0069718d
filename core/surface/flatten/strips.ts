import type { Vec } from '../../measure/vector';
import type { Disc } from '../mesh/disc';
import { inFlat } from '../mesh/isoLines';
import type { Vec3 } from '../mesh/mesh';
import { spanOf } from './part';
import { ordinatesOf, sectionOf } from '../mesh/section';

/**
 * A strip to check a panel with: where it stands along the panel (0 … 1) and which way it runs, its
 * stations and drops as a straight edge reads them, mm, its line on the panel and in the flat.
 */
export type Strip = {
  runs: 'across' | 'along';
  share: number;
  ordinates: [number, number][];
  places: Vec3[];
  line: Vec[];
};

/** No strip has more stations than this, evenly apart. */
const MAX_STATIONS = 41;

/**
 * The strip at a share of the panel’s length (`across`) or of its width (`along`); null where the
 * panel leans over there.
 */
export function stripAt(
  disc: Disc,
  flat: Float64Array,
  runs: Strip['runs'],
  share: number,
): Strip | null {
  const { mesh } = disc;
  const { normal, up, from, to } = spanOf(disc, runs);
  const at = from + (to - from) * share;
  const cut = sectionOf(mesh, [normal[0] * at, normal[1] * at, normal[2] * at], normal);
  const read = cut && ordinatesOf(cut, up, normal);
  if (!cut || !read || read.length < 2) return null;
  return {
    runs,
    share,
    ordinates: evenly(read),
    places: cut.places,
    line: inFlat(cut.sides, flat),
  };
}

/** `count` strips across, evenly apart and clear of the ends, and one along the middle. */
export function stripsOf(disc: Disc, flat: Float64Array, count: number): Strip[] {
  const across = Array.from({ length: count }, (_, i) =>
    stripAt(disc, flat, 'across', (i + 0.5) / count),
  );
  return [...across, count > 0 ? stripAt(disc, flat, 'along', 0.5) : null].filter(
    (strip) => strip !== null,
  );
}

/** Readings at stations evenly apart where there are more than a strip has room for. */
function evenly(read: [number, number][]): [number, number][] {
  if (read.length <= MAX_STATIONS) return read;
  const whole = read[read.length - 1]![0];
  let k = 0;
  return Array.from({ length: MAX_STATIONS }, (_, i): [number, number] => {
    const s = (whole * i) / (MAX_STATIONS - 1);
    while (k < read.length - 2 && read[k + 1]![0] < s) k++;
    const [a, b] = [read[k]!, read[k + 1]!];
    const share = Math.min(1, Math.max(0, (s - a[0]) / (b[0] - a[0])));
    return [s, a[1] + (b[1] - a[1]) * share];
  });
}
