import type { z } from 'zod';

type Item = Readonly<Record<string, unknown>>;

/** A list whose items are each there once, by the field that tells them apart. */
export const eachOnce = <S extends z.ZodType<readonly Item[]>>(list: S, field = 'id') =>
  list.refine((items) => new Set(items.map((item) => item[field])).size === items.length, {
    error: `two of them have one ${field}`,
  });

/** An id takes no more characters than this before a number is put to it. */
const MAX_STEM = 20;

/**
 * A list of a file as older programs could write it, two items under one id: both stay, the later
 * one under an id of its own. Anything else comes back as it is.
 */
export function withOwnIds(list: unknown, field = 'id'): unknown {
  if (!Array.isArray(list)) return list;
  const taken = new Set((list as Item[]).map((item) => item?.[field]));
  const seen = new Set<unknown>();
  return (list as Item[]).map((item) => {
    const id = item?.[field];
    if (typeof id !== 'string' || !seen.has(id)) {
      seen.add(id);
      return item;
    }
    let n = 2;
    while (taken.has(`${id.slice(0, MAX_STEM)}.${n}`)) n++;
    const own = `${id.slice(0, MAX_STEM)}.${n}`;
    taken.add(own);
    seen.add(own);
    return { ...item, [field]: own };
  });
}
