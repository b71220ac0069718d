import { factorColumns } from './denseFront';
import type { Dissection } from './dissection';

/**
 * Symmetric positive definite systems on the vertices of a mesh, factored as L·Lᵀ front by front
 * (Duff & Reid 1983): the entries of each triangle go straight into the dense front of its vertex
 * that is eliminated first, and what the front leaves over is added to the one above. The shape of
 * the factor is reckoned once and used for every factoring.
 */
export type Fronts = {
  /** Unknowns at a vertex. */
  each: number;
  /** Vertices of a front, own ones first; where those it leaves over stand in the front above. */
  vertices: Uint32Array[];
  owned: Uint32Array;
  above: (Uint32Array | null)[];
  parent: Int32Array;
  /** Triangles of each front, and where their three vertices stand in it. */
  elements: Uint32Array[];
  placed: Uint32Array[];
  /** Where the rows of each front begin in `factor`: own columns only, row by row. */
  begins: Float64Array;
  factor: Float64Array;
  /** The front in hand, and what fronts below it left over. */
  front: Float64Array;
  left: Float64Array;
};

export function frontsOf(dissection: Dissection, triangles: Uint32Array, each: number): Fronts {
  const { own, bound, parent, when, node } = dissection;
  const vertices = own.map((set, i) => {
    const all = new Uint32Array(set.length + bound[i]!.length);
    all.set(set);
    all.set(bound[i]!, set.length);
    return all;
  });
  const local = new Uint32Array(when.length);
  const inFront = (i: number): void => vertices[i]!.forEach((v, k) => (local[v] = k));
  const elementsOf: number[][] = own.map(() => []);
  for (let i = 0; i < triangles.length; i += 3) {
    let first = triangles[i]!;
    for (let k = 1; k < 3; k++)
      if (when[triangles[i + k]!]! < when[first]!) first = triangles[i + k]!;
    elementsOf[node[first]!]!.push(i / 3);
  }
  const placed = elementsOf.map((list, i) => {
    inFront(i);
    return Uint32Array.from(
      list.flatMap((t) => [0, 1, 2].map((k) => local[triangles[3 * t + k]!]!)),
    );
  });
  const above = own.map((_, i): Uint32Array | null => {
    if (parent[i]! < 0) return null;
    inFront(parent[i]!);
    return Uint32Array.from(bound[i]!, (v) => local[v]!);
  });
  const begins = new Float64Array(own.length + 1);
  let [largest, waiting, most] = [0, 0, 0];
  const leaves = bound.map((set) => (set.length * each) ** 2);
  const below: number[] = own.map(() => 0);
  own.forEach((set, i) => {
    const size = vertices[i]!.length * each;
    begins[i + 1] = begins[i]! + size * set.length * each;
    largest = Math.max(largest, size);
    // Postorder: what the fronts below left over is taken up, and what this one leaves is put in
    // its place.
    waiting += leaves[i]! - below[i]!;
    most = Math.max(most, waiting + below[i]!);
    if (parent[i]! >= 0) below[parent[i]!]! += leaves[i]!;
  });
  return {
    each,
    vertices,
    owned: Uint32Array.from(own, (set) => set.length),
    above,
    parent,
    elements: elementsOf.map((list) => Uint32Array.from(list)),
    placed,
    begins,
    factor: new Float64Array(begins[own.length]!),
    front: new Float64Array(largest * largest),
    left: new Float64Array(most),
  };
}

/**
 * Factors the system whose triangle `t` gives the symmetric matrix `entries(t, into)`: 3·each rows,
 * row by row, only the lower triangle read. `extra(v)` is added on the diagonal of vertex `v`.
 * False where it is not positive definite.
 */
export function factorFronts(
  fronts: Fronts,
  entries: (triangle: number, into: Float64Array) => void,
  extra: (vertex: number) => number,
): boolean {
  const { each, vertices, owned, above, parent, elements, placed, begins, factor, front, left } =
    fronts;
  const element = new Float64Array(9 * each * each);
  const waits: { node: number; at: number }[] = [];
  let top = 0;
  for (let i = 0; i < vertices.length; i++) {
    const size = vertices[i]!.length * each;
    const p = owned[i]! * each;
    front.fill(0, 0, size * size);
    // What the triangles give.
    const list = elements[i]!;
    for (let e = 0; e < list.length; e++) {
      entries(list[e]!, element);
      for (let a = 0; a < 3; a++)
        for (let b = 0; b < 3; b++) {
          const [row, column] = [placed[i]![3 * e + a]! * each, placed[i]![3 * e + b]! * each];
          if (column > row) continue;
          for (let r = 0; r < each; r++)
            for (let c = 0; c < each; c++) {
              const [ra, cb] = [a * each + r, b * each + c];
              front[(row + r) * size + column + c]! +=
                ra >= cb ? element[ra * 3 * each + cb]! : element[cb * 3 * each + ra]!;
            }
        }
    }
    for (let v = 0; v < owned[i]!; v++) {
      const more = extra(vertices[i]![v]!);
      for (let r = 0; r < each; r++) front[(v * each + r) * (size + 1)]! += more;
    }
    // What fronts below left over: they wait on top of the pile.
    while (waits.length > 0 && parent[waits[waits.length - 1]!.node] === i) {
      const { node, at } = waits.pop()!;
      takeUp(front, size, left, at, above[node]!, each);
      top = at;
    }
    if (!factorColumns(front, size, p)) return false;
    // Own columns go into the factor; the rest is left over.
    let to = begins[i]!;
    for (let r = 0; r < size; r++) {
      const from = r * size;
      for (let c = 0; c < p; c++) factor[to++] = front[from + c]!;
    }
    if (parent[i]! < 0) continue;
    const rest = size - p;
    for (let r = 0; r < rest; r++) {
      const from = (p + r) * size + p;
      left.set(front.subarray(from, from + r + 1), top + r * rest);
    }
    waits.push({ node: i, at: top });
    top += rest * rest;
  }
  return true;
}

/** Adds what a front left over to the one above it, lower triangle to lower triangle. */
function takeUp(
  front: Float64Array,
  size: number,
  left: Float64Array,
  at: number,
  where: Uint32Array,
  each: number,
): void {
  const rest = where.length * each;
  for (let a = 0; a < where.length; a++)
    for (let b = 0; b <= a; b++) {
      const [row, column] = [where[a]! * each, where[b]! * each];
      for (let r = 0; r < each; r++)
        for (let c = 0; c < each; c++) {
          if (a === b && c > r) continue;
          const value = left[at + (a * each + r) * rest + b * each + c]!;
          if (row >= column) front[(row + r) * size + column + c]! += value;
          else front[(column + c) * size + row + r]! += value;
        }
    }
}

/** Solves L·Lᵀ·x = b in place, `count` right sides at once beside each other at each unknown. */
export function solveFronts(fronts: Fronts, x: Float64Array, count = 1): void {
  const { each, vertices, owned, begins, factor, front } = fronts;
  const values = new Float64Array(Math.sqrt(front.length));
  for (let side = 0; side < count; side++) {
    const gather = (set: Uint32Array): void => {
      for (let v = 0; v < set.length; v++)
        for (let r = 0; r < each; r++)
          values[v * each + r] = x[(set[v]! * each + r) * count + side]!;
    };
    const put = (set: Uint32Array, upTo: number): void => {
      for (let v = 0; v < upTo; v++)
        for (let r = 0; r < each; r++)
          x[(set[v]! * each + r) * count + side] = values[v * each + r]!;
    };
    for (let i = 0; i < vertices.length; i++) {
      const set = vertices[i]!;
      const p = owned[i]! * each;
      const size = set.length * each;
      gather(set);
      for (let r = 0; r < size; r++) {
        const row = begins[i]! + r * p;
        let sum = values[r]!;
        const upTo = r < p ? r : p;
        for (let c = 0; c < upTo; c++) sum -= factor[row + c]! * values[c]!;
        values[r] = r < p ? sum / factor[row + r]! : sum;
      }
      put(set, set.length);
    }
    for (let i = vertices.length - 1; i >= 0; i--) {
      const set = vertices[i]!;
      const p = owned[i]! * each;
      const size = set.length * each;
      gather(set);
      for (let r = size - 1; r >= 0; r--) {
        const row = begins[i]! + r * p;
        if (r < p) values[r]! /= factor[row + r]!;
        const value = values[r]!;
        const upTo = r < p ? r : p;
        for (let c = 0; c < upTo; c++) values[c]! -= factor[row + c]! * value;
      }
      put(set, owned[i]!);
    }
  }
}
