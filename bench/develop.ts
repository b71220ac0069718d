import { performance } from 'node:perf_hooks';
import ClipperLib from 'clipper-lib';
import { develop } from '#core/blank/fold/develop';
import { foldOrder } from '#core/blank/fold/order/solve';
import { DEFAULT_SHOP, sheetMetal } from '#core/blank/fold/practice';
import { checkCard } from '#core/card/check';
import { outlineOf } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import { metalById } from '#core/metal/metals';
import { foldedStrip } from './foldedStrip';
import { shapedPlate } from './shapedPlate';

/**
 * `develop` on a card of 40 folds and 400 corners, against a plain outward offset of the same
 * outline by a clipping library, both many times in turn in one run, so that the ratio means the
 * same on any machine.
 */
const doc: PatternDoc = foldedStrip(40, 400);
const sheet = sheetMetal(metalById('dc01'), 1, DEFAULT_SHOP);

function median(times: number[]): number {
  return [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)]!;
}

const outline = outlineOf(doc).path.map((s) => ({
  X: Math.round(s.a[0] * 1000),
  Y: Math.round(s.a[1] * 1000),
}));
const runs = { develop: [] as number[], offset: [] as number[] };
for (let i = 0; i < 120; i++) {
  // A card of its own each time, as a dragged corner makes one: nothing is remembered from the run
  // before.
  const dragged: PatternDoc = { ...doc, corners: doc.corners.map((c) => ({ ...c })) };
  let start = performance.now();
  const found = develop(dragged, sheet, DEFAULT_SHOP);
  const developMs = performance.now() - start;
  if (!found.ok) throw new Error(JSON.stringify(found.problems));
  start = performance.now();
  const offset = new ClipperLib.ClipperOffset(2, 250);
  offset.AddPath(outline, ClipperLib.JoinType.jtMiter, ClipperLib.EndType.etClosedPolygon);
  offset.Execute(new ClipperLib.Paths(), 5000);
  const offsetMs = performance.now() - start;
  // The first runs warm the compiler up and are not counted.
  if (i >= 20) {
    runs.develop.push(developMs);
    runs.offset.push(offsetMs);
  }
}
const [d, o] = [median(runs.develop), median(runs.offset)];
console.log(
  `develop, ${doc.folds.length} folds, ${doc.corners.length} corners: median ${d.toFixed(2)} ms, slowest ${Math.max(...runs.develop).toFixed(2)} ms`,
);
console.log(`clipping library, one plain offset of the same outline: median ${o.toFixed(2)} ms`);
console.log(`ratio: ${(d / o).toFixed(2)}`);

/**
 * The same at the size of a traced outline, with and without what the checks take; aims: checks 20
 * ms, all 60 ms.
 */
const traced = foldedStrip(40, 4000);
const times = { check: [] as number[], develop: [] as number[] };
for (let i = 0; i < 25; i++) {
  const dragged: PatternDoc = { ...traced, corners: traced.corners.map((c) => ({ ...c })) };
  let start = performance.now();
  const problems = checkCard(dragged);
  const checkMs = performance.now() - start;
  start = performance.now();
  develop(dragged, sheet, DEFAULT_SHOP, problems);
  const developMs = performance.now() - start;
  if (i >= 5) {
    times.check.push(checkMs);
    times.develop.push(developMs);
  }
}
console.log(
  `${traced.corners.length} corners: checks median ${median(times.check).toFixed(1)} ms, blank beyond them ${median(times.develop).toFixed(1)} ms`,
);

/**
 * A plate with 10 beads, 6 curved flanges and 2 folds as a corner is dragged, against the same
 * without them; aim: within a frame, 16 ms.
 */
for (const beads of [0, 10]) {
  const plate = shapedPlate(beads);
  const bare: PatternDoc =
    beads > 0
      ? plate
      : { ...plate, edges: plate.edges.map(({ flange: _flange, ...edge }) => edge) };
  const all: number[] = [];
  for (let i = 0; i < 80; i++) {
    const dragged: PatternDoc = { ...bare, corners: bare.corners.map((c) => ({ ...c })) };
    const start = performance.now();
    const found = develop(dragged, sheet, DEFAULT_SHOP);
    if (!found.ok) throw new Error(JSON.stringify(found.problems));
    if (i >= 20) all.push(performance.now() - start);
  }
  console.log(
    `plate with ${beads} beads and ${beads > 0 ? 6 : 0} curved flanges: median ${median(all).toFixed(2)} ms, ${(median(all) / d).toFixed(2)} of 40 folds`,
  );
}

/**
 * Orders of folding for chains of 6, 10 and 14 folds, in turns of `develop` of the same strip; aim
 * 1 s for 14.
 */
const BRAKE = DEFAULT_SHOP.brakes[0]!;
for (const folds of [6, 10, 14]) {
  const strip = foldedStrip(folds, 4 * folds);
  const found = develop(strip, sheet, DEFAULT_SHOP);
  if (!found.ok) throw new Error(JSON.stringify(found.problems));
  const [before, start] = [process.memoryUsage().heapUsed, performance.now()];
  const order = foldOrder(found.development, BRAKE);
  const ms = performance.now() - start;
  const mb = (process.memoryUsage().heapUsed - before) / 1e6;
  console.log(
    `order of ${folds} folds: ${order.ok ? `${order.turnings} turnings` : 'none'} in ${ms.toFixed(0)} ms (${(ms / d).toFixed(0)} times developing 40), ${mb.toFixed(0)} MB`,
  );
}
