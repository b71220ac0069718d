/**
 * What becomes of a record that two changed from one beginning: merged, or the fields that both
 * changed and not alike.
 */
export type Merged<T> = { ok: true; merged: T } | { ok: false; clashes: (keyof T & string)[] };

/**
 * Whether two values of JSON say the same, in whatever order their fields stand: a database has an
 * order of its own.
 */
function same(a: unknown, b: unknown): boolean {
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return a === b;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  const [left, right] = [a as Record<string, unknown>, b as Record<string, unknown>];
  const keys = Object.keys(left);
  return (
    keys.length === Object.keys(right).length &&
    keys.every((key) => key in right && same(left[key], right[key]))
  );
}

/**
 * A list in which one put some in and took some out, as the other left it: what both did is done.
 */
function mergedList(
  since: readonly unknown[],
  mine: readonly unknown[],
  now: readonly unknown[],
): unknown[] {
  const rest = [...mine];
  const gone: unknown[] = [];
  for (const item of since) {
    const at = rest.findIndex((other) => same(other, item));
    if (at < 0) gone.push(item);
    else rest.splice(at, 1);
  }
  const kept = [...now];
  for (const item of gone) {
    const at = kept.findIndex((other) => same(other, item));
    if (at >= 0) kept.splice(at, 1);
  }
  // What is left of mine was put in since; what the other put in just the same is not put in twice.
  const added = rest.filter((item) => !now.some((other) => same(other, item)));
  return [...kept, ...added];
}

/**
 * Changes made to a record since `since`, put onto the record as it is `now`: a field that only one
 * changed is taken from whoever changed it; lists take what both put in and took out; a field that
 * both changed to different things is a clash and nothing is merged. Fields named in one group of
 * `together` say one thing (a thickness and how it was chosen): they are taken from one side, all
 * of them.
 */
export function mergedRecord<T extends object>(
  since: T,
  mine: T,
  now: T,
  together: readonly (readonly (keyof T)[])[] = [],
): Merged<T> {
  const merged = { ...now };
  const clashes: (keyof T & string)[] = [];
  for (const key of Object.keys(mine) as (keyof T & string)[]) {
    const group = together.find((keys) => keys.includes(key)) ?? [key];
    const changed = (to: T) => group.some((k) => !same(to[k], since[k]));
    if (!changed(mine)) continue;
    const [a, b, c] = [since[key], mine[key], now[key]];
    if (!changed(now) || group.every((k) => same(mine[k], now[k]))) merged[key] = b;
    else if (Array.isArray(a) && Array.isArray(b) && Array.isArray(c))
      merged[key] = mergedList(a, b, c) as T[typeof key];
    else if (!same(b, c)) clashes.push(key);
  }
  return clashes.length > 0 ? { ok: false, clashes } : { ok: true, merged };
}
