import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import { leastOf } from '../../measure/leastOf';
import type { Path } from '../../measure/path';
import { area } from '../../measure/path';
import { cross, dot, sub } from '../../measure/vector';
import { deviationOf } from '../mesh/deviation';
import { discOf, sidesOf } from '../mesh/disc';
import type { Mesh } from '../mesh/mesh';
import type { PaperMesh, PaperWedge } from '../mesh/paperMesh';
import { mouthOf, paperMesh } from '../mesh/paperMesh';

/**
 * Smoothed over this share of the square root of the paper’s area, mm, as far as the surface may
 * still crease.
 */
const SMOOTHED = 1 / 14;
/**
 * Thickness that gives the paper's stiffness against bending, as a share of a side of its
 * triangles.
 */
const THICK = 0.06;
const STEPS = 3000;
const ENOUGH = 3e-6;

/**
 * The surface that paper lies on when its tucks and slits are taped shut: the shape it takes when
 * it bends and hardly stretches, bowed toward whoever looks at it, first as paper would (creased at
 * the ends of its tucks), then smoothed. `offMm`: how far the smoothed surface is from the creased
 * one at most; `stretched`: by how much the smoothed one stretches or gathers the paper, in the
 * root mean square. Yields steps.
 *
 * Problems: those of `paperMesh`, `taped-flat` (no wedge, or they even out: paper lies flat on it),
 * and those of `discOf`.
 */
export function* tapedPanel(
  outline: Path,
  wedges: readonly PaperWedge[],
  triangles: number,
): Generator<number, Result<{ mesh: Mesh; offMm: number; stretched: number }>> {
  const totalRad = wedges.reduce(
    (sum, wedge) => sum + (wedge.kind === 'tuck' ? 1 : -1) * turnOf(outline, wedge),
    0,
  );
  if (wedges.length === 0) return failure({ code: 'taped-flat', about: [] });
  const found = paperMesh(outline, wedges, triangles);
  if (!found.ok) return found;
  const { paper } = found;
  const disc = discOf({ vertices: spread(paper, 0, 0), triangles: paper.triangles });
  if (!disc.ok) return disc;
  const side = Math.sqrt((area(outline) / (paper.triangles.length / 3)) * (4 / Math.sqrt(3)));
  const springs = springsOf(paper);
  const size = Math.sqrt(area(outline));
  const creased = yield* leastOf(bent(springs, THICK * side), bowed(paper, totalRad), {
    most: STEPS,
    enough: ENOUGH,
  });
  const smooth = yield* leastOf(evened(springs, creased.x, SMOOTHED * size), creased.x, {
    most: STEPS,
    enough: ENOUGH,
  });
  const mesh = { vertices: smooth.x, triangles: paper.triangles };
  return {
    ok: true,
    mesh,
    offMm: deviationOf(mesh, { vertices: creased.x, triangles: paper.triangles }).worstMm,
    stretched: springs.stretchedBy(smooth.x),
  };
}

/**
 * The angle a wedge takes out or lets in, by its width and its depth square to the outline,
 * radians.
 */
function turnOf(outline: Path, wedge: PaperWedge): number {
  const [a, b] = mouthOf(outline, wedge).map((end) => sub(end, wedge.point));
  return Math.abs(Math.atan2(cross(a!, b!), dot(a!, b!)));
}

/** The paper as it lies, z by `one`·(x² + y²) + `other`·(x² − y²) about its middle. */
function spread({ flat }: PaperMesh, one: number, other: number): Float64Array {
  const count = flat.length / 2;
  let [mx, my] = [0, 0];
  for (let v = 0; v < count; v++) {
    mx += flat[2 * v]! / count;
    my += flat[2 * v + 1]! / count;
  }
  const places = new Float64Array(3 * count);
  for (let v = 0; v < count; v++) {
    const [x, y] = [flat[2 * v]!, flat[2 * v + 1]!];
    const [dx, dy] = [x - mx, y - my];
    places.set([x, y, one * (dx * dx + dy * dy) + other * (dx * dx - dy * dy)], 3 * v);
  }
  return places;
}

/** A first guess: part of a ball, or a saddle, that curves as much in all. */
function bowed(paper: PaperMesh, totalRad: number): Float64Array {
  let [x0, x1, y0, y1] = [Infinity, -Infinity, Infinity, -Infinity];
  for (let v = 0; v < paper.flat.length; v += 2) {
    x0 = Math.min(x0, paper.flat[v]!);
    x1 = Math.max(x1, paper.flat[v]!);
    y0 = Math.min(y0, paper.flat[v + 1]!);
    y1 = Math.max(y1, paper.flat[v + 1]!);
  }
  // Never flat, so that paper whose wedges even out still knows which way to go.
  const radius = Math.sqrt(((x1 - x0) * (y1 - y0)) / Math.max(0.02, Math.abs(totalRad)));
  const bow = -1 / (2 * radius);
  return totalRad >= 0 ? spread(paper, bow, 0) : spread(paper, 0, x1 - x0 >= y1 - y0 ? bow : -bow);
}

/**
 * Sides of the paper's triangles with their lengths, and at each vertex inside its neighbours
 * weighed by the cotangents of their angles.
 */
type Springs = {
  sides: Uint32Array;
  long: Float64Array;
  /**
   * By vertex inside: where its neighbours begin in `near`, with weights; and a third of the area
   * about it, mm².
   */
  inner: { v: number; near: number[]; weights: number[]; areaMm2: number }[];
  stretchedBy: (x: Float64Array) => number;
};

function springsOf({ triangles, long }: PaperMesh): Springs {
  const count = triangles.reduce((most, v) => Math.max(most, v), 0) + 1;
  const { across } = sidesOf({ vertices: new Float64Array(3 * count), triangles });
  const lengths = new Map<number, { sum: number; times: number; weight: number }>();
  const areas = new Float64Array(count);
  const onRim = new Uint8Array(count);
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [long[t]!, long[t + 1]!, long[t + 2]!];
    const s = (a + b + c) / 2;
    const size = Math.sqrt(Math.max(1e-9 * s ** 4, s * (s - a) * (s - b) * (s - c)));
    for (let k = 0; k < 3; k++) {
      const [v, w] = [triangles[t + k]!, triangles[t + ((k + 1) % 3)]!];
      const [own, next, last] = [long[t + k]!, long[t + ((k + 1) % 3)]!, long[t + ((k + 2) % 3)]!];
      const name = Math.min(v, w) * count + Math.max(v, w);
      const known = lengths.get(name) ?? { sum: 0, times: 0, weight: 0 };
      // The cotangent of the angle that faces the side.
      known.weight += (next * next + last * last - own * own) / (8 * size);
      known.sum += own;
      known.times++;
      lengths.set(name, known);
      areas[v]! += size / 3;
      if (across[t + k]! < 0) onRim[v] = onRim[w] = 1;
    }
  }
  const sides = new Uint32Array(2 * lengths.size);
  const rest = new Float64Array(lengths.size);
  const near = new Map<number, { v: number; near: number[]; weights: number[]; areaMm2: number }>();
  let i = 0;
  for (const [name, { sum, times, weight }] of lengths) {
    const [v, w] = [Math.floor(name / count), name % count];
    sides.set([v, w], 2 * i);
    rest[i++] = sum / times;
    for (const [p, q] of [
      [v, w],
      [w, v],
    ] as const) {
      if (onRim[p]) continue;
      const one = near.get(p) ?? { v: p, near: [], weights: [], areaMm2: areas[p]! };
      one.near.push(q);
      one.weights.push(weight);
      near.set(p, one);
    }
  }
  const stretchedBy = (x: Float64Array): number => {
    let sum = 0;
    for (let k = 0; k < rest.length; k++) {
      const [p, q] = [3 * sides[2 * k]!, 3 * sides[2 * k + 1]!];
      sum +=
        (Math.hypot(x[p]! - x[q]!, x[p + 1]! - x[q + 1]!, x[p + 2]! - x[q + 2]!) / rest[k]! - 1) **
        2;
    }
    return Math.sqrt(sum / rest.length);
  };
  return { sides, long: rest, inner: [...near.values()], stretchedBy };
}

type Cost = (x: Float64Array, gradient: Float64Array) => number;

/**
 * What it costs the paper to lie as it does: sides that are not as long as they were, and bends, as
 * stiff as `thickMm`.
 */
function bent({ sides, long, inner }: Springs, thickMm: number): Cost {
  return (x, gradient) => {
    gradient.fill(0);
    let cost = bends(inner, thickMm * thickMm, x, gradient);
    for (let i = 0; i < long.length; i++) {
      const [p, q, l] = [3 * sides[2 * i]!, 3 * sides[2 * i + 1]!, long[i]!];
      const [dx, dy, dz] = [x[p]! - x[q]!, x[p + 1]! - x[q + 1]!, x[p + 2]! - x[q + 2]!];
      const off = dx * dx + dy * dy + dz * dz - l * l;
      cost += (off * off) / (4 * l * l);
      const pull = off / (l * l);
      gradient[p]! += pull * dx;
      gradient[p + 1]! += pull * dy;
      gradient[p + 2]! += pull * dz;
      gradient[q]! -= pull * dx;
      gradient[q + 1]! -= pull * dy;
      gradient[q + 2]! -= pull * dz;
    }
    return cost;
  };
}

/**
 * What it costs to be off from where `from` is, and to bend: as smooth as it is over `overMm`, flat
 * parts and gentle ones as they are.
 */
function evened({ inner, long }: Springs, from: Float64Array, overMm: number): Cost {
  const mean = long.reduce((sum, l) => sum + l / long.length, 0);
  const held = (mean * mean * Math.sqrt(3)) / 2;
  return (x, gradient) => {
    gradient.fill(0);
    let cost = bends(inner, overMm ** 4, x, gradient);
    for (let i = 0; i < x.length; i++) {
      const off = x[i]! - from[i]!;
      cost += held * off * off;
      gradient[i]! += 2 * held * off;
    }
    return cost;
  };
}

/**
 * What the bends at the vertices inside cost, by their mean curvature squared over the area; adds
 * to the gradient.
 */
function bends(
  inner: Springs['inner'],
  stiff: number,
  x: Float64Array,
  gradient: Float64Array,
): number {
  let cost = 0;
  for (const { v, near, weights, areaMm2 } of inner) {
    const k = stiff / areaMm2;
    for (let axis = 0; axis < 3; axis++) {
      const own = x[3 * v + axis]!;
      let sum = 0;
      for (let j = 0; j < near.length; j++) sum += weights[j]! * (x[3 * near[j]! + axis]! - own);
      cost += k * sum * sum;
      for (let j = 0; j < near.length; j++) {
        const by = 2 * k * sum * weights[j]!;
        gradient[3 * near[j]! + axis]! += by;
        gradient[3 * v + axis]! -= by;
      }
    }
  }
  return cost;
}
