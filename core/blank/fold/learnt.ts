import type { MetalId } from '../../metal/metals';
import { metalById } from '../../metal/metals';
import type { Shop } from '../shopSchema';
import { bendAllowance } from './allowance';
import { sheetMetal } from './practice';
import { achievedRadius } from './achievedRadius';
import { angleRatioOf, meanRatio } from './springback';
import { kFromStrip } from './testBend';

/** What a shop has measured of its own bends. */
export const READING_LISTS = ['strips', 'springs', 'radii'] as const;
/**
 * K of test bends, the share of the angle that is left after springback, inside radii less the ones
 * wanted (mm).
 */
export type ReadingList = (typeof READING_LISTS)[number];

/** A reading with what it says, `u` its standard uncertainty; by its place in its list. */
export type Learnt = {
  index: number;
  value: number;
  u: number;
  /** Inside radius in thicknesses. */
  round: number;
  leftOut: string | null;
  /** Farther from the mean of the others than three standard deviations of both. */
  standsOut: boolean;
};
export type LearntGroup = {
  list: ReadingList;
  metal: MetalId;
  /** From the thinnest to the thickest, mm. */
  thicknessMm: [number, number];
  readings: Learnt[];
  /** Of those that count; null where none does. */
  mean: { value: number; u: number } | null;
};

/** Of about one thickness: maximum relative excess of the thickest over the thinnest. */
const SAME_THICKNESS = 0.1;
/** As many thicknesses round, about: springback hangs on it. */
const SAME_ROUND = 0.35;
const OUTSIDE = 3;

type Said = Omit<Learnt, 'standsOut'> & { metal: MetalId; thicknessMm: number };

/** What one list says, reading by reading; those of which nothing follows are left out. */
function saidBy(shop: Pick<Shop, ReadingList>, list: ReadingList): Said[] {
  const common = (
    one: { metal: MetalId; thicknessMm: number; leftOut?: string | undefined },
    index: number,
    radiusMm: number,
  ) => ({
    index,
    metal: one.metal,
    thicknessMm: one.thicknessMm,
    round: radiusMm / one.thicknessMm,
    leftOut: one.leftOut ?? null,
  });
  if (list === 'strips')
    return shop.strips.flatMap((one, i) => {
      const found = kFromStrip(one);
      return found.ok ? [{ ...common(one, i, one.radiusMm), value: found.k, u: found.uK }] : [];
    });
  if (list === 'springs')
    return shop.springs.flatMap((one, i) => {
      const found = angleRatioOf(one);
      return found.ok ? [{ ...common(one, i, one.radiusMm), value: found.ratio, u: found.u }] : [];
    });
  return shop.radii.map((one, i) => ({
    ...common(one, i, one.wantedMm),
    value: one.gotMm - one.wantedMm,
    u: one.uMm,
  }));
}

/**
 * The readings of a list that stand together: of one metal, of about one thickness and, but for K,
 * of about one roundness. With `brake` only those that were made on that machine.
 */
export function learntGroups(
  shop: Pick<Shop, ReadingList>,
  list: ReadingList,
  brake: string | null = null,
): LearntGroup[] {
  const groups: Said[][] = [];
  const asked = saidBy(shop, list).filter(
    ({ index }) => brake === null || shop[list][index]!.brake === brake,
  );
  const sorted = asked.sort((a, b) =>
    a.metal === b.metal
      ? a.thicknessMm - b.thicknessMm || a.round - b.round || a.index - b.index
      : a.metal < b.metal
        ? -1
        : 1,
  );
  for (const one of sorted) {
    const home = groups.find(
      ([first]) =>
        first!.metal === one.metal &&
        one.thicknessMm <= first!.thicknessMm * (1 + SAME_THICKNESS) &&
        (list === 'strips' ||
          Math.abs(one.round - first!.round) <= SAME_ROUND * Math.max(1, first!.round)),
    );
    if (home) home.push(one);
    else groups.push([one]);
  }
  return groups.map((group) => {
    const counted = group.filter(({ leftOut }) => leftOut === null);
    const mean = meanRatio(counted.map(({ value, u }) => ({ ratio: value, u })));
    return {
      list,
      metal: group[0]!.metal,
      thicknessMm: [
        Math.min(...group.map((one) => one.thicknessMm)),
        Math.max(...group.map((one) => one.thicknessMm)),
      ],
      readings: group.map((one): Learnt => ({
        index: one.index,
        value: one.value,
        u: one.u,
        round: one.round,
        leftOut: one.leftOut,
        standsOut: standsOut(one, counted),
      })),
      mean: mean && { value: mean.ratio, u: mean.u },
    };
  });
}

/**
 * Whether a reading that counts lies farther from the mean of the others than three standard
 * deviations; of three at the least.
 */
function standsOut(one: Said, counted: readonly Said[]): boolean {
  const others = counted.filter((other) => other !== one);
  if (one.leftOut !== null || others.length < 2) return false;
  const mean = meanRatio(others.map(({ value, u }) => ({ ratio: value, u })))!;
  return Math.abs(one.value - mean.ratio) > OUTSIDE * Math.hypot(one.u, mean.u);
}

/** As much of a piece as its folds need. */
export type OpenPiece = {
  id: string;
  name: string;
  job: string;
  metal: MetalId;
  thicknessMm: number;
  folds: { angleDeg: number; radiusMm: number | null }[];
};

/**
 * A piece of which a fold takes off another length now: the most that one changes by, mm, and how
 * many do.
 */
export type ChangedPiece = { piece: OpenPiece; mostMm: number; folds: number };

/** Less than this is no change that anyone could measure, mm. */
const MIN_MM = 0.005;

/** Which pieces other settings of the shop would change, the most first. */
export function changedPieces(
  before: Shop,
  after: Shop,
  pieces: readonly OpenPiece[],
): ChangedPiece[] {
  return pieces
    .map((piece): ChangedPiece => {
      const was = deductions(before, piece);
      const off = deductions(after, piece).map((mm, i) => Math.abs(mm - was[i]!));
      return {
        piece,
        mostMm: Math.max(0, ...off),
        folds: off.filter((mm) => mm >= MIN_MM).length,
      };
    })
    .filter(({ folds }) => folds > 0)
    .sort((a, b) => b.mostMm - a.mostMm);
}

/**
 * What each fold of a piece takes off, mm. A piece does not go by the radii that were read on
 * itself.
 */
function deductions(shop: Shop, { id, metal, thicknessMm, folds }: OpenPiece): number[] {
  const sheet = sheetMetal(metalById(metal), thicknessMm, {
    ...shop,
    radii: shop.radii.filter(({ on }) => on?.piece !== id),
  });
  return folds.map(({ angleDeg, radiusMm }) => {
    const bend = {
      thicknessMm,
      angleDeg,
      radiusMm: achievedRadius(radiusMm ?? sheet.usualRadiusMm, sheet.radii ?? []),
    };
    const found = bendAllowance(bend, sheet.rule);
    return found.ok ? found.deductionMm : 0;
  });
}
