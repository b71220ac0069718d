import { data } from 'react-router';
import { z } from 'zod';
import type { Merged } from '#core/format/merge';

/**
 * A record as somebody changed it, and as it stood when they began: so that another's changes since
 * are not undone.
 */
export const changedOf = <S extends z.ZodType>(schema: S) =>
  z.object({ mine: schema, since: schema });

/** What is said of a record that was taken back: it stays as it was. */
export const TAKEN_BACK = 'That was taken back meanwhile: it stays in the record as it was.';

export type Changed<T> =
  { kind: 'saved' } | { kind: 'clash'; clashes: (keyof T & string)[]; now: T };

/** Puts a change where the record is as it is now, by the way it is kept. */
export async function putMerged<T extends object>(
  found: Merged<T>,
  now: T,
  put: (merged: T) => Promise<unknown>,
): Promise<Changed<T>> {
  if (!found.ok) return { kind: 'clash', clashes: found.clashes, now };
  await put(found.merged);
  return { kind: 'saved' };
}

/** What two pages wrote in the same fields, to be shown: what is there, and one's own. */
export function sentenceOf<T extends object>(
  { clashes, now }: { clashes: (keyof T & string)[]; now: T },
  mine: T,
  say: { [K in keyof T & string]?: string },
  shown: (field: keyof T & string, value: unknown) => string,
): string {
  const lines = clashes.map(
    (field) =>
      `${say[field] ?? field}: “${shown(field, now[field])}” there, “${shown(field, mine[field])}” here`,
  );
  return `Changed on another page meanwhile. ${lines.join('; ')}. Nothing was overwritten; keep yours again to put it in its place.`;
}

/**
 * What is answered to a change: saved, or 409 with what another page wrote in the same fields, to
 * be shown beside one's own; kept again, one's own then stands.
 */
export function answerOf<T extends object>(
  changed: Changed<T>,
  mine: T,
  say: { [K in keyof T & string]?: string },
  shown: (field: keyof T & string, value: unknown) => string,
) {
  if (changed.kind === 'saved') return { saved: true as const };
  return data(
    { message: sentenceOf(changed, mine, say, shown), now: changed.now },
    { status: 409 },
  );
}
