import { eq } from 'drizzle-orm';
import type { MergeRules } from '#core/format/merge';
import { mergedRecord } from '#core/format/merge';
import { SHAPING_MERGE } from '#core/format/mergeRules';
import type { Shaping, StepWork } from '#core/shape/shaping';
import { unshaped } from '#core/shape/shaping';
import type { Changed } from './changed.server';
import { putMerged } from './changed.server';
import type { Tx } from './database.server';
import { ShapingSchema } from '#core/shape/shapingSchema';
import { readFields, writtenOver } from './readFields.server';
import { pieces } from './schema.server';

/** How a piece is shaped; of what has been added since it was written nothing has been said. */
export const shapingOf = ({ shaping }: { shaping: Partial<Shaping> }): Shaping =>
  readFields(ShapingSchema, shaping, unshaped());

/**
 * A change of how a piece is shaped: its order, steps of one's own, and the work on single steps by
 * their keys.
 */
export type ShapingChange = Partial<Pick<Shaping, 'order' | 'own'>> & {
  work?: Record<string, StepWork | null>;
};

/** Work step by step, so that two who count on two steps do not meet. */
const WORK = 'work ';
type Flat = Record<string, unknown>;
const flat = ({ work = {}, ...rest }: ShapingChange): Flat => ({
  ...rest,
  ...Object.fromEntries(Object.entries(work).map(([key, one]) => [WORK + key, one])),
});
function nested(all: Flat): Shaping {
  const work = Object.entries(all).flatMap(([key, one]) =>
    key.startsWith(WORK) && one ? [[key.slice(WORK.length), one as StepWork] as const] : [],
  );
  const { order, own } = all as Pick<Shaping, 'order' | 'own'>;
  return { order, own, work: Object.fromEntries(work) };
}

/**
 * Changes some of how a piece is shaped since it stood as `since` says; null when there is no such
 * piece.
 */
export async function changeShaping(
  piece: string,
  since: ShapingChange,
  mine: ShapingChange,
  tx: Tx,
): Promise<Changed<Flat> | null> {
  const [row] = await tx
    .select({ shaping: pieces.shaping })
    .from(pieces)
    .where(eq(pieces.id, piece))
    .for('update');
  if (!row) return null;
  const read = shapingOf(row);
  const now = flat(read);
  // A step nobody has worked on yet is nothing on both sides.
  const begun = {
    ...Object.fromEntries(Object.keys(flat(mine)).map((key) => [key, null])),
    ...now,
  };
  return putMerged(
    mergedRecord<Flat>(flat(since), flat(mine), begun, SHAPING_MERGE as MergeRules<Flat>),
    now,
    (merged) =>
      tx
        .update(pieces)
        .set({ shaping: writtenOver(row.shaping, read, nested({ ...now, ...merged })) })
        .where(eq(pieces.id, piece)),
  );
}
