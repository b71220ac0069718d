import { z } from 'zod';
import { text } from '../../card/text';

const id = text(24).min(1);
const MOST = 400;

/**
 * How the folding of a piece is meant and how far it is; it names folds and holes of its card and a
 * machine of the shop by their ids.
 */
export const FoldingSchema = z.object({
  /** The machine it is folded on; null: the shop's first. */
  brake: text(24).nullable(),
  /** An order of one's own; null: one is found. */
  order: z.object({ folds: z.array(id).max(MOST) }).nullable(),
  /** Folds that are made over a bar by hand, when the machine has made the others. */
  byHand: z.array(id).max(MOST),
  /** Folds that are left at `deg` degrees on the machine, and closed when the others are made. */
  leftOpen: z.array(z.object({ fold: id, deg: z.number().min(1).max(180) })).max(MOST),
  /**
   * Edges that are turned over (flanges, hems, lips) when all folds are made; all others are turned
   * before the first fold.
   */
  turnedAfter: z.array(id).max(MOST),
  /**
   * How much of a fold may stay uncovered by fingers at its ends and between two of them, mm; null:
   * as the machine is told.
   */
  uncoveredMm: z.number().min(0).max(200).nullable(),
  /** Folds that are made, as far as the machine takes them. */
  made: z.array(id).max(MOST),
  /** Folds that are closed by hand since. */
  closed: z.array(id).max(MOST),
  /**
   * How it lies on the vehicle, by a level held on one of its faces: the face beyond a fold, or the
   * one that stays put (`fold` null), out of level along the card's x and along its y, degrees,
   * rising positive, as the face lies; whether the side you drew on looks up.
   */
  lies: z
    .object({
      fold: id.nullable(),
      alongDeg: z.number().min(-90).max(90),
      acrossDeg: z.number().min(-90).max(90),
      faceUp: z.boolean(),
    })
    .nullable(),
  /** Holes through which water may run off. */
  drains: z.array(id).max(MOST),
  /** What every face is to fall by at the least, degrees. */
  fallDeg: z.number().min(0).max(45),
});
export type Folding = z.infer<typeof FoldingSchema>;

/** The same as files have it: what was added since is left out by older ones. */
export const FoldingFileSchema = FoldingSchema.partial({ turnedAfter: true, uncoveredMm: true });

/** Default fall of every face, degrees (common practice). */
const USUAL_FALL_DEG = 2;

/** A piece of whose folding nothing has been said. */
export const unfolded = (): Folding => ({
  brake: null,
  order: null,
  byHand: [],
  leftOpen: [],
  turnedAfter: [],
  uncoveredMm: null,
  made: [],
  closed: [],
  lies: null,
  drains: [],
  fallDeg: USUAL_FALL_DEG,
});
