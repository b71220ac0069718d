import { edgeLength } from '../card/outline';
import { biteLearnt, bitesOver } from './biteStrips';
import { bitesProven } from './proven';
import type { ShapeStep } from './shapeStep';
import type { ShapeGiven } from './stepMaking';
import { STRIP, step } from './stepMaking';

/**
 * Edges of a panel curved two ways that change by less than this keep their length, mm: a file
 * stroke.
 */
const EDGE_KEEPS_MM = 0.3;

/**
 * A panel curved two ways: its middle raised and smoothed, its edges gathered or stretched to the
 * length they have on it.
 */
export function crownSteps({ pattern, metal, thicknessMm, shop }: ShapeGiven): ShapeStep[] {
  const { crown } = pattern;
  if (!crown) return [];
  const found: ShapeStep[] = [];
  if (crown.raise) {
    const { areaMm2, most } = crown.raise;
    found.push(
      step('raise', [], 'middle-short', { areaMm2, most }, { of: 'passes', wanted: null }),
    );
    found.push(step('smooth', [], 'raised', {}));
  }
  const tested = new Set<string>();
  for (const { edge: id, changeMm } of crown.edges) {
    const edge = pattern.edges.find((one) => one.id === id);
    if (!edge || Math.abs(changeMm) < EDGE_KEEPS_MM) continue;
    const freeMm = edgeLength(pattern, edge);
    const way = changeMm > 0 ? 'stretch' : 'shrink';
    const learnt = biteLearnt(shop, metal, thicknessMm, way);
    if (!bitesProven(learnt) && !tested.has(way)) {
      tested.add(way);
      const { longMm, wideMm, bites } = STRIP;
      found.push(
        step(
          'test-strip',
          [id],
          `${way}-not-proven`,
          { lengthMm: longMm, widthMm: wideMm, bites },
          null,
          way,
        ),
      );
    }
    const bites = learnt && bitesOver(changeMm / freeMm, freeMm, learnt).bites;
    const figures = {
      fromMm: 0,
      toMm: freeMm,
      strain: changeMm / freeMm,
      changeMm,
      freeMm,
      ...(bites && { apartMm: freeMm / bites }),
    };
    found.push(
      step(
        'strain',
        [id],
        `crown-${way}`,
        figures,
        { of: 'bites', wanted: bites ?? null },
        'crown',
      ),
    );
  }
  return found;
}
