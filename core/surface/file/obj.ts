import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import type { Mesh } from '../mesh/mesh';
import { Growing, linesOf } from './text';

/**
 * The vertices and faces of a Wavefront OBJ file. Faces count vertices from 1, or from the last one
 * back (−1).
 */
export function readObj(bytes: Uint8Array): Result<{ mesh: Mesh }> {
  const vertices = new Growing();
  const triangles = new Growing();
  let number = 0;
  let carried = '';
  for (const raw of linesOf(bytes)) {
    number++;
    // A line that goes on after a backslash.
    const text = carried + raw;
    if (text.endsWith('\\')) {
      carried = `${text.slice(0, -1)} `;
      continue;
    }
    carried = '';
    const first = text.charCodeAt(0) <= 32 ? text.trimStart() : text;
    const second = first.charCodeAt(1);
    if (second !== 32 && second !== 9) continue;
    const broken = failure({ code: 'mesh-file-broken', about: [], numbers: { line: number } });
    if (first.startsWith('v')) {
      const parts = first.split(/\s+/, 4);
      const [x, y, z] = [Number(parts[1]), Number(parts[2]), Number(parts[3])];
      if (parts.length < 4 || !Number.isFinite(x + y + z)) return broken;
      vertices.push(x, y, z);
    } else if (first.startsWith('f')) {
      const corners = first
        .trim()
        .split(/\s+/)
        .slice(1)
        .map((part) => cornerOf(part, vertices.length / 3));
      if (corners.length < 3 || corners.some((i) => i === null)) return broken;
      for (let k = 2; k < corners.length; k++)
        triangles.push(corners[0]!, corners[k - 1]!, corners[k]!);
    }
  }
  const found = Uint32Array.from(triangles.values);
  const count = vertices.length / 3;
  if (found.some((i) => i >= count))
    return failure({ code: 'mesh-file-broken', about: [], numbers: { line: number } });
  return { ok: true, mesh: { vertices: vertices.values, triangles: found } };
}

/** The vertex a face names: `7`, `7/1`, `7//3`, `-1`; null where it is none. */
function cornerOf(part: string, known: number): number | null {
  const slash = part.indexOf('/');
  const named = Number(slash < 0 ? part : part.slice(0, slash));
  if (!Number.isInteger(named) || named === 0) return null;
  const index = named > 0 ? named - 1 : known + named;
  return index >= 0 ? index : null;
}

/** A mesh as OBJ text, figures to a ten-thousandth of a millimetre. */
export function writeObj({ vertices, triangles }: Mesh): string {
  const figure = (x: number): string => String(Math.round(x * 1e4) / 1e4);
  const lines: string[] = [];
  for (let i = 0; i < vertices.length; i += 3)
    lines.push(`v ${figure(vertices[i]!)} ${figure(vertices[i + 1]!)} ${figure(vertices[i + 2]!)}`);
  for (let i = 0; i < triangles.length; i += 3)
    lines.push(`f ${triangles[i]! + 1} ${triangles[i + 1]! + 1} ${triangles[i + 2]! + 1}`);
  return `${lines.join('\n')}\n`;
}
