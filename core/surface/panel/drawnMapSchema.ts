import { z } from 'zod';
import { MAX_LINES, MAX_MARKS, MAX_PLACES, MAX_TRACKS } from './drawnLimits';
import { TRACK_TOOLS } from '../strain/tracks';

const mm = z.number().finite().min(-100_000).max(100_000);
const at = z.tuple([mm, mm]);
const way = z.enum(['stretch', 'shrink']);
const strain = z.number().finite().min(0).max(10);

/**
 * What is to be done where on a blank, as it is drawn: lines along which metal is to be stretched
 * (or gathered) by `value`, and marks with their strain and the direction it goes in, radians from
 * +x; tracks to follow where a middle is raised. Millimetres.
 */
export const DrawnMapSchema = z.strictObject({
  lines: z
    .array(
      z.strictObject({
        way,
        value: strain,
        closed: z.boolean(),
        places: z.array(at).max(MAX_PLACES),
      }),
    )
    .max(MAX_LINES),
  marks: z
    .array(z.strictObject({ way, strain, at, turn: z.number().finite().min(-10).max(10) }))
    .max(MAX_MARKS),
  tracks: z
    .array(
      z.strictObject({
        tool: z.enum(TRACK_TOOLS),
        round: z.number().int().min(1).max(100),
        places: z.array(at).min(2).max(MAX_PLACES),
      }),
    )
    .max(MAX_TRACKS),
});
export type DrawnMap = z.infer<typeof DrawnMapSchema>;
