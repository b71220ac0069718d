import { z } from 'zod';
import { LENGTH_UNITS } from '../measure/length';
import { text } from '../card/text';
import { eachOnce } from '../card/eachOnce';
import { BrakeSchema } from '../machine/brakeSchema';
import { METAL_IDS } from '../metal/metals';
import {
  MAX_BRAKES,
  MAX_RADII,
  MAX_SHEETS,
  MAX_SPRINGS,
  MAX_STRIPS,
  MAX_TOOLS,
  MAX_TRIED,
} from './limits';

export const StripSchema = z.object({
  thicknessMm: z.number().positive(),
  radiusMm: z.number().min(0),
  angleDeg: z.number().positive().max(90),
  flatMm: z.number().positive(),
  legAMm: z.number().positive(),
  legBMm: z.number().positive(),
  readingMm: z.number().positive(),
});

/**
 * What every reading can say of itself: why it does not count, and on which machine it was made.
 */
const reading = { leftOut: text(200).min(1).optional(), brake: text(24).optional() };
/** On which fold of which piece, and when. */
const on = z.object({ piece: text(40), fold: text(24), at: text(40) }).nullable();
/** Of a thing that was tried: by which of the shop's tools, and for which piece, if for one. */
const tried = {
  tool: text(24).nullable(),
  leftOut: text(200).min(1).optional(),
  piece: text(40).nullable(),
  at: text(40),
};
const figure = z.number().min(0).max(100_000);

/** The section that a die makes, or that a test piece got. */
const DieSectionSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('arc'), widthMm: figure, heightMm: figure }),
  z.strictObject({
    kind: z.literal('flat-topped'),
    widthMm: figure,
    topMm: figure,
    heightMm: figure,
  }),
  z.strictObject({ kind: z.literal('v'), widthMm: figure, heightMm: figure }),
  z.strictObject({ kind: z.literal('step'), depthMm: figure, radiusMm: figure.nullable() }),
]);
const sheetOf = { metal: z.enum(METAL_IDS), thicknessMm: z.number().min(0.1).max(12) };

/** What the shop does: its settings, from which every blank is reckoned. */
export const ShopSchema = z.object({
  name: text(80),
  units: z.enum(LENGTH_UNITS),
  /** How days are written: day, month or year first. */
  dates: z.enum(['day', 'month', 'year']),
  rule: z.enum(['din6935', 'machinery', 'faa', 'k']),
  plainK: z.number().min(0).max(0.6),
  /**
   * The shop's own test bends, by metal. Where there are any near the thickness in use, they come
   * before the rule.
   */
  strips: z.array(StripSchema.extend({ metal: z.enum(METAL_IDS), ...reading })).max(MAX_STRIPS),
  /**
   * Where the edge of the clamping bar goes: on the tangent, on the middle of the bend, or one
   * radius in from the tangent.
   */
  brakeLine: z.enum(['tangent', 'centre', 'radius-in']),
  relief: z.enum(['round', 'square', 'none']),
  /** The shortest flat beyond a bend that the shop's brake can hold or swing, mm. */
  shortestFlangeMm: z.number().min(0).max(100),
  /** Money an hour of work costs, and the sign it is written with. */
  hourRate: z.number().min(0).max(10_000),
  currency: text(4),
  /** Minimum distance between cuts of neighbouring layers, mm (50 is common practice). */
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
    .max(MAX_SHEETS),
  /** Folders and brakes there are. */
  brakes: eachOnce(
    z.array(BrakeSchema.extend({ id: text(24).min(1), name: text(60).min(1) })).max(MAX_BRAKES),
  ),
  /** Of orders that take as little handling one is taken that folds long folds late or early. */
  longFolds: z.enum(['late', 'early']),
  /**
   * Bends that were folded, let go and measured: folded to `foldedToDeg`, let go at
   * `cameBackToDeg`; on which fold of which piece.
   */
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
    .max(MAX_SPRINGS),
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
    .max(MAX_RADII),
  /** What edges are shrunk and stretched with, and how far in from an edge it reaches. */
  edgeTools: eachOnce(
    z
      .array(
        z.object({
          id: text(24).min(1),
          name: text(60).min(1),
          does: z.enum(['shrink', 'stretch', 'both']),
          throatMm: figure,
        }),
      )
      .max(MAX_TOOLS),
  ),
  /**
   * Rollers and dies for beads: the section each makes, how much deeper a pass goes, the least
   * radius it follows, its throat.
   */
  beadTools: eachOnce(
    z
      .array(
        z.object({
          id: text(24).min(1),
          name: text(60).min(1),
          section: DieSectionSchema,
          depthPerPassMm: z.number().min(0.01).max(100),
          leastRadiusMm: figure,
          throatMm: figure,
        }),
      )
      .max(MAX_TOOLS),
  ),
  /**
   * Strips that were bitten along an edge, measured before and after, each length sure to `uMm`.
   */
  bites: z
    .array(
      z.object({
        ...sheetOf,
        ...tried,
        widthMm: z.number().min(0.1).max(1000),
        lengthMm: z.number().min(1).max(10_000),
        bites: z.number().int().min(1).max(10_000),
        afterMm: z.number().min(1).max(20_000),
        uMm: z.number().min(0.01).max(20),
      }),
    )
    .max(MAX_TRIED),
  /**
   * Pieces with one bead right across, measured square to it before and after `passes` passes, each
   * width sure to `uMm`.
   */
  beadTests: z
    .array(
      z.object({
        ...sheetOf,
        ...tried,
        section: DieSectionSchema,
        wideMm: z.number().min(1).max(10_000),
        wideAfterMm: z.number().min(1).max(10_000),
        passes: z.number().int().min(1).max(100),
        uMm: z.number().min(0.01).max(20),
      }),
    )
    .max(MAX_TRIED),
  /** Where an edge tore, or folded over, in this shop: the strain it had, a share. */
  limitsSeen: z
    .array(
      z.object({
        ...sheetOf,
        ...tried,
        kind: z.enum(['torn', 'wrinkled']),
        strain: z.number().min(0.001).max(2),
      }),
    )
    .max(MAX_TRIED),
  /** Measured work: metres of flange or bead, and the hours they took. */
  paces: z
    .array(
      z.object({
        ...sheetOf,
        ...tried,
        what: z.enum(['flange', 'bead']),
        metres: z.number().min(0.001).max(1000),
        hours: z.number().min(0.001).max(1000),
      }),
    )
    .max(MAX_TRIED),
});
export type Shop = z.infer<typeof ShopSchema>;
