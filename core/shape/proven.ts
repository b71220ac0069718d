import { countsFor } from '../blank/fold/practice';
import type { Shop } from '../blank/shopSchema';
import type { BeadSection } from '../blank/bead/section';
import type { Metal } from '../metal/metals';
import type { BiteLearnt } from './biteStrips';

/**
 * A figure of the shop is proven when it was read this often: one reading has no spread, and may be
 * the one that went wrong.
 */
const PROVEN_BY = 2;

type Sheet = { metal: Pick<Metal, 'id'>; thicknessMm: number };

export const bitesProven = (learnt: BiteLearnt | null): boolean =>
  learnt !== null && learnt.strips >= PROVEN_BY;

/** Whether bends of about this sheet were measured often enough. */
export const bendsProven = ({ strips }: Pick<Shop, 'strips'>, { metal, thicknessMm }: Sheet) =>
  strips.filter((one) => countsFor(one, metal, thicknessMm)).length >= PROVEN_BY;

/** Whether beads of a kind were tried often enough in about this sheet. */
export const beadsProven = (
  { beadTests }: Pick<Shop, 'beadTests'>,
  kind: BeadSection['kind'],
  { metal, thicknessMm }: Sheet,
): boolean =>
  beadTests.filter((one) => countsFor(one, metal, thicknessMm) && one.section.kind === kind)
    .length >= PROVEN_BY;
