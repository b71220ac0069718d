import { z } from 'zod';

const figure = z.number().finite().min(0).max(20_000);

/**
 * A folder or brake by its usual figures, mm and degrees; where each is measured is drawn in
 * docs/machine.md. In section the bar's tip is the origin: x runs toward the one who folds, z up,
 * both from where the tip presses on the sheet.
 */
export const BrakeSchema = z.object({
  /** Longest fold. */
  lengthMm: figure.min(1),
  /** How far the bar lifts to put a piece in. */
  openMm: figure,
  /** From the sheet up to the beam that carries bar or fingers. */
  noseHeightMm: figure.min(1),
  /** From the tip back to the rear of the bar or of the fingers' feet. */
  noseDepthMm: figure.min(1),
  /**
   * How far the front of the bar leans back from upright, degrees: a fold can be taken to 90 and as
   * much.
   */
  noseRakeDeg: z.number().finite().min(0).max(85),
  noseRadiusMm: figure,
  /**
   * The front of the bar point by point from its tip upward, [back, up] from the tip: instead of
   * its lean, where it is not straight (fingers that are cut back, a goose neck). Straight up from
   * the last of them to the beam.
   */
  noseMm: z
    .array(z.tuple([figure, figure]))
    .min(1)
    .max(24)
    .optional(),
  /**
   * The apron's width where it bears on the sheet: what is turned down nearer to the line than that
   * runs into it.
   */
  apronMm: figure,
  /** From the line back to the rear of the bed: where nothing is said as deep as the bar. */
  bedMm: figure.optional(),
  /**
   * From the sheet down to the bench or floor below it, on which what hangs down or swings up would
   * land; left out: nothing is there.
   */
  benchMm: figure.min(1).optional(),
  /** Widths of all fingers of a box-and-pan brake; null for one bar all along. */
  fingersMm: z.array(figure.min(1)).max(60).nullable(),
  /**
   * Maximum gap between fingers, and before a wall or the end of the line (common practice: 10).
   */
  fingerGapMm: figure.optional(),
  /**
   * The thickest sheet it folds at a length, mm: each row up to its length. Where nothing is said
   * any sheet is let be.
   */
  thickest: z
    .array(z.object({ lengthMm: figure.min(1), thicknessMm: figure.min(0.1).max(20) }))
    .max(12)
    .optional(),
  /**
   * The shortest flat beyond a bend that it can hold or swing, mm; where nothing is said the
   * shop's.
   */
  leastFlangeMm: figure.max(200).optional(),
});
export type Brake = z.infer<typeof BrakeSchema>;
