import fc from 'fast-check';
import { distance } from '../../measure/vector';
import type { Vec } from '../../measure/vector';
import { discOf } from '../mesh/disc';
import { flatten } from '../flatten/flatten';
import { panelOf } from './strain';
import type { Panel } from './strain';
import { benchStep, evened, strainMap } from './strainMap';
import { meshOf, panels } from '../mesh/surfaces.arbitrary';
import { TRACK_MM, raisingTracks } from './tracks';

/**
 * The area of a flat where values are above a level, by halving triangles until they are small:
 * nothing of how tracks are found.
 */
function areaAbove(
  { triangles }: Panel,
  flat: Float64Array,
  values: Float64Array,
  level: number,
): number {
  const at = (v: number): [Vec, number] => [[flat[2 * v]!, flat[2 * v + 1]!], values[v]!];
  const part = (
    [[p, a], [q, b], [r, c]]: [[Vec, number], [Vec, number], [Vec, number]],
    deep: number,
  ): number => {
    const inside = [a, b, c].filter((x) => x > level).length;
    const whole = Math.abs((q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0])) / 2;
    if (inside === 0) return 0;
    if (inside === 3) return whole;
    if (deep === 0) return (whole * inside) / 3;
    const mid = ([m, x]: [Vec, number], [n, y]: [Vec, number]): [Vec, number] => [
      [(m[0] + n[0]) / 2, (m[1] + n[1]) / 2],
      (x + y) / 2,
    ];
    const [one, two, three] = [
      [p, a],
      [q, b],
      [r, c],
    ] as [[Vec, number], [Vec, number], [Vec, number]];
    const [x, y, z] = [mid(one, two), mid(two, three), mid(three, one)];
    return (
      part([one, x, z], deep - 1) +
      part([x, two, y], deep - 1) +
      part([z, y, three], deep - 1) +
      part([x, y, z], deep - 1)
    );
  };
  let sum = 0;
  for (let t = 0; t < triangles.length; t += 3)
    sum += part([at(triangles[t]!), at(triangles[t + 1]!), at(triangles[t + 2]!)], 5);
  return sum;
}

test('tracks cover what is to be raised, each round what lies within the next line, and smoothing goes across', () => {
  fc.assert(
    fc.property(panels, fc.constantFrom(0.1, 0.5), (figure, balance) => {
      const found = discOf(meshOf(figure, 700));
      if (!found.ok) throw new Error(found.problems[0]!.code);
      const { disc } = found;
      const laid = flatten(disc, balance);
      if (!laid.ok) throw new Error(laid.problems[0]!.code);
      const panel = panelOf(disc.mesh);
      const { flat } = laid;
      const values = evened(panel, strainMap(panel, flat).stretch);
      const most = values.reduce((a, b) => Math.max(a, b), 0);
      const step = benchStep(most);
      const tracks = raisingTracks(panel, flat, values, step);
      if (most < 0.0005) return expect(tracks).toEqual([]);
      const long = (of: typeof tracks) =>
        of.reduce(
          (sum, { places }) =>
            sum + places.slice(1).reduce((all, p, i) => all + distance(p, places[i]!), 0),
          0,
        );
      const lowest = step < most ? step : most / 2;
      for (const [tool, round, level] of [
        ['wheel', 1, lowest],
        ['wheel', 2, 2 * step],
        ['smooth', 1, lowest],
      ] as const) {
        const mine = tracks.filter((track) => track.tool === tool && track.round === round);
        const wanted = areaAbove(panel, flat, values, level);
        if (level >= most) {
          expect(mine).toEqual([]);
          continue;
        }
        // Short ends are left out, so they may cover less by a band round the rim of it.
        const covered = long(mine) * TRACK_MM;
        expect(covered).toBeLessThan(wanted * 1.25 + 40 * TRACK_MM);
        if (mine.length > 12) expect(covered).toBeGreaterThan(wanted * 0.75);
        // Straight, the tool’s way, and a whole number of steps apart.
        for (const { places } of mine) expect(places).toHaveLength(2);
        const [first] = mine;
        if (!first) continue;
        const [a, b] = first.places as [Vec, Vec];
        const n: Vec = [-(b[1] - a[1]) / distance(a, b), (b[0] - a[0]) / distance(a, b)];
        for (const { places } of mine)
          for (const p of places) {
            const off = ((p[0] - a[0]) * n[0] + (p[1] - a[1]) * n[1]) / TRACK_MM;
            expect(Math.abs(off - Math.round(off))).toBeLessThan(1e-6);
          }
      }
      const turn = (tool: string) => {
        const [a, b] = (tracks.find((track) => track.tool === tool)?.places ?? []) as Vec[];
        return a && b ? Math.atan2(b[1] - a[1], b[0] - a[0]) : null;
      };
      const [along, across] = [turn('wheel'), turn('smooth')];
      if (along !== null && across !== null)
        expect(Math.abs(Math.cos(along - across))).toBeLessThan(1e-6);
      // Blows from the middle out: the first ring is the highest.
      const rounds = tracks.filter(({ tool }) => tool === 'hammer').map(({ round }) => round);
      for (const round of rounds) expect(round).toBeGreaterThanOrEqual(1);
    }),
    { numRuns: 20 },
  );
});
