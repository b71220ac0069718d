import type { Result } from './result';
import { failure } from './result';

/** What lengths are shown in: millimetres, inches and fractions, or decimal inches. */
export type Unit = 'mm' | 'in' | 'inDecimal';

export const MM_PER_INCH = 25.4;
export const toInches = (mm: number): number => mm / MM_PER_INCH;
export const fromInches = (inches: number): number => inches * MM_PER_INCH;

const NUMBER = String.raw`(?:\d+(?:[.,]\d*)?|[.,]\d+)`;
const num = (text: string): number => Number(text.replace(',', '.'));
const FRACTION_PARTS = [2, 4, 8, 16, 32, 64, 128];

type Term = { mm: number } | null;

/** One length without sign or arithmetic: `81.2cm`, `31 15/16`, `2' 8`, `5/8"`, `812`. */
function term(text: string, unit: Unit): Term {
  const t = text
    .trim()
    .toLowerCase()
    .replace(/[″”]|''/g, '"')
    .replace(/[′’]/g, "'")
    .replace(/\s*(inches|inch|in)\.?$/, '"')
    .replace(/\s*(feet|foot|ft)\.?/, "'");
  const plain = unit === 'mm' ? 1 : MM_PER_INCH;

  let m = new RegExp(`^(${NUMBER})\\s*(mm|cm|m)$`).exec(t);
  if (m) return { mm: num(m[1]!) * { mm: 1, cm: 10, m: 1000 }[m[2] as 'mm' | 'cm' | 'm'] };

  m = new RegExp(`^(${NUMBER})\\s*'\\s*(.*)$`).exec(t);
  if (m) {
    const rest = m[2]!.trim();
    const inches = rest === '' ? { mm: 0 } : inchTerm(rest.replace(/"$/, '').trim());
    return inches && { mm: num(m[1]!) * 12 * MM_PER_INCH + inches.mm };
  }
  if (t.endsWith('"')) return inchTerm(t.slice(0, -1).trim());
  // A whole number with a fraction behind it, or a common fraction below one, is inches whatever the unit in use.
  m = /^(?:(\d+)[\s-]+)?(\d+)\s*\/\s*(\d+)$/.exec(t);
  if (m && Number(m[2]) < Number(m[3]) && FRACTION_PARTS.includes(Number(m[3]))) return inchTerm(t);
  if (new RegExp(`^${NUMBER}$`).test(t)) return { mm: num(t) * plain };
  return null;
}

/** Inches without their mark: `31 15/16`, `1-5/8`, `32`, `.75`. */
function inchTerm(t: string): Term {
  if (new RegExp(`^${NUMBER}$`).test(t)) return { mm: fromInches(num(t)) };
  const m = /^(?:(\d+)[\s-]+)?(\d+)\s*\/\s*(\d+)$/.exec(t);
  if (!m || Number(m[3]) === 0) return null;
  return { mm: fromInches(Number(m[1] ?? 0) + Number(m[2]) / Number(m[3])) };
}

/**
 * Reads a length as people at a bench say and write it, in millimetres.
 *
 * `812`, `81.2cm`, `32"`, `31 15/16`, `2' 8`, `1-5/8`, `3/16`; `+3` and `-3` change `current` by that much;
 * `812/2`, `406*2`, `812+3` and `812-1.5` are reckoned. Bare numbers are in `unit`. A common fraction (3/16, 1-5/8)
 * is always inches. A leading minus without a `current` value is a negative length.
 *
 * Problems: `length-empty`, `length-unreadable`, `length-divided-by-zero`.
 */
export function parseLength(text: string, unit: Unit, current?: number): Result<{ mm: number }> {
  const t = text.trim();
  if (t === '') return failure({ code: 'length-empty' });

  const whole = term(t, unit);
  if (whole) return { ok: true, mm: whole.mm };

  const signed = /^([+-])(.+)$/.exec(t);
  if (signed) {
    const inner = parseLength(signed[2]!, unit);
    if (!inner.ok) return inner;
    return { ok: true, mm: (current ?? 0) + (signed[1] === '+' ? inner.mm : -inner.mm) };
  }
  const divided = new RegExp(`^(.+?)\\s*([/*x×])\\s*(${NUMBER})$`).exec(t);
  if (divided) {
    const inner = parseLength(divided[1]!, unit, current);
    if (inner.ok) {
      const by = num(divided[3]!);
      if (divided[2] !== '/') return { ok: true, mm: inner.mm * by };
      return by === 0 ? failure({ code: 'length-divided-by-zero' }) : { ok: true, mm: inner.mm / by };
    }
  }
  // The last + or - that has a readable length on either side; a dash inside 1-5/8 was taken whole above.
  for (let i = t.length - 1; i > 0; i--) {
    const sign = t[i];
    if (sign !== '+' && sign !== '-') continue;
    const after = term(t.slice(i + 1), unit);
    if (!after) continue;
    const before = parseLength(t.slice(0, i), unit, current);
    if (before.ok) return { ok: true, mm: before.mm + (sign === '+' ? after.mm : -after.mm) };
  }
  return failure({ code: 'length-unreadable' });
}

/**
 * A length in inches as whole and fraction, rounded to the nearest 1/`parts` (a power of two): `31 15/16`, `-3/32`, `0`.
 */
export function inchFraction(mm: number, parts = 32): string {
  const total = Math.round(Math.abs(toInches(mm)) * parts);
  const sign = mm < 0 && total > 0 ? '-' : '';
  const whole = Math.floor(total / parts);
  let rest = total % parts;
  let of = parts;
  while (rest > 0 && rest % 2 === 0) {
    rest /= 2;
    of /= 2;
  }
  if (rest === 0) return `${sign}${whole}`;
  return whole === 0 ? `${sign}${rest}/${of}` : `${sign}${whole} ${rest}/${of}`;
}

/** A length for showing: `812.5 mm`, `31 15/16 in`, `31.988 in`; `digits` decimals for mm (default 1). */
export function formatLength(mm: number, unit: Unit, digits = 1, withUnit = true): string {
  const body =
    unit === 'mm'
      ? cleanZero(mm.toFixed(digits))
      : unit === 'in'
        ? inchFraction(mm, digits > 1 ? 64 : 32)
        : cleanZero(toInches(mm).toFixed(digits + 2));
  return withUnit ? `${body} ${unit === 'mm' ? 'mm' : 'in'}` : body;
}

/** An area for showing: `768 cm²`, `119.0 in²`; `digits` decimals of a square centimetre. */
export const formatArea = (mm2: number, unit: Unit, digits = 0): string =>
  unit === 'mm'
    ? `${cleanZero((mm2 / 100).toFixed(digits))} cm²`
    : `${cleanZero((mm2 / MM_PER_INCH ** 2).toFixed(digits + 1))} in²`;

const cleanZero = (text: string): string => (/^-0(\.0*)?$/.test(text) ? text.slice(1) : text);

/** How far one press of an arrow key moves a length: half a millimetre, or 1/32 in. */
export const stepOf = (unit: Unit): number => (unit === 'mm' ? 0.5 : MM_PER_INCH / 32);
