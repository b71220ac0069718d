import { z } from 'zod';
import { text } from '../card/text';
import { MEASURE_KINDS, ROUND_STAGES, SIDES_OF_VEHICLE } from './kinds';

/** What is surveyed of a job: each thing has a short id of its own, given when it is made, by which others name it. */
const id = text(24).min(1);
const moment = z.iso.datetime();

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

/** What is measured: between two points, or at a place in words. Lengths in mm, level and lean in degrees. */
export const MeasureSchema = z.object({
  kind: z.literal('measure'),
  of: z.enum(MEASURE_KINDS),
  name: text(60).min(1),
  from: id.nullable(),
  to: id.nullable(),
  where: text(200),
  /** How good one reading is, one standard deviation: mm, or degrees. */
  u: z.number().min(0.001).max(100),
  /** A change by more than this is told as moved though the readings could be out by more; null: only what they show. */
  tolerance: z.number().min(0).max(1000).nullable(),
  putAway: z.boolean(),
});
export type Measure = z.infer<typeof MeasureSchema>;

export const ReadingSchema = z.object({ value: z.number().min(-100_000).max(100_000).nullable(), note: text(400) });
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

export const SurveySchema = z.discriminatedUnion('kind', [PointSchema, MeasureSchema, RoundSchema]);
export type SurveyBody = z.infer<typeof SurveySchema>;
export type Surveyed<Body extends SurveyBody = SurveyBody> = { id: string } & Body;

/** One thing surveyed as it stands in a job file. */
export const SurveyedSchema = z.object({ id, at: moment, body: SurveySchema });
export type SurveyedFile = z.infer<typeof SurveyedSchema>;

export const MOST_SURVEYED = 5000;
