import { performance } from 'node:perf_hooks';
import { discOf } from '#core/surface/mesh/disc';
import type { Disc } from '#core/surface/mesh/disc';
import { dissect } from '#core/solve/dissection';
import type { Figure } from '#core/surface/mesh/figures';
import { figureMesh } from '#core/surface/mesh/figures';
import { firstFlat } from '#core/surface/flatten/firstFlat';
import { flattening } from '#core/surface/flatten/flatten';
import { factorFronts, frontsOf, solveFronts } from '#core/solve/fronts';
import { vertexCount } from '#core/surface/mesh/mesh';
import type { Panel } from '#core/surface/strain/strain';
import { panelOf, plainEnergy } from '#core/surface/strain/strain';

/**
 * Laying panels flat at 5, 20 and 80 thousand triangles, against as-rigid-as-possible (Liu et al.
 * 2008: every triangle turned, then one solution with a matrix factored once, in turn), both in one
 * run. Aims: no slower at 20 000 than a thousand turns of that, its least energy within a
 * hundredth; 80 000 in six times the time of 20 000; 600 MB.
 */
const PANELS: [string, Figure][] = [
  ['cap', { kind: 'cap', widthMm: 340, heightMm: 60 }],
  ['ring', { kind: 'ring', tubeMm: 60, ringMm: 350, arcDeg: 90, fromDeg: 0, toDeg: 90 }],
  ['saddle', { kind: 'saddle', alongMm: 700, acrossMm: 500, lengthMm: 400, widthMm: 400 }],
];
/** Turns of the reference that are waited for; a thousand are reckoned from them. */
const TURNS = 60;

/** Turned and solved in turn: the energy after `TURNS` iterations, and their time, ms. */
function rigid(disc: Disc, panel: Panel): { energy: number; ms: number } {
  const began = performance.now();
  const { mesh } = disc;
  const { triangles, area, gradients } = panel;
  const count = vertexCount(mesh);
  const dissection = dissect(count, triangles, mesh.vertices, 3);
  let flat = firstFlat(disc, panel, frontsOf(dissection, triangles, 2));
  const fronts = frontsOf(dissection, triangles, 1);
  const g = (t: number, k: number, axis: number): number => gradients[6 * t + 2 * k + axis]!;
  factorFronts(
    fronts,
    (t, into) => {
      for (let k = 0; k < 3; k++)
        for (let l = 0; l <= k; l++)
          into[3 * k + l] = area[t]! * (g(t, k, 0) * g(t, l, 0) + g(t, k, 1) * g(t, l, 1));
    },
    (v) => (v === 0 ? 1 : 0),
  );
  for (let turn = 0; turn < TURNS; turn++) {
    const right = new Float64Array(2 * count);
    for (let t = 0; t < area.length; t++) {
      let [c, s] = [0, 0];
      for (let k = 0; k < 3; k++) {
        const v = 2 * triangles[3 * t + k]!;
        c += flat[v]! * g(t, k, 0) + flat[v + 1]! * g(t, k, 1);
        s += flat[v + 1]! * g(t, k, 0) - flat[v]! * g(t, k, 1);
      }
      const by = area[t]! / Math.hypot(c, s);
      for (let k = 0; k < 3; k++) {
        const v = 2 * triangles[3 * t + k]!;
        right[v]! += by * (c * g(t, k, 0) - s * g(t, k, 1));
        right[v + 1]! += by * (s * g(t, k, 0) + c * g(t, k, 1));
      }
    }
    solveFronts(fronts, right, 2);
    flat = right;
  }
  return { energy: plainEnergy(panel, flat), ms: performance.now() - began };
}

for (const [name, figure] of PANELS) {
  let twenty = 0;
  for (const thousands of [5, 20, 80]) {
    const made = figureMesh(figure, thousands * 1000);
    const disc = made.ok ? discOf(made.mesh) : made;
    if (!disc.ok) throw new Error(JSON.stringify(disc.problems));
    const panel = panelOf(disc.disc.mesh);
    for (const balance of thousands === 80 ? [0.5] : [0.5, 0, 1]) {
      const began = performance.now();
      const way = flattening(disc.disc, balance);
      let step = way.next();
      const firstMs = performance.now() - began;
      while (!step.done) step = way.next();
      const ms = performance.now() - began;
      if (!step.value.ok) throw new Error('not laid flat');
      const said = `${name}, ${thousands} thousand, balance ${balance}: ${ms.toFixed(0)} ms, first ${firstMs.toFixed(0)} ms, ${step.value.steps} steps`;
      if (balance !== 0.5) {
        console.log(said);
        continue;
      }
      const energy = plainEnergy(panel, step.value.flat);
      const reference = rigid(disc.disc, panel);
      const thousand = (reference.ms * 1000) / TURNS;
      const growth = thousands === 80 ? `, ${(ms / twenty).toFixed(1)} times 20 thousand` : '';
      if (thousands === 20) twenty = ms;
      console.log(
        `${said}; ${(ms / thousand).toFixed(3)} of a thousand turns of the reference, energy ${(energy / reference.energy).toFixed(4)} of what ${TURNS} reach${growth}; ${(process.memoryUsage().rss / 1e6).toFixed(0)} MB`,
      );
    }
  }
}
