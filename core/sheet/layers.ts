import type { BlankHole, Development } from '../blank/fold/develop';
import { outlineOf, pointOfPlace } from '../card/outline';
import type { PatternDoc } from '../card/pattern';
import type { Path } from '../measure/path';
import { box, simplified } from '../measure/path';
import type { Segment } from '../measure/segment';
import { offsetRight } from '../measure/segment';
import type { Vec } from '../measure/vector';

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
export function layersOfBlank(development: Development, plugs: readonly BlankHole[] = []): Layers {
  return {
    cut: simplified(development.outline.map((p) => p.segment)),
    fold: development.folds.flatMap((f) => f.tangents),
    brake: development.folds.map((f) => f.brake),
    scribe: development.edges.flatMap((edge) =>
      edge.allowance.lines.flatMap(({ outMm }) => edge.net.map((s) => offsetRight(s, outMm))),
    ),
    holes: [...development.holes, ...plugs],
  };
}

/** The card as it was measured. */
export function layersOfCard(doc: PatternDoc): Layers {
  return {
    cut: simplified(outlineOf(doc).path),
    fold: doc.folds.flatMap((fold): [Vec, Vec][] => {
      const a = pointOfPlace(doc, fold.from);
      const b = pointOfPlace(doc, fold.to);
      return a && b ? [[a, b]] : [];
    }),
    brake: [],
    scribe: [],
    holes: doc.holes.map((h) => ({ id: h.id, centre: [h.x, h.y], diameterMm: h.diameterMm })),
  };
}

export const layersBox = (layers: Layers) => box(layers.cut as Path);
