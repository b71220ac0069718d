import fc from 'fast-check';
import { Triangle, Vector3 } from 'three';
import { spread } from '../../measure/spread.arbitrary';
import { cleaned } from './clean';
import { cutTo } from './cutTo';
import { deviationOf, offTriangle } from './deviation';
import type { Disc } from './disc';
import { discOf } from './disc';
import { capOf } from './figures';
import { flatten } from '../flatten/flatten';
import type { Vec3 } from './mesh';
import { dot3, length3, meshArea, sub3, triangleCount, vertexAt } from './mesh';
import { packed, unpacked } from './packed';
import { partOf, seamMm, spanOf } from '../flatten/part';
import { panelOf } from '../strain/strain';
import { meshOf, panels } from './surfaces.arbitrary';

test('kept with a card a panel is the same to a hundred-thousandth of its size', () => {
  fc.assert(
    fc.property(
      panels,
      fc.integer({ min: 30, max: 3000 }),
      spread(-5000, 5000),
      (figure, size, off) => {
        const mesh = meshOf(figure, size);
        const moved = { ...mesh, vertices: mesh.vertices.map((x) => x + off) };
        const kept = packed(moved, 'corner.obj', 0.1);
        const again = unpacked(JSON.parse(JSON.stringify(kept)) as typeof kept);
        expect([...again.triangles]).toEqual([...moved.triangles]);
        expect(
          Math.max(...again.vertices.map((x, i) => Math.abs(x - moved.vertices[i]!))),
        ).toBeLessThanOrEqual(kept.stepMm / 2 + 1e-9);
        expect(discOf(again).ok).toBe(true);
      },
    ),
    { numRuns: 30 },
  );
  const spoilt = unpacked({
    kind: 'scan',
    file: '',
    stepMm: 1,
    from: [0, 0, 0],
    vertices: '%%%',
    triangles: 'AAAA',
    offMm: 0,
  });
  expect(discOf(spoilt)).toMatchObject({ ok: false });
});

test('cut to an outline tapped on it a cap keeps what lies within: its area is that of the ball over the outline', () => {
  fc.assert(
    fc.property(
      spread(0.15, 0.4),
      spread(0, 1),
      fc.integer({ min: 24, max: 40 }),
      (share, turn, corners) => {
        const cap = { kind: 'cap' as const, widthMm: 300, heightMm: 40 };
        const mesh = meshOf(cap, 6000);
        const { radius } = capOf(cap)!;
        const far = 300 * share;
        const on = (a: number): Vec3 => [
          far * Math.cos(a),
          far * Math.sin(a),
          Math.sqrt(radius ** 2 - far ** 2) - radius + 40,
        ];
        const outline = Array.from({ length: corners }, (_, i) =>
          on(turn + (2 * Math.PI * i) / corners),
        );
        const part = cutTo(mesh, outline)!;
        const disc = discOf(cleaned(part).mesh);
        expect(disc.ok).toBe(true);
        // Over a round outline: 2πR·h, less what the straight sides of the outline leave.
        const round = 2 * Math.PI * radius * (radius - Math.sqrt(radius ** 2 - far ** 2));
        const polygon = Math.sin((2 * Math.PI) / corners) / ((2 * Math.PI) / corners);
        expect(Math.abs(meshArea(part) / (round * polygon) - 1)).toBeLessThan(0.01);
        // The other way round is the same.
        expect(meshArea(cutTo(mesh, [...outline].reverse())!)).toBeCloseTo(meshArea(part), 6);
      },
    ),
    { numRuns: 12 },
  );
  const mesh = meshOf({ kind: 'cap', widthMm: 100, heightMm: 10 }, 300);
  expect(
    cutTo(mesh, [
      [0, 0, 10],
      [5, 0, 10],
    ]),
  ).toBeNull();
  expect(
    cutTo(mesh, [
      [200, 0, 0],
      [210, 0, 0],
      [205, 8, 0],
    ]),
  ).toBeNull();
  expect(
    cutTo(mesh, [
      [0, 0, 10],
      [5, 0, 10],
      [10, 0, 10],
    ]),
  ).toBeNull();
});

test('a place lies off a triangle as three.js says, and a thinner panel off a finer one by its sagitta', () => {
  const at = fc.tuple(spread(-20, 20), spread(-20, 20), spread(-20, 20));
  fc.assert(
    fc.property(at, at, at, at, (p, a, b, c) => {
      const nearest = new Triangle(
        new Vector3(...a),
        new Vector3(...b),
        new Vector3(...c),
      ).closestPointToPoint(new Vector3(...p), new Vector3());
      expect(offTriangle(p, [a, b, c])).toBeCloseTo(nearest.distanceTo(new Vector3(...p)), 6);
    }),
  );
  const cap = { kind: 'cap' as const, widthMm: 300, heightMm: 40 };
  const [fine, coarse] = [meshOf(cap, 20_000), meshOf(cap, 600)];
  const { worstMm, rmsMm } = deviationOf(fine, coarse);
  const { radius, half } = capOf(cap)!;
  // Rings of the coarse one are this far apart: a side as long lies s²/8R under the ball, the
  // middle of a triangle with sides up to a fifth longer up to 2¼ times as much.
  const side = (radius * half) / 10;
  expect(worstMm).toBeGreaterThan(side ** 2 / (8 * radius));
  expect(worstMm).toBeLessThan((2.25 * side ** 2) / (8 * radius));
  expect(rmsMm).toBeLessThan(worstMm);
  expect(deviationOf(coarse, coarse).worstMm).toBeLessThan(1e-9);
  expect(triangleCount(coarse)).toBe(600);
});

test('the two parts of a panel are all of it, meet in one line as long for both, and each has no more to be worked than the whole', () => {
  fc.assert(
    fc.property(
      panels,
      fc.constantFrom('across' as const, 'along' as const),
      spread(0.3, 0.7),
      (figure, runs, share) => {
        const whole = discOf(meshOf(figure, 900));
        if (!whole.ok) throw new Error('no disc');
        const [first, second] = [
          { runs, from: 0, to: share },
          { runs, from: share, to: 1 },
        ].map((part) => partOf(whole.disc, part));
        if (!first!.ok || !second!.ok) {
          // A panel that is bowed may fall into several where it is cut straight.
          for (const part of [first!, second!])
            expect(part.ok || part.problems[0]!.code).toEqual(part.ok ? true : 'mesh-parts');
          return;
        }
        expect(
          (meshArea(first!.disc.mesh) + meshArea(second!.disc.mesh)) / meshArea(whole.disc.mesh),
        ).toBeCloseTo(1, 3);
        const long = seamMm(whole.disc, { runs, from: 0, to: share });
        const { normal, from, to } = spanOf(whole.disc, runs);
        const at = from + (to - from) * share;
        for (const { mesh, rim } of [first!.disc, second!.disc]) {
          let along = 0;
          rim.forEach((v, i) => {
            const [p, q] = [vertexAt(mesh, v), vertexAt(mesh, rim[(i + 1) % rim.length]!)];
            if ([p, q].every((one) => Math.abs(dot3(one, normal) - at) < 1e-6))
              along += length3(sub3(p, q));
          });
          expect(Math.abs(along / long - 1)).toBeLessThan(0.01);
        }
        const energy = (disc: Disc): number => {
          const found = flatten(disc, 0.5);
          if (!found.ok) throw new Error('not laid flat');
          return found.energy * panelOf(disc.mesh).whole;
        };
        expect(energy(first!.disc) + energy(second!.disc)).toBeLessThan(energy(whole.disc) * 1.02);
      },
    ),
    { numRuns: 20 },
  );
});
