import type { Unit } from './length';
import { MM_PER_INCH } from './length';
import type { Problem, Result } from './result';
import { failure } from './result';

/**
 * A value while it is being reckoned: `power` 1 is a length in mm, 0 a plain number that becomes a
 * length in the unit in use when the sum it stands in is done.
 */
type Value = {
  of: number;
  power: 0 | 1;
  /**
   * Of a bare fraction, which is of an inch by itself: its plain number, for where it turns out to
   * be a share of something (`300 mm x 1/2`).
   */
  share?: number;
};

/** Thrown inside this file only, and caught in `parseLength`. */
class Unread extends Error {
  constructor(readonly problem: Problem) {
    super(problem.code);
  }
}
const unreadable = (): never => {
  throw new Unread({ code: 'length-unreadable' });
};

/** Divisions of a rule: a fraction over one of these is a fraction of an inch. */
const RULE_PARTS = [2, 4, 8, 16, 32, 64, 128];
/**
 * From this part on nobody divides millimetres by it, and a fraction of two or more over it is
 * asked about.
 */
const FINE_PART = 16;
/**
 * A bare fraction is of an inch below 1 over 2, 4 or 8, and below 2 over finer parts; what is as
 * large or larger is a division (`3/2`, `812/2`), or asked about where the part is fine.
 */
const isInchFraction = (over: number, under: number): boolean =>
  RULE_PARTS.includes(under) && over / under < (under < FINE_PART ? 1 : 2);

const VULGAR: Record<string, string> = {
  '½': '1/2',
  '¼': '1/4',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
  '⅓': '1/3',
  '⅔': '2/3',
};

const UNITS: Record<string, number> = {
  mm: 1,
  cm: 10,
  m: 1000,
  '"': MM_PER_INCH,
  inches: MM_PER_INCH,
  inch: MM_PER_INCH,
  in: MM_PER_INCH,
  thou: MM_PER_INCH / 1000,
};

const FIGURE = String.raw`(?:\d[\d.,]*|[.,]\d+)`;
const MIXED = /^(\d+)(?:\s+|-)(\d+)\s*\/\s*(\d+)(?![\d.,])/;
const FRACTION = /^(\d+)\s*\/\s*(\d+)(?![\d.,])/;
const PLAIN = new RegExp(`^${FIGURE}`);
const UNIT = /^\s*(inches|inch|in\b\.?|mm\b|cm\b|m\b|thou\b|")/;
const FEET = /^\s*(feet|foot|ft\b\.?|')/;

/** The same text with one sign for each thing that is written several ways. */
const normal = (text: string): string =>
  text
    .toLowerCase()
    .replace(
      /[½¼¾⅛⅜⅝⅞⅓⅔]/g,
      (c, at: number, all: string) => (/\d/.test(all[at - 1] ?? '') ? ' ' : '') + VULGAR[c],
    )
    .replace(/[−–—]/g, '-')
    .replace(/⁄/g, '/')
    .replace(/[×·*]/g, '*')
    .replace(/[÷:]/g, '÷')
    .replace(/[″”“]|''|’’|′′/g, '"')
    .replace(/[′’‘]/g, "'")
    .replace(/\u00a0/g, ' ')
    .trim();

/**
 * One written figure. A point is a decimal point; a comma is one too (`1,5`), unless three figures
 * stand behind it after one to three others (`1,234`): that is either, and asked about. Both
 * together say which is which (`1,234.5`, `1.234,5`).
 */
function figure(text: string): number {
  const commas = text.split(',').length - 1;
  const points = text.split('.').length - 1;
  if (commas === 0 && points <= 1) return Number(text);
  const grouped = (mark: string) => new RegExp(`^[1-9]\\d{0,2}(\\${mark}\\d{3})+$`);
  if (commas === 1 && points === 0) {
    const asDecimal = Number(text.replace(',', '.'));
    if (!grouped(',').test(text)) return asDecimal;
    const asThousands = Number(text.replace(',', ''));
    throw new Unread({
      code: 'length-ambiguous',
      numbers: { first: asDecimal, second: asThousands },
    });
  }
  const [mark, point] = text.lastIndexOf(',') > text.lastIndexOf('.') ? ['.', ','] : [',', '.'];
  const [whole = '', decimals, ...more] = text.split(point!);
  if (more.length > 0 && decimals !== undefined) {
    // Several of the one and none of the other: groups of three.
    if (!text.includes(mark!) && grouped(point!).test(text))
      return Number(text.replaceAll(point!, ''));
    return unreadable();
  }
  if (!grouped(mark!).test(whole) || !/^\d*$/.test(decimals ?? '')) return unreadable();
  return Number(`${whole.replaceAll(mark!, '')}.${decimals || '0'}`);
}

/** Reads a sum from left to right; what is left to read is `rest`. */
class Reader {
  rest: string;
  constructor(
    text: string,
    private readonly unit: Unit,
  ) {
    this.rest = text;
  }

  private take(pattern: RegExp): RegExpExecArray | null {
    const found = pattern.exec(this.rest);
    if (found) this.rest = this.rest.slice(found[0].length);
    return found;
  }

  /** A plain number as a length: in the unit in use. */
  length({ of, power }: Value): number {
    return power === 1 ? of : of * (this.unit === 'mm' ? 1 : MM_PER_INCH);
  }

  /** The sum that begins here; a leading sign belongs to its first term. */
  sum(sign = this.take(/^\s*([+-])\s*/)?.[1]): Value {
    let total = this.product();
    if (sign === '-') total = { ...total, of: -total.of };
    for (;;) {
      const joined = this.take(/^\s*([+-])\s*/);
      if (!joined) return total;
      const next = this.product();
      // A plain number beside a length is a length in the unit in use, never inches because its
      // neighbour is.
      const [a, b] =
        total.power === next.power ? [total.of, next.of] : [this.length(total), this.length(next)];
      total = {
        of: joined[1] === '+' ? a + b : a - b,
        power: total.power === next.power ? total.power : 1,
      };
    }
  }

  private product(): Value {
    let value = this.term();
    for (;;) {
      const sign = this.take(/^\s*(\*|\/|÷|x(?=\s*[\d(.]))\s*/);
      // 812/2 mm: the unit is that of the whole.
      if (!sign) return value.power === 0 ? this.withUnit(value) : value;
      const divides = sign[1] === '/' || sign[1] === '÷';
      const by = this.term(divides ? 'divisor' : 'factor');
      if (!divides && (value.share !== undefined || by.share !== undefined)) {
        value = this.shared(value, by);
        continue;
      }
      if (value.power + by.power > 1 || (divides && by.power === 1)) unreadable();
      if (divides && by.of === 0) throw new Unread({ code: 'length-divided-by-zero' });
      value = {
        of: divides ? value.of / by.of : value.of * by.of,
        power: value.power === 1 || by.power === 1 ? 1 : 0,
      };
    }
  }

  /**
   * A product in which a bare fraction stands. Of a length it is a share. Beside a plain number it
   * is of an inch where inches are in use, and asked about where millimetres are: `3 x 1/2` and
   * `1/2 x 3` alike.
   */
  private shared(first: Value, second: Value): Value {
    const plain = (value: Value) => value.share ?? value.of;
    if ([first, second].some(({ power, share }) => power === 1 && share === undefined))
      return { of: plain(first) * plain(second), power: 1 };
    const number = plain(first) * plain(second);
    const inchMm = exact(number * MM_PER_INCH);
    if (this.unit === 'mm')
      throw new Unread({
        code: 'length-fraction-ambiguous',
        numbers: { inchMm, dividedMm: exact(number) },
      });
    return { of: inchMm, power: 1 };
  }

  /** A divisor has no unit of its own, and a fraction behind ÷ is left for the next ÷ to divide. */
  private term(as: 'term' | 'factor' | 'divisor' = 'term'): Value {
    const bracket = this.take(/^\s*\(/);
    if (bracket) {
      const inner = this.sum();
      if (!this.take(/^\s*\)/)) unreadable();
      return inner.power === 1 ? inner : this.withUnit(inner);
    }
    this.take(/^\s+/);
    const mixed = as === 'divisor' ? null : MIXED.exec(this.rest);
    if (mixed && Number(mixed[2]) < Number(mixed[3])) {
      this.take(MIXED);
      return this.ofInch(Number(mixed[1]) + Number(mixed[2]) / Number(mixed[3]), Number(mixed[3]));
    }
    const fraction = as === 'divisor' ? null : FRACTION.exec(this.rest);
    if (fraction) {
      const [over, under] = [Number(fraction[1]), Number(fraction[2])];
      const after = this.rest.slice(fraction[0].length);
      const marked = UNIT.test(after);
      if (under === 0) throw new Unread({ code: 'length-divided-by-zero' });
      if (marked || isInchFraction(over, under)) {
        this.take(FRACTION);
        const read = this.ofInch(over / under, under);
        return marked ? read : { ...read, share: over / under };
      }
      if (as === 'term' && this.unit === 'mm' && RULE_PARTS.includes(under) && under >= FINE_PART)
        throw new Unread({
          code: 'length-fraction-ambiguous',
          numbers: { inchMm: exact((over / under) * MM_PER_INCH), dividedMm: exact(over / under) },
        });
    }
    const plain = this.take(PLAIN) ?? unreadable();
    const read: Value = { of: figure(plain[0]), power: 0 };
    return as === 'divisor' ? read : this.withUnit(read);
  }

  /**
   * A fraction read: with a unit of its own behind it, else inches. Thirds are a fraction only with
   * a unit.
   */
  private ofInch(value: number, part: number): Value {
    if (UNIT.test(this.rest)) return this.withUnit({ of: value, power: 0 });
    if (this.unit === 'mm' && !RULE_PARTS.includes(part)) unreadable();
    return { of: value * MM_PER_INCH, power: 1 };
  }

  private withUnit(value: Value): Value {
    if (this.take(FEET)) {
      const feet = { of: value.of * 12 * MM_PER_INCH, power: 1 as const };
      // 5'-8" and 5' 8: inches follow, without their mark or with it; a dash with room round it
      // takes away.
      const inches =
        /^(?:\s*-(?=\d)|\s*)(?:(\d+)(?:\s+|-)(\d+)\s*\/\s*(\d+)|(\d+)\s*\/\s*(\d+)|(\d[\d.,]*|[.,]\d+))\s*(?:inches|inch|in\b\.?|"|(?![\d'/a-z]))/;
      if (/^\s*-\s/.test(this.rest) || /^\s+-/.test(this.rest)) return feet;
      const found = this.take(inches);
      if (!found) return feet;
      const [, whole, over, under, over2, under2, plain] = found;
      if (Number(under ?? under2 ?? 1) === 0) throw new Unread({ code: 'length-divided-by-zero' });
      const more = plain
        ? figure(plain)
        : over2
          ? Number(over2) / Number(under2)
          : Number(whole) + Number(over) / Number(under);
      return { of: feet.of + more * MM_PER_INCH, power: 1 };
    }
    const unit = this.take(UNIT);
    if (!unit) return value;
    return { of: value.of * UNITS[unit[1]!.replace('.', '')]!, power: 1 };
  }
}

/**
 * Lengths are taken to a millionth of a micron, so that 8.75 in is 222.25 mm and not a hair less.
 */
const exact = (mm: number): number => Math.round(mm * 1e9) / 1e9 + 0;

/** No length on a bench is longer, mm: what is typed by mistake is told before it is drawn. */
const LONGEST_MM = 1e7;

/**
 * Reads a length as people at a bench say and write it, in millimetres.
 *
 * A written length is a sum of terms: `8 1/4 + 1/2`, `1000-890/2`, `(300 + 12) x 2`. × and ÷ bind
 * first. Terms: `812`, `81.2cm`, `32"`, `31 15/16`, `1-5/8`, `1½`, `2' 8`, `5'-8 1/2"`, `36 thou`.
 * Bare numbers are in `unit`. Whatever the unit in use a bare fraction is of an inch below 1 over 2,
 * 4 or 8 and below 2 over 16, 32, 64 or 128 (`1/2`, `15/16`, `17/16`); a larger one over 2, 4 or 8
 * is a division (`3/2`, `812/2`), over finer parts it is asked about. `÷` and `:` always divide. A
 * bare fraction times a length is a share of it; times a plain number it is asked about in
 * millimetres, in either order. A leading + or − changes `current` by what follows; without a `current` it is a sign.
 *
 * Problems: `length-empty`, `length-unreadable`, `length-divided-by-zero`, `length-too-long`;
 * `length-ambiguous` where a comma can be read in two ways (`first` and `second`: the bare
 * figures), `length-fraction-ambiguous` where a fraction may be a division (`inchMm`, `dividedMm`).
 */
export function parseLength(text: string, unit: Unit, current?: number): Result<{ mm: number }> {
  const t = normal(text);
  if (t === '') return failure({ code: 'length-empty' });
  const changes = current !== undefined && /^[+-]/.test(t);
  const reader = new Reader(t, unit);
  try {
    const read = reader.sum();
    if (reader.rest.trim() !== '') unreadable();
    const mm = (changes ? current : 0) + reader.length(read);
    if (!Number.isFinite(mm) || Math.abs(mm) > LONGEST_MM)
      return failure({ code: 'length-too-long' });
    return { ok: true, mm: exact(mm) };
  } catch (error) {
    if (error instanceof Unread) return failure(error.problem);
    throw error;
  }
}
