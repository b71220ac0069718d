import { shareDrawn } from '../blank/bead/tested';
import { beadSize, sectionIn } from '../blank/bead/section';
import type { Shop } from '../blank/shopSchema';
import type { Sure } from '../measure/mean';
import { weightedMean } from '../measure/mean';
import type { MetalId } from '../metal/metals';

/** What a shop has tried of flanges and beads. */
export const TRIED_LISTS = ['bites', 'beadTests', 'limitsSeen', 'paces'] as const;
export type TriedList = (typeof TRIED_LISTS)[number];

/**
 * What is learnt of readings that stand together: mm a bite makes (below 0 gathered); share of a
 * bead's take-up that is drawn in; depth a pass makes, mm; strain at which an edge went wrong;
 * hours a metre takes.
 */
export type TriedKind =
  'stretch' | 'shrink' | 'share' | 'pass' | 'torn' | 'wrinkled' | 'flange-pace' | 'bead-pace';

export type TriedReading = {
  list: TriedList;
  index: number;
  value: number;
  u: number | null;
  leftOut: string | null;
};
export type TriedGroup = {
  kind: TriedKind;
  metal: MetalId;
  thicknessMm: number;
  readings: TriedReading[];
  /** Of those that count: the mean, of limits the least; null where none does. */
  said: { value: number; u: number | null } | null;
};

/** `weight`: what a reading counts for in a plain mean; of paces the metres it was taken over. */
type Said = TriedReading & {
  kind: TriedKind;
  metal: MetalId;
  thicknessMm: number;
  weight: number;
};

/** Of about one thickness: within this share of the first. */
const SAME_THICKNESS = 0.1;

function readings(shop: Pick<Shop, TriedList>): Said[] {
  const common = (
    list: TriedList,
    one: { metal: MetalId; thicknessMm: number; leftOut?: string | undefined },
    index: number,
  ) => ({
    list,
    index,
    metal: one.metal,
    thicknessMm: one.thicknessMm,
    leftOut: one.leftOut ?? null,
    weight: 1,
  });
  return [
    ...shop.bites.map((one, i): Said => {
      const value = (Math.log(one.afterMm / one.lengthMm) * one.lengthMm) / one.bites;
      return {
        ...common('bites', one, i),
        kind: value < 0 ? 'shrink' : 'stretch',
        value,
        u: (Math.SQRT2 * one.uMm) / one.bites,
      };
    }),
    ...shop.beadTests.flatMap((one, i): Said[] => {
      const share = shareDrawn(one);
      const size = beadSize(sectionIn(one.section, one.thicknessMm, one.thicknessMm));
      return [
        ...(share ? [{ ...common('beadTests', one, i), kind: 'share' as const, ...share }] : []),
        ...(size.ok
          ? [
              {
                ...common('beadTests', one, i),
                kind: 'pass' as const,
                value: size.heightMm / one.passes,
                u: null,
              },
            ]
          : []),
      ];
    }),
    ...shop.limitsSeen.map((one, i): Said => ({
      ...common('limitsSeen', one, i),
      kind: one.kind,
      value: one.strain,
      u: null,
    })),
    ...shop.paces.map((one, i): Said => ({
      ...common('paces', one, i),
      kind: one.what === 'bead' ? 'bead-pace' : 'flange-pace',
      value: one.hours / one.metres,
      u: null,
      weight: one.metres,
    })),
  ];
}

/**
 * The readings of flanges and beads that stand together: of one kind, one metal and about one
 * thickness.
 */
export function triedGroups(shop: Pick<Shop, TriedList>): TriedGroup[] {
  const groups: Said[][] = [];
  for (const one of readings(shop)) {
    const home = groups.find(
      ([first]) =>
        first!.kind === one.kind &&
        first!.metal === one.metal &&
        Math.abs(one.thicknessMm - first!.thicknessMm) <= SAME_THICKNESS * first!.thicknessMm,
    );
    if (home) home.push(one);
    else groups.push([one]);
  }
  return groups.map((group): TriedGroup => {
    const { kind, metal, thicknessMm } = group[0]!;
    const counted = group.filter(({ leftOut }) => leftOut === null);
    return {
      kind,
      metal,
      thicknessMm,
      readings: group.map(({ list, index, value, u, leftOut }) => ({
        list,
        index,
        value,
        u,
        leftOut,
      })),
      said: saidOf(kind, counted),
    };
  });
}

function saidOf(kind: TriedKind, counted: readonly Said[]): TriedGroup['said'] {
  if (counted.length === 0) return null;
  const values = counted.map(({ value }) => value);
  if (kind === 'torn' || kind === 'wrinkled') return { value: Math.min(...values), u: null };
  const sure = counted.filter((one): one is Said & Sure => one.u !== null);
  const mean = sure.length === counted.length ? weightedMean(sure) : null;
  if (mean) return mean;
  const weight = counted.reduce((sum, one) => sum + one.weight, 0);
  const value = counted.reduce((sum, one) => sum + one.weight * one.value, 0) / weight;
  // How sure the mean is, by what its readings scatter by; of one nothing is known.
  const scatter =
    values.length > 1
      ? Math.sqrt(
          values.reduce((sum, one) => sum + (one - value) ** 2, 0) /
            (values.length - 1) /
            values.length,
        )
      : null;
  return { value, u: scatter };
}
