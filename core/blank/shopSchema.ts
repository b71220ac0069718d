import { z } from 'zod';
import { text } from '../card/text';
import { BrakeSchema } from '../machine/brake';
import { METAL_IDS } from '../metal/metals';
import { MOST_BRAKES, MOST_RADII, MOST_SHEETS, MOST_SPRINGS, MOST_STRIPS } from './limits';

export const StripSchema = z.object({
  thicknessMm: z.number().positive(),
  radiusMm: z.number().min(0),
  angleDeg: z.number().positive().max(90),
  flatMm: z.number().positive(),
  legAMm: z.number().positive(),
  legBMm: z.number().positive(),
  readingMm: z.number().positive(),
});

/** What every reading can say of itself: why it does not count, and on which machine it was made. */
const reading = { leftOut: text(200).min(1).optional(), brake: text(24).optional() };
/** On which fold of which piece, and when. */
const on = z.object({ piece: text(40), fold: text(24), at: text(40) }).nullable();
const sheetOf = { metal: z.enum(METAL_IDS), thicknessMm: z.number().min(0.1).max(12) };

/** What the shop does: its settings, from which every blank is reckoned. */
export const ShopSchema = z.object({
  name: text(80),
  units: z.enum(['mm', 'in', 'inDecimal']),
  /** How days are written: day, month or year first. */
  dates: z.enum(['day', 'month', 'year']),
  rule: z.enum(['din6935', 'machinery', 'faa', 'k']),
  plainK: z.number().min(0).max(0.6),
  /** The shop's own test bends, by metal. Where there are any near the thickness in use, they come before the rule. */
  strips: z.array(StripSchema.extend({ metal: z.enum(METAL_IDS), ...reading })).max(MOST_STRIPS),
  /** Where the edge of the clamping bar goes: on the tangent, on the middle of the bend, or one radius in from the tangent. */
  brakeLine: z.enum(['tangent', 'centre', 'radius-in']),
  relief: z.enum(['round', 'square', 'none']),
  /** The shortest flat beyond a bend that the shop's brake can hold or swing, mm. */
  shortestFlangeMm: z.number().min(0).max(100),
  /** Money an hour of work costs, and the sign it is written with. */
  hourRate: z.number().min(0).max(10_000),
  currency: text(4),
  /** Cuts of neighbouring layers are to be so far apart at the least, mm (50 is common practice). */
  layersApartMm: z.number().min(0).max(1000),
  /** Sheet that can be had: bought, or cut from an old panel, with its thickness as measured. */
  sheets: z
    .array(
      z.object({
        metal: z.enum(METAL_IDS),
        thicknessMm: z.number().min(0.1).max(12),
        from: z.enum(['bought', 'donor']),
        name: text(60),
      }),
    )
    .max(MOST_SHEETS),
  /** Folders and brakes there are. */
  brakes: z.array(BrakeSchema.extend({ id: text(24).min(1), name: text(60).min(1) })).max(MOST_BRAKES),
  /** Of orders that take as little handling one is taken that folds long folds late or early. */
  longFolds: z.enum(['late', 'early']),
  /** Bends that were folded, let go and measured: turned to so many degrees, what came back; on which fold of which piece. */
  springs: z
    .array(
      z.object({
        ...sheetOf,
        ...reading,
        radiusMm: z.number().min(0).max(1000),
        foldedToDeg: z.number().min(1).max(180),
        cameBackToDeg: z.number().min(0).max(180),
        uDeg: z.number().min(0.05).max(10),
        on,
      }),
    )
    .max(MOST_SPRINGS),
  /** Inside radii as they came out where another was reckoned with, each sure to `uMm`. */
  radii: z
    .array(
      z.object({
        ...sheetOf,
        ...reading,
        wantedMm: z.number().min(0).max(1000),
        gotMm: z.number().min(0).max(1000),
        uMm: z.number().min(0.005).max(20),
        on,
      }),
    )
    .max(MOST_RADII),
});
export type Shop = z.infer<typeof ShopSchema>;
