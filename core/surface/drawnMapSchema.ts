import { z } from 'zod';
import { MOST_LINES, MOST_MARKS, MOST_PLACES, MOST_TRACKS } from './drawnLimits';
import { TRACK_TOOLS } from './tracks';

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
        places: z.array(at).max(MOST_PLACES),
      }),
    )
    .max(MOST_LINES),
  marks: z
    .array(z.strictObject({ way, strain, at, turn: z.number().finite().min(-10).max(10) }))
    .max(MOST_MARKS),
  tracks: z
    .array(
      z.strictObject({
        tool: z.enum(TRACK_TOOLS),
        round: z.number().int().min(1).max(100),
        places: z.array(at).min(2).max(MOST_PLACES),
      }),
    )
    .max(MOST_TRACKS),
});
export type DrawnMap = z.infer<typeof DrawnMapSchema>;
