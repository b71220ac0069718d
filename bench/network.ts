import { performance } from 'node:perf_hooks';
import { adjustNetwork } from '#core/measure/network/network';

/**
 * Sixty points in space and four hundred tapes with noise: the net placed from nothing. Printed,
 * never judged.
 */
let state = 7;
const chance = () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
const places = Array.from({ length: 60 }, () => [
  3000 * chance(),
  1500 * chance(),
  1200 * chance(),
]);
const apart = (a: readonly number[], b: readonly number[]) =>
  Math.hypot(...a.map((x, k) => x - b[k]!));
const pairs = places
  .flatMap((a, i) => places.slice(0, i).map((b, j) => ({ i, j, mm: apart(a, b) })))
  .sort((a, b) => a.mm - b.mm)
  .slice(0, 400);
const tapes = pairs.map(({ i, j, mm }) => ({
  from: `${j}`,
  to: `${i}`,
  mm: mm + 2 * (chance() - 0.5),
  uMm: 1,
}));
const used = new Set(tapes.flatMap(({ from, to }) => [from, to]));
const points = [...used].map((name) => ({ name }));
const times: number[] = [];
for (let i = 0; i < 5; i++) {
  const start = performance.now();
  const found = adjustNetwork({ dimension: 3, points, tapes });
  times.push(performance.now() - start);
  if (i === 0)
    console.log(
      found.ok
        ? `\na net of ${points.length} points and ${tapes.length} tapes in space: σ0 ${found.sigma0!.toFixed(2)}`
        : `\na net of ${points.length} points: ${found.problems.map((p) => `${p.code} ${p.about?.join(' ')}`).join('; ')}`,
    );
}
console.log(
  `placed from nothing in ${[...times].sort((a, b) => a - b)[2]!.toFixed(0)} ms (median of five)`,
);
