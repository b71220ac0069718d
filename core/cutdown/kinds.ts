/**
 * What is chosen from at the stop Cut down, apart from its schema: pages need these and not the
 * validation.
 */

/**
 * Where a piece comes from: made here from a card; bought; cut from a donor; the old one put back.
 */
export const PIECE_KINDS = ['made', 'bought', 'donor', 'old'] as const;
export type PieceKind = (typeof PIECE_KINDS)[number];

/** What a bought part was laid on before it was used. */
export const LAID_ON = ['template', 'old-panel', 'vehicle', 'nothing'] as const;
export type LaidOn = (typeof LAID_ON)[number];

/** What became of a bought part when it had been looked at. */
export const VERDICTS = ['kept', 'in-part', 'sent-back'] as const;
export type Verdict = (typeof VERDICTS)[number];

export const FAULTS = [
  'too-long',
  'too-short',
  'hole-missing',
  'hole-out-of-place',
  'crease-missing',
  'angle-wrong',
  'curve-wrong',
  'other',
] as const;
export type FaultKind = (typeof FAULTS)[number];

/** What is measured of a fault: a length, an angle, or nothing. */
export const FAULT_MEASURED: Record<FaultKind, 'mm' | 'deg' | null> = {
  'too-long': 'mm',
  'too-short': 'mm',
  'hole-missing': null,
  'hole-out-of-place': 'mm',
  'crease-missing': null,
  'angle-wrong': 'deg',
  'curve-wrong': 'mm',
  other: null,
};

/** Works that bring a piece to size. */
export const WORKS = ['spots', 'flange', 'cut', 'hole-made', 'hole-stopped'] as const;
export type CutDownWorkKind = (typeof WORKS)[number];

/** Which layer was holed where spots were drilled out. */
export const HOLED = ['this', 'other', 'both'] as const;
export type Holed = (typeof HOLED)[number];

/** As many micrometer readings as a piece has. */
export const MAX_MICROMETER = 40;
