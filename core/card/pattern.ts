import { z } from 'zod';
import { MADE } from './kinds';
import { text } from './text';

/**
 * The pattern document: everything that is known of a piece's geometry, in millimetres, as it was measured on the card.
 *
 * x runs right, y runs up, the outline runs counter-clockwise, seen from the face. Whatever can be reckoned from it
 * (the blank above all) is not in it. Ids are short strings given by whoever makes the thing, never by the core.
 */
const id = text(24).min(1);
const mm = z.number().finite().min(-100_000).max(100_000);
const size = z.number().finite().min(0).max(100_000);

export const CornerSchema = z.object({ id, x: mm, y: mm });

export const ShapeSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('line') }),
  /** bulge = tan(sweep/4), positive counter-clockwise. */
  z.object({ kind: z.literal('arc'), bulge: z.number().finite().min(-50).max(50) }),
]);

export const SideSchema = z.object({ id, from: id, to: id, shape: ShapeSchema });

/**
 * How an edge is joined and what metal that adds beyond the card's line, in mm measured square to the edge.
 * `trimMm` is left on to be trimmed at fitting; `widthMm` is the finished lap, return or flange.
 */
export const JointSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('free'), trimMm: size }),
  z.object({ kind: z.literal('butt'), trimMm: size }),
  z.object({ kind: z.literal('backed-butt'), trimMm: size }),
  z.object({ kind: z.literal('lap'), widthMm: size }),
  /** The step goes down by `depthMm`, the thickness of the sheet it laps. */
  z.object({ kind: z.literal('joggle'), widthMm: size, depthMm: size }),
  /** Folded flat back on itself over a gap of `gapMm` (0: closed). */
  z.object({ kind: z.literal('hem'), widthMm: size, gapMm: size }),
  /** A flange for plug welds, in the plane of the piece (0°) or turned. */
  z.object({ kind: z.literal('plug-flange'), widthMm: size, turnDeg: z.number().min(0).max(120) }),
]);
export type Joint = z.infer<typeof JointSchema>;

export const EdgeSchema = z.object({
  id,
  letter: text(3).min(1),
  /** Ids of the neighbouring sides it runs over, in outline order. */
  sides: z.array(id).min(1).max(4000),
  joint: JointSchema,
  /**
   * Edges that were made one with this one: what was read and welded there is told under this one. `span` is where along
   * this one each lies, mm from its start; null where that is not known.
   */
  was: z
    .array(
      z.object({
        id,
        letter: text(3).min(1),
        span: z.object({ fromMm: mm, lengthMm: size }).nullable(),
      }),
    )
    .max(1000)
    .optional(),
});

/** A place on the outline as it was meant: a share of a side, or so far from its start or its end, mm. */
export const PlaceSchema = z.union([
  z.strictObject({ side: id, share: z.number().min(0).max(1) }),
  z.strictObject({ side: id, startMm: size }),
  z.strictObject({ side: id, endMm: size }),
]);
export type Place = z.infer<typeof PlaceSchema>;

/** Where a fold runs, as it was meant: straight between two places, or along a straight side so far in from it. */
export const FoldPathSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('between'), from: PlaceSchema, to: PlaceSchema }),
  z.object({ kind: z.literal('along'), side: id, inMm: mm }),
]);
export type FoldPath = z.infer<typeof FoldPathSchema>;

export const FoldSchema = z.object({
  id,
  path: FoldPathSchema,
  angleDeg: z.number().min(0.1).max(180),
  toward: z.enum(['face', 'back']),
  /** Inside radius, or null to take the usual one of the metal. */
  radiusMm: size.nullable(),
  made: z.enum(MADE),
});

export const HoleSchema = z.object({ id, x: mm, y: mm, diameterMm: size });

export const PATTERN_VERSION = 2;

export const PatternSchema = z.object({
  version: z.literal(PATTERN_VERSION),
  corners: z.array(CornerSchema).max(4000),
  sides: z.array(SideSchema).max(4000),
  edges: z.array(EdgeSchema).max(1000),
  folds: z.array(FoldSchema).max(400),
  holes: z.array(HoleSchema).max(2000),
  /** A point in the face of the card that stays put, or null for the largest. */
  base: z.tuple([mm, mm]).nullable(),
  /**
   * Whether the card has been turned over since it was first drawn: places along an edge that were written down before
   * run from its other end.
   */
  turned: z.boolean(),
});

export type Corner = z.infer<typeof CornerSchema>;
export type Side = z.infer<typeof SideSchema>;
export type Edge = z.infer<typeof EdgeSchema>;
export type Fold = z.infer<typeof FoldSchema>;
export type Hole = z.infer<typeof HoleSchema>;
export type PatternDoc = z.infer<typeof PatternSchema>;
