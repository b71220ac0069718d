import type { Ordinate } from '../card/profile';
import { profileOf } from '../card/profile';
import type { CardProfile } from '../card/pattern';
import { box } from '../measure/path';
import type { Result } from '../measure/result';
import type { Segment } from '../measure/segment';
import { line, reversed } from '../measure/segment';
import type { Vec } from '../measure/vector';
import type { Layers, NoteLabel } from './layers';

/**
 * Which side of the contour a checking strip is: laid over the metal (`hollow` of it), or the body
 * under it (`full`).
 */
export type StripSide = 'hollow' | 'full';

/** Minimum width of a strip, mm: it must not bend where it is held. */
const NARROWEST_MM = 40;
/** How far into the strip a station is marked, and where its number stands, mm. */
const MARK_MM = 7;
const NUMBER_MM = 10.5;
const NAME_MM = 20;
const ASIDE_MM = 3;

/**
 * A profile as a checking strip, full size: cut along its contour, the straight edge it was taken
 * from parallel to its back; a scribed mark at each station. Laid over the metal its back is the
 * straight edge's side, as the body its back is inside.
 *
 * Problems: those of `profileOf`.
 */
export function checkingStripOf(
  { name, ordinates, toleranceMm }: CardProfile,
  lie: StripSide,
): Result<{ layers: Layers; labels: NoteLabel[] }> {
  const found = profileOf(ordinates, toleranceMm);
  if (!found.ok) return found;
  const contour = found.arcs;
  const [first, last] = [contour[0]!.a, contour[contour.length - 1]!.b];
  const { minY, maxY } = box(contour);
  const into = lie === 'hollow' ? 1 : -1;
  const back = lie === 'hollow' ? maxY + NARROWEST_MM : minY - NARROWEST_MM;
  const corner = ([x]: Vec): Vec => [x, back];
  const ends = [
    line(last, corner(last)),
    line(corner(last), corner(first)),
    line(corner(first), first),
  ];
  // Round counter-clockwise: under the contour it is gone along backward.
  const around = [...contour, ...ends];
  const cut = lie === 'hollow' ? around : around.map(reversed).reverse();
  const stations = [...ordinates].sort((a, b) => a[0] - b[0]);
  const at = ([s, drop]: Ordinate): Vec => [s, -drop];
  const scribe: Segment[] = stations.map((one) => {
    const [x, y] = at(one);
    return line([x, y], [x, y + into * MARK_MM]);
  });
  const middle: Vec = [(first[0] + last[0]) / 2, back - into * NAME_MM];
  return {
    ok: true,
    layers: { cut, fold: [], brake: [], scribe, holes: [] },
    labels: [
      ...numbered(stations.map(at), into),
      {
        kind: 'note',
        at: middle,
        text: `${name}: ${lie === 'hollow' ? 'laid over the metal' : 'the body under it'}`,
        sizeMm: 5,
      },
    ],
  };
}

/**
 * The numbers of stations, as many as do not stand in each other's way: the first, the last, and
 * from the first on.
 */
function numbered(stations: readonly Vec[], into: number): NoteLabel[] {
  const APART_MM = 6;
  const shown: NoteLabel[] = [];
  // Those at the ends stand inside, clear of the line that is cut.
  const aside = (i: number) => (i === 0 ? ASIDE_MM : i === stations.length - 1 ? -ASIDE_MM : 0);
  const put = ([x, y]: Vec, i: number) =>
    shown.push({
      kind: 'note',
      at: [x + aside(i), y + into * NUMBER_MM],
      text: String(i + 1),
      sizeMm: 3,
    });
  let free = -Infinity;
  const last = stations[stations.length - 1]![0];
  stations.forEach((p, i) => {
    const end = i === stations.length - 1;
    if (!end && (p[0] < free || p[0] > last - APART_MM)) return;
    put(p, i);
    free = p[0] + APART_MM;
  });
  return shown;
}
