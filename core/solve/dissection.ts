/**
 * The order in which the vertices of a mesh are eliminated: nested dissection (George 1973). The
 * mesh is halved again and again by a strip of vertices; each half is eliminated before the strip.
 * What is left between the halves is then known to be nothing, and a system of ten thousand
 * unknowns is solved as a tree of small dense ones.
 */
export type Dissection = {
  /**
   * Vertices of each node, in the order they are eliminated; children come before their parents.
   */
  own: Uint32Array[];
  /** Vertices eliminated later that each node is tied to, sorted by when. */
  bound: Uint32Array[];
  /** The node above each, or −1. */
  parent: Int32Array;
  /** When each vertex is eliminated. */
  when: Uint32Array;
  /** The node that each vertex is eliminated in. */
  node: Uint32Array;
};

/** Maximum number of vertices of a part that is not halved any more. */
const LEAF = 8;
/** Of so few it does not matter which way they are halved. */
const FEW = 64;

/**
 * Dissects the graph of `triangles` on `count` vertices by their places: `stride` figures a vertex,
 * any linear space in which neighbours are near each other.
 */
export function dissect(
  count: number,
  triangles: Uint32Array,
  places: Float64Array,
  stride: number,
): Dissection {
  const { start, next } = neighbours(count, triangles);
  const own: Uint32Array[] = [];
  const children: number[][] = [];
  const mark = new Int32Array(count);
  let stamp = 0;
  const vertices = Uint32Array.from({ length: count }, (_, i) => i);

  const touching = (set: Uint32Array, from: number, to: number, other: number): number[] => {
    const found: number[] = [];
    for (let i = from; i < to; i++) {
      const v = set[i]!;
      for (let k = start[v]!; k < start[v + 1]!; k++)
        if (mark[next[k]!] === other) {
          found.push(v);
          break;
        }
    }
    return found;
  };
  const split = (set: Uint32Array): number => {
    if (set.length <= LEAF) return made(set, []);
    const half = set.length >> 1;
    // Across the longest way; where its strip is most of what there is (a net much finer one way),
    // across the others too.
    let strip: number[] | null = null;
    let [best, last] = [-1, -1];
    const cut = (axis: number): number[] => {
      select(set, half, (v) => places[v * stride + axis]!);
      const [lower, upper] = [(stamp += 2) - 1, stamp];
      for (let i = 0; i < set.length; i++) mark[set[i]!] = i < half ? lower : upper;
      const strips = [
        touching(set, 0, half, upper),
        touching(set, half, set.length, lower),
      ] as const;
      return strips[0].length <= strips[1].length ? strips[0] : strips[1];
    };
    for (const axis of byWidth(set, places, stride)) {
      const found = cut(axis);
      last = axis;
      if (strip === null || found.length < strip.length) [strip, best] = [found, axis];
      if (strip.length * 4 < set.length || set.length < FEW) break;
    }
    // A strip that is most of what there is parts nothing.
    if (strip === null || strip.length * 2 > set.length) return made(set, []);
    if (best !== last) strip = cut(best);
    for (const v of strip) mark[v] = 0;
    const below = set.slice(0, half).filter((v) => mark[v] !== 0);
    const above = set.slice(half).filter((v) => mark[v] !== 0);
    const parts = [below, above].filter((part) => part.length > 0).map(split);
    return made(Uint32Array.from(strip), parts);
  };
  const made = (set: Uint32Array, below: number[]): number => {
    own.push(set);
    children.push(below);
    return own.length - 1;
  };
  split(vertices);

  const parent = new Int32Array(own.length).fill(-1);
  children.forEach((below, i) => below.forEach((child) => (parent[child] = i)));
  const when = new Uint32Array(count);
  const node = new Uint32Array(count);
  let at = 0;
  own.forEach((set, i) => {
    for (const v of set) {
      when[v] = at++;
      node[v] = i;
    }
  });
  const bound: Uint32Array[] = [];
  own.forEach((set, i) => {
    const last = lastOf(own, when, i);
    const found: number[] = [];
    const seen = (stamp += 1);
    const look = (v: number): void => {
      if (when[v]! <= last || mark[v] === seen) return;
      mark[v] = seen;
      found.push(v);
    };
    for (const v of set) for (let k = start[v]!; k < start[v + 1]!; k++) look(next[k]!);
    for (const child of children[i]!) bound[child]!.forEach(look);
    bound.push(Uint32Array.from(found.sort((a, b) => when[a]! - when[b]!)));
  });
  return { own, bound, parent, when, node };
}

/**
 * When the last vertex of a node is eliminated; of a node without any, when those before it are.
 */
function lastOf(own: readonly Uint32Array[], when: Uint32Array, i: number): number {
  for (let k = i; k >= 0; k--) if (own[k]!.length > 0) return when[own[k]![own[k]!.length - 1]!]!;
  return -1;
}

/**
 * The neighbours of each vertex: those of `v` are `next[start[v]]` to `next[start[v + 1] − 1]`,
 * each named once or twice.
 */
function neighbours(
  count: number,
  triangles: Uint32Array,
): { start: Uint32Array; next: Uint32Array } {
  const start = new Uint32Array(count + 1);
  for (const v of triangles) start[v + 1]! += 2;
  for (let v = 0; v < count; v++) start[v + 1]! += start[v]!;
  const fill = Uint32Array.from(start);
  const next = new Uint32Array(triangles.length * 2);
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [triangles[i]!, triangles[i + 1]!, triangles[i + 2]!];
    next[fill[a]!++] = b;
    next[fill[a]!++] = c;
    next[fill[b]!++] = c;
    next[fill[b]!++] = a;
    next[fill[c]!++] = a;
    next[fill[c]!++] = b;
  }
  return { start, next };
}

/** The axes of a set, the one it reaches farthest along first. */
function byWidth(set: Uint32Array, places: Float64Array, stride: number): number[] {
  const wide = Array.from({ length: stride }, (_, axis) => {
    let [least, greatest] = [Infinity, -Infinity];
    for (const v of set) {
      const x = places[v * stride + axis]!;
      if (x < least) least = x;
      if (x > greatest) greatest = x;
    }
    return greatest - least;
  });
  return wide.map((_, axis) => axis).sort((a, b) => wide[b]! - wide[a]!);
}

/**
 * Reorders `set` so that its first `half` have keys no greater than the rest (Hoare's selection).
 */
function select(set: Uint32Array, half: number, key: (v: number) => number): void {
  let [from, to] = [0, set.length - 1];
  while (from < to) {
    const pivot = key(set[(from + to) >> 1]!);
    let [i, j] = [from, to];
    while (i <= j) {
      while (key(set[i]!) < pivot) i++;
      while (key(set[j]!) > pivot) j--;
      if (i > j) break;
      [set[i], set[j]] = [set[j]!, set[i]!];
      i++;
      j--;
    }
    if (half <= j) to = j;
    else if (half >= i) from = i;
    else return;
  }
}
