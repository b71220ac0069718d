import { holeSize } from '../frame/markingWords';
import type { Blank, BlankHole } from '#core/blank/blank';
import { fromDatum } from '#core/blank/datum';
import { MAX_CORNERS, markingOut } from '#core/blank/markingOut';
import { scribeTable } from '#core/blank/scribe';
import type { Shop } from '#core/blank/shopSchema';
import {
  SCRIBE_WORDS,
  beginSaid,
  lineName,
  linesToScribe,
  placeSaid,
  plain,
  scribeSaid,
} from '../frame/markingWords';

/**
 * A table as it goes on paper: what it is for, its columns, its rows. `wide` is the column that
 * takes what room is left.
 */
export type PaperTable = { title: string; head: string[]; rows: string[][]; wide: number };
export type MarkingSheet = { begin: string; tables: PaperTable[]; prove: string };

/**
 * An edge of a blank whose panel is curved two ways: what its length becomes more (+) or less than
 * it is cut.
 */
export type EdgeToWork = { letter: string; changeMm: number; lengthMm: number };
/** An edge that changes by less keeps its length, mm. */
const KEEPS_MM = 0.05;

type Shown = (mm: number, digits?: number) => string;

/**
 * All that is needed to mark a blank out with rule, square, compasses and drill, in working order.
 * Where the outline is a traced curve it is pricked through from the full-size pages, and only what
 * lies inside is told.
 */
export function markingSheet(
  blank: Blank,
  plugs: readonly BlankHole[],
  shop: Shop,
  bare: Shown,
  work: readonly EdgeToWork[] = [],
): MarkingSheet {
  const { datum, corners, arcs, marks, holes, checks } = markingOut(blank, [...plugs]);
  const along = `From ${lineName(datum, 'square')}`;
  const out = `From ${lineName(datum, 'long')}`;
  const traced = corners.length > MAX_CORNERS;
  const two = ({ alongMm, outMm }: { alongMm: number; outMm: number }) => [
    bare(alongMm, 2),
    bare(outMm, 2),
  ];
  const numberOf = (fold: string) => String(blank.hinges.findIndex((h) => h.fold === fold) + 1);
  const byFold = linesToScribe(scribeTable(blank).lines, shop.brakeLine);
  const arcFrom = new Set(arcs.map((arc) => arc.from));
  const tables: PaperTable[] = [
    {
      title: 'Corners',
      head: ['Corner', along, out, 'To the next'],
      rows: corners.map(({ number, at, sideToNextMm }) => [
        String(number),
        ...two(at),
        arcFrom.has(number) ? 'arc' : sideToNextMm === null ? 'relief' : bare(sideToNextMm, 2),
      ]),
      wide: 3,
    },
    {
      title: 'Arcs',
      head: ['From, to', 'Radius', 'Compasses stand, or through'],
      rows: arcs.map(({ from, to, radiusMm, centre, ordinates }) => [
        `${from}, ${to}`,
        bare(radiusMm, 2),
        centre ? two(centre).join(' / ') : ordinates.map((p) => two(p).join(' / ')).join('; '),
      ]),
      wide: 2,
    },
    {
      title: 'Folds: lines to scribe',
      head: ['Fold', 'Line', 'Scribe it'],
      rows: byFold.map((line) => [
        numberOf(line.fold),
        SCRIBE_WORDS[line.line],
        plain(scribeSaid(line, datum, bare)),
      ]),
      wide: 2,
    },
    {
      title: shop.relief === 'round' ? 'Reliefs: drill before sawing in' : 'Reliefs',
      head: ['Fold', shop.relief === 'round' ? 'Drill' : 'Across', 'Centre'],
      rows: blank.reliefs.map((relief) => [
        numberOf(relief.fold),
        bare(relief.acrossMm, 2),
        plain(placeSaid(fromDatum(datum, relief.centre), datum, bare)),
      ]),
      wide: 2,
    },
    {
      title: 'Lines to scribe',
      head: ['No.', 'For', `${along} / out: through`],
      rows: marks.map(({ name, at }, i) => [
        String(i + 1),
        name || 'scribe',
        at.map((p) => two(p).join(' / ')).join('; '),
      ]),
      wide: 2,
    },
    {
      title: 'Holes and plugs',
      head: ['No.', 'Across', along, out],
      rows: holes.map(({ at, ...hole }, i) => [String(i + 1), holeSize(hole, bare), ...two(at)]),
      wide: 3,
    },
    {
      title: 'Edges to gather and stretch',
      head: ['Edge', 'By', 'Over, as cut along the card’s line', ''],
      rows: work.map(({ letter, changeMm, lengthMm }) => [
        letter,
        Math.abs(changeMm) < KEEPS_MM
          ? 'keeps its length'
          : `${changeMm < 0 ? 'gather' : 'stretch'} ${bare(Math.abs(changeMm))}`,
        bare(lengthMm),
        '',
      ]),
      wide: 3,
    },
  ];
  return {
    begin: beginSaid(datum),
    tables: tables.filter(
      ({ title, rows }) =>
        rows.length > 0 && !(traced && (title === 'Corners' || title === 'Arcs')),
    ),
    prove: traced
      ? `The outline has ${corners.length} corners: prick it through from the full-size pages.`
      : checks.length === 0
        ? ''
        : `Prove it across: ${checks.map(({ from, to, lengthMm }) => `${from} to ${to} ${bare(lengthMm, 2)}`).join(', ')}.`,
  };
}
