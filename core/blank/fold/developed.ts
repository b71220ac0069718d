import type { Corner } from './corners';
import type { StripPart } from '../edgeStrip';
import type { CardConvention } from '../../card/kinds';
import type { Fold } from '../../card/pattern';
import type { Vec } from '../../measure/vector';
import type { Blank } from '../blank';
import type { Allowance, Bend } from './allowance';
import type { FoldPiece } from './foldedOutline';
import type { Piece } from './trim';

/** A fold on the blank. */
export type BlankFold = {
  id: string;
  bend: Bend;
  toward: Fold['toward'];
  convention: CardConvention;
  allowance: Allowance;
  /** From the fold mark on the card to the tangent, each side, mm. */
  setbackMm: number;
  /** How far everything beyond the fold moves, away from the base, mm: allowance − 2·setback. */
  shiftMm: number;
  /** Indices of the faces it joins. */
  parent: number;
  child: number;
  /** Unit vector across the fold, from the parent to the child. */
  across: Vec;
  /**
   * On the blank, each from the fold's `from` end to its `to` end: nearer the base, then farther.
   */
  tangents: [[Vec, Vec], [Vec, Vec]];
  centre: [Vec, Vec];
  /** Where the edge of the clamping bar goes. */
  brake: [Vec, Vec];
};

/** Where a face of the card has gone to on the blank. Straight folds only shift it. */
export type Placement = { shift: Vec };

export type BlankFace = {
  /** What stays flat, counter-clockwise, on the blank. */
  pieces: Piece[];
  placement: Placement;
  /** Index of the fold by which it hangs on its parent; -1 for the base. */
  fold: number;
};

/**
 * A blank made by straight folds, with what is needed to fold it again in space and to show its
 * working.
 */
export type Development = Blank & {
  outline: FoldPiece[];
  /** The outline without what joints add and without reliefs. */
  net: FoldPiece[];
  faces: BlankFace[];
  /** Faces from the base outward, each after its parent. */
  order: number[];
  folds: BlankFold[];
  /** What is there of strips that are turned over, piece by piece of the net. */
  strips: StripPart<FoldPiece>[];
  /** Where walls of two folds meet, and how. */
  corners: Corner[];
};
