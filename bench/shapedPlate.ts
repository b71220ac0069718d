import { emptyPattern } from '#core/card/emptyPattern';
import { countingIds } from '#core/card/kinds';
import { patternParts } from '#core/card/outline';
import type { Bead, PatternDoc } from '#core/card/pattern';
import type { Segment } from '#core/measure/segment';
import type { Vec } from '#core/measure/vector';

/** A plate of twelve sides, six of them bowed and flanged, with beads across it and two folds. */
export function shapedPlate(beads: number): PatternDoc {
  const corners = Array.from({ length: 12 }, (_, i): Vec => {
    const a = (2 * Math.PI * i) / 12;
    return [600 * Math.cos(a), 400 * Math.sin(a)];
  });
  const path = corners.map((a, i): Segment => ({
    a,
    b: corners[(i + 1) % 12]!,
    bulge: i % 2 === 0 ? 0.12 : 0,
  }));
  const parts = patternParts(path, countingIds());
  const place = (i: number, share: number) => ({ side: parts.sides[i]!.id, share });
  return {
    ...emptyPattern(),
    ...parts,
    edges: parts.edges.map((edge, i) =>
      i % 2 === 0
        ? {
            ...edge,
            flange: {
              card: 'fold',
              widthMm: 18,
              endWidthMm: i % 4 === 0 ? 25 : null,
              turnDeg: 90,
              toward: 'face',
              radiusMm: null,
              how: 'tipped',
              landMm: 15,
            },
          }
        : edge,
    ),
    folds: [3, 9].map((i) => ({
      id: `f${i}`,
      path: { kind: 'between', from: place(i, 0.5), to: place((i + 4) % 12, 0.5) },
      angleDeg: 90,
      toward: 'face',
      radiusMm: null,
      convention: 'outside-sharp',
    })),
    beads: Array.from({ length: beads }, (_, i): Bead => ({
      id: `b${i}`,
      path: {
        kind: 'between',
        from: [-420, -180 + 36 * i],
        to: [420, -180 + 36 * i],
        bulge: i % 3 === 0 ? 0.05 : 0,
      },
      section: { kind: 'arc', widthMm: 12, heightMm: 3 },
      toward: 'face',
      drawsIn: null,
      acrossRadiusMm: null,
      acrossOn: null,
      atFolds: i % 2 === 0 ? 'stopped' : 'packed',
      meets: null,
    })),
  };
}
