import type { Vec } from '../../measure/vector';

export type Vec3 = readonly [x: number, y: number, z: number];

const apart = (a: Vec3, b: Vec3) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

/**
 * The third corner of a triangle whose first two lie at `a` and `b`, `fromA` and `fromB` from them,
 * to the left of a → b.
 */
function third(a: Vec, b: Vec, fromA: number, fromB: number): Vec {
  const base = Math.hypot(b[0] - a[0], b[1] - a[1]);
  const x = (fromA ** 2 - fromB ** 2 + base ** 2) / (2 * base);
  const y = Math.sqrt(Math.max(0, fromA ** 2 - x ** 2));
  const [u, v] = [(b[0] - a[0]) / base, (b[1] - a[1]) / base];
  return [a[0] + x * u - y * v, a[1] + x * v + y * u];
}

/**
 * A strip of triangles between a lower and an upper line, laid flat: both lines where they come to
 * lie.
 */
export type Unfolded = { lower: Vec[]; upper: Vec[] };

/**
 * Lays a strip of triangles flat, one after the other: it begins with the edge from the first lower
 * to the first upper place, and each step goes on along the lower (`lower`) or the upper line.
 * Lengths within each triangle are kept: that is all there is to a development. The first lower
 * place lies at the origin, the first upper one above it.
 */
export function unfolded(
  lower: readonly Vec3[],
  upper: readonly Vec3[],
  steps: readonly ('lower' | 'upper')[],
): Unfolded {
  const flat: Unfolded = { lower: [[0, 0]], upper: [[0, apart(lower[0]!, upper[0]!)]] };
  let [i, j] = [0, 0];
  for (const step of steps) {
    const [a, b] = [flat.lower[i]!, flat.upper[j]!];
    if (step === 'lower') {
      i++;
      // On the right of the edge from lower to upper: seen from upper to lower, to the left.
      flat.lower.push(third(b, a, apart(upper[j]!, lower[i]!), apart(lower[i - 1]!, lower[i]!)));
    } else {
      j++;
      flat.upper.push(third(b, a, apart(upper[j - 1]!, upper[j]!), apart(lower[i]!, upper[j]!)));
    }
  }
  return flat;
}

/**
 * How far each triangle of such a strip is turned against the one before it, degrees: above 0 away
 * from one who sees the strip with its lower line below, running to the right.
 */
export function turnedBetween(
  lower: readonly Vec3[],
  upper: readonly Vec3[],
  steps: readonly ('lower' | 'upper')[],
): number[] {
  let [i, j] = [0, 0];
  const normals = steps.map((step) => {
    const [a, b] = [lower[i]!, upper[j]!];
    const c = step === 'lower' ? lower[++i]! : upper[++j]!;
    return cross3(less(c, a), less(b, a));
  });
  [i, j] = [0, 0];
  return normals.slice(1).map((normal, k) => {
    if (steps[k] === 'lower') i++;
    else j++;
    const before = normals[k]!;
    const across = cross3(before, normal);
    const rule = less(upper[j]!, lower[i]!);
    const away = Math.sign(across[0] * rule[0] + across[1] * rule[1] + across[2] * rule[2]) || 1;
    const along = before[0] * normal[0] + before[1] * normal[1] + before[2] * normal[2];
    return (away * Math.atan2(Math.hypot(...across), along) * 180) / Math.PI;
  });
}

const less = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
const cross3 = (u: Vec3, v: Vec3): Vec3 => [
  u[1] * v[2] - u[2] * v[1],
  u[2] * v[0] - u[0] * v[2],
  u[0] * v[1] - u[1] * v[0],
];
