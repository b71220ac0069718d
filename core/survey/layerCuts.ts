import type { Layer } from './kinds';
import { LAYERS } from './kinds';
import type { LayerCut } from './pieceSurvey';

/**
 * Cuts of two neighbouring layers that run too near each other: a line of weakness. `edge` is where
 * both are measured from.
 */
export type OneLine = { layers: [Layer, Layer]; edge: string; apartMm: number };

/** Layers that are neighbours among those that are cut: one that is not cut does not part them. */
function neighbours(cuts: readonly LayerCut[]): [Layer, Layer][] {
  const cut = LAYERS.filter((layer) => cuts.some((one) => one.layer === layer));
  return cut.slice(1).map((layer, i) => [cut[i]!, layer]);
}

/**
 * Where cuts of neighbouring layers come within `leastMm` of each other along one edge, the nearest
 * of each pair.
 */
export function inOneLine(cuts: readonly LayerCut[], leastMm: number): OneLine[] {
  return neighbours(cuts).flatMap(([a, b]) => {
    let nearest: OneLine | null = null;
    for (const one of cuts.filter(({ layer }) => layer === a))
      for (const other of cuts.filter(({ layer, edge }) => layer === b && edge === one.edge)) {
        const apartMm = Math.abs(one.inMm - other.inMm);
        if (apartMm < (nearest?.apartMm ?? leastMm))
          nearest = { layers: [a, b], edge: one.edge, apartMm };
      }
    return nearest ?? [];
  });
}

/**
 * Neighbouring layers of which nothing is measured from one and the same edge: how far apart they
 * are is not known.
 */
export const notCompared = (cuts: readonly LayerCut[]): [Layer, Layer][] =>
  neighbours(cuts).filter(
    ([a, b]) =>
      !cuts.some(
        (one) => one.layer === a && cuts.some((o) => o.layer === b && o.edge === one.edge),
      ),
  );
