import { beadLine } from '../card/beadPath';
import type { Blank, BlankHole, BlankLine, LineRole } from '../blank/blank';
import { outlinePath } from '../blank/blank';
import { movingWays } from '../card/faces';
import { endsOfFold } from '../card/foldPlace';
import { outlineOf, segmentsOfEdge } from '../card/outline';
import type { PatternDoc } from '../card/pattern';
import type { Path } from '../measure/path';
import { box, simplified } from '../measure/path';
import { outwardAlong, pointAlong, runLength } from '../measure/run';
import type { Segment } from '../measure/segment';
import { line } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { along, distance, mix, sub, unit } from '../measure/vector';

/**
 * A drawing that goes out of the house, sorted by what is done along each line. Millimetres, y up.
 */
export type Layers = {
  cut: Segment[];
  /** Tangents or, on a card, the fold marks. */
  fold: [Vec, Vec][];
  brake: [Vec, Vec][];
  /**
   * Lines to scribe that are neither cut nor folded in the brake: trim lines, steps, hems, what was
   * marked on the card.
   */
  scribe: Segment[];
  holes: BlankHole[];
};

/** The blank as drawn for paper or cutter; `plugs` are further holes (plug welds). */
export function layersOfBlank(blank: Blank, plugs: readonly BlankHole[] = []): Layers {
  const ends = ({ path }: BlankLine): [Vec, Vec] => [path[0]!.a, path[path.length - 1]!.b];
  const straight = (role: LineRole) => blank.lines.filter((l) => l.role === role).map(ends);
  return {
    cut: simplified(outlinePath(blank)),
    fold: straight('tangent'),
    brake: straight('brake'),
    scribe: blank.lines.filter((l) => l.of.kind !== 'fold').flatMap((l) => l.path),
    holes: [...blank.holes, ...plugs],
  };
}

/** The card as it was measured. */
export function layersOfCard(doc: PatternDoc): Layers {
  return {
    cut: simplified(outlineOf(doc).path),
    fold: doc.folds.flatMap((fold): [Vec, Vec][] => {
      const ends = endsOfFold(doc, fold);
      return ends ? [ends] : [];
    }),
    brake: [],
    scribe: [
      ...doc.marks.map(({ from, to }) => line(from, to)),
      ...doc.beads.flatMap((bead) => beadLine(doc, bead)?.run ?? []),
    ],
    holes: doc.holes.map(({ x, y, flare: _flare, ...hole }) => ({ ...hole, centre: [x, y] })),
  };
}

/** What stands on paper beside an edge: its letter on its tag, inside the line that is cut. */
export type EdgeLabel = { kind: 'edge'; at: Vec; text: string };
/**
 * What stands along a fold: number, angle and way at its middle, more where there is room, and its
 * hinge on the side that moves. `way` is the unit vector along it, `across` square to it toward the
 * side that moves.
 */
export type FoldLabel = {
  kind: 'fold';
  at: Vec;
  way: Vec;
  across: Vec;
  lengthMm: number;
  toward: 'face' | 'back';
  text: string;
  more: string;
};
/** Text written upright about a place, with the height of its letters, mm. */
export type NoteLabel = { kind: 'note'; at: Vec; text: string; sizeMm: number };
export type PaperLabel = EdgeLabel | FoldLabel | NoteLabel;

/** How far inside its edge a letter stands, mm: clear of the line that is cut. */
const INSIDE_MM = 6;

/** A run's label: inside the middle of it. Null for a run without length. */
function besideRun(run: readonly Segment[], text: string): EdgeLabel | null {
  const half = runLength(run) / 2;
  const at = half > 0 ? pointAlong(run, half) : null;
  return at && { at: along(at, outwardAlong(run, half), -INSIDE_MM), text, kind: 'edge' };
}

const nothing = () => '';

/**
 * What an edge meets stands farther in than its letter, mm; along an upright edge under it, mm: it
 * is written level. The last is the height of its letters, mm.
 */
const [MEETS_IN_MM, MEETS_UNDER_MM, MEETS_MM] = [13, 6, 2.8];
/** About as wide as a letter is high times this. */
const LETTER_WIDE = 0.55;

/** The letter of an edge, and where there is room what it meets. */
function edgeLabels(run: readonly Segment[], letter: string, meets: string): PaperLabel[] {
  const label = besideRun(run, letter);
  if (!label) return [];
  const half = runLength(run) / 2;
  const middle = pointAlong(run, half);
  const text = `to ${meets}`;
  const hasRoom = meets !== '' && 2 * half > text.length * MEETS_MM * LETTER_WIDE;
  if (!middle || !hasRoom) return [label];
  const out = outwardAlong(run, half);
  const halfWide = (text.length * MEETS_MM * LETTER_WIDE) / 2;
  const at: Vec =
    Math.abs(out[1]) > Math.abs(out[0])
      ? along(middle, out, -MEETS_IN_MM)
      : [label.at[0] - Math.sign(out[0]) * Math.max(0, halfWide - 3), label.at[1] - MEETS_UNDER_MM];
  return [label, { kind: 'note', at, text, sizeMm: MEETS_MM }];
}

function foldLabel(
  i: number,
  [a, b]: readonly [Vec, Vec],
  across: Vec,
  { angleDeg, toward }: { angleDeg: number; toward: 'face' | 'back' },
  more = '',
): FoldLabel[] {
  const lengthMm = distance(a, b);
  if (lengthMm === 0) return [];
  const text = `${i + 1}: ${angleDeg}° ${toward === 'face' ? 'toward you' : 'away'}`;
  return [
    {
      kind: 'fold',
      at: mix(a, b, 0.5),
      way: unit(sub(b, a)),
      across,
      lengthMm,
      toward,
      text,
      more,
    },
  ];
}

/** Height of the letters of a marked line's purpose, mm. */
const NAME_MM = 3;

/** Share of a marked line at which its purpose is written: at the middles lines cross. */
const NAMED_AT = 0.2;

/** What a marked line is for, beside its beginning; a line without a name says nothing. */
function besideMark(run: readonly Segment[], name: string): NoteLabel[] {
  const at = name === '' ? null : pointAlong(run, runLength(run) * NAMED_AT);
  return at ? [{ kind: 'note', at, text: name, sizeMm: NAME_MM }] : [];
}

/**
 * The letters and fold numbers of a blank, so that the table of what to scribe can be followed on
 * paper; `more` says for a fold, by its id, what is told where there is room (from where its brake
 * line is scribed).
 */
export const labelsOfBlank = (
  blank: Blank,
  more: (fold: string) => string,
  meets: (edge: string) => string = nothing,
): PaperLabel[] => [
  ...blank.edges.flatMap((edge) => edgeLabels(edge.cut, edge.letter, meets(edge.id))),
  ...blank.hinges.flatMap((h, i) => foldLabel(i, h.centre, h.across, h, more(h.fold))),
  ...blank.lines.flatMap(({ path, name = '' }) => besideMark(path, name)),
];

/** The same for a card. */
export function labelsOfCard(
  doc: PatternDoc,
  meets: (edge: string) => string = nothing,
): PaperLabel[] {
  const moving = movingWays(doc);
  return [
    ...doc.edges.flatMap((edge) =>
      edgeLabels(segmentsOfEdge(doc, edge), edge.letter, meets(edge.id)),
    ),
    ...doc.marks.flatMap(({ from, to, name }) => besideMark([line(from, to)], name)),
    ...doc.folds.flatMap((fold, i) => {
      const ends = endsOfFold(doc, fold);
      const across = moving[i];
      return ends && across ? foldLabel(i, ends, across, fold) : [];
    }),
  ];
}

export const layersBox = (layers: Layers) => box(layers.cut as Path);
