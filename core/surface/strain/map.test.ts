import fc from 'fast-check';
import { spread } from '../../measure/spread.arbitrary';
import { area, points } from '../../measure/path';
import { distanceToPolygon } from '../../measure/path';
import type { Vec } from '../../measure/vector';
import { blankOutline } from '../flatten/blankOutline';
import { discOf } from '../mesh/disc';
import { capOf } from '../mesh/figures';
import { flatArea } from '../flatten/firstFlat';
import { flatten } from '../flatten/flatten';
import type { Mesh } from '../mesh/mesh';
import { overlapsOf } from '../mesh/overlap';
import { inFlat } from '../mesh/isoLines';
import { ordinatesOf, sectionOf } from '../mesh/section';
import { panelOf } from './strain';
import { benchStep, contours, strainMap, zonesOf } from './strainMap';
import { meshOf, panels } from '../mesh/surfaces.arbitrary';

function laid(mesh: Mesh, balance: number) {
  const found = discOf(mesh);
  if (!found.ok) throw new Error(found.problems[0]!.code);
  const flat = flatten(found.disc, balance);
  if (!flat.ok) throw new Error(flat.problems[0]!.code);
  return { disc: found.disc, flat: flat.flat, panel: panelOf(found.disc.mesh) };
}

test('the outline of a blank passes every place of its rim within 0.1 mm, with its corners and the lengths of its edges', () => {
  fc.assert(
    fc.property(panels, fc.constantFrom(0.1, 0.5, 0.9), (figure, balance) => {
      const { disc, flat, panel } = laid(meshOf(figure, 700), balance);
      const { path, edges, worstMm } = blankOutline(disc, flat);
      expect(worstMm).toBeLessThanOrEqual(0.1);
      const line = points(path, 0.01);
      for (const v of disc.rim)
        expect(distanceToPolygon([flat[2 * v]!, flat[2 * v + 1]!], line)).toBeLessThan(0.12);
      expect(Math.abs(area(path) / flatArea(panel.triangles, flat) - 1)).toBeLessThan(0.01);
      path.forEach((s, i) =>
        expect(
          Math.hypot(
            s.b[0] - path[(i + 1) % path.length]!.a[0],
            s.b[1] - path[(i + 1) % path.length]!.a[1],
          ),
        ).toBeLessThan(1e-6),
      );
      if (figure.kind !== 'cap') expect(edges).toHaveLength(4);
      expect(edges.reduce((sum, e) => sum + e.count, 0)).toBe(path.length);
      let rim = 0;
      disc.rim.forEach((v, i) => {
        const u = disc.rim[(i + 1) % disc.rim.length]!;
        rim += Math.hypot(
          ...[0, 1, 2].map((k) => disc.mesh.vertices[3 * v + k]! - disc.mesh.vertices[3 * u + k]!),
        );
      });
      expect(edges.reduce((sum, e) => sum + e.panelMm, 0)).toBeCloseTo(rim, 6);
      expect(overlapsOf([...disc.rim].map((v): Vec => [flat[2 * v]!, flat[2 * v + 1]!]))).toEqual(
        [],
      );
    }),
    { numRuns: 25 },
  );
});

test('a rim that runs over itself is told where', () => {
  expect(
    overlapsOf([
      [0, 0],
      [10, 10],
      [10, 0],
      [0, 10],
    ]),
  ).toEqual([[5, 5]]);
  const star: Vec[] = Array.from({ length: 5 }, (_, i) => [
    Math.cos((i * 4 * Math.PI) / 5),
    Math.sin((i * 4 * Math.PI) / 5),
  ]);
  expect(overlapsOf(star)).toHaveLength(5);
});

test('contour lines stand where the value is, and part what is above from what is below', () => {
  fc.assert(
    fc.property(spread(40, 200), spread(0.01, 0.3), (wide, most) => {
      const mesh = meshOf(
        { kind: 'barrel', alongMm: 1e6, acrossMm: 1e6, lengthMm: wide, widthMm: 50 },
        300,
      );
      const panel = panelOf(mesh);
      const flat = Float64Array.from(
        { length: (mesh.vertices.length / 3) * 2 },
        (_, i) => mesh.vertices[3 * (i >> 1) + (i % 2)]!,
      );
      const values = Float64Array.from(
        { length: flat.length / 2 },
        (_, v) => most * (0.5 + flat[2 * v]! / wide),
      );
      const step = benchStep(most);
      const lines = contours(panel, values, step).map(({ places, ...rest }) => ({
        ...rest,
        line: inFlat(places, flat),
      }));
      expect(lines).toHaveLength(Math.ceil(most / step - 1e-9) - 1);
      expect(lines.length).toBeLessThanOrEqual(6);
      for (const { value, line, closed } of lines) {
        expect(closed).toBe(false);
        for (const [x] of line) expect(most * (0.5 + x / wide)).toBeCloseTo(value, 6);
        expect(Math.abs(line[0]![1] - line[line.length - 1]![1])).toBeGreaterThan(49.9);
      }
    }),
  );
  expect([0.0004, 0.006, 0.04, 0.9].map(benchStep)).toEqual([0.001, 0.001, 0.01, 0.2]);
});

test('what zones gain and lose is what panel and blank differ by; a cap cut small is raised in one round zone in its middle', () => {
  const cap = { kind: 'cap' as const, widthMm: 300, heightMm: 40 };
  const small = laid(meshOf(cap, 3000), 0);
  const [raised, ...others] = zonesOf(small.disc, small.panel, small.flat);
  expect(others).toEqual([]);
  expect(raised).toMatchObject({ way: 'stretch' });
  expect(Math.hypot(...raised!.middle)).toBeLessThan(3);
  const large = laid(meshOf(cap, 3000), 1);
  const [gathered] = zonesOf(large.disc, large.panel, large.flat);
  expect(gathered).toMatchObject({ way: 'shrink', atRim: true });
  for (const { panel, flat, disc } of [small, large]) {
    const change = zonesOf(disc, panel, flat).reduce((sum, zone) => sum + zone.changeMm2, 0);
    const whole = panel.whole - flatArea(panel.triangles, flat);
    expect(Math.abs(change / whole - 1)).toBeLessThan(0.08);
  }
  // Thickness and area at every place: both strains together, at balance 1 hoops are gathered and
  // nothing is stretched.
  const map = strainMap(large.panel, large.flat);
  const { radius, half } = capOf(cap)!;
  const rim = large.disc.rim[0]!;
  expect(map.shrink[rim]! / (1 - (radius * Math.sin(half)) / (radius * half))).toBeGreaterThan(0.9);
  expect(Math.max(...map.stretch)).toBeLessThan(0.002);
});

test('a plane cuts a cap in an arc of its radius: strip, drops and the line in the flat', () => {
  fc.assert(
    fc.property(
      spread(100, 400),
      spread(8, 40),
      spread(-0.4, 0.4),
      spread(0, 3),
      (widthMm, heightMm, off, turn) => {
        const cap = { kind: 'cap' as const, widthMm, heightMm };
        const mesh = meshOf(cap, 3000);
        const { radius } = capOf(cap)!;
        const normal = [Math.cos(turn), Math.sin(turn), 0] as const;
        const [at, down] = [off * widthMm, radius - heightMm];
        const cut = sectionOf(mesh, [normal[0] * at, normal[1] * at, 0], normal)!;
        const read = ordinatesOf(cut, [0, 0, 1], normal)!;
        const small = Math.sqrt(radius ** 2 - at ** 2);
        const half = Math.sqrt((widthMm / 2) ** 2 - at ** 2);
        for (const [s, drop] of read)
          expect(drop).toBeCloseTo(
            small - Math.sqrt(Math.max(0, small ** 2 - (s - read[read.length - 1]![0] / 2) ** 2)),
            0,
          );
        expect(Math.abs(read[read.length - 1]![0] - 2 * half)).toBeLessThan(widthMm * 0.01);
        expect(Math.max(...cut.places.map((p) => p[2])) + down).toBeLessThan(small + 1e-6);
        // In the flat it is as long as it is on the panel, but for the strain.
        const { flat } = laid(mesh, 0.5);
        const line = inFlat(cut.sides, flat);
        const long = (list: readonly (readonly number[])[]): number =>
          list
            .slice(1)
            .reduce((sum, p, i) => sum + Math.hypot(...p.map((x, k) => x - list[i]![k]!)), 0);
        expect(Math.abs(long(line) / long(cut.places) - 1)).toBeLessThan(0.12);
      },
    ),
    { numRuns: 12 },
  );
  const mesh = meshOf({ kind: 'cap', widthMm: 100, heightMm: 10 }, 300);
  expect(sectionOf(mesh, [80, 0, 0], [1, 0, 0])).toBeNull();
  // More than half a ball leans over: no strip reads it from above.
  const over = meshOf({ kind: 'cap', widthMm: 100, heightMm: 120 }, 600);
  expect(ordinatesOf(sectionOf(over, [0, 1, 0], [0, 1, 0])!, [0, 0, 1], [0, 1, 0])).toBeNull();
});
