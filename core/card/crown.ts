import { z } from 'zod';
import { DrawnMapSchema } from '../surface/panel/drawnMapSchema';
import { FigureSchema } from '../surface/mesh/figures';
import { HoldSchema } from '../surface/flatten/held';
import { ScanSchema, TapedSchema } from '../surface/mesh/packed';
import { PartSchema } from '../surface/flatten/part';
import { StationsSchema } from '../surface/mesh/stations';

/** More lines and points are not held on one panel. */
export const MAX_HELD = 12;

const share = z.number().finite().min(-10).max(10);

/**
 * What a card was laid flat from, if the panel is curved two ways: its surface, the stretch-shrink balance (0
 * stretch … 1 shrink), and what came of it: areas of panel and blank, mm², the greatest stretch and
 * the greatest shrink (both above 0) and what the middle and the rim change by. `turned`: the
 * surface is the mirror image of what is described.
 */
export const CrownSchema = z.strictObject({
  made: z.union([FigureSchema, StationsSchema, ScanSchema, TapedSchema]),
  balance: z.number().min(0).max(1),
  /** The part of the panel that this piece is, where it is made of several; null for all of it. */
  part: PartSchema.nullable(),
  turned: z.boolean(),
  /**
   * Edges that keep on the blank the length they have on the panel, by their number in the order of
   * the outline.
   */
  keep: z.array(z.number().int().min(0)).max(1000),
  /** Lines that stay straight on the blank, and points that stay where they are. */
  hold: z.array(HoldSchema).max(MAX_HELD),
  panelMm2: z.number().finite().min(0),
  blankMm2: z.number().finite().min(0),
  stretch: share,
  shrink: share,
  /** By edge: what its length on the panel is more (+) or less than on the blank, mm. */
  edges: z
    .array(z.strictObject({ edge: z.string().min(1).max(24), changeMm: z.number().finite() }))
    .max(1000),
  /**
   * The largest place to be raised all over: how large it is on the blank, mm², and by how much at
   * its most; null for none.
   */
  raise: z.strictObject({ areaMm2: z.number().finite().min(0), most: share }).nullable(),
  /**
   * What is to be done where, as it lies on the card; null on cards laid flat before that was kept.
   */
  map: DrawnMapSchema.nullable(),
});
export type Crown = z.infer<typeof CrownSchema>;
