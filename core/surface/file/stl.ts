import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import type { Mesh } from '../mesh/mesh';
import { withMergedVertices } from '../mesh/mergeVertices';
import { Growing, linesOf } from './text';

/**
 * The triangles of an STL file, binary or ASCII. They are written each by itself: corners at
 * exactly one place become one vertex, in the order they are first named.
 */
export function readStl(bytes: Uint8Array): Result<{ mesh: Mesh }> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const binary = bytes.length >= 84 && bytes.length === 84 + 50 * view.getUint32(80, true);
  const corners = binary ? binaryCorners(view) : asciiCorners(bytes);
  if (typeof corners === 'number')
    return failure({ code: 'mesh-file-broken', about: [], numbers: { line: corners } });
  const triangles = Uint32Array.from({ length: corners.length / 3 }, (_, i) => i);
  return { ok: true, mesh: withMergedVertices({ vertices: corners, triangles }, 0).mesh };
}

/** Corners in turn, or the triangle whose figures are none. */
function binaryCorners(view: DataView): Float64Array | number {
  const count = view.getUint32(80, true);
  const found = new Float64Array(9 * count);
  for (let t = 0; t < count; t++)
    for (let k = 0; k < 9; k++) {
      const x = view.getFloat32(84 + 50 * t + 12 + 4 * k, true);
      if (!Number.isFinite(x)) return t + 1;
      found[9 * t + k] = x;
    }
  return found;
}

/** Corners in turn, or the line that cannot be read. */
function asciiCorners(bytes: Uint8Array): Float64Array | number {
  const found = new Growing();
  let number = 0;
  let inLoop = 0;
  for (const line of linesOf(bytes)) {
    number++;
    const words = line.trim().split(/\s+/);
    const word = words[0]!.toLowerCase();
    if (word === 'vertex') {
      const at = [Number(words[1]), Number(words[2]), Number(words[3])];
      if (words.length < 4 || !at.every(Number.isFinite)) return number;
      found.push(...at);
      inLoop++;
    } else if (word === 'endfacet') {
      if (inLoop !== 3) return number;
      inLoop = 0;
    }
  }
  return inLoop === 0 ? found.values : number;
}
