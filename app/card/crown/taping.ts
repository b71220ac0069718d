import type { Problem } from '#core/measure/result';
import type { Path } from '#core/measure/path';
import type { PaperWedge } from '#core/surface/mesh/paperMesh';
import type { Taped } from '#core/surface/mesh/packed';

export type TapeAsked = { outline: Path; wedges: PaperWedge[] };
export type TapeAnswer =
  { what: 'refused'; problems: Problem[] } | { what: 'taped'; taped: Taped; stretched: number };

/** Target number of triangles of a meshed paper. */
export const PAPER = 2000;
