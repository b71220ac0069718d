import { z } from 'zod';
import type { Mesh } from './mesh';

/**
 * No panel is kept with more vertices than this: what flattening needs, not what a scanner gives.
 */
export const MAX_KEPT = 8000;

const figures = z.string().max(200_000);

/**
 * A panel from a scan as it is kept with a card: places as whole steps from a corner, two bytes
 * each, and the vertices of its triangles, two bytes each, lower byte first, both written in base
 * 64; as what file it came, and how far from that it may be.
 */
export const ScanSchema = z.strictObject({
  kind: z.literal('scan'),
  file: z.string().max(120),
  stepMm: z.number().finite().min(0).max(10),
  from: z.tuple([z.number().finite(), z.number().finite(), z.number().finite()]),
  vertices: figures,
  triangles: figures,
  offMm: z.number().finite().min(0),
});
export type Scan = z.infer<typeof ScanSchema>;

/**
 * A panel from a tucked card, kept in the same way; `offMm` is how far paper and smoothed panel are
 * apart.
 */
export const TapedSchema = ScanSchema.extend({ kind: z.literal('taped') });
export type Taped = z.infer<typeof TapedSchema>;

const STEPS = 65_535;

/**
 * A panel of up to `MAX_KEPT` vertices as it is kept: its places are right to half a step, a 131
 * 000th of its size.
 */
export function packed({ vertices, triangles }: Mesh, file: string, offMm: number): Scan {
  const from = [0, 1, 2].map((axis) => extreme(vertices, axis, Math.min)) as [
    number,
    number,
    number,
  ];
  const size = Math.max(
    ...[0, 1, 2].map((axis) => extreme(vertices, axis, Math.max) - from[axis]!),
  );
  const stepMm = size > 0 ? size / STEPS : 1;
  const steps = Array.from(vertices, (x, i) =>
    Math.min(STEPS, Math.round((x - from[i % 3]!) / stepMm)),
  );
  return {
    kind: 'scan',
    file,
    stepMm,
    from,
    vertices: written(steps),
    triangles: written(triangles),
    offMm,
  };
}

/** A kept panel as a mesh; what cannot be read gives a mesh that `discOf` refuses. */
export function unpacked({ stepMm, from, vertices, triangles }: Scan | Taped): Mesh {
  const steps = read(vertices);
  return {
    vertices: Float64Array.from(
      steps.slice(0, steps.length - (steps.length % 3)),
      (x, i) => from[i % 3]! + x * stepMm,
    ),
    triangles: Uint32Array.from(read(triangles)),
  };
}

function extreme(values: Float64Array, axis: number, of: (a: number, b: number) => number): number {
  let found = values[axis]!;
  for (let i = axis; i < values.length; i += 3) found = of(found, values[i]!);
  return found;
}

function written(values: ArrayLike<number>): string {
  let bytes = '';
  for (let i = 0; i < values.length; i++)
    bytes += String.fromCharCode(values[i]! & 255, values[i]! >> 8);
  return btoa(bytes);
}

function read(text: string): number[] {
  let bytes: string;
  try {
    bytes = atob(text);
  } catch {
    return [];
  }
  return Array.from(
    { length: bytes.length >> 1 },
    (_, i) => bytes.charCodeAt(2 * i) + 256 * bytes.charCodeAt(2 * i + 1),
  );
}
