import { z } from 'zod';
import type { Problem, Result } from '../../measure/result';
import { failure } from '../../measure/result';
import { ROUNDING_MM } from '../../measure/tolerance';
import { gridMesh } from './gridMesh';
import type { Mesh, Vec3 } from './mesh';
import { along3, cross3, dot3, length3, sub3, unit3 } from './mesh';
import type { Cubic } from './smoothing';
import { cubicAt, smoothed, smoothest } from './smoothing';

const Point3 = z.tuple([z.number(), z.number(), z.number()]);

/**
 * Profiles at known places. Each runs in points [across, height] from one edge of the panel to the
 * other, `atMm` along the spine; unequal numbers of points do. The spine is straight, or an arc of
 * `spineRadiusMm` that turns down (below 0: up). With `guides` each profile is set between two
 * curves instead: its ends on them, as far along both as its place is between the first and the
 * last, scaled to fit.
 */
export const StationsSchema = z.object({
  kind: z.literal('stations'),
  profiles: z.array(
    z.object({ atMm: z.number(), points: z.array(z.tuple([z.number(), z.number()])) }),
  ),
  spineRadiusMm: z.number().nullable().default(null),
  guides: z
    .tuple([z.array(Point3), z.array(Point3)])
    .nullable()
    .default(null),
  toleranceMm: z.number().default(0),
});

export type Stations = z.infer<typeof StationsSchema>;

/** How far the surface passes from each reading, mm: profile by profile, point by point. */
export type Deviations = { each: number[][]; worstMm: number };

/** Places along each profile that the surface is carried through. */
const ACROSS = 61;

/**
 * A smooth surface through profiles: a cubic along each, then cubics from profile to profile, both
 * as smooth as `toleranceMm` allows (half of it for each). Profiles are carried by their length:
 * half way along one goes to half way along the next.
 *
 * Problems: `stations-few` (under two profiles, or under two points in one), `stations-order` (two
 * at one place), `stations-number`, `stations-guides` (a guide without length), `stations-doubled`
 * (two points of a profile alike).
 */
export function stationsMesh(
  given: Stations,
  triangles: number,
): Result<{ mesh: Mesh; deviations: Deviations }> {
  const order = given.profiles
    .map((_, i) => i)
    .sort((a, b) => given.profiles[a]!.atMm - given.profiles[b]!.atMm);
  const profiles = order.map((i) => given.profiles[i]!);
  const bad = problemOf(given, profiles);
  if (bad) return failure(bad);
  const give = given.toleranceMm / 2;
  const drawn = profiles.map(({ points }) => {
    const long = lengthsOf(points);
    return {
      whole: long[long.length - 1]!,
      cubics: smoothest(long, [points.map((p) => p[0]), points.map((p) => p[1])], give),
    };
  });
  const place = placer(given, profiles);
  const knots = profiles.map((p) => p.atMm);
  const [from, to] = [knots[0]!, knots[knots.length - 1]!];
  // Each place across, carried along: x, y and z as cubics of the place along.
  const carried = Array.from({ length: ACROSS }, (_, j): Cubic[] => {
    const through = drawn.map(({ whole, cubics: [x, z] }, i) => {
      const at = (j / (ACROSS - 1)) * whole;
      return place(i, [cubicAt(x!, at), cubicAt(z!, at)]);
    });
    return smoothest(
      knots,
      [0, 1, 2].map((axis) => through.map((p) => p[axis]!)),
      give,
    );
  });
  // The grid asks for one row after another: each is reckoned once.
  let row: { at: number; places: Vec3[] } | null = null;
  const rowAt = (along: number): Vec3[] => {
    if (row?.at !== along)
      row = {
        at: along,
        places: carried.map(
          (cubics) => [0, 1, 2].map((k) => cubicAt(cubics[k]!, along)) as unknown as Vec3,
        ),
      };
    return row.places;
  };
  const wide = Math.max(...drawn.map(({ whole }) => whole));
  const mesh = gridMesh(triangles, wide, to - from, (u, v) =>
    between(rowAt(from + (to - from) * v), u),
  );
  const each: number[][] = given.profiles.map(() => []);
  profiles.forEach(({ points }, i) => {
    const places = rowAt(knots[i]!);
    const line = Array.from({ length: 8 * ACROSS }, (_, k) =>
      between(places, k / (8 * ACROSS - 1)),
    );
    each[order[i]!] = points.map((p) => offLine(place(i, p), line));
  });
  return { ok: true, mesh, deviations: { each, worstMm: Math.max(...each.flat()) } };
}

function problemOf(given: Stations, profiles: Stations['profiles']): Problem | null {
  if (profiles.length < 2 || profiles.some((p) => p.points.length < 2))
    return { code: 'stations-few', about: [] };
  const figures = [
    given.toleranceMm,
    ...profiles.flatMap((p) => [p.atMm, ...p.points.flat()]),
    ...(given.guides ?? []).flat(2),
  ];
  if (!figures.every(Number.isFinite) || given.spineRadiusMm === 0)
    return { code: 'stations-number', about: [] };
  const same = profiles.findIndex((p, i) => i > 0 && p.atMm - profiles[i - 1]!.atMm < ROUNDING_MM);
  if (same >= 0)
    return { code: 'stations-order', about: [], numbers: { atMm: profiles[same]!.atMm } };
  const doubled = profiles.find((p) =>
    p.points.some(
      (q, i) =>
        i > 0 && Math.hypot(q[0] - p.points[i - 1]![0], q[1] - p.points[i - 1]![1]) < ROUNDING_MM,
    ),
  );
  if (doubled) return { code: 'stations-doubled', about: [], numbers: { atMm: doubled.atMm } };
  const { guides } = given;
  return guides &&
    !guides.every((guide) => guide.length > 1 && lengths3(guide)[guide.length - 1]! > ROUNDING_MM)
    ? { code: 'stations-guides', about: [] }
    : null;
}

/** Where a point of a profile is in space. */
function placer(
  given: Stations,
  profiles: Stations['profiles'],
): (profile: number, p: readonly [number, number]) => Vec3 {
  const { guides, spineRadiusMm: r } = given;
  if (!guides) {
    const middle = (profiles[0]!.atMm + profiles[profiles.length - 1]!.atMm) / 2;
    return (i, [x, z]) => {
      const at = profiles[i]!.atMm - middle;
      return r === null
        ? [x, at, z]
        : [x, (r + z) * Math.sin(at / r), (r + z) * Math.cos(at / r) - r];
    };
  }
  const [from, to] = [profiles[0]!.atMm, profiles[profiles.length - 1]!.atMm];
  const frames = profiles.map(({ atMm, points }) => {
    const share = (atMm - from) / (to - from);
    const [[p, t], [q, s]] = guides.map((guide) => onGuide(guide, share)) as [
      [Vec3, Vec3],
      [Vec3, Vec3],
    ];
    const chord = sub3(q, p);
    const x = unit3(chord);
    const z = unit3(cross3(x, [t[0] + s[0], t[1] + s[1], t[2] + s[2]]));
    const [first, last] = [points[0]!, points[points.length - 1]!];
    const [dx, dz] = [last[0] - first[0], last[1] - first[1]];
    const own = Math.hypot(dx, dz);
    const by = own > ROUNDING_MM ? length3(chord) / own : 1;
    return {
      p,
      x,
      z,
      first,
      by,
      c: own > ROUNDING_MM ? dx / own : 1,
      s: own > ROUNDING_MM ? dz / own : 0,
    };
  });
  return (i, point) => {
    const { p, x, z, first, by, c, s } = frames[i]!;
    const [dx, dz] = [(point[0] - first[0]) * by, (point[1] - first[1]) * by];
    return along3(along3(p, x, c * dx + s * dz), z, c * dz - s * dx);
  };
}

/** A share of the way along a guide: the place, and the direction there. */
function onGuide(guide: readonly Vec3[], share: number): [Vec3, Vec3] {
  const long = lengths3(guide);
  const at = share * long[long.length - 1]!;
  const cubics = [0, 1, 2].map((axis) =>
    smoothed(
      long,
      guide.map((p) => p[axis]!),
      0,
    ),
  );
  const place = (x: number): Vec3 => cubics.map((cubic) => cubicAt(cubic, x)) as unknown as Vec3;
  const near = long[long.length - 1]! * 1e-4;
  return [place(at), unit3(sub3(place(at + near), place(at - near)))];
}

/** A share of the way across places that are evenly apart: a cubic through the four nearest. */
function between(places: readonly Vec3[], share: number): Vec3 {
  const i = Math.min(places.length - 3, Math.max(1, Math.floor(share * (places.length - 1))));
  const s = share * (places.length - 1) - i;
  const weights = [
    (-s * (s - 1) * (s - 2)) / 6,
    ((s + 1) * (s - 1) * (s - 2)) / 2,
    (-(s + 1) * s * (s - 2)) / 2,
    ((s + 1) * s * (s - 1)) / 6,
  ];
  return weights.reduce<Vec3>((sum, w, k) => along3(sum, places[i - 1 + k]!, w), [0, 0, 0]);
}

/** How far a point lies off a line of points. */
function offLine(p: Vec3, line: readonly Vec3[]): number {
  let least = Infinity;
  for (let i = 1; i < line.length; i++) {
    const [a, b] = [line[i - 1]!, line[i]!];
    const ab = sub3(b, a);
    const share = Math.min(1, Math.max(0, dot3(sub3(p, a), ab) / (dot3(ab, ab) || 1)));
    least = Math.min(least, length3(sub3(p, along3(a, ab, share))));
  }
  return least;
}

const lengthsOf = (points: readonly (readonly [number, number])[]): number[] =>
  lengths3(points.map(([x, z]): Vec3 => [x, z, 0]));

/** How far along a line of points each of them is. */
function lengths3(points: readonly Vec3[]): number[] {
  const found = [0];
  for (let i = 1; i < points.length; i++)
    found.push(found[i - 1]! + length3(sub3(points[i]!, points[i - 1]!)));
  return found;
}
