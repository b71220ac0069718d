import { kept } from './browserStore';

/**
 * What this browser has sent of a draft and got no answer to. An answer that was lost is no
 * quarrel: where the record stands as it was sent from here, one's own goes on from there. Kept
 * with the draft, so that it outlives a reload.
 */
const keyOf = (about: string) => `patrone:sent:${about}`;

/** As many sent states of a field are remembered. */
const MOST = 20;

/** A value in a word, however its fields are ordered. */
const word = (value: unknown): string =>
  JSON.stringify(value, (_, one: unknown) =>
    one && typeof one === 'object' && !Array.isArray(one)
      ? Object.fromEntries(Object.entries(one).sort(([a], [b]) => (a < b ? -1 : 1)))
      : one,
  ) ?? 'null';

/** Whether two values say the same; what is missing is nothing. */
export const alike = (a: unknown, b: unknown): boolean => word(a ?? null) === word(b ?? null);

function read(about: string): Record<string, string[]> {
  try {
    return (JSON.parse(kept.get<string>(keyOf(about)) ?? '{}') ?? {}) as Record<string, string[]>;
  } catch {
    return {};
  }
}

export function rememberSent(about: string, fields: Record<string, unknown>): void {
  const known = read(about);
  for (const [name, value] of Object.entries(fields))
    known[name] = [...(known[name] ?? []), word(value)].slice(-MOST);
  kept.set(keyOf(about), JSON.stringify(known));
}

export const forgetSent = (about: string): void => kept.remove(keyOf(about));

/** Whether each of these fields stands as it was sent from here once. */
export function wasSent(about: string, fields: readonly (readonly [string, unknown])[]): boolean {
  const known = read(about);
  return fields.every(([name, value]) => known[name]?.includes(word(value)) === true);
}
