import type { Result } from '../measure/result';
import { failure } from '../measure/result';
import { ROUNDING, ROUNDING_MM } from '../measure/tolerance';

/** Spots along one edge; more are a slip in the pitch. */
const MAX_SPOTS = 2000;

/**
 * Centres of plug welds along an edge: the first and last `endMm` from the ends, the rest even, no
 * farther apart than the pitch asked for. Positions in mm from the start of the edge, ascending. An
 * edge too short for two plugs at those ends gets one in the middle. Spacing to factory pitch is
 * common practice (docs/formulas.md).
 *
 * Problems: `length-not-positive`, `pitch-not-positive`, `end-negative`, `too-many-plugs` (over
 * 2000).
 */
export function plugPositions(
  lengthMm: number,
  pitchMm: number,
  endMm: number,
): Result<{ count: number; positionsMm: number[] }> {
  if (!(lengthMm > 0)) return failure({ code: 'length-not-positive', numbers: { lengthMm } });
  if (!(pitchMm > 0)) return failure({ code: 'pitch-not-positive', numbers: { pitchMm } });
  if (!(endMm >= 0)) return failure({ code: 'end-negative', numbers: { endMm } });
  const run = lengthMm - 2 * endMm;
  if (run <= ROUNDING_MM) return { ok: true, count: 1, positionsMm: [lengthMm / 2] };
  const gaps = Math.max(1, Math.ceil(run / pitchMm - ROUNDING));
  if (gaps > MAX_SPOTS) return failure({ code: 'too-many-plugs', numbers: { plugs: gaps + 1 } });
  const positionsMm = Array.from({ length: gaps + 1 }, (_, i) => endMm + (run * i) / gaps);
  return { ok: true, count: positionsMm.length, positionsMm };
}

/**
 * An order for `count` spots in a row (0 … count − 1) that spreads heat: the ends, then the middle
 * of the widest stretch left, then of the halves. Of stretches equally wide the one farthest from
 * the spot just made comes first. A row that closes on itself begins at its first and goes on
 * opposite. Common practice.
 */
export function spreadOrder(count: number, closed = false): number[] {
  if (count <= 0) return [];
  const made = closed || count === 1 ? [0] : [0, count - 1];
  // Stretches between spots already made, as [from, to] of indices; closed, the last one ends where
  // the first began.
  let stretches: [number, number][] = closed ? [[0, count]] : [[0, count - 1]];
  while (made.length < count) {
    const last = made[made.length - 1]!;
    const apart = ([a, b]: [number, number]) => {
      const d = Math.abs(Math.floor((a + b) / 2) - last);
      return closed ? Math.min(d, count - d) : d;
    };
    const waiting = stretches.filter(([a, b]) => b - a > 1);
    const widest = Math.max(...waiting.map(([a, b]) => b - a));
    // As good as equally wide: halves of an odd stretch differ by one.
    const next = waiting
      .filter(([a, b]) => b - a >= widest - 1)
      .reduce((best, stretch) => (apart(stretch) > apart(best) ? stretch : best));
    const middle = Math.floor((next[0] + next[1]) / 2);
    made.push(middle);
    stretches = stretches.flatMap((s): [number, number][] =>
      s === next
        ? [
            [next[0], middle],
            [middle, next[1]],
          ]
        : [s],
    );
  }
  return made;
}

/**
 * Where to tack and in what order, mm from the start of the run: the fewest that are nowhere
 * farther apart than the pitch, evenly spaced, in the order that spreads heat: ends, middle,
 * halves. A closed loop begins at its start and goes on opposite; its start and end are one tack,
 * and it has two at least. Common practice.
 *
 * Problems: `length-not-positive`, `pitch-not-positive`, `too-many-tacks` (over 2000).
 */
export function tackOrder(
  lengthMm: number,
  pitchMm: number,
  closed: boolean,
): Result<{ positionsMm: number[] }> {
  if (!(lengthMm > 0)) return failure({ code: 'length-not-positive', numbers: { lengthMm } });
  if (!(pitchMm > 0)) return failure({ code: 'pitch-not-positive', numbers: { pitchMm } });
  const gaps = Math.max(closed ? 2 : 1, Math.ceil(lengthMm / pitchMm - ROUNDING));
  if (gaps > MAX_SPOTS) return failure({ code: 'too-many-tacks', numbers: { tacks: gaps } });
  const count = closed ? gaps : gaps + 1;
  return { ok: true, positionsMm: spreadOrder(count, closed).map((i) => (lengthMm * i) / gaps) };
}

/**
 * Hole for a plug weld by the thickness of the sheet it is in, mm (common practice; body sheet is
 * often given 8 mm).
 */
export function plugHole(thicknessMm: number): number {
  if (thicknessMm < 1) return 5;
  if (thicknessMm <= 1.6) return 6.5;
  return thicknessMm <= 2.3 ? 8 : 10;
}
