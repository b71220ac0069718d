import type { z } from 'zod';
import { FitSchema, InspectionSchema, WeldSchema } from './job';
import { RECORD_KINDS } from './lists';
import type { RecordKind } from './lists';

/**
 * The kinds of records of a piece. A new one is an entry here (its name in `RECORD_KINDS`), its list
 * in the job file (`PieceFileSchema`) and its words (`app/frame/recordWords.ts`): keeping it, reading
 * it, taking it back, job files, pictures that hang on it and `check-data` follow from this list.
 */
type RecordEntry = {
  schema: z.ZodObject;
  /** The name of its list in a job file and among the records of a piece. */
  list: string;
  /** Whether the list runs by when a record is said to be made, or as they were written down. */
  inOrderOf: 'at' | 'entry';
  /** Fields that may be changed after: everything else stays as it was written down. */
  changed: readonly string[];
};

export const RECORDS = {
  fit: {
    schema: FitSchema,
    list: 'fits',
    inOrderOf: 'at',
    changed: ['at', 'held', 'notes'],
  },
  weld: { schema: WeldSchema, list: 'welds', inOrderOf: 'entry', changed: [] },
  inspection: {
    schema: InspectionSchema,
    list: 'inspections',
    inOrderOf: 'entry',
    changed: ['remedy'],
  },
} as const satisfies Record<RecordKind, RecordEntry>;

export type RecordOf<K extends RecordKind> = z.infer<(typeof RECORDS)[K]['schema']>;

/** Something for each list of records, by the name of the list. */
export type RecordLists<T extends { [K in RecordKind]: unknown }> = {
  [K in RecordKind as (typeof RECORDS)[K]['list']]: T[K][];
};

/** Makes each list of records, by its name. */
export const listsOf = <T extends { [K in RecordKind]: unknown }>(
  make: <K extends RecordKind>(kind: K) => T[K][],
): RecordLists<T> =>
  Object.fromEntries(
    RECORD_KINDS.map((kind) => [RECORDS[kind].list, make(kind)]),
  ) as unknown as RecordLists<T>;
