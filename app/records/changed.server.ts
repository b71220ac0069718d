import { data } from 'react-router';
import { z } from 'zod';
import type { Clash, Merged } from '#core/format/merge';
import { sentence } from './parse.server';

/**
 * A record as somebody changed it, and as it stood when they began: so that another's changes since
 * are not undone.
 */
export const changedOf = <S extends z.ZodType>(schema: S) =>
  z.object({ mine: schema, since: schema });

/** What is said of a record that was taken back: it stays as it was. */
export const TAKEN_BACK = 'That was taken back meanwhile: it stays in the record as it was.';

/**
 * What became of a change: saved; fields that another page wrote too and not alike; or what both
 * wrote is no record when put together (a list too long). In the last two cases nothing was saved,
 * and `now` is what stands.
 */
export type Changed<T> =
  | { kind: 'saved' }
  | { kind: 'clash'; clashes: Clash<keyof T & string>[]; now: T }
  | { kind: 'unfit'; why: string; now: T };

/**
 * Puts a change where the record is as it is now, by the way it is kept; where `schema` is given,
 * only what it takes, and as it reads it.
 */
export async function putMerged<T extends object>(
  { merged, clashes }: Merged<T>,
  now: T,
  put: (merged: T) => Promise<unknown>,
  schema?: z.ZodType,
): Promise<Changed<T>> {
  if (clashes.length > 0) return { kind: 'clash', clashes, now };
  const fits = schema?.safeParse(merged);
  if (fits && !fits.success) return { kind: 'unfit', why: sentence(fits.error), now };
  await put(fits ? (fits.data as T) : merged);
  return { kind: 'saved' };
}

/** A field of an item in words: `throatMm` is “throat, mm”. */
const inWords = (field: string): string =>
  field
    .replace(/([a-z])(Mm|Deg)$/, (_, end: string, unit: string) =>
      unit === 'Mm' ? `${end}, mm` : `${end}, degrees`,
    )
    .replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);

type Words<T> = { [K in keyof T & string]?: string };
type Show<T> = (field: keyof T & string, value: unknown) => string;

/** As many clashes are told one by one. */
const MAX_TOLD = 4;

/** What two pages wrote in the same fields: what is there, and one's own. */
function sentenceOf<T extends object>(
  clashes: readonly Clash<keyof T & string>[],
  say: Words<T>,
  shown: Show<T>,
): string {
  const lines = clashes.slice(0, MAX_TOLD).map(({ field, within, there, here }) => {
    const [item, ofItem] = within;
    const what = [
      say[field] ?? inWords(field),
      ...(item === undefined ? [] : [item === 'order' ? 'their order' : `“${item}”`]),
      ...(ofItem === undefined ? [] : [inWords(ofItem)]),
    ].join(', ');
    const value = (one: unknown) => {
      if (one === undefined) return 'taken out';
      if (within.length === 0) return `“${shown(field, one)}”`;
      return typeof one === 'object' && one ? 'changed' : `“${String(one)}”`;
    };
    return `${what}: ${value(there)} there, ${value(here)} here`;
  });
  const more = clashes.length > MAX_TOLD ? `; and ${clashes.length - MAX_TOLD} more` : '';
  return `Changed on another page meanwhile. ${lines.join('; ')}${more}. Nothing was overwritten; keep yours again to put it in its place.`;
}

/** A value in few words, where a field has none of its own. */
export const inShort = (_field: string, value: unknown): string =>
  typeof value === 'object' && value ? '…' : String(value ?? 'nothing');

/** What is said of a change that was not saved, and what stands there. */
export const toldOf = <T extends object>(
  changed: Exclude<Changed<T>, { kind: 'saved' }>,
  say: Words<T>,
  shown: Show<T>,
): { message: string; now: T } => ({
  message:
    changed.kind === 'clash'
      ? sentenceOf(changed.clashes, say, shown)
      : `Another page changed this meanwhile, and both together do not fit (${changed.why}). Nothing was overwritten.`,
  now: changed.now,
});

/** What a page hears of a change that it sent. */
export type Answered<T extends object> = { saved: true } | ReturnType<typeof toldOf<T>>;

/**
 * What is answered to a change: saved, or 409 with what another page wrote in the same fields, to
 * be shown beside one's own; kept again, one's own then stands.
 */
export const answerOf = <T extends object>(changed: Changed<T>, say: Words<T>, shown: Show<T>) =>
  changed.kind === 'saved'
    ? { saved: true as const }
    : data(toldOf(changed, say, shown), { status: 409 });
