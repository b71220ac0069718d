import { z } from 'zod';
import { alike } from '#core/format/merge';

type Fields = Readonly<Record<string, unknown>>;

/** The items of a list that can be read where the list as a whole cannot; undefined where none. */
function readItems(schema: z.ZodType, stored: unknown): unknown[] | undefined {
  if (!(schema instanceof z.ZodArray) || !Array.isArray(stored)) return undefined;
  const items = stored.filter((item) => z.safeParse(schema.element, item).success);
  return schema.safeParse(items).data as unknown[] | undefined;
}

/**
 * A record that is stored as JSON, field by field through its schema: a field that was added since
 * it was written, or that cannot be read, is as where nothing was said; of a list those items are
 * left out that cannot be read. What is stored stays as it is (`./patrone check-data` names what
 * cannot be read).
 */
export function readFields<T extends object>(schema: z.ZodObject, stored: object, usual: T): T {
  const read = { ...usual };
  for (const key of Object.keys(usual) as (keyof T & string)[]) {
    if (!(key in stored)) continue;
    const field = schema.shape[key] as z.ZodType | undefined;
    const value = (stored as Fields)[key];
    const known = field?.safeParse(value).data ?? (field && readItems(field, value));
    if (known !== undefined) read[key] = known as T[typeof key];
  }
  return read;
}

/**
 * A record as it is to be stored: `next` where it differs from what was read of `stored`; what
 * could not be read and was not written anew stays as it is stored.
 */
export const writtenOver = <T extends object>(stored: object, read: T, next: T): T =>
  ({
    ...stored,
    ...Object.fromEntries(
      Object.entries(next).filter(([key, value]) => !alike(value, (read as Fields)[key])),
    ),
  }) as T;
