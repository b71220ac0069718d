import { z } from 'zod';
import { PROCESSES } from '../card/kinds';
import { PatternSchema } from '../card/pattern';
import { METAL_IDS } from '../metal/metals';
import { HELD, INSPECTIONS, SIDES_OF_VEHICLE, WELD_WORK } from './lists';

/** A moment, ISO 8601 in UTC. */
const moment = z.iso.datetime();
const text = (most: number) => z.string().max(most);
const edge = z.string().max(24);

/** How the thickness was chosen: by gauge number, typed in millimetres, or read with a micrometer. */
export const ThicknessSchema = z.discriminatedUnion('by', [
  z.object({ by: z.literal('gauge'), system: z.enum(['msg', 'gsg', 'swg', 'bs']), gauge: z.number().int() }),
  z.object({ by: z.literal('mm') }),
  z.object({ by: z.literal('micrometer') }),
]);

export const PieceFactsSchema = z.object({
  name: text(80).min(1),
  part: text(120),
  side: z.enum(SIDES_OF_VEHICLE),
  metal: z.enum(METAL_IDS),
  thicknessMm: z.number().min(0.1).max(12),
  thickness: ThicknessSchema,
  structural: z.boolean(),
  notes: text(8000),
});
export type PieceFacts = z.infer<typeof PieceFactsSchema>;

export const JobFactsSchema = z.object({
  name: text(80).min(1),
  vehicle: text(120),
  owner: text(80),
  notes: text(8000),
});
export type JobFacts = z.infer<typeof JobFactsSchema>;

const station = z.object({
  atMm: z.number(),
  gapMm: z.number().min(-50).max(500).nullable(),
  flushMm: z.number().min(-100).max(100).nullable(),
});

/** One trial fit: how the piece was held, and what was read along each edge. */
export const FitSchema = z.object({
  at: moment,
  held: z.enum(HELD),
  notes: text(4000),
  /** The revision of the card that was cut and tried. */
  revision: z.number().int().min(0),
  edges: z.array(
    z.object({
      edge,
      targetMm: z.number().min(-10).max(100),
      toleranceMm: z.number().min(0).max(50),
      flushMm: z.number().min(0).max(50),
      stations: z.array(station).max(200),
    }),
  ),
});
export type FitRecord = z.infer<typeof FitSchema>;

export const WeldSettingsSchema = z.object({
  amps: z.number().min(0).max(1000).nullable(),
  volts: z.number().min(0).max(100).nullable(),
  wireMm: z.number().min(0).max(10).nullable(),
  feed: text(40),
  gas: text(60),
});
export const WeldSchema = z.object({
  at: moment,
  who: text(60),
  edge,
  process: z.enum(PROCESSES),
  work: z.enum(WELD_WORK),
  /** First and last number of the tacks or plugs done; null for a seam or stitch. */
  from: z.number().int().min(1).nullable(),
  to: z.number().int().min(1).nullable(),
  settings: WeldSettingsSchema,
  note: text(4000),
});
export type WeldRecord = z.infer<typeof WeldSchema>;

export const InspectionSchema = z.object({
  at: moment,
  who: text(60),
  edge,
  kind: z.enum(INSPECTIONS),
  sound: z.boolean(),
  /** Thickness left or step found, mm, where the kind measures one. */
  readingMm: z.number().min(-50).max(50).nullable(),
  finding: text(2000),
  remedy: text(2000),
});
export type InspectionRecord = z.infer<typeof InspectionSchema>;

/** A history hangs together: numbers once each, every parent an earlier one or none, the one in use among them. */
const hangsTogether = (piece: { revision: number; revisions: { number: number; parent: number }[] }): boolean => {
  const numbers = new Set(piece.revisions.map((r) => r.number));
  return (
    numbers.size === piece.revisions.length &&
    piece.revisions.every((r) => r.parent < r.number && (r.parent === 0 || numbers.has(r.parent))) &&
    (piece.revision === 0 || numbers.has(piece.revision))
  );
};

export const PieceFileSchema = PieceFactsSchema.extend({
  created: moment,
  archived: moment.nullable(),
  /** The revision in use; 0 before anything is drawn. */
  revision: z.number().int().min(0),
  revisions: z.array(
    z.object({
      number: z.number().int().min(1),
      parent: z.number().int().min(0),
      at: moment,
      pattern: PatternSchema,
    }),
  ),
  /** Each time the pattern left the house, on paper or as a file. */
  prints: z.array(z.object({ at: moment, what: text(40), revision: z.number().int().min(0) })),
  fits: z.array(FitSchema),
  welds: z.array(WeldSchema),
  inspections: z.array(InspectionSchema),
}).refine(hangsTogether, { path: ['revisions'], error: 'the history of the card does not hang together' });
export type PieceFile = z.infer<typeof PieceFileSchema>;

/** A whole job in one file. No database ids: what hangs together does so by place in the file and by edge id. */
export const JobFileSchema = z.object({
  format: z.literal('patrone-job'),
  version: z.literal(1),
  job: JobFactsSchema.extend({ created: moment, archived: moment.nullable() }),
  pieces: z.array(PieceFileSchema).max(500),
});
export type JobFile = z.infer<typeof JobFileSchema>;

/** A job file as text: two-space JSON in schema order, so that writing what was read gives the same bytes. */
export const writeJob = (job: JobFile): string => `${JSON.stringify(JobFileSchema.parse(job), null, 2)}\n`;
