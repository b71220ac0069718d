import type { CardRule, PatternDoc } from '#core/card/pattern';
import { segmentOfSide } from '#core/card/outline';
import type { AsMeasured } from '#core/card/rule/asMeasured';
import { endsOfFold } from '#core/card/foldPlace';
import type { Segment } from '#core/measure/segment';
import { isStraight } from '#core/measure/segment';

/**
 * What a side is called: its edge's letter, with a number where the edge has several; a fold by its
 * number.
 */
export function sideName(doc: PatternDoc, id: string): string {
  const fold = doc.folds.findIndex((f) => f.id === id);
  if (fold >= 0) return `fold ${fold + 1}`;
  const edge = doc.edges.find((e) => e.sides.includes(id));
  if (!edge) return '?';
  return edge.sides.length > 1 ? `${edge.letter}${edge.sides.indexOf(id) + 1}` : edge.letter;
}

/** What a part of a card is called where it is gathered: side A, corner 2, hole 1, fold 3. */
export function partName(doc: PatternDoc, id: string): string {
  const corner = doc.corners.findIndex((c) => c.id === id);
  if (corner >= 0) return `corner ${corner + 1}`;
  const hole = doc.holes.findIndex((h) => h.id === id);
  if (hole >= 0) return `hole ${hole + 1}`;
  return doc.folds.some((f) => f.id === id) ? sideName(doc, id) : `side ${sideName(doc, id)}`;
}

const listed = (names: readonly string[]): string =>
  names.length < 2
    ? (names[0] ?? '')
    : `${names.slice(0, -1).join(', ')} and ${names[names.length - 1]}`;

const byName = (a: string, b: string) => a.localeCompare(b, 'en', { numeric: true });

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
const holesSaid = (doc: PatternDoc, ids: readonly string[]) =>
  listed(ids.map((id) => String(doc.holes.findIndex((hole) => hole.id === id) + 1)));
const placesSaid = (doc: PatternDoc, ids: readonly string[]) =>
  listed(ids.map((id) => partName(doc, id)));
const pairsSaid = (doc: PatternDoc, ids: readonly string[]) =>
  listed(
    ids.flatMap((id, i) =>
      i % 2 === 0 ? [`${partName(doc, id)} – ${partName(doc, ids[i + 1] ?? id)}`] : [],
    ),
  );

/** What parts are meant to be, as one says it. */
export function ruleSaid(doc: PatternDoc, rule: CardRule, show: (mm: number) => string): string {
  const sides = 'sides' in rule ? rule.sides.map((id) => sideName(doc, id)).sort(byName) : [];
  switch (rule.kind) {
    case 'parallel':
      return `${capital(listed(sides))} parallel`;
    case 'square':
      return `${capital(sides[0]!)} square to ${sides[1]}`;
    case 'straight':
      return `${capital(listed(sides))} one straight line`;
    case 'equal-length':
      return `${capital(listed(sides))} of one length`;
    case 'length':
      return `${capital(sides[0]!)} ${show(rule.mm)} long`;
    case 'width':
      return `${capital(listed(sides))} ${show(rule.mm)} apart all along`;
    case 'arc':
      return `Corners ${listed(rule.corners.map((id) => String(doc.corners.findIndex((c) => c.id === id) + 1)))} on one arc`;
    case 'in-line':
      return `${capital(placesSaid(doc, rule.places))} in line`;
    case 'level':
      return `${capital(placesSaid(doc, rule.places))} level`;
    case 'symmetric':
      return `${capital(pairsSaid(doc, rule.places))} alike on both sides of one line`;
    case 'circle':
      return `Holes ${holesSaid(doc, rule.holes)} on one circle, evenly`;
    case 'rectangle':
      return `Holes ${holesSaid(doc, rule.holes)} at the corners of a rectangle`;
    case 'same-size':
      return `Holes ${holesSaid(doc, rule.holes)} of one size`;
    case 'pitch':
      return `Holes ${listed(rule.holes.map((id) => String(doc.holes.findIndex((h) => h.id === id) + 1)))} in line, evenly`;
  }
}

/** The same in the word or two that one pencils beside it. */
export function rulePencilled(rule: CardRule, bare: (mm: number) => string): string {
  switch (rule.kind) {
    case 'parallel':
      return 'parallel';
    case 'square':
      return 'square';
    case 'straight':
      return 'one line';
    case 'equal-length':
      return 'same length';
    case 'length':
      return `${bare(rule.mm)} long`;
    case 'width':
      return `${bare(rule.mm)} apart`;
    case 'arc':
      return 'one arc';
    case 'in-line':
      return 'in line';
    case 'level':
      return 'level';
    case 'symmetric':
      return 'alike';
    case 'circle':
      return 'one circle';
    case 'rectangle':
      return 'rectangle';
    case 'same-size':
      return 'same size';
    case 'pitch':
      return 'evenly';
  }
}

/** How far what was measured is from that. */
export function offSaid(rule: CardRule, off: AsMeasured, show: (mm: number) => string): string {
  switch (rule.kind) {
    case 'parallel':
      return `out of parallel by ${show(off.offMm!)} over ${show(off.overMm!)}`;
    case 'square':
      return `${off.offDeg!.toFixed(1)}° off square: ${show(off.offMm!)} over ${show(off.overMm!)}`;
    case 'straight':
      return `out of line by ${show(off.offMm!)}`;
    case 'equal-length':
      return `lengths differ by ${show(off.offMm!)}`;
    case 'length':
      return `out by ${show(off.offMm!)}`;
    case 'width':
      return `${show(off.offMm!)} off that in the middle, out of parallel by ${off.offDeg!.toFixed(2)}°`;
    case 'arc':
      return `off one arc by ${show(off.offMm!)}`;
    case 'in-line':
      return `out of line by ${show(off.offMm!)}`;
    case 'level':
      return `out of level by ${show(off.offMm!)}`;
    case 'symmetric':
      return `unlike by ${show(off.offMm!)}`;
    case 'rectangle':
      return `off a rectangle by ${show(off.offMm!)}`;
    case 'same-size':
      return `${show(off.leastMm!)} to ${show(off.mostMm!)} across`;
    case 'circle':
    case 'pitch':
      return `pitch ${show(off.leastMm!)} to ${show(off.mostMm!)}`;
  }
}

/**
 * The straight line of a side or of a fold: only those can be ruled parallel, square or on one
 * line. Null for an arc.
 */
export function straightOf(doc: PatternDoc, id: string): Segment | null {
  const segment = segmentOfSide(doc, id);
  if (segment) return isStraight(segment) ? segment : null;
  const fold = doc.folds.find((f) => f.id === id);
  const [a, b] = (fold && endsOfFold(doc, fold)) ?? [null, null];
  return a && b && { a, b, bulge: 0 };
}
