import { z } from 'zod';
import { CrownSchema } from './crown';
import { FLANGE_WAYS, CONVENTIONS } from './kinds';
import { text } from './text';

/**
 * The pattern document: everything that is known of a piece's geometry, in millimetres, as it was
 * measured on the card.
 *
 * x runs right, y runs up, the outline runs counter-clockwise, seen from the face. Whatever can be
 * reckoned from it (the blank above all) is not in it. Ids are short strings given by whoever makes
 * the thing, never by the core.
 */
const id = text(24).min(1);
const mm = z.number().finite().min(-100_000).max(100_000);
const size = z.number().finite().min(0).max(100_000);

export const CornerSchema = z.object({ id, x: mm, y: mm });

const ShapeSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('line') }),
  /** bulge = tan(sweep/4), positive counter-clockwise. */
  z.object({ kind: z.literal('arc'), bulge: z.number().finite().min(-50).max(50) }),
]);

export const SideSchema = z.object({ id, from: id, to: id, shape: ShapeSchema });

/**
 * How an edge is joined and what metal that adds beyond the card's line, in mm measured square to
 * the edge. `trimMm` is left on to be trimmed at fitting; `widthMm` is the finished lap, return or
 * flange.
 */
export const JointSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('free'), trimMm: size }),
  z.object({ kind: z.literal('butt'), trimMm: size }),
  z.object({ kind: z.literal('backed-butt'), trimMm: size }),
  z.object({ kind: z.literal('lap'), widthMm: size }),
  /** The step goes down by `depthMm`, the thickness of the sheet it laps. */
  z.object({ kind: z.literal('joggle'), widthMm: size, depthMm: size }),
  /** Folded flat back on itself over a gap of `gapMm` (0: closed). */
  z.object({ kind: z.literal('hem'), widthMm: size, gapMm: size }),
  /** A flange for plug welds, in the plane of the piece (0°) or turned. */
  z.object({ kind: z.literal('plug-flange'), widthMm: size, turnDeg: z.number().min(0).max(120) }),
]);
export type Joint = z.infer<typeof JointSchema>;

/**
 * How what is turned over along an edge ends in the flat: square to the edge, mitred by degrees back
 * from square, or run out to nothing over a length along the edge.
 */
export const FlangeEndSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('square') }),
  z.strictObject({ kind: z.literal('mitred'), deg: z.number().min(0.1).max(85) }),
  z.strictObject({ kind: z.literal('run-out'), overMm: size }),
]);
export type FlangeEnd = z.infer<typeof FlangeEndSchema>;

/**
 * What is turned over along an edge, which may be curved. `card` says where the card ends: at the
 * line the flange is turned about (it stands beyond), or at its free edge (that line lies the width
 * farther in). Widths are finished ones, over the outside of the bend: at the start of the edge,
 * and at its end where that is another (null: the same all along); `between`, at rising shares of
 * the length of the edge, where it does not get wider evenly. `landMm` is how wide the other leg of
 * a straight angle is that is pulled round; it lies on the panel. An end that is left out is
 * square, or as a neighbour that is turned up beside it asks.
 */
export const FlangeSchema = z.strictObject({
  card: z.enum(['fold', 'free']),
  widthMm: size,
  endWidthMm: size.nullable(),
  between: z
    .array(z.tuple([z.number().gt(0).lt(1), size]))
    .max(100)
    .refine(
      (places) => places.every(([share], i) => i === 0 || share > places[i - 1]![0]),
      'its places do not follow each other',
    )
    .optional(),
  turnDeg: z.number().min(0.1).max(180),
  toward: z.enum(['face', 'back']),
  radiusMm: size.nullable(),
  how: z.enum(FLANGE_WAYS),
  landMm: size,
  ends: z
    .strictObject({ start: FlangeEndSchema.optional(), end: FlangeEndSchema.optional() })
    .optional(),
});
export type Flange = z.infer<typeof FlangeSchema>;

export const EdgeSchema = z.object({
  id,
  letter: text(3).min(1),
  /** Ids of the neighbouring sides it runs over, in outline order. */
  sides: z.array(id).min(1).max(4000),
  joint: JointSchema,
  flange: FlangeSchema.optional(),
  /**
   * Edges that were made one with this one: what was read and welded there is told under this one.
   * `span` is where along this one each lies, mm from its start; null where that is not known.
   */
  was: z
    .array(
      z.object({
        id,
        letter: text(3).min(1),
        span: z.object({ fromMm: mm, lengthMm: size }).nullable(),
      }),
    )
    .max(1000)
    .optional(),
});

/**
 * A place on the outline as it was meant: a share of a side, or a distance from its start or its
 * end, mm.
 */
export const PlaceSchema = z.union([
  z.strictObject({ side: id, share: z.number().min(0).max(1) }),
  z.strictObject({ side: id, startMm: size }),
  z.strictObject({ side: id, endMm: size }),
]);
export type Place = z.infer<typeof PlaceSchema>;

/**
 * Where a fold runs, as it was meant: straight between two places, or along a straight side, `inMm`
 * in from it.
 */
export const FoldPathSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('between'), from: PlaceSchema, to: PlaceSchema }),
  z.object({ kind: z.literal('along'), side: id, inMm: mm }),
]);
export type FoldPath = z.infer<typeof FoldPathSchema>;

export const FoldSchema = z.object({
  id,
  path: FoldPathSchema,
  angleDeg: z.number().min(0.1).max(180),
  toward: z.enum(['face', 'back']),
  /** Inside radius, or null to take the usual one of the metal. */
  radiusMm: size.nullable(),
  convention: z.enum(CONVENTIONS),
});

/**
 * A hole that is not round: a slot with round ends, `lengthMm` over all; a square. Turned from the
 * horizontal.
 */
export const HoleFormSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('slot'), longMm: size, turnDeg: z.number().min(-180).max(180) }),
  z.strictObject({ kind: z.literal('square'), turnDeg: z.number().min(-180).max(180) }),
]);
export type HoleForm = z.infer<typeof HoleFormSchema>;

/**
 * The rim of a round hole turned up to make it stiff: `heightMm` over all, the sheet included;
 * inside radius, or null for the usual one of the metal. The hole's diameter is then the finished
 * one, inside the rim.
 */
const FlareSchema = z.strictObject({
  heightMm: size,
  radiusMm: size.nullable(),
  toward: z.enum(['face', 'back']),
  made: z.enum(['drilled', 'punched']),
});

/**
 * `diameterMm`: how wide it is, of a slot across, of a square along a side. Without a form it is
 * round.
 */
export const HoleSchema = z.object({
  id,
  x: mm,
  y: mm,
  diameterMm: size,
  form: HoleFormSchema.optional(),
  flare: FlareSchema.optional(),
});

/** What a bead looks like cut across, along the middle of the sheet, mm. */
const BeadSectionSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('arc'), widthMm: size, heightMm: size }),
  z.strictObject({ kind: z.literal('flat-topped'), widthMm: size, topMm: size, heightMm: size }),
  z.strictObject({ kind: z.literal('v'), widthMm: size, heightMm: size }),
  /**
   * Beyond the step the sheet lies `depthMm` higher; inside radius of its bends, null for the usual
   * one of the metal.
   */
  z.strictObject({ kind: z.literal('step'), depthMm: size, radiusMm: size.nullable() }),
]);

/**
 * Where the middle of a bead runs: parallel to an edge, `inMm` in from it, held off the ends of
 * that edge by a distance each (0: it runs right out); or straight or in an arc between two places
 * of the card.
 */
export const BeadPathSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('along'), edge: id, inMm: size, startMm: size, endMm: size }),
  z.strictObject({
    kind: z.literal('between'),
    from: z.tuple([mm, mm]),
    to: z.tuple([mm, mm]),
    bulge: z.number().finite().min(-50).max(50),
  }),
]);
export type BeadPath = z.infer<typeof BeadPathSchema>;

/**
 * `drawsIn`: what share of its take-up draws the edges in, null for the shop's or the usual one.
 * `acrossRadiusMm`: radius that the finished panel has along the bead, null where it is flat;
 * `acrossOn`: whether the bead stands on the outside of that curve or on its inside, null while
 * that is not said. `atFolds`: what is done where a fold crosses it. `meets`: the bead of another
 * piece that it has to carry on, by id.
 */
export const BeadSchema = z.strictObject({
  id,
  path: BeadPathSchema,
  section: BeadSectionSchema,
  toward: z.enum(['face', 'back']),
  drawsIn: z.number().min(0).max(1).nullable(),
  acrossRadiusMm: size.nullable(),
  acrossOn: z.enum(['outside', 'inside']).nullable(),
  atFolds: z.enum(['packed', 'stopped', 'parted']).nullable(),
  meets: z.strictObject({ piece: text(40).min(1), bead: id }).nullable(),
});
export type Bead = z.infer<typeof BeadSchema>;

/**
 * A line to scribe on the metal, straight between two places of the card: what it is for stands in
 * its name.
 */
export const MarkSchema = z.strictObject({
  id,
  name: text(60),
  from: z.tuple([mm, mm]),
  to: z.tuple([mm, mm]),
});
export type CardMark = z.infer<typeof MarkSchema>;

/**
 * What parts of a card are meant to be, kept true after every edit: straight sides and folds by
 * their ids (parallel, square, on one line, of one length, of a given length, a given width apart),
 * corners on one arc, holes in line at equal pitch, on a circle, at the corners of a rectangle or
 * of one size; places (corners and holes) in line, level, or in pairs mirrored about one line.
 */
export const RuleSchema = z.discriminatedUnion('kind', [
  z.strictObject({ id, kind: z.literal('parallel'), sides: z.array(id).min(2).max(100) }),
  z.strictObject({ id, kind: z.literal('square'), sides: z.tuple([id, id]) }),
  z.strictObject({ id, kind: z.literal('straight'), sides: z.array(id).min(2).max(100) }),
  z.strictObject({ id, kind: z.literal('equal-length'), sides: z.array(id).min(2).max(100) }),
  z.strictObject({ id, kind: z.literal('length'), sides: z.tuple([id]), mm: size }),
  z.strictObject({ id, kind: z.literal('width'), sides: z.tuple([id, id]), mm: size }),
  z.strictObject({ id, kind: z.literal('arc'), corners: z.array(id).min(3).max(100) }),
  z.strictObject({ id, kind: z.literal('pitch'), holes: z.array(id).min(3).max(200) }),
  z.strictObject({ id, kind: z.literal('in-line'), places: z.array(id).min(3).max(200) }),
  z.strictObject({ id, kind: z.literal('level'), places: z.array(id).min(2).max(200) }),
  z.strictObject({ id, kind: z.literal('symmetric'), places: z.array(id).min(4).max(200) }),
  z.strictObject({ id, kind: z.literal('circle'), holes: z.array(id).min(3).max(200) }),
  z.strictObject({ id, kind: z.literal('rectangle'), holes: z.tuple([id, id, id, id]) }),
  z.strictObject({ id, kind: z.literal('same-size'), holes: z.array(id).min(2).max(200) }),
]);
export type CardRule = z.infer<typeof RuleSchema>;

/** Two sides that look parallel or square and are not meant to be: they taper, they lean. */
const DismissedRuleSchema = z.strictObject({
  kind: z.enum(['parallel', 'square']),
  sides: z.tuple([id, id]),
});

/**
 * How the walls of two folds that meet at a corner are joined: inner corners touching (the V outside
 * closed by weld), mitred edge to edge, one overlapping the other (`over`, the id of its fold), or as
 * the card has them. `gapMm` is left open for the weld.
 */
export const FoldMeetingSchema = z.strictObject({
  folds: z.tuple([id, id]),
  kind: z.enum(['touch', 'mitred', 'overlap', 'as-drawn']),
  over: id.nullable(),
  gapMm: z.number().finite().min(0).max(100),
});
export type FoldMeeting = z.infer<typeof FoldMeetingSchema>;

/**
 * A tuck that was folded into the paper at the outline (`widthMm` laps over itself there), or a
 * slit that stands open by `widthMm`; it runs out `depthMm` in.
 */
export const TuckSchema = z.object({
  id,
  kind: z.enum(['tuck', 'slit']),
  at: PlaceSchema,
  widthMm: size,
  depthMm: size,
});
export type CardTuck = z.infer<typeof TuckSchema>;

/**
 * How the outline was measured where it was not typed, and how sure a place on it is, one standard
 * deviation, mm.
 */
const MeasuredSchema = z.strictObject({
  by: z.enum(['photograph', 'scan', 'picture', 'tape']),
  uMm: size,
});

/**
 * A contour of the real surface: a straight edge laid on or held off it, places along the edge and
 * the drop from the edge to the metal at each, mm; kept as read, drawn as lines and arcs within the
 * tolerance.
 */
export const ProfileSchema = z.strictObject({
  id,
  name: text(40).min(1),
  ordinates: z
    .array(z.tuple([mm, mm]))
    .min(2)
    .max(400),
  toleranceMm: z.number().finite().min(0.01).max(50),
});
export type CardProfile = z.infer<typeof ProfileSchema>;

/**
 * The picture a card was traced from, seen square on: its name among the pictures of the piece, and
 * where it lies behind the card, mm.
 */
const UnderlaySchema = z.strictObject({
  picture: text(60).min(1),
  leftMm: mm,
  topMm: mm,
  wideMm: size,
  highMm: size,
});

export const PATTERN_VERSION = 13;

/** All of a card but what it has of another. */
const CardSchema = z.object({
  version: z.literal(PATTERN_VERSION),
  corners: z.array(CornerSchema).max(4000),
  sides: z.array(SideSchema).max(4000),
  edges: z.array(EdgeSchema).max(1000),
  folds: z.array(FoldSchema).max(400),
  holes: z.array(HoleSchema).max(2000),
  /** A point in the face of the card that stays put, or null for the largest. */
  base: z.tuple([mm, mm]).nullable(),
  /**
   * Whether the card has been turned over since it was first drawn: places along an edge that were
   * written down before run from its other end.
   */
  turned: z.boolean(),
  rules: z.array(RuleSchema).max(400),
  dismissedRules: z.array(DismissedRuleSchema).max(400),
  tucks: z.array(TuckSchema).max(400),
  meetings: z.array(FoldMeetingSchema).max(400).optional(),
  marks: z.array(MarkSchema).max(1000),
  beads: z.array(BeadSchema).max(200),
  measured: MeasuredSchema.nullable(),
  profiles: z.array(ProfileSchema).max(100),
  underlay: UnderlaySchema.nullable(),
  crown: CrownSchema.nullable(),
  /**
   * What the outline was made from where it is no shape to cut by: only the lengths of its edges are
   * known. Left out on a card that was measured or drawn.
   */
  source: z.literal('lengths').optional(),
});

/** What is taken off along an edge, by its letter or id: `mm` inward; below 0 it is added. */
export const EdgeOffsetSchema = z.strictObject({ edge: id, mm });
export type EdgeOffset = z.infer<typeof EdgeOffsetSchema>;

/**
 * What a card has of another piece's, which it was made from: that card as it was last taken over,
 * lying as it does there (`card`) and, where something is taken off along edges, as it then lies
 * here (`here`). This one is that one turned over about the line x = `aboutMm` (where the two are
 * turned unlike each other), less what is taken off along edges; whatever else differs is its own.
 */
export const LinkSchema = z.strictObject({
  card: CardSchema,
  here: CardSchema.nullable(),
  aboutMm: mm,
  edgeOffsets: z.array(EdgeOffsetSchema).max(100),
});
export type Link = z.infer<typeof LinkSchema>;

export const PatternSchema = CardSchema.extend({ linkedFrom: LinkSchema.nullable() });

export type Corner = z.infer<typeof CornerSchema>;
export type Side = z.infer<typeof SideSchema>;
export type Edge = z.infer<typeof EdgeSchema>;
export type Fold = z.infer<typeof FoldSchema>;
export type Hole = z.infer<typeof HoleSchema>;
export type PatternDoc = z.infer<typeof PatternSchema>;
