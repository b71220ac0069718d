import type { z } from 'zod';

/**
 * A record that is stored as JSON, field by field through its schema: a field that was added since
 * it was written, or that cannot be read, is as where nothing was said. What is stored stays as it
 * is (`./patrone check-data` names what cannot be read).
 */
export function readFields<T extends object>(schema: z.ZodObject, stored: object, usual: T): T {
  const read = { ...usual };
  for (const key of Object.keys(usual) as (keyof T & string)[]) {
    if (!(key in stored)) continue;
    const field = (schema.shape[key] as z.ZodType | undefined)?.safeParse(
      (stored as Record<string, unknown>)[key],
    );
    if (field?.success) read[key] = field.data as T[typeof key];
  }
  return read;
}

/** Those fields of a record that were sent. */
export const only = <T extends object>(record: Partial<T>, sent: Partial<T>): Partial<T> =>
  Object.fromEntries(Object.entries(record).filter(([key]) => key in sent)) as Partial<T>;
