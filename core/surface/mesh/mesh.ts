/**
 * A surface of triangles: x, y, z of each vertex in turn, mm; three vertices to a triangle,
 * counter-clockwise seen from outside.
 */
export type Mesh = { vertices: Float64Array; triangles: Uint32Array };

/** A point or a displacement in space, mm. */
export type Vec3 = readonly [x: number, y: number, z: number];

export const vertexCount = (mesh: Mesh): number => mesh.vertices.length / 3;
export const triangleCount = (mesh: Mesh): number => mesh.triangles.length / 3;

export const vertexAt = ({ vertices }: Mesh, i: number): Vec3 => [
  vertices[3 * i]!,
  vertices[3 * i + 1]!,
  vertices[3 * i + 2]!,
];

export const sub3 = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const along3 = (a: Vec3, b: Vec3, k: number): Vec3 => [
  a[0] + b[0] * k,
  a[1] + b[1] * k,
  a[2] + b[2] * k,
];
export const dot3 = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const cross3 = (a: Vec3, b: Vec3): Vec3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
export const length3 = (a: Vec3): number => Math.hypot(a[0], a[1], a[2]);
/** The direction of `a` with length 1, or [0, 0, 0] for a vector too short to have one. */
export const unit3 = (a: Vec3): Vec3 => {
  const l = length3(a);
  return l < 1e-12 ? [0, 0, 0] : [a[0] / l, a[1] / l, a[2] / l];
};

/** Twice the area of a triangle along its outward normal. */
export function triangleNormal(mesh: Mesh, t: number): Vec3 {
  const [a, b, c] = cornersOf(mesh, t);
  return cross3(sub3(b, a), sub3(c, a));
}

/** The three vertices of a triangle. */
export const cornersOf = (mesh: Mesh, t: number): [Vec3, Vec3, Vec3] => [
  vertexAt(mesh, mesh.triangles[3 * t]!),
  vertexAt(mesh, mesh.triangles[3 * t + 1]!),
  vertexAt(mesh, mesh.triangles[3 * t + 2]!),
];

/** Area of the whole surface, mm². */
export function meshArea(mesh: Mesh): number {
  let doubled = 0;
  for (let t = 0; t < triangleCount(mesh); t++) doubled += length3(triangleNormal(mesh, t));
  return doubled / 2;
}

/** A mesh from arrays as they are written: [[x, y, z], …] and [[a, b, c], …]. */
export const meshFrom = (
  vertices: readonly Vec3[],
  triangles: readonly (readonly number[])[],
): Mesh => ({
  vertices: Float64Array.from(vertices.flat()),
  triangles: Uint32Array.from(triangles.flat()),
});
