import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import type { Mesh } from '../mesh/mesh';
import { Growing } from './text';

type Kind = 'int8' | 'uint8' | 'int16' | 'uint16' | 'int32' | 'uint32' | 'float32' | 'float64';
type Property = { name: string; kind: Kind; counted: Kind | null };
type Element = { name: string; count: number; properties: Property[] };
type Header = { format: 'ascii' | 'little' | 'big'; elements: Element[]; begins: number };
/** Takes the next figure of a kind; NaN when there is none left. */
type Next = (kind: Kind) => number;

const KINDS: Record<string, Kind> = {
  char: 'int8',
  uchar: 'uint8',
  short: 'int16',
  ushort: 'uint16',
  int: 'int32',
  uint: 'uint32',
  float: 'float32',
  double: 'float64',
  int8: 'int8',
  uint8: 'uint8',
  int16: 'int16',
  uint16: 'uint16',
  int32: 'int32',
  uint32: 'uint32',
  float32: 'float32',
  float64: 'float64',
};
const WIDE: Record<Kind, number> = {
  int8: 1,
  uint8: 1,
  int16: 2,
  uint16: 2,
  int32: 4,
  uint32: 4,
  float32: 4,
  float64: 8,
};
/** A face of more corners is a broken file. */
const MAX_CORNERS = 10_000;

/**
 * The vertices and faces of a PLY file (Turk 1994), ASCII or binary; every other element and
 * property is stepped over.
 */
export function readPly(bytes: Uint8Array): Result<{ mesh: Mesh }> {
  const header = headerOf(bytes);
  if (typeof header === 'number') return broken(header);
  const next =
    header.format === 'ascii' ? asciiFigures(bytes, header.begins) : binaryFigures(bytes, header);
  const vertices = new Growing();
  const triangles = new Growing();
  let row = 0;
  for (const { name, count, properties } of header.elements)
    for (let i = 0; i < count; i++) {
      row++;
      const at = [NaN, NaN, NaN];
      for (const { name: property, kind, counted } of properties) {
        if (!counted) {
          const value = next(kind);
          if (Number.isNaN(value)) return broken(row);
          const axis = ['x', 'y', 'z'].indexOf(property);
          if (axis >= 0) at[axis] = value;
          continue;
        }
        const long = next(counted);
        if (!(long >= 0 && long <= MAX_CORNERS)) return broken(row);
        const list = Array.from({ length: long }, () => next(kind));
        if (list.some(Number.isNaN)) return broken(row);
        if (name !== 'face' || !/^vertex_(index|indices)$/.test(property)) continue;
        for (let k = 2; k < long; k++) triangles.push(list[0]!, list[k - 1]!, list[k]!);
      }
      if (name !== 'vertex') continue;
      if (!at.every(Number.isFinite)) return broken(row);
      vertices.push(...at);
    }
  const corners = triangles.values;
  const known = vertices.length / 3;
  if (corners.some((v) => !(v >= 0 && v < known))) return broken(row);
  return { ok: true, mesh: { vertices: vertices.values, triangles: Uint32Array.from(corners) } };
}

const broken = (line: number) =>
  failure({ code: 'mesh-file-broken', about: [], numbers: { line } });

/** The header, or the line of it that cannot be read. */
function headerOf(bytes: Uint8Array): Header | number {
  const text = new TextDecoder('latin1').decode(bytes.subarray(0, 1 << 16));
  const end = /(^|\n)end_header\r?\n/.exec(text);
  if (!end) return 1;
  const elements: Element[] = [];
  let format: Header['format'] | null = null;
  const lines = text.slice(0, end.index).split(/\r?\n/);
  for (const [i, line] of lines.entries()) {
    const words = line.trim().split(/\s+/);
    if (words[0] === 'format') {
      format =
        ({ ascii: 'ascii', binary_little_endian: 'little', binary_big_endian: 'big' } as const)[
          words[1]!
        ] ?? null;
      if (!format) return i + 1;
    } else if (words[0] === 'element') {
      const count = Number(words[2]);
      if (!Number.isInteger(count) || count < 0) return i + 1;
      elements.push({ name: words[1]!, count, properties: [] });
    } else if (words[0] === 'property') {
      const listed = words[1] === 'list';
      const counted = listed ? KINDS[words[2]!] : null;
      const kind = KINDS[words[listed ? 3 : 1]!];
      const element = elements[elements.length - 1];
      if (!kind || counted === undefined || !element) return i + 1;
      element.properties.push({ name: words[listed ? 4 : 2]!, kind, counted });
    }
  }
  return format ? { format, elements, begins: end.index + end[0].length } : 1;
}

function binaryFigures(bytes: Uint8Array, { format, begins }: Header): Next {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const little = format === 'little';
  let at = begins;
  const read: Record<Kind, (from: number) => number> = {
    int8: (from) => view.getInt8(from),
    uint8: (from) => view.getUint8(from),
    int16: (from) => view.getInt16(from, little),
    uint16: (from) => view.getUint16(from, little),
    int32: (from) => view.getInt32(from, little),
    uint32: (from) => view.getUint32(from, little),
    float32: (from) => view.getFloat32(from, little),
    float64: (from) => view.getFloat64(from, little),
  };
  return (kind) => {
    if (at + WIDE[kind] > bytes.length) return NaN;
    at += WIDE[kind];
    return read[kind](at - WIDE[kind]);
  };
}

function asciiFigures(bytes: Uint8Array, begins: number): Next {
  let at = begins;
  return () => {
    while (at < bytes.length && bytes[at]! <= 32) at++;
    const from = at;
    while (at < bytes.length && bytes[at]! > 32) at++;
    return from === at ? NaN : Number(String.fromCharCode(...bytes.subarray(from, at)));
  };
}
