import { z } from 'zod';
import type { Vec } from '../../measure/vector';
import { distance, dot, sub, unit } from '../../measure/vector';
import type { Disc } from '../mesh/disc';
import { axesOf } from './firstFlat';
import type { KeptSides } from './kept';
import type { Mesh, Vec3 } from '../mesh/mesh';
import { along3, cornersOf, cross3, dot3, length3, sub3, triangleCount, unit3 } from '../mesh/mesh';
import { nearestOnTriangle } from '../mesh/deviation';
import { spanOf } from './part';
import type { Panel } from '../strain/strain';
import { sectionOf } from '../mesh/section';

const Place = z.tuple([z.number().finite(), z.number().finite(), z.number().finite()]);

/**
 * What has to stay as it is on a blank besides edges: the line where the panel is cut straight
 * `across` it or `along` it, at a share of its length or width, stays straight; points on the panel
 * stay where they are to one another, as they lie in the plane that fits them best.
 */
export const HoldSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('straight'),
    runs: z.enum(['across', 'along']),
    share: z.number().min(0).max(1),
  }),
  z.strictObject({ kind: z.literal('points'), at: z.array(Place).min(2).max(24) }),
]);
export type Hold = z.infer<typeof HoldSchema>;

/** A place of a panel: in which triangle, and the shares of its three corners. */
type OnPanel = { triangle: number; shares: Vec3 };
/** What is held of a panel: its places, and of points where they lie in their own plane, mm. */
export type Held = { places: OnPanel[]; seen: Vec[] | null };

/** A place pulled toward another: all the way, or only along `way`; so stiff, per mm². */
export type Pulled = OnPanel & { toward: Vec; way: Vec | null; stiff: number };

/**
 * What holds a flat: sides of its rim that keep their length, and places that are pulled, by their
 * triangle.
 */
export type Holds = { sides: KeptSides; pulled: ReadonlyMap<number, readonly Pulled[]> };
export const FREE: Holds = { sides: new Map(), pulled: new Map() };

/** Stiffness of a held place, in multiples of the metal's about it. */
const STIFF = 4000;

/** What is held, found on a panel: a line that misses it has no places. */
export function heldOn(disc: Disc, hold: Hold): Held {
  const { mesh } = disc;
  if (hold.kind === 'points') {
    const places = hold.at.map((p) => nearestPlace(mesh, p));
    return {
      places,
      seen: inOwnPlane(
        disc,
        places.map((place) => onMesh(mesh, place)),
      ),
    };
  }
  const { normal, from, to } = spanOf(disc, hold.runs);
  const at = from + (to - from) * hold.share;
  const cut = sectionOf(mesh, [normal[0] * at, normal[1] * at, normal[2] * at], normal);
  if (!cut) return { places: [], seen: null };
  const byside = new Map<number, number>();
  const count = mesh.vertices.length / 3;
  mesh.triangles.forEach((a, i) => {
    const b = mesh.triangles[i % 3 === 2 ? i - 2 : i + 1]!;
    byside.set(Math.min(a, b) * count + Math.max(a, b), i);
  });
  const places = cut.sides.map(({ a, b, t }): OnPanel => {
    const triangle = Math.floor(byside.get(Math.min(a, b) * count + Math.max(a, b))! / 3);
    const shares = [0, 1, 2].map((k) => {
      const v = mesh.triangles[3 * triangle + k]!;
      return v === a ? 1 - t : v === b ? t : 0;
    });
    return { triangle, shares: shares as unknown as Vec3 };
  });
  return { places, seen: null };
}

/** Where the places of what is held lie in a flat. */
const inFlat = ({ triangles }: Panel, flat: Float64Array, { places }: Held): Vec[] =>
  places.map(({ triangle, shares }) => {
    const at = (axis: number): number =>
      shares.reduce((sum, w, k) => sum + w * flat[2 * triangles[3 * triangle + k]! + axis]!, 0);
    return [at(0), at(1)];
  });

/**
 * Where everything held is pulled to from a flat: the straight line that fits best, points as they
 * are to one another.
 */
export function pulledFrom(
  panel: Panel,
  flat: Float64Array,
  held: readonly Held[],
): Map<number, Pulled[]> {
  const found = new Map<number, Pulled[]>();
  for (const one of held) {
    const now = inFlat(panel, flat, one);
    const { toward, way } = wantedOf(one, now);
    // A line of many places is as stiff as one of few.
    const stiff = STIFF / panel.whole / (way ? Math.max(1, now.length / 8) : 1);
    one.places.forEach((place, i) => {
      const list = found.get(place.triangle) ?? [];
      list.push({ ...place, toward: toward[i]!, way, stiff });
      found.set(place.triangle, list);
    });
  }
  return found;
}

/** How far off what is held lies in a flat at its worst, mm. */
export function heldOff(panel: Panel, flat: Float64Array, one: Held): number {
  const now = inFlat(panel, flat, one);
  const { toward, way } = wantedOf(one, now);
  return now.reduce(
    (worst, p, i) =>
      Math.max(worst, way ? Math.abs(dot(sub(p, toward[i]!), way)) : distance(p, toward[i]!)),
    0,
  );
}

/**
 * For places as they lie now: where they are wanted, and the one direction that counts (null:
 * both).
 */
function wantedOf({ seen }: Held, now: readonly Vec[]): { toward: Vec[]; way: Vec | null } {
  if (now.length < 2) return { toward: [...now], way: null };
  const mean = meanOf(now);
  if (!seen) {
    let [xx, xy, yy] = [0, 0, 0];
    for (const p of now) {
      const [x, y] = sub(p, mean);
      xx += x * x;
      xy += x * y;
      yy += y * y;
    }
    const turn = Math.atan2(2 * xy, xx - yy) / 2;
    return { toward: now.map(() => mean), way: [-Math.sin(turn), Math.cos(turn)] };
  }
  const from = meanOf(seen);
  let [alike, across] = [0, 0];
  now.forEach((p, i) => {
    const [x, y] = sub(p, mean);
    const [u, w] = sub(seen[i]!, from);
    alike += u * x + w * y;
    across += u * y - w * x;
  });
  const [c, s] = Math.hypot(alike, across) > 0 ? unit([alike, across]) : [1, 0];
  const turned = seen.map((p): Vec => {
    const [u, w] = sub(p, from);
    return [mean[0] + c * u - s * w, mean[1] + s * u + c * w];
  });
  return { toward: turned, way: null };
}

const meanOf = (places: readonly Vec[]): Vec => {
  const sum = places.reduce<Vec>(([x, y], p) => [x + p[0], y + p[1]], [0, 0]);
  return [sum[0] / places.length, sum[1] / places.length];
};

/** Places in the plane that fits them best, seen from the side the panel is seen from. */
function inOwnPlane(disc: Disc, places: readonly Vec3[]): Vec[] {
  const [e1, e2] = axesOf(disc);
  const facing = cross3(e1, e2);
  const mean = places.reduce<Vec3>((sum, p) => along3(sum, p, 1 / places.length), [0, 0, 0]);
  const off = places.map((p) => sub3(p, mean));
  const size = off.reduce((sum, p) => sum + dot3(p, p), 0) || 1;
  // The direction they spread least in, by inverse iteration; two points, or a row of them, leave
  // it to the panel’s own.
  let normal = facing;
  for (let round = 0; round < 60; round++) {
    const spread = off.reduce<Vec3>((sum, p) => along3(sum, p, dot3(p, normal) / size), [0, 0, 0]);
    const rest = sub3(normal, spread);
    const next = unit3(along3(rest, facing, 1e-9));
    if (length3(sub3(next, normal)) < 1e-12) break;
    normal = next;
  }
  const x = unit3(
    sub3(e1, [
      normal[0] * dot3(e1, normal),
      normal[1] * dot3(e1, normal),
      normal[2] * dot3(e1, normal),
    ]),
  );
  const y = cross3(normal, x);
  return off.map((p) => [dot3(p, x), dot3(p, y)]);
}

/** The place of a mesh nearest to a point. */
function nearestPlace(mesh: Mesh, p: Vec3): OnPanel {
  let found: OnPanel = { triangle: 0, shares: [1, 0, 0] };
  let least = Infinity;
  for (let t = 0; t < triangleCount(mesh); t++) {
    const { shares, off } = nearestOnTriangle(p, cornersOf(mesh, t));
    if (off < least) [least, found] = [off, { triangle: t, shares }];
  }
  return found;
}

function onMesh(mesh: Mesh, { triangle, shares }: OnPanel): Vec3 {
  const [a, b, c] = cornersOf(mesh, triangle);
  return along3(along3(along3([0, 0, 0], a, shares[0]), b, shares[1]), c, shares[2]);
}

/** What is off from where it is pulled, as far as it counts. */
function offOf(panel: Panel, flat: Float64Array, { triangle, shares, toward, way }: Pulled): Vec {
  const at = (axis: number): number =>
    shares.reduce(
      (sum, w, k) => sum + w * flat[2 * panel.triangles[3 * triangle + k]! + axis]!,
      -toward[axis]!,
    );
  const off: Vec = [at(0), at(1)];
  if (!way) return off;
  const by = dot(off, way);
  return [way[0] * by, way[1] * by];
}

/** What pulled places cost. */
export function pulledEnergy(panel: Panel, pulled: Holds['pulled'], flat: Float64Array): number {
  let sum = 0;
  for (const list of pulled.values())
    for (const one of list) {
      const [x, y] = offOf(panel, flat, one);
      sum += one.stiff * (x * x + y * y);
    }
  return sum;
}

/**
 * Adds what the pulled places of a triangle give to its gradient and its Hessian (see `newtonOf`).
 */
export function addPulled(
  panel: Panel,
  pulled: Holds['pulled'],
  flat: Float64Array,
  t: number,
  gradient: Float64Array,
  hessian: Float64Array,
): void {
  for (const one of pulled.get(t) ?? []) {
    const off = offOf(panel, flat, one);
    const { shares, way, stiff } = one;
    const block = way ? [way[0] * way[0], way[0] * way[1], way[1] * way[1]] : [1, 0, 1];
    for (let i = 0; i < 3; i++) {
      for (let r = 0; r < 2; r++) gradient[2 * i + r]! += 2 * stiff * shares[i]! * off[r]!;
      for (let j = 0; j < 3; j++)
        for (let r = 0; r < 2; r++)
          for (let c = 0; c < 2; c++) {
            const [row, column] = [2 * i + r, 2 * j + c];
            if (column <= row)
              hessian[6 * row + column]! += 2 * stiff * shares[i]! * shares[j]! * block[r + c]!;
          }
    }
  }
}
