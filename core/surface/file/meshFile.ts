import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import type { Mesh } from '../mesh/mesh';
import { readObj } from './obj';
import { readPly } from './ply';
import { readStl } from './stl';

export type MeshFileKind = 'obj' | 'stl' | 'ply';

/** More triangles than this are not read. */
const MAX_READ = 2_000_000;

/**
 * A mesh out of a file of triangles: OBJ, STL (ASCII or binary) or PLY (ASCII, binary either way
 * round), told by what is in it and by its name only where that is not enough. Figures are as in
 * the file: it says no unit. Faces of more than three corners are parted from their first corner;
 * what is not shape (colours, normals, materials) is left.
 *
 * Problems: `mesh-file-kind`, `mesh-file-broken` (where, by its line, or its triangle in a binary
 * file), `mesh-file-large`, `mesh-empty`.
 */
export function readMeshFile(
  name: string,
  bytes: Uint8Array,
): Result<{ mesh: Mesh; kind: MeshFileKind }> {
  const kind = kindOf(name, bytes);
  if (!kind) return failure({ code: 'mesh-file-kind', about: [name] });
  const read = { obj: readObj, stl: readStl, ply: readPly }[kind](bytes);
  if (!read.ok) return read;
  const triangles = read.mesh.triangles.length / 3;
  if (triangles === 0) return failure({ code: 'mesh-empty', about: [name] });
  if (triangles > MAX_READ)
    return failure({
      code: 'mesh-file-large',
      about: [name],
      numbers: { triangles, most: MAX_READ },
    });
  return { ok: true, mesh: read.mesh, kind };
}

function kindOf(name: string, bytes: Uint8Array): MeshFileKind | null {
  const start = new TextDecoder('latin1').decode(bytes.subarray(0, 512));
  if (/^ply\s/.test(start)) return 'ply';
  if (
    bytes.length >= 84 &&
    bytes.length === 84 + 50 * new DataView(bytes.buffer, bytes.byteOffset).getUint32(80, true)
  )
    return 'stl';
  if (/^\s*solid\b/.test(start) && /facet|endsolid/.test(start)) return 'stl';
  if (/(^|\n)\s*(v|f|vn|vt|o|g|mtllib|usemtl|s)\s/.test(start)) return 'obj';
  const ending = /\.(obj|stl|ply)$/i.exec(name)?.[1]?.toLowerCase() as MeshFileKind | undefined;
  return ending ?? null;
}
