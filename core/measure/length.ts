/** What lengths are shown in: millimetres, inches and fractions, or decimal inches. */
export type Unit = 'mm' | 'in' | 'inDecimal';

export const MM_PER_INCH = 25.4;
export const toInches = (mm: number): number => mm / MM_PER_INCH;
export const fromInches = (inches: number): number => inches * MM_PER_INCH;

/**
 * A length in inches as whole and fraction, rounded to the nearest 1/`parts` (a power of two): `31
 * 15/16`, `-3/32`, `0`.
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

/** Lengths in inches are shown to this part; what is left over is told in thousandths. */
const FINEST_PART = 64;

/**
 * What is left over is told from this many thousandths of an inch on, by the decimals of a
 * millimetre asked for.
 */
const restTold = (digits: number): number => (digits > 1 ? 1 : 2);

/**
 * Inches as a fraction to a 64th with the rest told: `27/32−.002`, which is read back as the sum it
 * is.
 */
function inchesWithRest(mm: number, digits: number): string {
  const body = inchFraction(mm, FINEST_PART);
  const shown = Math.round(Math.abs(toInches(mm)) * FINEST_PART) / FINEST_PART;
  const thousandths = Math.round((Math.abs(toInches(mm)) - shown) * 1000);
  if (Math.abs(thousandths) < restTold(digits)) return body;
  // Of a length below nothing the rest goes the same way as the fraction.
  const adds = mm < 0 ? thousandths < 0 : thousandths > 0;
  const rest = `.${String(Math.abs(thousandths)).padStart(3, '0')}`;
  if (shown === 0) return `${mm < 0 ? MINUS : ''}${rest}`;
  return `${body}${adds ? '+' : MINUS}${rest}`;
}

/** The sign that stands before figures below nothing: as wide as a plus, not a dash. */
export const MINUS = '\u2212';
const signed = (text: string): string => text.replace('-', MINUS);

/**
 * A length for showing: `812.5 mm`, `31 15/16 in`, `31.988 in`; `digits` decimals for mm (default
 * 1). Inches are fractions to a 64th, with what is left over told in thousandths. What is shown is
 * read back by `parseLength` as the same length, to half of the last figure shown.
 */
export function formatLength(mm: number, unit: Unit, digits = 1, withUnit = true): string {
  const body =
    unit === 'mm'
      ? signed(cleanZero(mm.toFixed(digits)))
      : unit === 'in'
        ? signed(inchesWithRest(mm, digits))
        : signed(cleanZero(toInches(mm).toFixed(digits + 2)));
  return withUnit ? `${body} ${unit === 'mm' ? 'mm' : 'in'}` : body;
}

/**
 * A length where there is room for few signs (a tag, a tile), without its unit: inches to the
 * nearest 64th, rest and all.
 */
export const formatBrief = (mm: number, unit: Unit, digits = 1): string =>
  unit === 'in'
    ? signed(inchFraction(mm, FINEST_PART))
    : formatLength(mm, unit, unit === 'mm' ? digits : 0, false);

/**
 * A thin thing (sheet, gap, step, wire) for showing: `0.80 mm`, or thousandths of an inch: `.031
 * in`.
 */
export function formatThin(mm: number, unit: Unit, withUnit = true): string {
  if (unit === 'mm') return formatLength(mm, unit, 2, withUnit);
  const body = signed(cleanZero(toInches(mm).toFixed(3)).replace(/^(-?)0\./, '$1.'));
  return withUnit ? `${body} in` : body;
}

const KG_PER_POUND = 0.45359237;

/** A weight for showing: `0.634 kg`, `1.40 lb` (1 lb = 0.45359237 kg exactly). */
export function formatWeight(kg: number, unit: Unit): string {
  const [value, name] = unit === 'mm' ? [kg, 'kg'] : [kg / KG_PER_POUND, 'lb'];
  return `${value.toFixed(value < 1 ? 3 : 2)} ${name}`;
}

/** An area for showing: `768 cm²`, `119.0 in²`; `digits` decimals of a square centimetre. */
export const formatArea = (mm2: number, unit: Unit, digits = 0): string =>
  unit === 'mm'
    ? `${cleanZero((mm2 / 100).toFixed(digits))} cm²`
    : `${cleanZero((mm2 / MM_PER_INCH ** 2).toFixed(digits + 1))} in²`;

const cleanZero = (text: string): string => (/^-0(\.0*)?$/.test(text) ? text.slice(1) : text);

/** How far one press of an arrow key moves a length: half a millimetre, or 1/32 in. */
export const stepOf = (unit: Unit): number => (unit === 'mm' ? 0.5 : MM_PER_INCH / 32);
