import type { Bead } from '../../card/pattern';
import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import type { Segment } from '../../measure/segment';
import { line } from '../../measure/segment';
import type { Vec } from '../../measure/vector';
import type { BeadSize } from '../blank';
import { stepLine } from '../offsetStep';

/**
 * What a bead looks like cut across, as the middle of the sheet runs: a round one, one with a flat
 * top, a V, and a step, beyond which the sheet lies `depthMm` higher.
 */
export type BeadSection =
  | { kind: 'arc'; widthMm: number; heightMm: number }
  | { kind: 'flat-topped'; widthMm: number; topMm: number; heightMm: number }
  | { kind: 'v'; widthMm: number; heightMm: number }
  | { kind: 'step'; depthMm: number; radiusMm: number; thicknessMm: number };

/** A section as it is written down: the radius of a step's bends may be the usual one. */
export type WrittenSection =
  | Exclude<BeadSection, { kind: 'step' }>
  | { kind: 'step'; depthMm: number; radiusMm: number | null };

/** A written section in figures, made in a sheet. */
export const sectionIn = (
  section: WrittenSection,
  thicknessMm: number,
  usualRadiusMm: number,
): BeadSection =>
  section.kind === 'step'
    ? {
        kind: 'step',
        depthMm: section.depthMm,
        radiusMm: section.radiusMm ?? usualRadiusMm,
        thicknessMm,
      }
    : section;

/**
 * K of the two bends of a step: their middle, for they are too small to measure (common practice).
 */
const STEP_K = 0.5;

const finite = (...all: number[]): boolean =>
  all.every((value) => value > 0 && Number.isFinite(value));

/**
 * Exact geometry. Arc: ρ = (w²/4 + h²)/2h, L = 2ρ·asin(w/2ρ); flat top: L = b + 2√(((w − b)/2)² +
 * h²); V: 2√((w/2)² + h²); step: two equal bends and a straight, over its own run. Take-up is the
 * length less the width.
 *
 * Problems: `bead-figures` (a figure is not above 0), `bead-too-high` (numbers: heightMm, mostMm:
 * an arc is at most half as high as wide), `bead-top-wide` (numbers: topMm, widthMm).
 */
export function beadSize(section: BeadSection): Result<BeadSize> {
  if (section.kind === 'step') {
    const { depthMm, radiusMm, thicknessMm } = section;
    if (!finite(depthMm, thicknessMm) || !(radiusMm >= 0)) return failure({ code: 'bead-figures' });
    const { runMm, takeUpMm } = stepLine(depthMm, radiusMm + STEP_K * thicknessMm);
    return { ok: true, widthMm: runMm, heightMm: depthMm, developedMm: runMm + takeUpMm, takeUpMm };
  }
  const { widthMm, heightMm } = section;
  if (!finite(widthMm, heightMm)) return failure({ code: 'bead-figures' });
  const size = (developedMm: number) => ({
    ok: true as const,
    widthMm,
    heightMm,
    developedMm,
    takeUpMm: developedMm - widthMm,
  });
  if (section.kind === 'v') return size(2 * Math.hypot(widthMm / 2, heightMm));
  if (section.kind === 'flat-topped') {
    const { topMm } = section;
    if (!finite(topMm)) return failure({ code: 'bead-figures' });
    if (topMm >= widthMm) return failure({ code: 'bead-top-wide', numbers: { topMm, widthMm } });
    return size(topMm + 2 * Math.hypot((widthMm - topMm) / 2, heightMm));
  }
  if (heightMm > widthMm / 2)
    return failure({ code: 'bead-too-high', numbers: { heightMm, mostMm: widthMm / 2 } });
  const radius = (widthMm ** 2 / 4 + heightMm ** 2) / (2 * heightMm);
  return size(2 * radius * Math.asin(Math.min(1, widthMm / (2 * radius))));
}

/**
 * The section drawn true, from its near crease to its far one: along the surface, and up off it,
 * mm. Empty where the figures make no bead.
 */
export function sectionPath(section: BeadSection): Segment[] {
  const size = beadSize(section);
  if (!size.ok) return [];
  const { widthMm: w, heightMm: h } = size;
  const ends: [Vec, Vec] = [
    [-w / 2, 0],
    [w / 2, 0],
  ];
  switch (section.kind) {
    case 'arc':
      return [
        {
          a: ends[0],
          b: ends[1],
          bulge: -Math.tan(Math.asin(Math.min(1, (w * h) / ((w * w) / 4 + h * h))) / 2),
        },
      ];
    case 'v':
      return [line(ends[0], [0, h]), line([0, h], ends[1])];
    case 'flat-topped': {
      const [a, b]: [Vec, Vec] = [
        [-section.topMm / 2, h],
        [section.topMm / 2, h],
      ];
      return [line(ends[0], a), line(a, b), line(b, ends[1])];
    }
    case 'step':
      return stepLine(section.depthMm, section.radiusMm + STEP_K * section.thicknessMm).path;
  }
}

export type BeadReckoned = BeadSize & {
  /** The part of the take-up that draws the edges in, added to the blank, mm. */
  blankAddsMm: number;
  /** How much the metal that ends in the bead gets longer across it, %. */
  stretchPct: number;
  passes: number;
  /**
   * How much longer than the panel beside it a line along the top is, where the panel is curved
   * along the bead, %.
   */
  curveChangePct?: number;
};

/**
 * A bead in figures. `drawsIn` is the share of its take-up that draws the edges in, from 0 (it all
 * stretches) to 1; `acrossRadiusMm` the radius of the panel along it.
 *
 * Problems: those of `beadSize`; `bead-share`, `bead-pass`, `bead-radius` for what is out of range.
 */
export function reckonBead(
  section: BeadSection,
  drawsIn: number,
  depthPerPassMm: number,
  acrossRadiusMm: number | null = null,
): Result<BeadReckoned> {
  const size = beadSize(section);
  if (!size.ok) return size;
  if (!(drawsIn >= 0 && drawsIn <= 1)) return failure({ code: 'bead-share', numbers: { drawsIn } });
  if (!finite(depthPerPassMm)) return failure({ code: 'bead-pass' });
  if (acrossRadiusMm !== null && !finite(acrossRadiusMm)) return failure({ code: 'bead-radius' });
  const blankAddsMm = drawsIn * size.takeUpMm;
  return {
    ...size,
    blankAddsMm,
    stretchPct: (size.developedMm / (size.widthMm + blankAddsMm) - 1) * 100,
    passes: passesFor(size.heightMm, depthPerPassMm),
    ...(acrossRadiusMm !== null && { curveChangePct: (size.heightMm / acrossRadiusMm) * 100 }),
  };
}

/** Heights this much over a whole number of passes need none more, as a share of a pass. */
const NO_MORE = 1e-9;

/** Number of passes to a height, mm, at a depth a pass, mm. */
export const passesFor = (heightMm: number, depthPerPassMm: number): number =>
  Math.ceil(heightMm / depthPerPassMm - NO_MORE);

/**
 * How much the top of a bead has to be stretched (+) or gathered (−) along a panel that is curved
 * along it, a share: a line h off the surface of radius R is longer by h/R on the outside, shorter
 * on the inside. 0 where it is flat or the side is not said.
 */
export const strainAlong = (
  { acrossRadiusMm, acrossOn }: Pick<Bead, 'acrossRadiusMm' | 'acrossOn'>,
  heightMm: number,
): number =>
  acrossRadiusMm === null || acrossOn === null
    ? 0
    : ((acrossOn === 'outside' ? 1 : -1) * heightMm) / acrossRadiusMm;
