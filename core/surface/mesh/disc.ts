import type { Problem, Result } from '../../measure/result';
import { failure } from '../../measure/result';
import type { Mesh } from './mesh';
import { length3, sub3, triangleCount, triangleNormal, vertexAt, vertexCount } from './mesh';

/**
 * A surface that can be laid flat: one piece, every edge with one triangle or two, one rim. `rim`
 * is its vertices in order, with the panel on their left seen from outside; `rewound` is how many
 * triangles were wound against their neighbours.
 */
export type Disc = { mesh: Mesh; rim: Uint32Array; rewound: number };

/** A triangle flatter than this share of its longest side squared has no area to speak of. */
const NO_AREA = 1e-9;

/**
 * Whether a mesh is a disc, with every triangle wound like the first.
 *
 * Problems: `mesh-empty`, `mesh-index` (a triangle names a vertex that is not there, or one twice),
 * `mesh-number` (a coordinate that is no number), `mesh-loose-points`, `mesh-no-area`,
 * `mesh-edge-shared` (more than two triangles at an edge), `mesh-pinched` (triangles that hang
 * together at a point alone), `mesh-one-sided` (a Möbius strip), `mesh-parts`, `mesh-closed`,
 * `mesh-holes`, each with how many.
 */
export function discOf(given: Mesh): Result<{ disc: Disc }> {
  const plain = plainProblem(given);
  if (plain) return failure(plain);
  const sides = sidesOf(given);
  if (sides.shared > 0)
    return failure({ code: 'mesh-edge-shared', about: [], numbers: { edges: sides.shared } });
  const { triangles, parts, rewound, oneSided } = woundAlike(given, sides.across);
  if (parts > 1) return failure({ code: 'mesh-parts', about: [], numbers: { parts } });
  if (oneSided) return failure({ code: 'mesh-one-sided', about: [] });
  const mesh = { vertices: given.vertices, triangles };
  const rims = rimsOf(mesh);
  if (rims.pinched > 0)
    return failure({ code: 'mesh-pinched', about: [], numbers: { points: rims.pinched } });
  if (rims.loops.length === 0) return failure({ code: 'mesh-closed', about: [] });
  // One rim and no handle: vertices − edges + triangles = 1. A handle counts as two holes that are
  // joined.
  const around = vertexCount(mesh) - sides.edges + triangleCount(mesh);
  const holes = rims.loops.length - 1;
  const handles = (2 - rims.loops.length - around) / 2;
  if (holes > 0 || handles > 0)
    return failure({ code: 'mesh-holes', about: [], numbers: { holes: holes + handles } });
  return { ok: true, disc: { mesh, rim: Uint32Array.from(rims.loops[0]!), rewound } };
}

/** What is wrong with the figures themselves, before anything hangs together. */
function plainProblem(mesh: Mesh): Problem | null {
  const count = vertexCount(mesh);
  if (mesh.triangles.length === 0 || count === 0) return { code: 'mesh-empty', about: [] };
  for (const x of mesh.vertices) if (!Number.isFinite(x)) return { code: 'mesh-number', about: [] };
  const used = new Uint8Array(count);
  let noArea = 0;
  for (let t = 0; t < triangleCount(mesh); t++) {
    const [a, b, c] = mesh.triangles.subarray(3 * t, 3 * t + 3) as unknown as [
      number,
      number,
      number,
    ];
    if (a >= count || b >= count || c >= count || a === b || b === c || c === a)
      return { code: 'mesh-index', about: [], numbers: { triangle: t + 1 } };
    used[a] = used[b] = used[c] = 1;
    if (isSliver(mesh, t)) noArea++;
  }
  if (noArea > 0) return { code: 'mesh-no-area', about: [], numbers: { triangles: noArea } };
  const loose = used.reduce((sum, one) => sum - one, count);
  return loose > 0 ? { code: 'mesh-loose-points', about: [], numbers: { points: loose } } : null;
}

/** Whether a triangle has no area to speak of for its longest side. */
export function isSliver(mesh: Mesh, t: number): boolean {
  const { triangles } = mesh;
  let longest = 0;
  for (let k = 0; k < 3; k++) {
    const [p, q] = [
      vertexAt(mesh, triangles[3 * t + k]!),
      vertexAt(mesh, triangles[3 * t + ((k + 1) % 3)]!),
    ];
    longest = Math.max(longest, length3(sub3(p, q)));
  }
  return !(length3(triangleNormal(mesh, t)) > NO_AREA * longest * longest);
}

/**
 * Across each side of each triangle (side k from its vertex k to the next) the side of the triangle
 * beyond, as 3·triangle + side, or −1 at the rim; how many edges there are, and at how many more
 * than two triangles meet.
 */
export function sidesOf(mesh: Mesh): { across: Int32Array; edges: number; shared: number } {
  const { triangles } = mesh;
  const across = new Int32Array(triangles.length).fill(-1);
  // Sides by their lower vertex, chained: as quick as a table of pairs, and small.
  const first = new Int32Array(vertexCount(mesh)).fill(-1);
  const chained = new Int32Array(triangles.length).fill(-1);
  const higher = new Uint32Array(triangles.length);
  const met = new Uint8Array(triangles.length);
  let edges = 0;
  let shared = 0;
  for (let side = 0; side < triangles.length; side++) {
    const a = triangles[side]!;
    const b = triangles[side % 3 === 2 ? side - 2 : side + 1]!;
    const low = Math.min(a, b);
    higher[side] = Math.max(a, b);
    let other = first[low]!;
    while (other >= 0 && higher[other] !== higher[side]) other = chained[other]!;
    if (other < 0) {
      chained[side] = first[low]!;
      first[low] = side;
      met[side] = 1;
      edges++;
    } else if (met[other] === 1) {
      across[side] = other;
      across[other] = side;
      met[other] = 2;
    } else {
      if (met[other] === 2) shared++;
      met[other] = 3;
    }
  }
  return { across, edges, shared };
}

/** Every triangle wound like the first of its part, by walking from neighbour to neighbour. */
export function woundAlike(
  mesh: Mesh,
  across: Int32Array,
): { triangles: Uint32Array; parts: number; rewound: number; oneSided: boolean; part: Int32Array } {
  const count = triangleCount(mesh);
  const part = new Int32Array(count).fill(-1);
  const turned = new Uint8Array(count);
  const waiting = new Uint32Array(count);
  let parts = 0;
  let oneSided = false;
  for (let start = 0; start < count; start++) {
    if (part[start]! >= 0) continue;
    part[start] = parts;
    let [from, to] = [0, 1];
    waiting[0] = start;
    while (from < to) {
      const t = waiting[from++]!;
      for (let k = 0; k < 3; k++) {
        const beyond = across[3 * t + k]!;
        if (beyond < 0) continue;
        const next = Math.floor(beyond / 3);
        // Two triangles wound alike run along the side between them in opposite directions.
        const same = mesh.triangles[3 * t + k] === mesh.triangles[beyond];
        const wanted = (turned[t]! ^ (same ? 1 : 0)) as 0 | 1;
        if (part[next]! < 0) {
          part[next] = parts;
          turned[next] = wanted;
          waiting[to++] = next;
        } else if (turned[next] !== wanted) oneSided = true;
      }
    }
    parts++;
  }
  const triangles = Uint32Array.from(mesh.triangles);
  let rewound = 0;
  for (let t = 0; t < count; t++) {
    if (!turned[t]) continue;
    rewound++;
    [triangles[3 * t + 1], triangles[3 * t + 2]] = [triangles[3 * t + 2]!, triangles[3 * t + 1]!];
  }
  return { triangles, parts, rewound, oneSided, part };
}

/**
 * The rims of a mesh wound alike, each its vertices in order with the surface on the left, and at
 * how many points triangles hang together at nothing but the point.
 */
export function rimsOf(mesh: Mesh): { loops: number[][]; pinched: number } {
  const { triangles } = mesh;
  const { across } = sidesOf(mesh);
  const after = new Int32Array(vertexCount(mesh)).fill(-1);
  const corners = new Int32Array(vertexCount(mesh));
  const seen = new Int32Array(vertexCount(mesh));
  const oneSide = new Int32Array(vertexCount(mesh)).fill(-1);
  const pinched = new Set<number>();
  for (let side = 0; side < triangles.length; side++) {
    const a = triangles[side]!;
    corners[a]!++;
    // A side that begins at the vertex: of those at the rim the one that the fan is walked from.
    if (across[side]! < 0) {
      if (after[a]! >= 0) pinched.add(a);
      after[a] = triangles[side % 3 === 2 ? side - 2 : side + 1]!;
      oneSide[a] = side;
    } else if (oneSide[a]! < 0) oneSide[a] = side;
  }
  // The fan round each vertex, walked from one side to the next: what is not reached hangs at the
  // point alone.
  for (let v = 0; v < corners.length; v++) {
    let side = oneSide[v]!;
    if (side < 0) continue;
    do {
      seen[v]!++;
      const before = side % 3 === 0 ? side + 2 : side - 1;
      side = across[before]!;
    } while (side >= 0 && side !== oneSide[v] && seen[v]! <= corners[v]!);
    if (seen[v] !== corners[v]) pinched.add(v);
  }
  const loops: number[][] = [];
  const walked = new Uint8Array(after.length);
  for (let v = 0; v < after.length; v++) {
    if (after[v]! < 0 || walked[v]) continue;
    const loop: number[] = [];
    for (let at = v; at >= 0 && !walked[at]; at = after[at]!) {
      walked[at] = 1;
      loop.push(at);
    }
    loops.push(loop);
  }
  return { loops, pinched: pinched.size };
}
