import { adjustNetwork } from '../measure/network/network';
import { polygonArea } from '../measure/path';
import type { Result } from '../measure/result';
import { failure } from '../measure/result';
import type { Vec } from '../measure/vector';
import type { Scale } from './findFrame';
import { TAPE_U_MM } from './findFrame';
import { CORNERS, RIM, scaleFrame } from './scaleFrame';

/**
 * The scale of a picture whose frame was not found but pointed at: the outer corners of the four
 * angles, one to four, and where they are by the paper or by the tapes between them.
 *
 * Problems: `places-too-few` (not four), those of `adjustNetwork`.
 */
export function tappedScale(
  scale: Extract<Scale, { kind: 'paper' | 'corners' }>,
  at: readonly Vec[],
): Result<{ scale: Scale }> {
  if (at.length !== CORNERS.length) return failure({ code: 'places-too-few', about: [] });
  const placed = scale.kind === 'paper' ? onPaper(scale) : byTapes(scale, at);
  return placed.ok
    ? {
        ok: true,
        scale: { kind: 'places', places: at.map((p, i) => ({ at: p, mm: placed.mm[i]! })) },
      }
    : placed;
}

function onPaper({ paper, printedMm }: Extract<Scale, { kind: 'paper' }>): { ok: true; mm: Vec[] } {
  const { widthMm, heightMm } = scaleFrame(paper);
  const [w, h] = printedMm ?? [widthMm - 2 * RIM, heightMm - 2 * RIM];
  return {
    ok: true,
    mm: [
      [0, 0],
      [w, 0],
      [w, h],
      [0, h],
    ],
  };
}

function byTapes(
  { tapes }: Extract<Scale, { kind: 'corners' }>,
  at: readonly Vec[],
): Result<{ mm: Vec[] }> {
  const placed = adjustNetwork({
    dimension: 2,
    points: CORNERS.map((name) => ({ name })),
    tapes: tapes.map((tape) => ({ ...tape, uMm: tape.uMm ?? TAPE_U_MM })),
  });
  if (!placed.ok) return placed;
  const mm = placed.points.map((point): Vec => [point.at[0]!, point.at[1]!]);
  // Tapes do not tell a figure from its mirror; the picture does, in which v runs down.
  return {
    ok: true,
    mm: polygonArea(at) * polygonArea(mm) > 0 ? mm.map(([x, y]): Vec => [x, -y]) : mm,
  };
}
