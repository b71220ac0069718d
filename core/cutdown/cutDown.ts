import { z } from 'zod';
import { eachOnce } from '../card/eachOnce';
import { moment } from '../card/moment';
import { text } from '../card/text';
import { FAULTS, HOLED, LAID_ON, MAX_MICROMETER, VERDICTS } from './kinds';

const id = text(24).min(1);
const mm = z.number().finite().min(0).max(10_000);
const hours = z.number().finite().min(0).max(10_000);

/** A bought part, looked at before it is used; `verdict` null until what becomes of it is said. */
const ReceivedSchema = z.object({
  at: moment,
  laidOn: z.enum(LAID_ON),
  verdict: z.enum(VERDICTS).nullable(),
  note: text(1000),
});
export type Received = z.infer<typeof ReceivedSchema>;

/**
 * What is wrong with a piece that was not made here: at which edge (null: none in particular), by
 * how much, mm or degrees as its kind is measured, above 0; when and how it was put right, and the
 * hours that took.
 */
export const FaultSchema = z.object({
  id,
  kind: z.enum(FAULTS),
  edge: id.nullable(),
  by: z.number().finite().min(0).max(10_000).nullable(),
  note: text(1000),
  mendedAt: moment.nullable(),
  how: text(1000),
  hours: hours.nullable(),
});
export type Fault = z.infer<typeof FaultSchema>;

const work = { id, edge: id.nullable(), note: text(1000), doneAt: moment.nullable() };

/**
 * One thing that brings a piece to size, to do (`doneAt` null) or done: spot welds drilled out and
 * which layer has the holes; a flange trimmed by a width; cut along a line, with what was left over
 * to be trimmed at fitting; a hole made or stopped, by its diameter.
 */
export const CutDownWorkSchema = z.discriminatedUnion('kind', [
  z.object({
    ...work,
    kind: z.literal('spots'),
    count: z.number().int().min(1).max(10_000),
    holed: z.enum(HOLED),
  }),
  z.object({ ...work, kind: z.literal('flange'), byMm: mm }),
  z.object({ ...work, kind: z.literal('cut'), leftMm: mm }),
  z.object({ ...work, kind: z.literal('hole-made'), diameterMm: mm }),
  z.object({ ...work, kind: z.literal('hole-stopped'), diameterMm: mm }),
]);
export type CutDownWork = z.infer<typeof CutDownWorkSchema>;

/** How a piece that was not made here is brought to size; edges by the ids of its card. */
export const CutDownSchema = z.object({
  /** Micrometer readings of its metal, paint off, mm. */
  readingsMm: z.array(z.number().min(0.05).max(20)).max(MAX_MICROMETER),
  received: ReceivedSchema.nullable(),
  faults: eachOnce(z.array(FaultSchema).max(200)),
  works: eachOnce(z.array(CutDownWorkSchema).max(400)),
});
export type CutDown = z.infer<typeof CutDownSchema>;
