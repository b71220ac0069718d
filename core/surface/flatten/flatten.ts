import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import { runToCompletion } from '../../measure/runToCompletion';
import type { Disc } from '../mesh/disc';
import { dissect } from '../../solve/dissection';
import { firstFlat, seenSquareOn, upright } from './firstFlat';
import { factorFronts, frontsOf, solveFronts } from '../../solve/fronts';
import type { Holds } from './held';
import { FREE, addPulled, pulledEnergy } from './held';
import { addKept, keptEnergy } from './kept';
import { vertexCount } from '../mesh/mesh';
import type { Panel, Weights } from '../strain/strain';
import { energyOf, longestStep, newtonOf, panelOf, weightsOf } from '../strain/strain';

/**
 * A flat on its way: u, v of each vertex in turn, mm; the weighed energy at the balance; whether no
 * step is left to take.
 */
export type Flat = { flat: Float64Array; energy: number; steps: number; done: boolean };

/** Maximum step, as a share of that which would flip a triangle. */
const SHORT_OF_FLIPPED = 0.9;
/**
 * A step that gains less than this share of the energy is the last one; in schools far from the
 * middle, whose energies are a hundredth, this one; on the way there it is enough that a step no
 * longer halves it.
 */
const ENOUGH = 2e-4;
const ENOUGH_FAR = 1e-3;
const ENOUGH_ON_THE_WAY = 1;
/** An energy below this is nought: strains of a ten-millionth. */
const NOUGHT = 1e-15;
const MAX_STEPS = 80;
/**
 * Maximum number of steps taken with one factorisation of the stiffness, each with no less than
 * this share of the gain before.
 */
const MAX_AGAIN = 10;
const SERVES = 0.5;
/** In schools farther from the middle than this the stiffness changes too much with the flat. */
const MILD = 0.1;
/**
 * What is left is reckoned from how they went on: the factor by which it must be below the
 * threshold that ends Newton’s own steps.
 */
const SURER = 25;
/** Stiffness against being turned as a whole, as a share of the mean one. */
const HELD = 1e-9;

/**
 * Lays a panel flat by least energy (see `weightsOf`): Newton's steps from a first flat on, none of
 * which flips a triangle. Yields a flat that gets better until it is done. `from` is a flat of the
 * same panel to begin with; `holds`: sides of the rim that keep their length, and places that are
 * pulled.
 */
export function* flattening(
  disc: Disc,
  balance: number,
  from?: Float64Array,
  holds: Holds = FREE,
): Generator<Flat, Result<Flat>> {
  const { mesh } = disc;
  const panel = panelOf(mesh);
  const fronts = frontsOf(
    dissect(vertexCount(mesh), mesh.triangles, mesh.vertices, 3),
    mesh.triangles,
    2,
  );
  const start =
    from && upright(mesh.triangles, from)
      ? Float64Array.from(from)
      : firstFlat(disc, panel, fronts);
  if (!upright(mesh.triangles, start)) return failure({ code: 'flatten-failed', about: [] });
  let flat = start;
  let steps = 0;
  // A balance far from the middle is come to in paces: each starts where the last one ended.
  for (const pace of from ? [balance] : pacesTo(balance)) {
    const weights = weightsOf(pace);
    const isMild = Math.abs(pace - 0.5) <= MILD;
    const enough = pace !== balance ? ENOUGH_ON_THE_WAY : isMild ? ENOUGH : ENOUGH_FAR;
    const most = isMild ? MAX_AGAIN : 0;
    let energy = energyOf(panel, flat, weights) + holdsEnergy(panel, holds, flat);
    for (; steps < MAX_STEPS; steps++) {
      yield { flat, energy, steps, done: false };
      const next = newtonStep(panel, fronts, flat, energy, weights, holds, true);
      if (!next) break;
      let gained = energy - next.energy;
      ({ flat, energy } = next);
      if (gained <= enough * energy || energy < NOUGHT) break;
      // Near the end the stiffness hardly changes: steps by the one that is factored cost little,
      // as long as each gains much less than the one before, so that what is left to gain is known
      // to be little.
      const little = enough / SURER;
      let left = Infinity;
      for (let again = 0; again < most && left > little * energy; again++) {
        const more = newtonStep(panel, fronts, flat, energy, weights, holds, false);
        if (!more) break;
        const share = (energy - more.energy) / gained;
        gained = energy - more.energy;
        ({ flat, energy } = more);
        if (share > SERVES) break;
        // Each gains less than half of the one before: what is left is less than the last one
        // gained.
        if (again > 0) left = gained;
      }
      if (left <= little * energy || energy < NOUGHT) break;
    }
  }
  return {
    ok: true,
    flat: laidUpright(disc, flat),
    energy: energyOf(panel, flat, weightsOf(balance)),
    steps,
    done: true,
  };
}

/** The schools on the way from the middle to one end. */
function pacesTo(balance: number): number[] {
  const off = balance - 0.5;
  const paces = Math.max(1, Math.ceil(Math.abs(off) / 0.25));
  return Math.abs(off) < 1e-9
    ? [balance]
    : Array.from({ length: paces + 1 }, (_, i) => 0.5 + (off * i) / paces);
}

/** What is held costs. */
const holdsEnergy = (panel: Panel, { sides, pulled }: Holds, flat: Float64Array): number =>
  keptEnergy(panel, sides, flat) + pulledEnergy(panel, pulled, flat);

/**
 * One step of Newton's, by its stiffness at `flat` or, not `anew`, by the one that was factored
 * last; as long as it goes without flipping a triangle and for as much gain as it promises; null at
 * the end.
 */
function newtonStep(
  panel: Panel,
  fronts: ReturnType<typeof frontsOf>,
  flat: Float64Array,
  energy: number,
  weights: Weights,
  holds: Holds,
  anew: boolean,
): { flat: Float64Array; energy: number } | null {
  const { triangles } = panel;
  const gradient = new Float64Array(flat.length);
  const part = new Float64Array(6);
  const hessian = new Float64Array(36);
  const entries = (t: number, into: Float64Array): void => {
    newtonOf(panel, flat, weights, t, part, into);
    addKept(panel, holds.sides, flat, t, part, into);
    addPulled(panel, holds.pulled, flat, t, part, into);
    for (let k = 0; k < 3; k++) {
      const v = 2 * triangles[3 * t + k]!;
      gradient[v]! += part[2 * k]!;
      gradient[v + 1]! += part[2 * k + 1]!;
    }
  };
  if (anew) {
    newtonOf(panel, flat, weights, 0, part, hessian);
    const stiff = (hessian[0]! + hessian[7]! + hessian[14]!) / 3;
    if (!factorFronts(fronts, entries, () => stiff * HELD)) return null;
  } else for (let t = 0; t < triangles.length / 3; t++) entries(t, hessian);
  const by = gradient.map((x) => -x);
  solveFronts(fronts, by);
  let promised = 0;
  for (let i = 0; i < by.length; i++) promised -= gradient[i]! * by[i]!;
  if (!(promised > 1e-9 * energy)) return null;
  let step = Math.min(1, SHORT_OF_FLIPPED * longestStep(triangles, flat, by));
  for (let tries = 0; tries < 40; tries++, step /= 2) {
    const tried = flat.map((x, i) => x + step * by[i]!);
    const now = energyOf(panel, tried, weights) + holdsEnergy(panel, holds, tried);
    if (now <= energy - 1e-4 * step * promised) return { flat: tried, energy: now };
  }
  return null;
}

/**
 * A flat turned as the panel is seen along its mean normal, its middle where the panel's middle is
 * seen.
 */
function laidUpright(disc: Disc, flat: Float64Array): Float64Array {
  const count = flat.length / 2;
  const seen = seenSquareOn(disc);
  const mean = [0, 0, 0, 0];
  for (let v = 0; v < count; v++) {
    mean[0]! += seen[2 * v]! / count;
    mean[1]! += seen[2 * v + 1]! / count;
    mean[2]! += flat[2 * v]! / count;
    mean[3]! += flat[2 * v + 1]! / count;
  }
  let [alike, across] = [0, 0];
  for (let v = 0; v < count; v++) {
    const [x, y] = [seen[2 * v]! - mean[0]!, seen[2 * v + 1]! - mean[1]!];
    const [u, w] = [flat[2 * v]! - mean[2]!, flat[2 * v + 1]! - mean[3]!];
    alike += u * x + w * y;
    across += u * y - w * x;
  }
  const size = Math.hypot(alike, across);
  const [c, s] = size > 0 ? [alike / size, across / size] : [1, 0];
  const laid = new Float64Array(flat.length);
  for (let v = 0; v < count; v++) {
    const [u, w] = [flat[2 * v]! - mean[2]!, flat[2 * v + 1]! - mean[3]!];
    laid[2 * v] = mean[0]! + c * u - s * w;
    laid[2 * v + 1] = mean[1]! + s * u + c * w;
  }
  return laid;
}

/** Lays a panel flat in one go. */
export const flatten = (disc: Disc, balance: number): Result<Flat> =>
  runToCompletion(flattening(disc, balance));
