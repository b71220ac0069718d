import { MeshoptSimplifier } from 'meshoptimizer/simplifier';
import type { SimplifierFlags } from 'meshoptimizer/simplifier';
import { cleaned, compact } from '#core/surface/mesh/clean';
import { cutTo } from '#core/surface/mesh/cutTo';
import { deviationOf } from '#core/surface/mesh/deviation';
import { discOf, rimsOf } from '#core/surface/mesh/disc';
import { readMeshFile } from '#core/surface/file/meshFile';
import type { Mesh } from '#core/surface/mesh/mesh';
import { triangleCount } from '#core/surface/mesh/mesh';
import { MAX_KEPT, packed } from '#core/surface/mesh/packed';
import type { ScanAnswer, ScanAsked, ScanTold } from './scanning';
import { KEPT, UNITS } from './scanning';

const say = (answer: ScanAnswer) => self.postMessage(answer);

/** The scan as it was read and cleaned: what is cut is cut out of it, not out of what is kept. */
let whole: { mesh: Mesh; told: ScanTold; file: string } | null = null;

self.onmessage = ({ data }: MessageEvent<ScanAsked>) =>
  void (data.what === 'read' ? read(data) : cut(data));

async function read({ file, unit }: Extract<ScanAsked, { what: 'read' }>): Promise<void> {
  whole = null;
  say({ what: 'progress', doing: 'reading' });
  const found = readMeshFile(file.name, new Uint8Array(await file.arrayBuffer()));
  if (!found.ok) return say({ what: 'refused', problems: found.problems, told: null });
  say({ what: 'progress', doing: 'cleaning' });
  const vertices = found.mesh.vertices.map((x) => x * UNITS[unit]);
  const { mesh, ...done } = cleaned({ vertices, triangles: found.mesh.triangles });
  whole = { mesh, told: { ...done, triangles: triangleCount(found.mesh) }, file: file.name };
  await keep(mesh);
}

async function cut({ outline }: Extract<ScanAsked, { what: 'cut' }>): Promise<void> {
  if (!whole) return;
  const part = cutTo(whole.mesh, outline);
  if (!part)
    return say({
      what: 'refused',
      problems: [{ code: 'cut-misses', about: [] }],
      told: whole.told,
    });
  // Cut free of the rest it may have holes of its own.
  await keep(cleaned(part).mesh);
}

/** Thins a mesh to what flattening needs, and says how far that lies off it. */
async function keep(mesh: Mesh): Promise<void> {
  const { told, file } = whole!;
  say({ what: 'progress', doing: 'thinning' });
  const small = await thinned(mesh);
  if (small.vertices.length / 3 > MAX_KEPT)
    return say({ what: 'refused', problems: [{ code: 'scan-rough', about: [] }], told });
  const { worstMm } = small === mesh ? { worstMm: 0 } : deviationOf(mesh, small);
  const scan = packed(small, file.slice(0, 120), worstMm);
  let sizeMm = 0;
  for (const x of mesh.vertices) sizeMm = Math.max(sizeMm, Math.abs(x - mesh.vertices[0]!));
  say({ what: 'ready', scan, told, kept: triangleCount(small), sizeMm });
}

async function thinned(mesh: Mesh): Promise<Mesh> {
  if (triangleCount(mesh) <= KEPT) return mesh;
  await MeshoptSimplifier.ready;
  // Whole figures would lose what is small far off from the scanner’s own nought.
  const [x, y, z] = mesh.vertices;
  const near = Float32Array.from(mesh.vertices, (value, i) => value - [x!, y!, z!][i % 3]!);
  // The rim is the outline that will be cut: it stays as it is, unless it is finer than anything is
  // cut.
  const rim = rimsOf(mesh).loops.reduce((sum, loop) => sum + loop.length, 0);
  const flags: SimplifierFlags[] = rim < KEPT / 2 ? ['Regularize', 'LockBorder'] : ['Regularize'];
  const [triangles] = MeshoptSimplifier.simplify(mesh.triangles, near, 3, 3 * KEPT, 1, flags);
  const small = compact({ vertices: mesh.vertices, triangles });
  return discOf(mesh).ok && !discOf(small).ok ? cleaned(small).mesh : small;
}
