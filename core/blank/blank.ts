import type { FlangeMade } from '../card/kinds';
import type { HoleForm } from '../card/pattern';
import type { Path } from '../measure/path';
import type { Ramp } from '../measure/ramp';
import { even } from '../measure/ramp';
import type { Problem } from '../measure/result';
import type { Segment } from '../measure/segment';
import type { Vec } from '../measure/vector';
import type { Verdict } from '../metal/rim';
import type { Relief } from './relief';
import type { EndCut, StripEnd, StripTurn } from './stripEnds';

/**
 * A piece of a blank's outline: part of a side, the end of a bend, a slit or relief cut beside one,
 * or a link where a joint's strip begins or ends. `edge` is the card edge it belongs to, if any;
 * `fold` the fold concerned, if any.
 */
export type BlankPiece = {
  kind: 'side' | 'bend-end' | 'slit' | 'relief' | 'link';
  segment: Segment;
  edge: string | null;
  fold: string | null;
};

/**
 * What a line on a blank is for: `tangent` where a bend begins or ends, `centre` its middle,
 * `brake` where the edge of the clamping bar goes, `trim` the card's own line under a strip that is
 * left on, `step` of a joggle, `turn` the bend of what is turned over at an edge, `mark` a line
 * that was marked on the card, `bead` the middle of a bead and `crease` where it begins and ends.
 */
export type LineRole =
  'tangent' | 'centre' | 'brake' | 'trim' | 'step' | 'turn' | 'mark' | 'bead' | 'crease';

/**
 * A line to scribe, with what it belongs to by id; `name` says what one that was marked on the card
 * is for.
 */
export type BlankLine = {
  role: LineRole;
  of: { kind: 'fold' | 'edge' | 'mark' | 'bead'; id: string };
  path: Segment[];
  name?: string;
};

/**
 * A flange along an edge, as the blank has it. Distances square to the edge, outward from the
 * card's line, mm.
 */
export type BlankFlange = {
  made: FlangeMade;
  toward: 'face' | 'back';
  bend: { thicknessMm: number; radiusMm: number; angleDeg: number };
  allowanceMm: number;
  deductionMm: number;
  /** From the line it is turned about, the outside sharp corner, to the tangent. */
  setbackMm: number;
  /** Id of the formula of its bend. */
  formula: string;
  /** Along the edge: where the line it is turned about lies. */
  fold: Ramp;
  /** How wide it is in the flat beyond that line. */
  flat: Ramp;
  /** How far the blank goes beyond the card's line for it (negative: the card is cut back). */
  adds: Ramp;
};

/** What the joint of an edge adds to the blank, and the flange there is. */
export type JointAllowance = {
  /**
   * Metal added beyond the card's line, square to the edge, mm: at its start; and along it, where
   * it is not the same all along.
   */
  addMm: number;
  adds?: Ramp;
  /** Of that, what the bends of the joint take up beyond its plain width, mm. */
  takeUpMm: number;
  /**
   * Lines to scribe parallel to the edge: distance outward from the card's line (negative: inside
   * it), mm.
   */
  lines: { outMm: number; outs?: Ramp; role: Extract<LineRole, 'turn' | 'step' | 'trim'> }[];
  /** How the strip is turned over, so that its ends must not foul its neighbours; null: it is flat. */
  turn: StripTurn | null;
  /** How somebody wants its ends. */
  ends: { start?: StripEnd | undefined; end?: StripEnd | undefined };
  /** Middle of the overlap, where plugs go: distance outward from the card's line, mm. */
  middleMm: number;
  formula: string;
  flange?: BlankFlange;
};

/** What a joint adds, along its edge. */
export const addsOf = ({ addMm, adds }: Pick<JointAllowance, 'addMm' | 'adds'>): Ramp =>
  adds ?? even(addMm);
/** Where a line of a joint lies, along its edge. */
export const outsOf = ({ outMm, outs }: JointAllowance['lines'][number]): Ramp =>
  outs ?? even(outMm);

/**
 * An edge on the blank: `net` where the card's line comes to, `cut` where the metal ends, both in
 * outline order.
 */
export type BlankEdge = {
  id: string;
  letter: string;
  allowance: JointAllowance;
  /** How what is turned over ends in the flat; null where it goes on, or nothing is turned over. */
  ends: { start: EndCut | null; end: EndCut | null };
  net: Segment[];
  cut: Segment[];
};

/** `flare`: the rim is turned up after; the hole is then the first one, to be made now. */
export type BlankHole = {
  id: string;
  centre: Vec;
  diameterMm: number;
  form?: HoleForm;
  flare?: BlankFlare;
};
export type BlankFlare = {
  insideMm: number;
  heightMm: number;
  radiusMm: number;
  edgeStrain: number;
  /** Whether the rim thins and whether it cracks; thinning is known where the metal is. */
  cracking: Verdict;
  thinning: Verdict | null;
  toward: 'face' | 'back';
};

/**
 * A bead on the blank: its middle in parts (it is cut where it stops at a fold), and the metal that
 * it is made of.
 */
export type BlankBead = {
  id: string;
  runs: Segment[][];
  toward: 'face' | 'back';
  size: BeadSize;
  /**
   * Width of the metal in the flat that becomes the bead, mm: over the surface, and what is drawn
   * in.
   */
  flatMm: number;
  /** The share of the take-up that draws the edges in, and where it comes from. */
  drawsIn: number;
  by: 'bead' | 'shop' | 'usual';
  addsMm: number;
  /** How much the metal of the bead stretches across it, a share. */
  stretch: number;
};

/** Width over the surface, height off it, and length of the metal across it, mm. */
export type BeadSize = { widthMm: number; heightMm: number; developedMm: number; takeUpMm: number };

/** Where a fold is told on the blank: its middle, and which way beyond it moves. */
export type Hinge = {
  fold: string;
  /** Ends of the middle line of the bend. */
  centre: [Vec, Vec];
  /** Unit vector across the fold, from the face that stays nearer to the one that moves. */
  across: Vec;
  angleDeg: number;
  toward: 'face' | 'back';
};

/**
 * The one product of all ways to make a blank: what paper, cutter, nesting, fit, weld and export
 * read, and nothing else. Coordinates of the card's face that stays put; lengths in mm, areas in
 * mm². The outline runs counter-clockwise.
 */
export type Blank = {
  /** To be cut, each piece with what it came from. */
  outline: BlankPiece[];
  /** Edges in the order of the card. */
  edges: BlankEdge[];
  holes: BlankHole[];
  beads: BlankBead[];
  lines: BlankLine[];
  hinges: Hinge[];
  /** Cut out beside bends: they are part of the outline already; here with the place to drill. */
  reliefs: readonly Relief[];
  size: BlankSize;
  /** What wants care, all with severity `care`. */
  warnings: Problem[];
  /** Where a point of the card comes to on the blank. */
  fromCard: (p: Vec) => Vec;
};

export type BlankSize = {
  widthMm: number;
  heightMm: number;
  /** As cut, holes out. */
  areaMm2: number;
  /** Flat faces, bend zones, what the joints add less reliefs, and holes: they sum to the area. */
  parts: { facesMm2: number; zonesMm2: number; jointsMm2: number; holesMm2: number };
  massKg: number;
  /**
   * How far the blank would be out if the card were cut as it is, mm: the largest shift of one face
   * against another, or the most that an edge or a bead adds, whichever is more.
   */
  differenceMm: number;
};

/** The outline of a blank as a path. */
export const outlinePath = (blank: Pick<Blank, 'outline'>): Path =>
  blank.outline.map((p) => p.segment);
