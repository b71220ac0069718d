import type { Result } from '../measure/result';
import { failure } from '../measure/result';

/**
 * Centres of plug welds along an edge: the first and last `endMm` from the ends, the rest even, no farther apart than
 * the pitch asked for. Positions in mm from the start of the edge, ascending. An edge too short for two plugs at those
 * ends gets one in the middle. Spacing to factory pitch is common practice (docs/formulas.md).
 *
 * Problems: `length-not-positive`, `pitch-not-positive`, `end-negative`.
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
  if (run <= 1e-9) return { ok: true, count: 1, positionsMm: [lengthMm / 2] };
  const gaps = Math.max(1, Math.ceil(run / pitchMm - 1e-9));
  const positionsMm = Array.from({ length: gaps + 1 }, (_, i) => endMm + (run * i) / gaps);
  return { ok: true, count: positionsMm.length, positionsMm };
}

/**
 * Where to tack and in what order, mm from the start of the run: the ends, then the middle of the widest stretch left,
 * then of the halves, until no two neighbours are farther apart than the pitch. A closed loop begins at its start and
 * goes on opposite; its start and end are one tack. Of stretches equally wide the one farthest from the tack just made
 * comes first, so that heat is spread. Order of ends, middle, halves is common practice.
 *
 * Problems: `length-not-positive`, `pitch-not-positive`, `too-many-tacks` (over 2000).
 */
export function tackOrder(lengthMm: number, pitchMm: number, closed: boolean): Result<{ positionsMm: number[] }> {
  if (!(lengthMm > 0)) return failure({ code: 'length-not-positive', numbers: { lengthMm } });
  if (!(pitchMm > 0)) return failure({ code: 'pitch-not-positive', numbers: { pitchMm } });
  if (lengthMm / pitchMm > 1000) return failure({ code: 'too-many-tacks', numbers: { tacks: lengthMm / pitchMm } });
  const made = closed ? [0] : [0, lengthMm];
  let stretches: [number, number][] = [[0, lengthMm]];
  // On a loop one halving is always wanted: a single tack holds nothing.
  let halve = closed || lengthMm > pitchMm + 1e-9;
  while (halve) {
    const waiting = [...stretches];
    stretches = [];
    while (waiting.length > 0) {
      const last = made[made.length - 1]!;
      const apart = ([a, b]: [number, number]) => {
        const d = Math.abs((a + b) / 2 - last);
        return closed ? Math.min(d, lengthMm - d) : d;
      };
      let next = 0;
      for (let i = 1; i < waiting.length; i++) if (apart(waiting[i]!) > apart(waiting[next]!) + 1e-9) next = i;
      const [a, b] = waiting.splice(next, 1)[0]!;
      const middle = (a + b) / 2;
      made.push(middle);
      stretches.push([a, middle], [middle, b]);
    }
    halve = stretches[0]![1] - stretches[0]![0] > pitchMm + 1e-9;
  }
  return { ok: true, positionsMm: made };
}

/** Hole for a plug weld by the thickness of the sheet it is in, mm (common practice; body sheet is often given 8 mm). */
export function plugHole(thicknessMm: number): number {
  if (thicknessMm < 1) return 5;
  if (thicknessMm <= 1.6) return 6.5;
  return thicknessMm <= 2.3 ? 8 : 10;
}
