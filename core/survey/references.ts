import { z } from 'zod';
import { moment } from '../card/moment';
import { text } from '../card/text';
import { LAYERS, LOOKS, MEASURE_KINDS, ROUND_STAGES, SIDES_OF_VEHICLE } from './kinds';

/**
 * What is surveyed of a job: each thing has a short id of its own, given when it is made, by which
 * others name it.
 */
const id = text(24).min(1);

/** A place on the shell that is measured from. */
export const PointSchema = z.object({
  kind: z.literal('point'),
  name: text(40).min(1),
  /** Where it is, in words. */
  where: text(200),
  side: z.enum(SIDES_OF_VEHICLE),
  /** The same place on the other side. */
  partner: id.nullable(),
  putAway: z.boolean(),
});
export type ReferencePlace = z.infer<typeof PointSchema>;

/**
 * What is measured: between two points, or at a place in words. Lengths in mm, level and lean in
 * degrees.
 */
export const MeasureSchema = z.object({
  kind: z.literal('measure'),
  of: z.enum(MEASURE_KINDS),
  name: text(60).min(1),
  from: id.nullable(),
  to: id.nullable(),
  where: text(200),
  /** How good one reading is, one standard deviation: mm, or degrees. */
  u: z.number().min(0.001).max(100),
  /**
   * A change by more than this is told as moved though the readings could be out by more; null:
   * only what they show.
   */
  tolerance: z.number().min(0).max(1000).nullable(),
  /**
   * The same measure on the other side, where that does not follow from the partners of its points.
   */
  partner: id.nullable(),
  putAway: z.boolean(),
});
export type Measure = z.infer<typeof MeasureSchema>;

export const ReadingSchema = z.object({
  value: z.number().min(-100_000).max(100_000).nullable(),
  note: text(400),
  /** As it was written, in the unit it was read in; empty where the figure says it all. */
  as: text(40),
});
export type Reading = z.infer<typeof ReadingSchema>;

/** All measures read once: as found, braced, cut open and so on. Readings by the measure's id. */
export const RoundSchema = z.object({
  kind: z.literal('round'),
  stage: z.enum(ROUND_STAGES),
  name: text(60).min(1),
  at: moment,
  readings: z.record(id, ReadingSchema),
  putAway: z.boolean(),
});
export type Round = z.infer<typeof RoundSchema>;

/**
 * Four corners of an opening in a row round it, by their points: whether they lie in a plane is its
 * twist.
 */
export const OpeningSchema = z.object({
  kind: z.literal('opening'),
  name: text(60).min(1),
  corners: z.tuple([id, id, id, id]),
  putAway: z.boolean(),
});
export type Opening = z.infer<typeof OpeningSchema>;

/**
 * A brace that holds the shell while it is cut: between which points, of what, when it went in and
 * came out.
 */
export const BraceSchema = z.object({
  kind: z.literal('brace'),
  name: text(60).min(1),
  from: id.nullable(),
  to: id.nullable(),
  made: text(200),
  in: moment.nullable(),
  out: moment.nullable(),
  putAway: z.boolean(),
});
export type Brace = z.infer<typeof BraceSchema>;

/**
 * One look at a finding: how far it reaches, by its length and width (mm) or by a line drawn round
 * it on a picture.
 */
export const LookSchema = z.object({
  at: moment,
  how: z.enum(LOOKS),
  lengthMm: z.number().min(0.1).max(20_000).nullable(),
  widthMm: z.number().min(0.1).max(20_000).nullable(),
  /** The digest of the picture and the id of the line on it. */
  outline: z.object({ picture: z.string().regex(/^[0-9a-f]{64}$/), mark: id }).nullable(),
  note: text(400),
});
export type Look = z.infer<typeof LookSchema>;

/** What was found wrong, and how it grew from look to look. */
export const FindingSchema = z.object({
  kind: z.literal('finding'),
  name: text(80).min(1),
  where: text(200),
  side: z.enum(SIDES_OF_VEHICLE),
  layers: z.array(z.enum(LAYERS)).max(LAYERS.length),
  looks: z.array(LookSchema).max(50),
  putAway: z.boolean(),
});
export type Finding = z.infer<typeof FindingSchema>;

/**
 * How the net of one side (or in space) is looked at: it knows neither up nor left. Its id says of
 * which.
 */
export const ViewSchema = z.object({
  kind: z.literal('view'),
  name: text(40),
  /** Quarter turns to the left. */
  turns: z.number().int().min(0).max(3),
  /** Seen from behind. */
  mirrored: z.boolean(),
  putAway: z.boolean(),
});
export type NetView = z.infer<typeof ViewSchema>;

export const SurveySchema = z.discriminatedUnion('kind', [
  PointSchema,
  MeasureSchema,
  RoundSchema,
  OpeningSchema,
  BraceSchema,
  FindingSchema,
  ViewSchema,
]);
export type SurveyBody = z.infer<typeof SurveySchema>;
export type Surveyed<Body extends SurveyBody = SurveyBody> = { id: string } & Body;

/** One thing surveyed as it stands in a job file. */
export const SurveyedSchema = z.object({ id, at: moment, body: SurveySchema });
export type SurveyedFile = z.infer<typeof SurveyedSchema>;

export const MAX_SURVEYED = 5000;
