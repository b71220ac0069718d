import type { Disc } from '../mesh/disc';
import { dissect } from '../../solve/dissection';
import { factorFronts, frontsOf, solveFronts } from '../../solve/fronts';
import type { Fronts } from '../../solve/fronts';
import type { Vec3 } from '../mesh/mesh';
import {
  along3,
  cross3,
  dot3,
  meshArea,
  triangleCount,
  triangleNormal,
  unit3,
  vertexAt,
  vertexCount,
} from '../mesh/mesh';
import type { Panel } from '../strain/strain';
import { strainsOf } from '../strain/strain';

/** Rounds of the inverse iteration: each is two solutions with one factor. */
const ROUNDS = 3;
/**
 * Least stiffness at every vertex against the mean one, so that a figure free to drift is held; so
 * little that on the finest net it still weighs nothing against what sheared maps differ by.
 */
const HELD = 1e-12;
/** Maximum stretch of a side in the first flat pattern: beyond it costs nothing more to grow. */
const LONGEST = 1.4;

/**
 * A first flat, with no triangle flipped and the area of the panel: the one that keeps angles best
 * with its rim free (Mullen, Tong, Alliez & Desbrun 2008), or where that folds over itself the rim
 * on a circle and every vertex inside at the mean of its neighbours (Tutte 1963), which never does.
 */
export function firstFlat(disc: Disc, panel: Panel, fronts: Fronts): Float64Array {
  const kept = conformal(disc, panel, fronts);
  const flat = kept && upright(panel.triangles, kept) ? kept : onCircle(disc);
  return sized(disc, panel, flat);
}

/**
 * Of the maps with the rim free the one least sheared, by inverse iteration against the length of
 * the rim.
 */
function conformal(disc: Disc, panel: Panel, fronts: Fronts): Float64Array | null {
  const { mesh, rim } = disc;
  const count = vertexCount(mesh);
  const { gradients, area } = panel;
  let mean = 0;
  const entries = (t: number, into: Float64Array): void => {
    for (let k = 0; k < 3; k++)
      for (let l = 0; l < 3; l++) {
        const [gx, gy] = [gradients[6 * t + 2 * k]!, gradients[6 * t + 2 * k + 1]!];
        const [hx, hy] = [gradients[6 * t + 2 * l]!, gradients[6 * t + 2 * l + 1]!];
        const [alike, across] = [area[t]! * (gx * hx + gy * hy), area[t]! * (gy * hx - gx * hy)];
        into[2 * k * 6 + 2 * l] = alike;
        into[(2 * k + 1) * 6 + 2 * l + 1] = alike;
        into[(2 * k + 1) * 6 + 2 * l] = -across;
        into[2 * k * 6 + 2 * l + 1] = across;
      }
  };
  for (let t = 0; t < area.length; t++)
    for (let k = 0; k < 3; k++)
      mean += area[t]! * (gradients[6 * t + 2 * k]! ** 2 + gradients[6 * t + 2 * k + 1]! ** 2);
  const held = (HELD * mean) / count;
  if (!factorFronts(fronts, entries, () => held)) return null;
  // Half the rim at each of its vertices, and a first guess: the panel looked at along its mean
  // normal.
  const weight = new Float64Array(rim.length);
  const at = (i: number): [number, number, number] => {
    const v = rim[(i + rim.length) % rim.length]!;
    return [mesh.vertices[3 * v]!, mesh.vertices[3 * v + 1]!, mesh.vertices[3 * v + 2]!];
  };
  for (let i = 0; i < rim.length; i++) {
    const [p, q] = [at(i), at(i + 1)];
    const half = Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]) / 2;
    weight[i]! += half;
    weight[(i + 1) % rim.length]! += half;
  }
  const x = seenSquareOn(disc);
  for (let round = 0; round < ROUNDS; round++) {
    balance(x, rim, weight);
    const right = new Float64Array(2 * count);
    for (let i = 0; i < rim.length; i++)
      for (let r = 0; r < 2; r++) right[2 * rim[i]! + r]! += weight[i]! * x[2 * rim[i]! + r]!;
    solveFronts(fronts, right);
    x.set(right);
  }
  balance(x, rim, weight);
  return x.every(Number.isFinite) ? x : null;
}

/** The middle of the rim at nought, and its mean square distance from there 1. */
function balance(x: Float64Array, rim: Uint32Array, weight: Float64Array): void {
  const sum = [0, 0, 0];
  rim.forEach((v, i) => {
    sum[0]! += weight[i]! * x[2 * v]!;
    sum[1]! += weight[i]! * x[2 * v + 1]!;
    sum[2]! += weight[i]!;
  });
  const [mx, my] = [sum[0]! / sum[2]!, sum[1]! / sum[2]!];
  let square = 0;
  rim.forEach(
    (v, i) => (square += weight[i]! * ((x[2 * v]! - mx) ** 2 + (x[2 * v + 1]! - my) ** 2)),
  );
  const by = 1 / Math.sqrt(square / sum[2]!);
  for (let i = 0; i < x.length; i += 2) {
    x[i] = (x[i]! - mx) * by;
    x[i + 1] = (x[i + 1]! - my) * by;
  }
}

/** The rim on a circle by its length, each vertex inside at the mean of its neighbours. */
function onCircle({ mesh, rim }: Disc): Float64Array {
  const count = vertexCount(mesh);
  const long = [0];
  for (let i = 0; i < rim.length; i++) {
    const [p, q] = [3 * rim[i]!, 3 * rim[(i + 1) % rim.length]!];
    const { vertices: w } = mesh;
    long.push(long[i]! + Math.hypot(w[p]! - w[q]!, w[p + 1]! - w[q + 1]!, w[p + 2]! - w[q + 2]!));
  }
  const whole = long[rim.length]!;
  const x = new Float64Array(2 * count);
  const fixed = new Uint8Array(count);
  const HARD = 1e9;
  rim.forEach((v, i) => {
    fixed[v] = 1;
    const angle = (2 * Math.PI * long[i]!) / whole;
    x[2 * v] = HARD * Math.cos(angle);
    x[2 * v + 1] = HARD * Math.sin(angle);
  });
  const fronts = frontsOf(dissect(count, mesh.triangles, mesh.vertices, 3), mesh.triangles, 1);
  const entries = (_: number, into: Float64Array): void => {
    into.fill(-1);
    into[0] = into[4] = into[8] = 2;
  };
  factorFronts(fronts, entries, (v) => (fixed[v] ? HARD : 0));
  solveFronts(fronts, x, 2);
  return x;
}

/** Whether every triangle of a flat has the side up that it has on the panel. */
export function upright(triangles: Uint32Array, flat: Float64Array): boolean {
  for (let i = 0; i < triangles.length; i += 3)
    if (!(doubled(triangles, flat, i) > 0)) return false;
  return true;
}

/** Twice the signed area of a triangle in the flat. */
function doubled(triangles: Uint32Array, flat: Float64Array, i: number): number {
  const [a, b, c] = [2 * triangles[i]!, 2 * triangles[i + 1]!, 2 * triangles[i + 2]!];
  return (
    (flat[b]! - flat[a]!) * (flat[c + 1]! - flat[a + 1]!) -
    (flat[b + 1]! - flat[a + 1]!) * (flat[c]! - flat[a]!)
  );
}

/** Area of the flat, mm². */
export function flatArea(triangles: Uint32Array, flat: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < triangles.length; i += 3) sum += doubled(triangles, flat, i);
  return sum / 2;
}

function sized({ mesh }: Disc, panel: Panel, flat: Float64Array): Float64Array {
  const strains = strainsOf(panel, flat);
  let longest = 0;
  for (let i = 1; i < strains.length; i += 2) longest = Math.max(longest, 1 / (1 + strains[i]!));
  const by = Math.min(
    Math.sqrt(meshArea(mesh) / flatArea(mesh.triangles, flat)),
    LONGEST / longest,
  );
  return flat.map((x) => x * by);
}

/**
 * Two directions square to each other and to the mean normal of the panel: the first as near to +x
 * as can be (to +y where the panel faces along x).
 */
export function axesOf({ mesh }: Disc): [Vec3, Vec3] {
  let normal: Vec3 = [0, 0, 0];
  for (let t = 0; t < triangleCount(mesh); t++) normal = along3(normal, triangleNormal(mesh, t), 1);
  const n = unit3(normal);
  const seed: Vec3 = Math.abs(n[0]) > 0.9 ? [0, 1, 0] : [1, 0, 0];
  const e1 = unit3(along3(seed, n, -dot3(seed, n)));
  return [e1, cross3(n, e1)];
}

/** The panel looked at along its mean normal: u, v of each vertex in turn, mm. */
export function seenSquareOn(disc: Disc): Float64Array {
  const axes = axesOf(disc);
  const { mesh } = disc;
  return Float64Array.from({ length: 2 * vertexCount(mesh) }, (_, i) =>
    dot3(vertexAt(mesh, i >> 1), axes[i % 2]!),
  );
}
