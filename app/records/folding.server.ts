import { eq } from 'drizzle-orm';
import type { Folding } from '#core/blank/fold/folding';
import { FoldingSchema, unfolded } from '#core/blank/fold/folding';
import { mergedRecord } from '#core/format/merge';
import { FOLDING_MERGE } from '#core/format/mergeRules';
import type { Changed } from './changed.server';
import { putMerged } from './changed.server';
import type { Tx } from './database.server';
import { readFields, writtenOver } from './readFields.server';
import { pieces } from './schema.server';

type Given = { [K in keyof Folding]?: Folding[K] | undefined };

/** How a piece is folded; of what has been added since it was written nothing has been said. */
export const foldingOf = ({ folding }: { folding: Given }): Folding =>
  readFields(FoldingSchema, folding, unfolded());

/**
 * Changes some of how a piece is folded since it stood as `since` says; null when there is no such
 * piece.
 */
export async function changeFolding(
  piece: string,
  since: Partial<Folding>,
  mine: Partial<Folding>,
  tx: Tx,
): Promise<Changed<Partial<Folding>> | null> {
  const [row] = await tx
    .select({ folding: pieces.folding })
    .from(pieces)
    .where(eq(pieces.id, piece))
    .for('update');
  if (!row) return null;
  const now = foldingOf(row);
  return putMerged(
    mergedRecord<Partial<Folding>>(since, mine, now, FOLDING_MERGE),
    now,
    (merged) =>
      tx
        .update(pieces)
        .set({ folding: writtenOver({ ...unfolded(), ...row.folding }, now, merged) as Folding })
        .where(eq(pieces.id, piece)),
    FoldingSchema.partial(),
  );
}
