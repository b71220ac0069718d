import type { Blank, BlankHole, BlankLine, LineRole } from '../blank/blank';
import { outlinePath } from '../blank/blank';
import { endsOfFold } from '../card/foldPlace';
import { outlineOf, segmentsOfEdge } from '../card/outline';
import type { PatternDoc } from '../card/pattern';
import type { Path } from '../measure/path';
import { box, simplified } from '../measure/path';
import type { Segment } from '../measure/segment';
import { outwardAlong, pointAlong, runLength } from '../measure/run';
import type { Vec } from '../measure/vector';
import { along, mix } from '../measure/vector';

/** A drawing that goes out of the house, sorted by what is done along each line. Millimetres, y up. */
export type Layers = {
  cut: Segment[];
  /** Tangents or, on a card, the fold marks. */
  fold: [Vec, Vec][];
  brake: [Vec, Vec][];
  /** Lines to scribe that are neither cut nor folded in the brake: trim lines, steps, hems. */
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
    scribe: blank.lines.filter((l) => l.of.kind === 'edge').flatMap((l) => l.path),
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
    scribe: [],
    holes: doc.holes.map((h) => ({ id: h.id, centre: [h.x, h.y], diameterMm: h.diameterMm })),
  };
}

/** What stands beside a line on paper: an edge's letter on its tag, a fold's number, angle and way. */
export type PaperLabel = { at: Vec; text: string; tag: boolean };

/** How far inside its edge a letter stands, mm: clear of the line that is cut. */
const INSIDE_MM = 6;

/** A run's label: inside the middle of it. Null for a run without length. */
function besideRun(run: readonly Segment[], text: string): PaperLabel | null {
  const half = runLength(run) / 2;
  const at = half > 0 ? pointAlong(run, half) : null;
  return at && { at: along(at, outwardAlong(run, half), -INSIDE_MM), text, tag: true };
}
const foldLabel = (i: number, angleDeg: number, toward: 'face' | 'back', at: Vec): PaperLabel => ({
  at,
  text: `${i + 1}: ${angleDeg}° ${toward === 'face' ? 'toward you' : 'away'}`,
  tag: false,
});

/** The letters and fold numbers of a blank, so that the table of what to scribe can be followed on paper. */
export const labelsOfBlank = (blank: Blank): PaperLabel[] => [
  ...blank.edges.flatMap((edge) => besideRun(edge.cut, edge.letter) ?? []),
  ...blank.hinges.map((h, i) => foldLabel(i, h.angleDeg, h.toward, mix(h.centre[0], h.centre[1], 0.5))),
];

/** The same for a card. */
export const labelsOfCard = (doc: PatternDoc): PaperLabel[] => [
  ...doc.edges.flatMap((edge) => besideRun(segmentsOfEdge(doc, edge), edge.letter) ?? []),
  ...doc.folds.flatMap((fold, i) => {
    const ends = endsOfFold(doc, fold);
    return ends ? [foldLabel(i, fold.angleDeg, fold.toward, mix(...ends, 0.5))] : [];
  }),
];

export const layersBox = (layers: Layers) => box(layers.cut as Path);
