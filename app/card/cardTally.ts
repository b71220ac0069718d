import type { Development } from '#core/blank/fold/developed';
import { holeArea } from '#core/card/holeForm';
import { outlineOf } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import { area, box, perimeter } from '#core/measure/path';
import type { Result } from '#core/measure/result';
import type { TallyFigure } from '../frame/Tally';

/**
 * What one would chalk beside a card: its size, its outline, its folds, and what forgetting the
 * thickness would cost.
 */
export function cardTally(
  pattern: PatternDoc,
  development: Result<{ development: Development }>,
  show: (mm: number, digits?: number) => string,
  showArea: (mm2: number) => string,
): TallyFigure[] {
  const { path } = outlineOf(pattern);
  const bounds = box(path);
  const difference = development.ok ? development.development.size.differenceMm : null;
  return [
    {
      label: 'Card',
      value: `${show(bounds.maxX - bounds.minX)} × ${show(bounds.maxY - bounds.minY)}`,
      working: {
        title: 'Size of the card',
        lines: [
          'The smallest upright rectangle round the outline as measured.',
          ...(pattern.measured
            ? [
                `Measured on a ${pattern.measured.by}: a place on the outline as it was found, where its edge was seen, is sure to ± ${show(pattern.measured.uMm, 2)}.`,
              ]
            : []),
        ],
        source: pattern.measured
          ? 'Least squares on the marks’ edges and the card’s own'
          : 'Exact geometry',
      },
    },
    {
      label: 'Round the outline',
      value: show(perimeter(path)),
      working: {
        title: 'Length round the outline',
        lines: ['Sum of all sides, arcs along the curve.'],
        source: 'Exact geometry',
      },
    },
    {
      label: 'Area of the card',
      value: showArea(area(path) - pattern.holes.reduce((sum, hole) => sum + holeArea(hole), 0)),
      working: {
        title: 'Area of the card',
        lines: ['Shoelace sum of the corners, plus the segment of each arc, less the holes.'],
        source: 'Exact geometry',
      },
    },
    { label: 'Folds', value: String(pattern.folds.length) },
    {
      label: 'Card as blank would be out by',
      value: difference === null ? 'no blank yet' : show(difference, 2),
      working:
        difference === null
          ? undefined
          : {
              title: 'What cutting the card as it is would cost',
              lines: [
                'Each fold moves what is beyond it by allowance − 2 × setback;',
                'joints, flanges and beads add metal.',
                'This is the most that a face moves or an edge gains.',
              ],
              source: 'Exact geometry: paper has no thickness, steel has',
            },
    },
  ];
}
