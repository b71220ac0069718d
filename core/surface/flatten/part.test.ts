import fc from 'fast-check';
import { spread } from '../../measure/spread.arbitrary';
import { blankOutline } from './blankOutline';
import type { Disc } from '../mesh/disc';
import { discOf } from '../mesh/disc';
import { flatten } from './flatten';
import { gridMesh } from '../mesh/gridMesh';
import type { Mesh } from '../mesh/mesh';
import { meshArea, vertexAt, vertexCount } from '../mesh/mesh';
import { onCut, otherPart, partBy, partOf, seamMm, spanOf } from './part';
import { HAND_MM, partPlaces } from './partPlaces';
import { meshOf, panels } from '../mesh/surfaces.arbitrary';

const discFrom = (mesh: Mesh): Disc => {
  const found = discOf(mesh);
  if (!found.ok) throw new Error(found.problems[0]!.code);
  return found.disc;
};

test('a line tapped anywhere parts a panel into two that make it up, their seams on it and as long as each other', () => {
  let parted = 0;
  fc.assert(
    fc.property(panels, spread(0, 1), spread(0, 1), (figure, one, other) => {
      const whole = discFrom(meshOf(figure, 900));
      const at = (share: number) =>
        vertexAt(
          whole.mesh,
          Math.min(vertexCount(whole.mesh) - 1, Math.floor(share * vertexCount(whole.mesh))),
        );
      const part = partBy(whole.mesh, at(one), at(other));
      if (!part) return expect(at(one)).toEqual(at(other));
      const rest = otherPart(part)!;
      expect(otherPart(rest)).toEqual(part);
      const halves = [part, rest].map((of) => partOf(whole, of));
      // A line through a corner, or one that cuts twice, may leave nothing on a side, or leave a
      // piece lying.
      if (!halves.every((half) => half.ok)) return;
      const [a, b] = halves.map((half) => (half as { disc: Disc }).disc) as [Disc, Disc];
      const sum = (meshArea(a.mesh) + meshArea(b.mesh)) / meshArea(whole.mesh);
      expect(sum).toBeLessThan(1.001);
      if (sum < 0.999) return;
      parted += 1;
      const long = [a, b].map((half, i) => {
        const flat = flatten(half, 0.5);
        if (!flat.ok) return null;
        const { edges } = blankOutline(half, flat.flat);
        const seams = onCut(whole, [part, rest][i]!, half, edges);
        return edges.reduce((total, edge, k) => total + (seams[k] ? edge.panelMm : 0), 0);
      });
      // Where a cut meets the rim without a corner its edge runs on past it, and is not all seam.
      for (const mm of long)
        if (mm !== null && mm > 0)
          expect(Math.abs(mm / seamMm(whole, part) - 1)).toBeLessThan(0.02);
    }),
    { numRuns: 40 },
  );
  expect(parted).toBeGreaterThan(15);
});

/** A sheet with a hump across it at `at` along it: all of its crown is in a band. */
const humped = (long: number, wide: number, at: number): Mesh =>
  gridMesh(3000, wide, long, (u, v) => {
    const hump = Math.exp(-(((v - at) * long) ** 2) / 1800);
    return [u * wide, v * long, 40 * hump * Math.sin(Math.PI * u)];
  });

test('a panel is parted a hand off its ends and not through its high crown', () => {
  fc.assert(
    fc.property(
      spread(420, 1500),
      spread(300, 700),
      fc.constantFrom(0.3, 0.5, 0.65),
      (long, wide, hump) => {
        const disc = discFrom(humped(long, wide, hump));
        const places = partPlaces(disc, 6);
        // The longer of its two ways is the one cut across.
        const bySpan = { across: Math.max(long, wide), along: Math.min(long, wide) };
        expect(new Set(places.map(({ runs }) => runs)).size).toBe(2);
        for (const { runs, share } of places) {
          const span = bySpan[runs];
          const clear = Math.min(span * 0.25, HAND_MM);
          expect(Math.min(share, 1 - share) * span).toBeGreaterThan(clear - 1e-6);
        }
        if (long < wide) return;
        const backward = spanOf(disc, 'across').normal[1] < 0;
        for (const { share } of places.filter(({ runs }) => runs === 'across'))
          expect(Math.abs((backward ? 1 - share : share) - hump) * long).toBeGreaterThan(20);
      },
    ),
    { numRuns: 25 },
  );
});
