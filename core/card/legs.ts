import { radians } from '../measure/angle';
import type { Unit } from '../measure/length';
import { parseLength } from '../measure/length';
import type { Path } from '../measure/path';
import { area } from '../measure/path';
import type { Problem, Result } from '../measure/result';
import { failure } from '../measure/result';
import { line, reversed } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { along, distance, length, sub } from '../measure/vector';

/** One leg of a walk round the outline: so long, then turned by so much. Positive turns to the left. */
export type Leg = { lengthMm: number; turnDeg: number };

/**
 * Reads "120 @ 90, then 45 @ 60": legs separated by commas, semicolons, new lines or "then"; after the @ the turn to
 * the left at the end of the leg, in degrees (a minus turns right, no @ means square).
 *
 * Problems: `leg-unreadable` and `leg-zero` with the number of the leg (from 1), `no-legs`.
 */
export function parseLegs(text: string, unit: Unit): Result<{ legs: Leg[] }> {
  const pieces = text
    .split(/;|\n|\bthen\b|,(?!\d)/i)
    .map((piece) => piece.trim())
    .filter((piece) => piece !== '');
  if (pieces.length === 0) return failure({ code: 'no-legs' });
  const legs: Leg[] = [];
  const problems: Problem[] = [];
  pieces.forEach((piece, i) => {
    const [left = '', right, ...more] = piece.split('@');
    const found = parseLength(left, unit);
    const turn = right === undefined ? 90 : Number(right.replace(/°|deg/i, '').replace(',', '.').trim());
    if (!found.ok || !Number.isFinite(turn) || more.length > 0 || right?.trim() === '') {
      problems.push({ code: 'leg-unreadable', numbers: { leg: i + 1 } });
    } else if (!(found.mm > 0)) {
      problems.push({ code: 'leg-zero', numbers: { leg: i + 1 } });
    } else {
      legs.push({ lengthMm: found.mm, turnDeg: turn });
    }
  });
  return problems.length > 0 ? failure(...problems) : { ok: true, legs };
}

/** The corners of a walk from `start`, first leg to the right, and by how much the last leg misses the start. */
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
 * A closed outline from legs, counter-clockwise. A walk that misses its start is closed as asked: `spread` shares the
 * error over all corners in proportion to the way gone (the compass rule of surveying), `leave` keeps every leg as it
 * was typed and adds one more side back to the start. Errors below 0.001 mm are taken as none.
 *
 * Problems: `too-few-corners`.
 */
export function outlineFromLegs(legs: readonly Leg[], closing: Closing): Result<{ path: Path; closingMm: number }> {
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
 * A closed outline through points in order, turned counter-clockwise if they ran the other way (the first point stays
 * first). A last point on the first, and points on top of each other, are taken once.
 *
 * Problems: `too-few-corners` (numbers: corners).
 */
export function outlineFromPoints(points: readonly Vec[]): Result<{ path: Path }> {
  const kept = points.filter((p, i) => i === 0 || distance(p, points[i - 1]!) > 1e-9);
  if (kept.length > 1 && distance(kept[0]!, kept[kept.length - 1]!) <= 1e-3) kept.pop();
  if (kept.length < 3) return failure({ code: 'too-few-corners', numbers: { corners: kept.length } });
  const path = kept.map((p, i) => line(p, kept[(i + 1) % kept.length]!));
  if (area(path) >= 0) return { ok: true, path };
  return { ok: true, path: path.map(reversed).reverse() };
}

/** What parts the two figures of a row, surest first. */
const BETWEEN = [/\t/, /;/, /,\s+/, /,/, /\s+/];

/**
 * Reads a table of x, y pasted from a spreadsheet: two lengths a line, parted by a tab, a semicolon, a comma or spaces.
 * A heading line without figures is passed over.
 *
 * Problems: `row-unreadable` with the number of the line (from 1), `no-rows`.
 */
export function parsePoints(text: string, unit: Unit): Result<{ points: Vec[] }> {
  const points: Vec[] = [];
  const problems: Problem[] = [];
  text.split(/\r?\n/).forEach((row, i) => {
    if (row.trim() === '') return;
    const read = BETWEEN.map((between) =>
      row
        .trim()
        .split(between)
        .map((cell) => parseLength(cell, unit)),
    );
    const pair = read.find((cells) => cells.length === 2 && cells.every((cell) => cell.ok));
    const [x, y] = pair ?? [];
    if (x?.ok && y?.ok) points.push([x.mm, y.mm]);
    else if (i > 0 || /\d/.test(row)) problems.push({ code: 'row-unreadable', numbers: { row: i + 1 } });
  });
  if (problems.length > 0) return failure(...problems);
  return points.length === 0 ? failure({ code: 'no-rows' }) : { ok: true, points };
}
