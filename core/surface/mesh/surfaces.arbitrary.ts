import fc from 'fast-check';
import { spread } from '../../measure/spread.arbitrary';
import { figureMesh } from './figures';
import type { Figure } from './figures';
import type { Mesh } from './mesh';

/** The mesh of figures that make one. */
export function meshOf(figure: Figure, triangles: number): Mesh {
  const made = figureMesh(figure, triangles);
  if (!made.ok) throw new Error('these figures make no surface');
  return made.mesh;
}

const mm = spread(80, 500);

/** Panels as benches meet them: crowned, hollow, round a ring. */
export const panels: fc.Arbitrary<Figure> = fc.oneof(
  fc.record({ kind: fc.constant('cap' as const), widthMm: mm, heightMm: spread(5, 39) }),
  fc.record({
    kind: fc.constantFrom('barrel' as const, 'saddle' as const),
    alongMm: spread(300, 900),
    acrossMm: spread(160, 600),
    lengthMm: mm,
    widthMm: spread(60, 200),
  }),
  fc.record({
    kind: fc.constant('ring' as const),
    tubeMm: spread(20, 90),
    ringMm: spread(150, 500),
    arcDeg: spread(20, 120),
    fromDeg: spread(-40, 20),
    toDeg: spread(50, 110),
  }),
  fc.record({
    kind: fc.constant('blend' as const),
    lengthMm: mm,
    widthMm: spread(60, 200),
    from: fc.record({
      alongMm: fc.constantFrom(300, null, -800),
      acrossMm: fc.constantFrom(200, 900),
    }),
    to: fc.record({
      alongMm: fc.constantFrom(500, null),
      acrossMm: fc.constantFrom(-300, null, 250),
    }),
  }),
);

/**
 * A strip bent along rulings only: any chain of turns, carried straight or towards a point, its
 * edges on the rulings.
 */
export const developables: fc.Arbitrary<Mesh> = fc
  .record({
    turns: fc.array(spread(-0.4, 0.4), { minLength: 3, maxLength: 20 }),
    stepMm: spread(5, 40),
    taper: spread(0, 0.6),
    rows: fc.integer({ min: 1, max: 5 }),
    slant: spread(-0.5, 0.5),
  })
  .map(({ turns, stepMm, taper, rows, slant }) => {
    const line: [number, number][] = [[0, 0]];
    let way = 0;
    for (const turn of turns) {
      way += turn;
      const [x, z] = line[line.length - 1]!;
      line.push([x + stepMm * Math.cos(way), z + stepMm * Math.sin(way)]);
    }
    const vertices: number[] = [];
    for (let row = 0; row <= rows; row++)
      for (const [x, z] of line) {
        // Every ruling goes towards one point (or nowhere near, straight across): a cone, or a
        // cylinder.
        const by = 1 - (taper * row) / rows;
        vertices.push(x * by + slant * 100 * (row / rows), 120 * (row / rows), z * by);
      }
    const n = line.length;
    const triangles: number[] = [];
    for (let row = 0; row < rows; row++)
      for (let i = 0; i + 1 < n; i++) {
        const a = row * n + i;
        triangles.push(a, a + 1, a + n + 1, a, a + n + 1, a + n);
      }
    return { vertices: Float64Array.from(vertices), triangles: Uint32Array.from(triangles) };
  });
