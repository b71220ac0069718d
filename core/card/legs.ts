import { radians } from '../measure/angle';
import type { Unit } from '../measure/length';
import { formatField } from '../measure/length';
import type { Path } from '../measure/path';
import { area } from '../measure/path';
import type { Problem, Result } from '../measure/result';
import { failure } from '../measure/result';
import { line, reversed } from '../measure/segment';
import { ROUNDING_MM } from '../measure/tolerance';
import type { Vec } from '../measure/vector';
import { along, distance, length, sub } from '../measure/vector';
import { parseLength } from '../measure/writtenLength';

/**
 * One leg of a walk round the outline: `lengthMm` long, then a turn of `turnDeg`. Positive turns to
 * the left.
 */
export type Leg = { lengthMm: number; turnDeg: number };

/**
 * What parts one leg from the next for certain. A comma with a figure on either side may be a
 * decimal comma.
 */
const BETWEEN_LEGS = /;|\r?\n|\bthen\b|,(?!\d)|(?<!\d),/i;

/**
 * A turn as one says it at a bench: `left 90`, `right 30`, `left` (square), `straight on`; `@ 90`
 * as it was once written.
 */
const TURN =
  /(?:\b(left|right|l|r)\b\s*(\d+(?:[.,]\d+)?|[.,]\d+)?\s*(?:°|deg(?:rees)?\b)?|\b(straight(?:\s+on)?|square)\b|@\s*([+\-−]?\s*(?:\d+(?:[.,]\d*)?|[.,]\d+))\s*(?:°|deg\b)?)\s*$/i;

/**
 * The turn at the end of a piece of text, degrees to the left, and what stands before it; null
 * where there is none.
 */
function turnAtEnd(piece: string): { before: string; turnDeg: number } | null {
  const found = TURN.exec(piece);
  if (!found) return null;
  const [, way, angle, plain, at] = found;
  const before = piece.slice(0, found.index).trim();
  const figure = (text: string) =>
    Number(text.replace('−', '-').replace(',', '.').replace(/\s/g, ''));
  if (plain) return { before, turnDeg: plain.toLowerCase() === 'square' ? 90 : 0 };
  if (at !== undefined) return { before, turnDeg: figure(at) };
  const turn = angle === undefined ? 90 : figure(angle);
  return { before, turnDeg: way!.toLowerCase().startsWith('l') ? turn : -turn };
}

/**
 * Whether a text of figures and commas can be read as several lengths as well as with decimal
 * commas.
 */
const severalByComma = (text: string, unit: Unit): boolean =>
  /\d,\d/.test(text) &&
  !parsesWithPoint(text) &&
  text.split(',').every((cell) => parseLength(cell, unit).ok);
/** `1,234.5`: the point says what the comma is. */
const parsesWithPoint = (text: string): boolean => /\d,\d{3}\.\d|\d\.\d{3},\d/.test(text);

/**
 * Reads "120 left 90, then 45 left 60": legs parted by new lines, semicolons, "then", or commas;
 * behind a length the turn at its end. A length alone means square to the left; `120 @ 60` is still
 * read. A comma between two figures may be a decimal comma and is asked about.
 *
 * Problems: `leg-unreadable`, `leg-zero`, `leg-ambiguous` with the number of the leg (from 1),
 * `no-legs`.
 */
export function parseLegs(text: string, unit: Unit): Result<{ legs: Leg[] }> {
  const pieces = text
    .split(BETWEEN_LEGS)
    .map((piece) => piece.trim())
    .filter((piece) => piece !== '');
  if (pieces.length === 0) return failure({ code: 'no-legs' });
  const legs: Leg[] = [];
  const problems: Problem[] = [];
  let turned = true;
  for (const piece of pieces) {
    const turn = turnAtEnd(piece);
    if (turn?.before === '' && !turned) {
      // "300, left 60": the turn belongs to the leg before it.
      legs[legs.length - 1]!.turnDeg = turn.turnDeg;
      turned = true;
      continue;
    }
    const leg = legs.length + problems.length + 1;
    const lengthText = turn?.before ?? piece;
    const found = parseLength(lengthText, unit);
    if (
      severalByComma(lengthText, unit) ||
      (!found.ok && /ambiguous$/.test(found.problems[0]!.code))
    ) {
      problems.push({ code: 'leg-ambiguous', numbers: { leg } });
    } else if (!found.ok || (turn && !Number.isFinite(turn.turnDeg))) {
      problems.push({ code: 'leg-unreadable', numbers: { leg } });
    } else if (!(found.mm > 0)) {
      problems.push({ code: 'leg-zero', numbers: { leg } });
    } else {
      legs.push({ lengthMm: found.mm, turnDeg: turn?.turnDeg ?? 90 });
      turned = turn !== null;
      continue;
    }
    turned = true;
  }
  return problems.length > 0 ? failure(...problems) : { ok: true, legs };
}

/** A leg as one writes it, in the unit in use: `300 left 60`, `11 13/16`. */
export function writtenLeg({ lengthMm, turnDeg }: Leg, unit: Unit): string {
  const turn = Math.round(turnDeg * 100) / 100;
  const way =
    turn === 90 ? '' : turn === 0 ? ' straight on' : turn > 0 ? ` left ${turn}` : ` right ${-turn}`;
  return `${formatField(lengthMm, unit, 2)}${way}`;
}

/**
 * The corners of a walk from `start`, first leg to the right, and by how much the last leg misses
 * the start.
 */
export function walk(
  legs: readonly Leg[],
  start: Vec = [0, 0],
): { corners: Vec[]; end: Vec; closing: Vec; closingMm: number } {
  const corners: Vec[] = [];
  let at = start;
  let heading = 0;
  for (const leg of legs) {
    corners.push(at);
    at = along(at, [Math.cos(radians(heading)), Math.sin(radians(heading))], leg.lengthMm);
    heading += leg.turnDeg;
  }
  const closing = sub(start, at);
  return { corners, end: at, closing, closingMm: length(closing) };
}

export type Closing = 'spread' | 'leave';

/**
 * A closed outline from legs, counter-clockwise. A walk that misses its start is closed as asked:
 * `spread` shares the error over all corners in proportion to the way gone (the compass rule of
 * surveying), `leave` keeps every leg as it was typed and adds one more side back to the start.
 * Errors below 0.001 mm are taken as none.
 *
 * Problems: `too-few-corners`.
 */
export function outlineFromLegs(
  legs: readonly Leg[],
  closing: Closing,
): Result<{ path: Path; closingMm: number }> {
  const { corners, end, closing: error, closingMm } = walk(legs);
  const points = [...corners];
  if (closing === 'spread') {
    const total = legs.reduce((sum, leg) => sum + leg.lengthMm, 0);
    let gone = 0;
    legs.forEach((leg, i) => {
      points[i] = along(points[i]!, error, gone / total);
      gone += leg.lengthMm;
    });
  } else if (closingMm > 1e-3) {
    points.push(end);
  }
  const built = outlineFromPoints(points);
  return built.ok ? { ...built, closingMm } : built;
}

/**
 * A closed outline through points in order, turned counter-clockwise if they ran the other way (the
 * first point stays first). A last point on the first, and points on top of each other, are taken
 * once.
 *
 * Problems: `too-few-corners` (numbers: corners).
 */
export function outlineFromPoints(points: readonly Vec[]): Result<{ path: Path }> {
  const kept = points.filter((p, i) => i === 0 || distance(p, points[i - 1]!) > ROUNDING_MM);
  if (kept.length > 1 && distance(kept[0]!, kept[kept.length - 1]!) <= 1e-3) kept.pop();
  if (kept.length < 3)
    return failure({ code: 'too-few-corners', numbers: { corners: kept.length } });
  const path = kept.map((p, i) => line(p, kept[(i + 1) % kept.length]!));
  if (area(path) >= 0) return { ok: true, path };
  return { ok: true, path: path.map(reversed).reverse() };
}

/**
 * Reads a table of two lengths a line, pasted from a spreadsheet: parted by a tab, a semicolon, a
 * comma or spaces. A row that can be parted in two ways (`300,200,5`) is asked about. A heading
 * line without figures is passed over.
 *
 * Problems: `row-unreadable`, `row-ambiguous` with the number of the line (from 1), `no-rows`.
 */
export function parsePoints(text: string, unit: Unit): Result<{ points: Vec[] }> {
  const read = rowsOf(text, unit, 2);
  return read.ok ? { ok: true, points: read.rows.map(([x, y]): Vec => [x!, y!]) } : read;
}

/** The same with three lengths a row: places in space. */
export function parsePlaces(
  text: string,
  unit: Unit,
): Result<{ places: [number, number, number][] }> {
  const read = rowsOf(text, unit, 3);
  return read.ok ? { ok: true, places: read.rows.map(([x, y, z]) => [x!, y!, z!]) } : read;
}

function rowsOf(text: string, unit: Unit, cells: number): Result<{ rows: number[][] }> {
  const rows: number[][] = [];
  const problems: Problem[] = [];
  text.split(/\r?\n/).forEach((row, i) => {
    if (row.trim() === '') return;
    const read = waysOf(row.trim(), unit, cells);
    if (read.length === 1) rows.push(read[0]!);
    else if (read.length > 1) problems.push({ code: 'row-ambiguous', numbers: { row: i + 1 } });
    else if (i > 0 || /\d/.test(row))
      problems.push({
        code: 'row-unreadable',
        numbers: { row: i + 1, ...(cells === 3 && { cells }) },
      });
  });
  if (problems.length > 0) return failure(...problems);
  return rows.length === 0 ? failure({ code: 'no-rows' }) : { ok: true, rows };
}

/**
 * What a cell can be read as: one length, two where it is in doubt, none. Only how many there are
 * matters of the two.
 */
function readings(cell: string, unit: Unit): number[] {
  const read = parseLength(cell, unit);
  if (read.ok) return [read.mm];
  const problem = read.problems[0]!;
  return /ambiguous$/.test(problem.code) ? Object.values<number>(problem.numbers ?? {}) : [];
}

/**
 * Every way to read a row as `cells` lengths: at tabs or semicolons where there are any, else at
 * commas, else at spaces.
 */
function waysOf(row: string, unit: Unit, cells: number): number[][] {
  for (const between of [/\t/g, /;/g, /,(?=\s)/g, /,/g, /\s+/g]) {
    const found = partedAt(row, 0, [...row.matchAll(between)], cells, unit);
    if (found.length > 0) return found;
  }
  return [];
}

function partedAt(
  row: string,
  from: number,
  marks: readonly RegExpExecArray[],
  cells: number,
  unit: Unit,
): number[][] {
  if (cells === 1) return readings(row.slice(from), unit).map((x) => [x]);
  return marks.flatMap((mark, i) =>
    readings(row.slice(from, mark.index), unit).flatMap((x) =>
      partedAt(row, mark.index + mark[0].length, marks.slice(i + 1), cells - 1, unit).map(
        (rest) => [x, ...rest],
      ),
    ),
  );
}
