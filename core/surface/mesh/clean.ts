import { isSliver, rimsOf, sidesOf, woundAlike } from './disc';
import type { Mesh, Vec3 } from './mesh';
import { length3, sub3, triangleCount, triangleNormal, vertexAt } from './mesh';
import { withMergedVertices } from './mergeVertices';

/**
 * What was done to a scan before it could be used, each with how many; nothing is done that is not
 * told.
 */
export type Cleaned = {
  mesh: Mesh;
  /**
   * Doubled points made one, and triangles without area, doubled, or third at an edge, left out.
   */
  joined: number;
  dropped: number;
  rewound: number;
  /** Parts that hang loose, left out, with their share of the whole area. */
  looseParts: number;
  looseShare: number;
  /** Holes closed, and the longest way round one of them, mm; holes too wide to be closed. */
  closed: number;
  widestMm: number;
  left: number;
};

/** Points nearer than this share of the mesh's size are one. */
const SAME_PLACE = 1e-6;
/** A hole is small when the way round it is less than this share of the way round the rim. */
const SMALL_HOLE = 0.08;
const ROUNDS = 4;

/**
 * A mesh as a scanner leaves it made fit for use: doubled points welded, triangles without area
 * gone, no more than two at an edge, points that only hang together at a tip parted, all wound
 * alike, the largest part kept, small holes closed with a fan from their middle.
 */
export function cleaned(given: Mesh): Cleaned {
  const within = sizeOf(given) * SAME_PLACE;
  const { mesh: first, joined } = withMergedVertices(finiteOf(given), within);
  let mesh = first;
  for (let round = 0; round < ROUNDS; round++) {
    const next = withoutSlivers(mesh);
    if (next === mesh) break;
    mesh = next;
  }
  mesh = manifold(mesh);
  const dropped = triangleCount(given) - triangleCount(mesh);
  const { mesh: largest, parts, looseShare, rewound } = largestPart(mesh);
  const tipped = partedAtTips(largest);
  const holes = withHolesClosed(tipped);
  return {
    mesh: compact(holes.mesh),
    joined,
    dropped,
    rewound,
    looseParts: parts - 1,
    looseShare,
    closed: holes.closed,
    widestMm: holes.widestMm,
    left: holes.left,
  };
}

/** Only triangles whose corners are there and are figures. */
function finiteOf({ vertices, triangles }: Mesh): Mesh {
  const good = (v: number): boolean =>
    3 * v < vertices.length &&
    Number.isFinite(vertices[3 * v]! + vertices[3 * v + 1]! + vertices[3 * v + 2]!);
  const found: number[] = [];
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [triangles[i]!, triangles[i + 1]!, triangles[i + 2]!];
    if (good(a) && good(b) && good(c)) found.push(a, b, c);
  }
  return compact({ vertices, triangles: Uint32Array.from(found) });
}

function sizeOf({ vertices }: Mesh): number {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < vertices.length; i++) {
    const x = vertices[i]!;
    if (!Number.isFinite(x)) continue;
    low[i % 3] = Math.min(low[i % 3]!, x);
    high[i % 3] = Math.max(high[i % 3]!, x);
  }
  return Math.hypot(...high.map((x, k) => Math.max(0, x - low[k]!)));
}

/**
 * Triangles without area gone: their shortest side becomes one point. The mesh itself where there
 * are none.
 */
function withoutSlivers(mesh: Mesh): Mesh {
  const to = Uint32Array.from({ length: mesh.vertices.length / 3 }, (_, i) => i);
  const root = (v: number): number => {
    while (to[v] !== v) v = to[v]!;
    return v;
  };
  let any = false;
  for (let t = 0; t < triangleCount(mesh); t++) {
    const [a, b, c] = [
      mesh.triangles[3 * t]!,
      mesh.triangles[3 * t + 1]!,
      mesh.triangles[3 * t + 2]!,
    ];
    const doubled = a === b || b === c || c === a;
    if (doubled) any = true;
    if (doubled || !isSliver(mesh, t)) continue;
    any = true;
    const sides = [
      [a, b],
      [b, c],
      [c, a],
    ] as const;
    const long = sides.map(([p, q]) => length3(sub3(vertexAt(mesh, p), vertexAt(mesh, q))));
    const [p, q] = sides[long.indexOf(Math.min(...long))]!;
    to[Math.max(root(p), root(q))] = Math.min(root(p), root(q));
  }
  if (!any) return mesh;
  const found: number[] = [];
  for (let i = 0; i < mesh.triangles.length; i += 3) {
    const [a, b, c] = [
      root(mesh.triangles[i]!),
      root(mesh.triangles[i + 1]!),
      root(mesh.triangles[i + 2]!),
    ];
    if (a !== b && b !== c && c !== a) found.push(a, b, c);
  }
  return { vertices: mesh.vertices, triangles: Uint32Array.from(found) };
}

/** Each triangle once, and no more than two at an edge: those that come later go. */
function manifold({ vertices, triangles }: Mesh): Mesh {
  const count = triangles.length / 3;
  // Sides and triangles by their lowest vertex, chained: quick and small, whatever millions there
  // are.
  const [firstSide, firstTriangle] = [0, 1].map(() =>
    new Int32Array(vertices.length / 3).fill(-1),
  ) as [Int32Array, Int32Array];
  const [nextSide, high, met] = [
    new Int32Array(triangles.length),
    new Uint32Array(triangles.length),
    new Uint8Array(triangles.length),
  ];
  const nextTriangle = new Int32Array(count);
  const found = new Uint32Array(triangles.length);
  const [sides, corners] = [new Int32Array(3), new Uint32Array(3)];
  let [known, kept] = [0, 0];
  /** The side between two vertices as it is known; -1 where it is not yet. */
  const sideOf = (a: number, b: number): number => {
    const top = Math.max(a, b);
    let side = firstSide[Math.min(a, b)]!;
    while (side >= 0 && high[side] !== top) side = nextSide[side]!;
    return side;
  };
  /** Whether a triangle that is kept has the corners in hand, which are in order. */
  const doubled = (): boolean => {
    for (let t = firstTriangle[corners[0]!]!; t >= 0; t = nextTriangle[t]!) {
      const [a, b, c] = [found[3 * t]!, found[3 * t + 1]!, found[3 * t + 2]!];
      if (
        a + b + c === corners[0]! + corners[1]! + corners[2]! &&
        Math.max(a, b, c) === corners[2]!
      )
        return true;
    }
    return false;
  };
  for (let t = 0; t < count; t++) {
    corners.set(triangles.subarray(3 * t, 3 * t + 3));
    for (let k = 0; k < 3; k++) sides[k] = sideOf(corners[k]!, corners[(k + 1) % 3]!);
    corners.sort();
    if (sides.some((side) => side >= 0 && met[side]! > 1) || doubled()) continue;
    for (let k = 0; k < 3; k++) {
      const [a, b] = [triangles[3 * t + k]!, triangles[3 * t + ((k + 1) % 3)]!];
      if (sides[k]! < 0) {
        const low = Math.min(a, b);
        nextSide[known] = firstSide[low]!;
        high[known] = Math.max(a, b);
        firstSide[low] = known;
        sides[k] = known++;
      }
      met[sides[k]!]!++;
      found[3 * kept + k] = a;
    }
    nextTriangle[kept] = firstTriangle[corners[0]!]!;
    firstTriangle[corners[0]!] = kept++;
  }
  return { vertices, triangles: found.slice(0, 3 * kept) };
}

function largestPart(mesh: Mesh): {
  mesh: Mesh;
  parts: number;
  looseShare: number;
  rewound: number;
} {
  const wound = woundAlike(mesh, sidesOf(mesh).across);
  const even = { vertices: mesh.vertices, triangles: wound.triangles };
  const areas = new Float64Array(wound.parts);
  for (let t = 0; t < triangleCount(even); t++)
    areas[wound.part[t]!]! += length3(triangleNormal(even, t));
  const largest = areas.reduce((most, x, i) => (x > areas[most]! ? i : most), 0);
  const whole = areas.reduce((sum, x) => sum + x, 0);
  const found = even.triangles.filter((_, i) => wound.part[Math.floor(i / 3)] === largest);
  return {
    mesh: { vertices: mesh.vertices, triangles: found },
    parts: Math.max(1, wound.parts),
    looseShare: whole > 0 ? 1 - areas[largest]! / whole : 0,
    rewound: wound.rewound,
  };
}

/** The part of a mesh that comes nearest to a place. */
export function partWith(mesh: Mesh, near: Vec3): Mesh {
  const wound = woundAlike(mesh, sidesOf(mesh).across);
  let best = 0;
  let least = Infinity;
  for (let i = 0; i < wound.triangles.length; i++) {
    const off = length3(sub3(vertexAt(mesh, wound.triangles[i]!), near));
    if (off < least) [best, least] = [wound.part[Math.floor(i / 3)]!, off];
  }
  const found: number[] = [];
  for (let t = 0; t < wound.part.length; t++)
    if (wound.part[t] === best) found.push(...wound.triangles.subarray(3 * t, 3 * t + 3));
  return compact({ vertices: mesh.vertices, triangles: Uint32Array.from(found) });
}

/**
 * Where fans of triangles hang together at a point alone, each but the first gets a point of its
 * own.
 */
function partedAtTips(mesh: Mesh): Mesh {
  const { across } = sidesOf(mesh);
  const triangles = Uint32Array.from(mesh.triangles);
  const fan = new Int32Array(triangles.length).fill(-1);
  const fans = new Map<number, number>();
  const added: number[] = [];
  const next = (side: number): number => (side % 3 === 2 ? side - 2 : side + 1);
  const before = (side: number): number => (side % 3 === 0 ? side + 2 : side - 1);
  for (let corner = 0; corner < triangles.length; corner++) {
    if (fan[corner]! >= 0) continue;
    const v = mesh.triangles[corner]!;
    const number = fans.get(v) ?? 0;
    fans.set(v, number + 1);
    const name = number === 0 ? v : mesh.vertices.length / 3 + added.push(v) - 1;
    // All corners of the fan, both ways round the point.
    for (const turn of [1, -1] as const) {
      let at = corner;
      while (at >= 0 && (fan[at]! < 0 || at === corner)) {
        fan[at] = number;
        triangles[at] = name;
        const beyond = turn === 1 ? across[before(at)]! : across[at]!;
        at = beyond < 0 ? -1 : turn === 1 ? beyond : next(beyond);
        if (at === corner) break;
      }
    }
  }
  if (added.length === 0) return mesh;
  const vertices = new Float64Array(mesh.vertices.length + 3 * added.length);
  vertices.set(mesh.vertices);
  added.forEach((v, i) =>
    vertices.set(mesh.vertices.subarray(3 * v, 3 * v + 3), mesh.vertices.length + 3 * i),
  );
  return { vertices, triangles };
}

/** Every rim but the longest, where it is small, closed with triangles round its middle. */
function withHolesClosed(mesh: Mesh): {
  mesh: Mesh;
  closed: number;
  widestMm: number;
  left: number;
} {
  const { loops } = rimsOf(mesh);
  const around = loops.map((loop) =>
    loop.reduce(
      (sum, v, i) =>
        sum + length3(sub3(vertexAt(mesh, v), vertexAt(mesh, loop[(i + 1) % loop.length]!))),
      0,
    ),
  );
  const rim = around.reduce((most, x, i) => (x > around[most]! ? i : most), 0);
  const longest = around[rim] ?? 0;
  const triangles = [...mesh.triangles];
  const middles: number[] = [];
  let [closed, widestMm, left] = [0, 0, 0];
  loops.forEach((loop, i) => {
    if (i === rim) return;
    if (around[i]! > SMALL_HOLE * longest) {
      left++;
      return;
    }
    closed++;
    widestMm = Math.max(widestMm, around[i]!);
    if (loop.length === 3) {
      triangles.push(loop[0]!, loop[2]!, loop[1]!);
      return;
    }
    const middle = mesh.vertices.length / 3 + middles.length / 3;
    for (let axis = 0; axis < 3; axis++)
      middles.push(loop.reduce((sum, v) => sum + mesh.vertices[3 * v + axis]! / loop.length, 0));
    // The rim of a hole has the surface on its left: a triangle that closes it runs the other way.
    loop.forEach((v, k) => triangles.push(v, middle, loop[(k + 1) % loop.length]!));
  });
  if (closed === 0) return { mesh, closed, widestMm, left };
  const vertices = new Float64Array(mesh.vertices.length + middles.length);
  vertices.set(mesh.vertices);
  vertices.set(middles, mesh.vertices.length);
  return { mesh: { vertices, triangles: Uint32Array.from(triangles) }, closed, widestMm, left };
}

/** A mesh without the points that no triangle names, the others in the order they had. */
export function compact({ vertices, triangles }: Mesh): Mesh {
  const to = new Int32Array(vertices.length / 3).fill(-1);
  for (const v of triangles) to[v] = 0;
  let known = 0;
  for (let v = 0; v < to.length; v++) if (to[v] === 0) to[v] = known++;
  const kept = new Float64Array(3 * known);
  for (let v = 0; v < to.length; v++)
    if (to[v]! >= 0) kept.set(vertices.subarray(3 * v, 3 * v + 3), 3 * to[v]!);
  return { vertices: kept, triangles: triangles.map((v) => to[v]!) };
}
