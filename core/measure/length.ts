/**
 * What lengths are shown in: millimetres, inches and fractions to a 64th or a 32nd, or decimal
 * inches.
 */
export const LENGTH_UNITS = ['mm', 'in', 'in32', 'inDecimal'] as const;
export type Unit = (typeof LENGTH_UNITS)[number];

/** The part of an inch that fractions go to. */
const partOf = (unit: 'in' | 'in32'): number => (unit === 'in' ? 64 : 32);

export const MM_PER_INCH = 25.4;
export const toInches = (mm: number): number => mm / MM_PER_INCH;
const fromInches = (inches: number): number => inches * MM_PER_INCH;

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

/** The sign that stands before figures below nothing: as wide as a plus, not a dash. */
const MINUS = '\u2212';
const signed = (text: string): string => text.replace('-', MINUS);

/** From this much on, inches, a rounded fraction is another figure where rounding matters. */
const ROUNDED_IN = 0.0005;

const decimalInches = (mm: number, digits: number): string =>
  signed(cleanZero(toInches(mm).toFixed(digits)));

/**
 * A length for showing: `812.5 mm`, `31 15/16 in`, `31.988 in`; `digits` decimals for mm (default
 * 1). Inches are one fraction, to the nearest part the shop goes by; where rounding matters (two
 * decimals of a millimetre or more are asked for) the decimal stands beside it: `1 13/32 (1.408)`.
 */
export function formatLength(mm: number, unit: Unit, digits = 1, withUnit = true): string {
  const body = (): string => {
    switch (unit) {
      case 'mm':
        return signed(cleanZero(mm.toFixed(digits)));
      case 'inDecimal':
        return decimalInches(mm, digits + 2);
      case 'in':
      case 'in32': {
        const fraction = signed(inchFraction(mm, partOf(unit)));
        return digits > 1 && !isFraction(mm, partOf(unit))
          ? `${fraction} (${decimalInches(mm, 3)})`
          : fraction;
      }
    }
  };
  return withUnit ? `${body()} ${unit === 'mm' ? 'mm' : 'in'}` : body();
}

/** Whether a length is a fraction of an inch over `parts`, but for what nobody reads. */
const isFraction = (mm: number, parts: number): boolean =>
  Math.abs(toInches(mm) - Math.round(toInches(mm) * parts) / parts) < ROUNDED_IN;

/**
 * A length as it stands in a field, without its unit, to be read back by `parseLength` as the same
 * length to half of the last figure shown: inches as a fraction to a 64th where they are one, else
 * decimal.
 */
export function formatField(mm: number, unit: Unit, digits = 1): string {
  if (unit === 'in' || unit === 'in32')
    return isFraction(mm, 64) ? signed(inchFraction(mm, 64)) : decimalInches(mm, 3);
  return formatLength(mm, unit, digits, false);
}

/**
 * A length where there is room for few signs (a tag, a tile), without its unit: inches as one
 * fraction.
 */
export const formatBrief = (mm: number, unit: Unit, digits = 1): string =>
  formatLength(mm, unit, unit === 'mm' ? digits : unit === 'inDecimal' ? 0 : 1, false);

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

/**
 * A usual length as it is chosen in a unit, mm: as it is in millimetres; in inches the nearest
 * eighth from half an inch on, the nearest sixteenth from three sixteenths on, else the nearest 32nd.
 */
export function usualLength(mm: number, unit: Unit): number {
  if (unit === 'mm') return mm;
  const inches = toInches(mm);
  const parts = inches >= 0.49 ? 8 : inches >= 0.17 ? 16 : 32;
  return fromInches(Math.max(1, Math.round(inches * parts)) / parts);
}

/** How far one press of an arrow key moves a length: half a millimetre, or 1/32 in. */
export const stepOf = (unit: Unit): number => (unit === 'mm' ? 0.5 : MM_PER_INCH / 32);
