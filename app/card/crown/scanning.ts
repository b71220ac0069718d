import type { Cleaned } from '#core/surface/mesh/clean';
import type { Problem } from '#core/measure/result';
import type { Vec3 } from '#core/surface/mesh/mesh';
import type { Scan } from '#core/surface/mesh/packed';

/** What a file’s figures are counted in, mm. */
export const UNITS = { mm: 1, cm: 10, m: 1000, in: 25.4 } as const;
export type ScanUnit = keyof typeof UNITS;

export type ScanAsked =
  { what: 'read'; file: File; unit: ScanUnit } | { what: 'cut'; outline: Vec3[] };

/** What was done to a file before it could be used. */
export type ScanTold = Omit<Cleaned, 'mesh'> & { triangles: number };

export type ScanAnswer =
  | { what: 'progress'; doing: 'reading' | 'cleaning' | 'thinning' }
  | { what: 'refused'; problems: Problem[]; told: ScanTold | null }
  | { what: 'ready'; scan: Scan; told: ScanTold; kept: number; sizeMm: number };

/** Target number of triangles of a thinned panel. */
export const KEPT = 4000;
