/**
 * What is chosen from in records, apart from their schema: pages need these and not the validation.
 */

export const HELD = ['hand', 'magnets', 'clamps', 'sheet-pins', 'screws', 'tacks'] as const;
export { PIECE_KINDS } from '../cutdown/kinds';
export type { PieceKind } from '../cutdown/kinds';
export { SIDES_OF_VEHICLE } from '../survey/kinds';
export const WELD_WORK = ['tacks', 'plugs', 'seam', 'stitch'] as const;
export const INSPECTIONS = ['lamp', 'tap', 'penetration', 'flush', 'thickness'] as const;

/** The kinds of records of a piece (`records.ts`). */
export const RECORD_KINDS = ['fit', 'weld', 'inspection'] as const;
export type RecordKind = (typeof RECORD_KINDS)[number];

/**
 * What a picture can hang on: a job, something surveyed of it, a piece, an edge of its card, or one
 * of its records.
 */
export const PICTURE_OWNERS = ['job', 'survey', 'piece', 'edge', ...RECORD_KINDS] as const;
export type PictureOwner = (typeof PICTURE_OWNERS)[number];

/** As many stations as an edge is read at. */
export const MAX_STATIONS = 200;
