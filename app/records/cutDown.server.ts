import { eq } from 'drizzle-orm';
import type { CutDown } from '#core/cutdown/cutDown';
import { CutDownSchema } from '#core/cutdown/cutDown';
import { uncut } from '#core/cutdown/uncut';
import { mergedRecord } from '#core/format/merge';
import { CUT_DOWN_MERGE } from '#core/format/mergeRules';
import type { Changed } from './changed.server';
import { putMerged } from './changed.server';
import type { Tx } from './database.server';
import { readFields, writtenOver } from './readFields.server';
import { pieces } from './schema.server';

/** How a piece is brought to size; of what has been added since it was written nothing was said. */
export const cutDownOf = ({ cutDown }: { cutDown: Partial<CutDown> }): CutDown =>
  readFields(CutDownSchema, cutDown, uncut());

/**
 * Changes some of how a piece is brought to size since it stood as `since` says; null when there is
 * no such piece.
 */
export async function changeCutDown(
  piece: string,
  since: Partial<CutDown>,
  mine: Partial<CutDown>,
  tx: Tx,
): Promise<Changed<Partial<CutDown>> | null> {
  const [row] = await tx
    .select({ cutDown: pieces.cutDown })
    .from(pieces)
    .where(eq(pieces.id, piece))
    .for('update');
  if (!row) return null;
  const now = cutDownOf(row);
  return putMerged(
    mergedRecord<Partial<CutDown>>(since, mine, now, CUT_DOWN_MERGE),
    now,
    (merged) =>
      tx
        .update(pieces)
        .set({ cutDown: writtenOver({ ...uncut(), ...row.cutDown }, now, merged) as CutDown })
        .where(eq(pieces.id, piece)),
    CutDownSchema.partial(),
  );
}
