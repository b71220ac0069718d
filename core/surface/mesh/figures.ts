import { z } from 'zod';
import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import { gridMesh, roundMesh } from './gridMesh';
import type { Mesh, Vec3 } from './mesh';

const mm = z.number();

/** A radius both ways: above 0 the panel is crowned that way, below 0 hollow, null straight. */
const BothWays = z.object({ alongMm: mm.nullable(), acrossMm: mm.nullable() });

/** A panel by its figures, mm and degrees. See `figureMesh` for what each is. */
export const FigureSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('cap'),
    widthMm: mm,
    heightMm: mm.optional(),
    radiusMm: mm.optional(),
  }),
  z.object({ kind: z.literal('barrel'), alongMm: mm, acrossMm: mm, lengthMm: mm, widthMm: mm }),
  z.object({ kind: z.literal('saddle'), alongMm: mm, acrossMm: mm, lengthMm: mm, widthMm: mm }),
  z.object({
    kind: z.literal('ring'),
    tubeMm: mm,
    ringMm: mm,
    arcDeg: z.number(),
    fromDeg: z.number().default(0),
    toDeg: z.number().default(90),
  }),
  z.object({
    kind: z.literal('cone'),
    radiusMm: mm,
    topRadiusMm: mm,
    heightMm: mm,
    arcDeg: z.number(),
  }),
  z.object({
    kind: z.literal('shrunk-edge'),
    radiusMm: mm,
    lengthMm: mm,
    widthMm: mm,
    shrinkPct: z.number(),
    overMm: mm,
  }),
  z.object({ kind: z.literal('blend'), lengthMm: mm, widthMm: mm, from: BothWays, to: BothWays }),
]);

export type Figure = z.infer<typeof FigureSchema>;

const RADIAN = Math.PI / 180;
/** Triangles where nothing else is asked for. */
export const USUAL_TRIANGLES = 5000;

/**
 * The surface of a panel by its figures, as about `triangles` triangles, seen from its outside (z
 * up where it is shown).
 *
 * - cap: part of a ball by the width of its rim and its height over it, or its radius.
 * - barrel, saddle: an arc of `acrossMm` carried round an arc of `alongMm`, over a length and a
 *   width measured along the two middle lines; crowned both ways, or along and hollow across.
 * - ring: part of a ring as at a wheel arch: a round of `tubeMm` whose centre goes round at
 *   `ringMm`, over `arcDeg` of the ring; of the round what lies between `fromDeg` and `toDeg`,
 *   counted from its outermost line up to its crest (90).
 * - cone: round `arcDeg` of an axis, its radius going from one to the other over its height.
 * - shrunk-edge: a sheet curved one way to `radiusMm`, one long edge then shrunk by `shrinkPct`,
 *   fading to nothing over `overMm` (as the square of what is left).
 * - blend: radii both ways at one end that go over into those at the other, without a kink.
 *
 * Problems: `surface-figures` (not above 0, too far round, a cap higher than a ball, more tube than
 * ring).
 */
export function figureMesh(figure: Figure, triangles = USUAL_TRIANGLES): Result<{ mesh: Mesh }> {
  const made = meshFor(figure, triangles);
  return made && made.vertices.every(Number.isFinite)
    ? { ok: true, mesh: made }
    : failure({ code: 'surface-figures', about: [figure.kind] });
}

function meshFor(figure: Figure, triangles: number): Mesh | null {
  switch (figure.kind) {
    case 'cap':
      return cap(figure, triangles);
    case 'barrel':
    case 'saddle':
      return carried(figure, triangles);
    case 'ring':
      return ring(figure, triangles);
    case 'cone':
      return cone(figure, triangles);
    case 'shrunk-edge':
      return shrunkEdge(figure, triangles);
    case 'blend':
      return blend(figure, triangles);
  }
}

type Of<K extends Figure['kind']> = Extract<Figure, { kind: K }>;

/**
 * Radius of a ball by a cap's figures, and the angle from its middle to its rim; null where they
 * make none.
 */
export function capOf({
  widthMm: w,
  heightMm: h,
  radiusMm: r,
}: Of<'cap'>): { radius: number; half: number } | null {
  if (!(w > 0) || (h === undefined) === (r === undefined)) return null;
  if (h === undefined) return r! >= w / 2 ? { radius: r!, half: Math.asin(w / 2 / r!) } : null;
  // Lower than a ball's whole height: a rim a hundredth of the width of the ball is still one.
  if (!(h > 0) || h > 50 * w) return null;
  return { radius: w ** 2 / (8 * h) + h / 2, half: 2 * Math.atan((2 * h) / w) };
}

function cap(figure: Of<'cap'>, triangles: number): Mesh | null {
  const ball = capOf(figure);
  if (!ball) return null;
  const down = ball.radius * Math.cos(ball.half);
  return roundMesh(triangles, (share, turn) => {
    const t = share * ball.half;
    return [
      ball.radius * Math.sin(t) * Math.cos(turn),
      ball.radius * Math.sin(t) * Math.sin(turn),
      ball.radius * Math.cos(t) - down,
    ];
  });
}

function carried(
  { kind, alongMm: r, acrossMm: q, lengthMm, widthMm }: Of<'barrel' | 'saddle'>,
  triangles: number,
): Mesh | null {
  if (![r, q, lengthMm, widthMm].every((x) => x > 0)) return null;
  const [round, across] = [lengthMm / r, widthMm / q];
  const sign = kind === 'barrel' ? 1 : -1;
  const lowest = r - sign * q * (1 - Math.cos(across / 2));
  if (round > 2 * Math.PI - 0.02 || across > Math.PI || !(lowest > 0)) return null;
  return gridMesh(triangles, lengthMm, widthMm, (u, v) => {
    const [a, b] = [(u - 0.5) * round, (v - 0.5) * across];
    const out = r - sign * q * (1 - Math.cos(b));
    return [out * Math.sin(a), q * Math.sin(b), out * Math.cos(a) - r];
  });
}

function ring(
  { tubeMm, ringMm, arcDeg, fromDeg, toDeg }: Of<'ring'>,
  triangles: number,
): Mesh | null {
  if (!(tubeMm > 0) || !(ringMm > tubeMm) || !(arcDeg > 0 && arcDeg < 360)) return null;
  if (!(toDeg > fromDeg && toDeg - fromDeg < 360)) return null;
  const [arc, from, to] = [arcDeg * RADIAN, fromDeg * RADIAN, toDeg * RADIAN];
  return gridMesh(triangles, arc * ringMm, (to - from) * tubeMm, (u, v) => {
    const [a, b] = [(u - 0.5) * arc, from + v * (to - from)];
    const out = ringMm + tubeMm * Math.cos(b);
    return [out * Math.sin(a), -out * Math.cos(a), tubeMm * Math.sin(b)];
  });
}

function cone(
  { radiusMm, topRadiusMm, heightMm, arcDeg }: Of<'cone'>,
  triangles: number,
): Mesh | null {
  if (!(radiusMm > 0) || !(topRadiusMm > 0) || !(heightMm > 0) || !(arcDeg > 0 && arcDeg < 360))
    return null;
  const arc = arcDeg * RADIAN;
  const slant = Math.hypot(heightMm, radiusMm - topRadiusMm);
  return gridMesh(triangles, (arc * (radiusMm + topRadiusMm)) / 2, slant, (u, v) => {
    const a = (u - 0.5) * arc;
    const r = radiusMm + (topRadiusMm - radiusMm) * v;
    return [r * Math.sin(a), -r * Math.cos(a), heightMm * v];
  });
}

function shrunkEdge(
  { radiusMm: r, lengthMm, widthMm, shrinkPct, overMm }: Of<'shrunk-edge'>,
  triangles: number,
): Mesh | null {
  const round = lengthMm / r;
  if (!(r > 0 && lengthMm > 0 && widthMm > 0 && overMm > 0) || overMm > widthMm) return null;
  if (!(shrinkPct > 0 && shrinkPct < 100) || round > 2 * Math.PI - 0.02) return null;
  // The section: straight, then drawn in towards the axis; its own length stays what it was.
  const steps = 400;
  const section: [number, number][] = [[r, 0]];
  for (let i = 1; i <= steps; i++) {
    const near = Math.max(0, 1 - (widthMm - (widthMm * i) / steps) / overMm);
    const out = r * (1 - (shrinkPct / 100) * near ** 2);
    const step = widthMm / steps;
    const drop = section[i - 1]![0] - out;
    if (drop >= step) return null;
    section.push([out, section[i - 1]![1] + Math.sqrt(step ** 2 - drop ** 2)]);
  }
  return gridMesh(triangles, lengthMm, widthMm, (u, v) => {
    const at = Math.min(steps - 1, Math.floor(v * steps));
    const share = v * steps - at;
    const [p, q] = [section[at]!, section[at + 1]!];
    const [out, y] = [p[0] + (q[0] - p[0]) * share, p[1] + (q[1] - p[1]) * share];
    const a = (u - 0.5) * round;
    return [out * Math.sin(a), y, out * Math.cos(a) - r];
  });
}

function blend({ lengthMm, widthMm, from, to }: Of<'blend'>, triangles: number): Mesh | null {
  if (!(lengthMm > 0) || !(widthMm > 0)) return null;
  const bent = (radius: number | null): number => (radius === null ? 0 : 1 / radius);
  if ([from, to].some((end) => end.alongMm === 0 || end.acrossMm === 0)) return null;
  const between = (a: number, b: number, u: number): number => a + (b - a) * u * u * (3 - 2 * u);
  const alongAt = (u: number): number => between(bent(from.alongMm), bent(to.alongMm), u);
  const acrossAt = (u: number): number => between(bent(from.acrossMm), bent(to.acrossMm), u);
  const most = Math.max(...[from, to].map((end) => Math.abs(bent(end.acrossMm))));
  if (most * widthMm > Math.PI) return null;
  // The middle line: turned by its curvature from place to place.
  const steps = 800;
  const line: { x: number; z: number; turn: number }[] = [{ x: 0, z: 0, turn: 0 }];
  for (let i = 1; i <= steps; i++) {
    const { x, z: height, turn } = line[i - 1]!;
    const next = turn - (alongAt((i - 0.5) / steps) * lengthMm) / steps;
    const middle = (turn + next) / 2;
    line.push({
      x: x + (Math.cos(middle) * lengthMm) / steps,
      z: height + (Math.sin(middle) * lengthMm) / steps,
      turn: next,
    });
  }
  const half = line[steps]!.turn / 2;
  return gridMesh(triangles, lengthMm, widthMm, (u, v) => {
    const at = Math.min(steps - 1, Math.floor(u * steps));
    const share = u * steps - at;
    const [p, q] = [line[at]!, line[at + 1]!];
    const turn = p.turn + (q.turn - p.turn) * share;
    const [x, height] = [p.x + (q.x - p.x) * share, p.z + (q.z - p.z) * share];
    const off = (v - 0.5) * widthMm;
    const k = acrossAt(u);
    const [y, drop] =
      Math.abs(k) < 1e-9
        ? [off, (k * off * off) / 2]
        : [Math.sin(k * off) / k, (1 - Math.cos(k * off)) / k];
    // Turned back by half of all the turning, so that the middle of the panel lies level.
    const place: Vec3 = [x + drop * Math.sin(turn), y, height - drop * Math.cos(turn)];
    return [
      place[0] * Math.cos(half) + place[2] * Math.sin(half),
      place[1],
      place[2] * Math.cos(half) - place[0] * Math.sin(half),
    ];
  });
}
