/**
 * Merging a record that two changed from one beginning: by field, and lists of items by item and by
 * field of the item. Nothing here knows the records; which list is merged how is said by its rule.
 */

/**
 * How a list is merged. The names of the fields that tell its items apart (`['id']`): by item. 'set':
 * values without an identity, of which each side put some in and took some out. Lists with no rule
 * are one value, as all else is.
 */
export type ListRule = 'set' | readonly string[];

export type MergeRules<T> = {
  lists?: { readonly [K in keyof T]?: ListRule };
  /**
   * Fields that say one thing between them (a thickness and how it was chosen): all are taken from
   * one side.
   */
  together?: readonly (readonly (keyof T)[])[];
};

/** A field that both changed and not alike. */
export type Clash<Field extends string = string> = {
  field: Field;
  /** In a list: the item by its name, and the field of it; empty where the whole field clashes. */
  within: readonly string[];
  /** What stands in the record, and what was sent; undefined where the item was taken out. */
  there: unknown;
  here: unknown;
};

/** Both changes in one; where they clash `merged` has what was sent. */
export type Merged<T> = { merged: T; clashes: Clash<keyof T & string>[] };

/**
 * Whether two values of JSON say the same, in whatever order their fields stand: a database has an
 * order of its own.
 */
export function alike(a: unknown, b: unknown): boolean {
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return a === b;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  const [left, right] = [a as Record<string, unknown>, b as Record<string, unknown>];
  const keys = Object.keys(left);
  return (
    keys.length === Object.keys(right).length &&
    keys.every((key) => key in right && alike(left[key], right[key]))
  );
}

type List = readonly unknown[];
type Item = Readonly<Record<string, unknown>>;
type Found = { list: List; clashes: Omit<Clash, 'field'>[] };

/**
 * Values put in and taken out on both sides. One that is in twice may be taken out once; one that
 * both put in is put in once.
 */
function mergedSet(since: List, mine: List, now: List): Found {
  const added = [...mine];
  const removed: unknown[] = [];
  for (const value of since) {
    const at = added.findIndex((other) => alike(other, value));
    if (at < 0) removed.push(value);
    else added.splice(at, 1);
  }
  const list = [...now];
  for (const value of removed) {
    const at = list.findIndex((other) => alike(other, value));
    if (at >= 0) list.splice(at, 1);
  }
  const fresh = added.filter((value) => !now.some((other) => alike(other, value)));
  return { list: [...list, ...fresh], clashes: [] };
}

/** The items by their keys, in their order; null where two have one key, or one is no item. */
function byKey(list: List, fields: readonly string[]): Map<string, Item> | null {
  const found = new Map<string, Item>();
  for (const item of list) {
    if (typeof item !== 'object' || item === null) return null;
    const key = JSON.stringify(fields.map((field) => (item as Item)[field] ?? null));
    if (found.has(key)) return null;
    found.set(key, item as Item);
  }
  return found;
}

/** What an item is called where it is spoken of. */
const nameOf = (item: Item, fields: readonly string[]): string =>
  [item.name, item.text].find((said) => typeof said === 'string' && said !== '')?.toString() ??
  fields.map((field) => String(item[field])).join(' ');

/**
 * The keys of `base` and of `other` in one row: those that only `other` has stand before the next
 * one that both have, at the end where none follows.
 */
function interleaved(base: readonly string[], other: readonly string[]): string[] {
  const row = [...base];
  const there = new Set(base);
  let before: string | null = null;
  for (const key of [...other].reverse()) {
    if (!there.has(key)) row.splice(before === null ? row.length : row.indexOf(before), 0, key);
    before = key;
  }
  return row;
}

function mergedItems(since: List, mine: List, now: List, fields: readonly string[]): Found | null {
  const [was, here, there] = [since, mine, now].map((list) => byKey(list, fields));
  if (!was || !here || !there) return null;
  const clashes: Found['clashes'] = [];
  const merged = new Map<string, Item>();
  for (const key of new Set([...there.keys(), ...here.keys()])) {
    const [a, b, c] = [was.get(key), here.get(key), there.get(key)];
    const within = [nameOf((a ?? b ?? c)!, fields)];
    if (b && c) {
      const found = mergedRecord<Item>(a ?? {}, b, c);
      merged.set(key, found.merged);
      for (const { field, there, here } of found.clashes)
        clashes.push({ within: [...within, field], there, here });
    } else if (!a) merged.set(key, (b ?? c)!);
    // Taken out on one side: gone where the other left it alone.
    else if (!alike(a, b ?? c)) {
      clashes.push({ within, there: c, here: b });
      if (b) merged.set(key, b);
    }
  }
  const common = [...was.keys()].filter((key) => here.has(key) && there.has(key));
  const orderIn = (items: Map<string, Item>) =>
    [...items.keys()].filter((key) => common.includes(key));
  const moved = (items: Map<string, Item>) => !alike(orderIn(items), common);
  if (moved(here) && moved(there) && !alike(orderIn(here), orderIn(there)))
    clashes.push({ within: ['order'], there: orderIn(there), here: orderIn(here) });
  const row = moved(here)
    ? interleaved([...here.keys()], [...there.keys()])
    : interleaved([...there.keys()], [...here.keys()]);
  return { list: row.flatMap((key) => merged.get(key) ?? []), clashes };
}

/**
 * The changes of `mine` and of `now` to `since` in one: a field that only one changed is taken from
 * whoever changed it; lists go by their rules. What both changed and not alike is told, and stands
 * as in `mine`: kept again upon `now`, that then is what stands. Only fields of `mine` are looked at.
 */
export function mergedRecord<T extends object>(
  since: T,
  mine: T,
  now: T,
  { lists = {}, together = [] }: MergeRules<T> = {},
): Merged<T> {
  const merged = { ...now };
  const clashes: Clash<keyof T & string>[] = [];
  for (const key of Object.keys(mine) as (keyof T & string)[]) {
    const group = together.find((keys) => keys.includes(key)) ?? [key];
    const changed = (to: T) => group.some((k) => !alike(to[k], since[k]));
    if (!changed(mine)) continue;
    const [a, b, c] = [since[key], mine[key], now[key]];
    merged[key] = b;
    if (!changed(now) || group.every((k) => alike(mine[k], now[k]))) continue;
    const found = Array.isArray(a) && Array.isArray(b) && Array.isArray(c) && inLists(key, a, b, c);
    if (found) {
      merged[key] = found.list as T[typeof key];
      for (const clash of found.clashes) clashes.push({ field: key, ...clash });
    } else if (!alike(b, c)) clashes.push({ field: key, within: [], there: c, here: b });
  }
  return { merged, clashes };

  function inLists(key: keyof T & string, a: List, b: List, c: List): Found | null {
    const rule = lists[key];
    if (!rule) return null;
    return rule === 'set' ? mergedSet(a, b, c) : mergedItems(a, b, c, rule);
  }
}
