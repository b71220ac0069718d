import { checkCard } from '../../card/check';
import type { FaceTree } from '../../card/faces';
import { facesOf } from '../../card/faces';
import { endsOfFold } from '../../card/foldPlace';
import type { CardConvention } from '../../card/kinds';
import { outlineOf } from '../../card/outline';
import type { Fold, PatternDoc } from '../../card/pattern';
import { radians } from '../../measure/angle';
import { mostOfRamp, rampAt, ramped } from '../../measure/ramp';
import type { Problem, Result } from '../../measure/result';
import { failure } from '../../measure/result';
import { besideRun } from '../../measure/run';
import { line, moved } from '../../measure/segment';
import type { Vec } from '../../measure/vector';
import { along, distance, left, mix, scale, sub, unit } from '../../measure/vector';
import type { BlankEdge, BlankHole, BlankLine, JointAllowance } from '../blank';
import { mitreLines } from '../bead/mitre';
import { addsOf, outsOf } from '../blank';
import type { Allowance, Bend } from './allowance';
import { achievedRadius } from './achievedRadius';
import { measuredOutside, bendAllowance } from './allowance';
import { beadOnBlank, plannedBeads, withDrawnIn } from './beads';
import { carrier } from './carry';
import { withCorners } from './corners';
import type { BlankFace, BlankFold, Development } from './developed';
import { edgeAllowance } from './flange';
import { flareOf } from './flares';
import { markOnBlank } from './markLine';
import type { StripAlong } from './foldedOutline';
import { blankOutline, byEdge, stripsAlong } from './foldedOutline';
import type { Practice, SheetMetal } from './practice';
import { shapeWarnings } from './shapeWarnings';
import { sizeOf } from './size';
import type { Piece } from './trim';
import { trimFace } from './trim';
import { warningsOf } from './warnings';

/**
 * From the mark on the card to the tangent of the bend, for each way the card was made there; see
 * docs/formulas.md.
 */
export function setbackFor(made: CardConvention, bend: Bend, allowance: Allowance): number {
  const a = radians(bend.angleDeg);
  switch (made) {
    case 'outside-sharp':
      return allowance.outsideSetbackMm;
    case 'inside-sharp':
      return allowance.insideSetbackMm;
    case 'outside-rolled':
      return (a * (bend.radiusMm + bend.thicknessMm)) / 2;
    case 'inside-rolled':
      return (a * bend.radiusMm) / 2;
  }
}

/**
 * The flat blank of a card with straight folds.
 *
 * The base face stays where it is. Each face is trimmed by the setback of its folds; beyond a fold
 * everything moves by allowance − 2·setback across the fold; between the tangents lies the bend.
 * Then each edge gets what its joint needs and each place where bends meet gets its relief. Pure:
 * the same card, sheet and practice give the same blank, and the order in which folds are listed
 * does not matter.
 *
 * `found` is what `checkCard` says of the card, for callers that have it already.
 *
 * Beads are thought of as undone: the metal that one draws in is laid into the card before it is
 * developed, so that whatever lies beyond it comes right when it is rolled.
 *
 * Problems (stop): those of `checkCard`, of `bendAllowance` and of `trimFace`, each with the fold
 * concerned; of `edgeAllowance`, `plannedBeads` and `flareOf`, each with the edge, bead or hole.
 */
export function develop(
  card: PatternDoc,
  sheet: SheetMetal,
  practice: Practice,
  found: readonly Problem[] = checkCard(card),
): Result<{ development: Development }> {
  const stops = found.filter((p) => p.severity === 'stop');
  if (stops.length > 0) return failure(...stops);
  const planned = plannedBeads(card, sheet);
  const bad = planned.problems.filter((p) => p.severity === 'stop');
  if (bad.length > 0) return failure(...bad);
  // The card as it would be with the metal in it that beads draw in: everything after is of that.
  const { doc, carry } = withDrawnIn(card, planned.beads);

  const flat = laidFlat(doc, sheet, practice);
  if (!flat.ok) return flat;
  const { tree, faces, folds, setbacks } = flat;
  const rim = rimOf(doc, sheet, practice, flat);
  if (!rim.ok) return rim;
  const { edges, net, outline } = rim;
  const fromGrown = carrier(tree, folds, faces);
  const holed = holesOf(doc, sheet, fromGrown);
  if (!holed.ok) return holed;
  const { holes } = holed;
  const beads = planned.beads.map((bead) => {
    const name = `bead ${card.beads.indexOf(bead.bead) + 1}`;
    return beadOnBlank(card, doc, bead, setbacks, carry, fromGrown, name);
  });

  const development: Development = {
    outline,
    net,
    faces,
    order: tree.order,
    folds,
    strips: rim.strips,
    corners: flat.corners,
    edges,
    holes,
    beads: beads.map(({ bead }) => bead),
    lines: [
      ...linesOf(folds, edges),
      ...doc.marks.flatMap((mark) => markOnBlank(doc, mark, setbacks, fromGrown)),
      ...beads.flatMap(({ lines }) => lines),
      ...mitreLines(
        beads.map(({ bead }) => bead),
        card.beads.map(({ id }) => id),
      ),
    ],
    hinges: folds.map(hingeOf),
    reliefs: rim.reliefs,
    size: sizeOf({
      net,
      outline,
      faces,
      holes,
      shifts: flat.shifts,
      sheet,
      drawnMm: Math.max(0, ...planned.beads.map(({ addsMm }) => addsMm)),
      addedMm: mostAdded(edges),
    }),
    warnings: [],
    fromCard: (p) => fromGrown(carry(p)),
  };
  development.warnings = [
    ...found,
    ...planned.problems,
    ...warningsOf(doc, tree, development, sheet, practice, rim.missed),
    ...shapeWarnings(card, planned.beads, development, sheet),
  ];
  return { ok: true, development };
}

/** The faces of a card trimmed and moved apart by their bends, and the folds between them. */
type Flat = {
  tree: FaceTree;
  bends: BendPlan[];
  setbacks: number[];
  faces: BlankFace[];
  folds: BlankFold[];
  corners: Development['corners'];
  /** How far each face has moved from where it lies on the card, mm. */
  shifts: Vec[];
};

/** Lays the faces of a card flat: trimmed by setbacks, cut where walls meet, moved by their bends. */
function laidFlat(doc: PatternDoc, sheet: SheetMetal, practice: Practice): Result<Flat> {
  const tree = facesOf(doc);
  if (!tree.ok) return tree;
  const bends = bendsOf(doc, sheet);
  if (!bends.ok) return bends;
  const setbacks = bends.list.map((b) => b.setbackMm);
  const trimmed = trimmedFaces(doc, tree, setbacks);
  if (!trimmed.ok) return trimmed;
  const { pieces, corners } = withCorners(doc, tree, trimmed.pieces, bends.list);
  const across = doc.folds.map((_, i) => acrossFold(tree, i));
  const byFold = bends.list.map((b) => b.shiftMm);
  const shifts = shiftsOf(tree, byFold, across);
  const faces = tree.faces.map((_, f): BlankFace => ({
    pieces: pieces[f]!.map((p) => ({ ...p, segment: moved(p.segment, shifts[f]!) })),
    placement: { shift: shifts[f]! },
    fold: tree.entry[f]!,
  }));
  const folds = doc.folds.map((fold, i) =>
    blankFold(doc, fold, i, bends.list[i]!, tree, faces, across[i]!, practice),
  );
  return { ok: true, tree, bends: bends.list, setbacks, faces, folds, corners, shifts };
}

/** What is left of each face between the tangents of its folds. */
function trimmedFaces(
  doc: PatternDoc,
  tree: FaceTree,
  setbacks: readonly number[],
): Result<{ pieces: Piece[][] }> {
  const foldIds = doc.folds.map((f) => f.id);
  const pieces: Piece[][] = [];
  for (const face of tree.faces) {
    const cut = trimFace(face, setbacks, foldIds);
    if (!cut.ok) return cut;
    pieces.push(cut.pieces);
  }
  return { ok: true, pieces };
}

/** The rim of a blank: what is cut, with joints and reliefs, and what of it belongs to which edge. */
type Rim = Pick<Development, 'edges' | 'net' | 'outline' | 'strips' | 'reliefs'> & {
  /** Folds at whose ends no relief could be cut. */
  missed: string[];
};

/** Puts along each edge what its joint needs, and a relief where bends meet. */
function rimOf(
  doc: PatternDoc,
  sheet: SheetMetal,
  practice: Practice,
  { tree, bends, faces }: Flat,
): Result<Rim> {
  const allowances = allowancesOf(doc, sheet);
  if (!allowances.ok) return allowances;
  const edgeOfSide = new Map(
    doc.edges.flatMap((edge) => edge.sides.map((side) => [side, edge.id] as const)),
  );
  const { sideIds } = outlineOf(doc);
  const { net, outline, parts, reliefs, missed } = blankOutline({
    faces,
    base: tree.base,
    children: tree.sidesOfFold.map((s) => s.child),
    foldIds: doc.folds.map((f) => f.id),
    bendMm: bends.map((b) => b.allowance.allowanceMm),
    edgeOf: (side) => edgeOfSide.get(sideIds[side]!) ?? null,
    allowances: allowances.byEdge,
    relief: practice.relief,
    reliefMm: sheet.thicknessMm,
  });
  const netOf = byEdge(net);
  const cutOf = byEdge(outline);
  const there = stripsAlong(net, parts);
  const edges = doc.edges.map((edge): BlankEdge => ({
    id: edge.id,
    letter: edge.letter,
    ...withItsEnds(allowances.byEdge.get(edge.id)!, there.get(edge.id)),
    net: netOf.get(edge.id) ?? [],
    cut: cutOf.get(edge.id) ?? [],
  }));
  return { ok: true, edges, net, outline, strips: parts, reliefs, missed };
}

/** The holes where they lie on the blank, each as large as it is cut. */
function holesOf(
  doc: PatternDoc,
  sheet: SheetMetal,
  fromGrown: (p: Vec) => Vec,
): Result<{ holes: BlankHole[] }> {
  const holes: BlankHole[] = [];
  for (const hole of doc.holes) {
    const flared = flareOf(hole, sheet);
    if (!flared.ok) return flared;
    const at: Vec = [hole.x, hole.y];
    holes.push({
      id: hole.id,
      centre: fromGrown(at),
      diameterMm: flared.firstHoleMm,
      ...(hole.form && {
        form: { ...hole.form, turnDeg: turnedAt(fromGrown, at, hole.form.turnDeg) },
      }),
      ...(flared.flare && { flare: flared.flare }),
    });
  }
  return { ok: true, holes };
}

const hingeOf = ({
  id,
  centre,
  across,
  bend,
  toward,
}: BlankFold): Development['hinges'][number] => ({
  fold: id,
  centre,
  across,
  angleDeg: bend.angleDeg,
  toward,
});

/** The most that any edge's joint adds to the card or takes from it, mm. */
const mostAdded = (edges: readonly BlankEdge[]): number =>
  Math.max(
    0,
    ...edges.map(({ allowance }) => mostOfRamp(ramped(addsOf(allowance), (mm) => Math.abs(mm)))),
  );

/**
 * What each edge's joint adds, by edge id; refused where a joint can't be made, with the edge
 * concerned.
 */
function allowancesOf(
  doc: PatternDoc,
  sheet: SheetMetal,
): Result<{ byEdge: Map<string, JointAllowance> }> {
  const byEdge = new Map<string, JointAllowance>();
  const problems: Problem[] = [];
  for (const edge of doc.edges) {
    const found = edgeAllowance(doc, edge, sheet);
    if (found.ok) byEdge.set(edge.id, found.allowance);
    else
      problems.push(
        ...found.problems.map((p): Problem => ({ ...p, about: [edge.id], severity: 'stop' })),
      );
  }
  return problems.length > 0 ? failure(...problems) : { ok: true, byEdge };
}

/**
 * What an edge adds as it is there: a flange no wider than its ends leave it, so that whatever is
 * reckoned of it speaks of the metal that is there.
 */
function withItsEnds(
  allowance: JointAllowance,
  there: StripAlong | undefined,
): Pick<BlankEdge, 'allowance' | 'ends'> {
  if (!there) return { allowance, ends: { start: null, end: null } };
  const { outs, ends } = there;
  const { flange } = allowance;
  if (!flange) return { allowance, ends };
  const flat = ramped(outs, (mm, share) =>
    mm > 0 ? Math.max(0, mm - rampAt(flange.fold, share)) : 0,
  );
  return { allowance: { ...allowance, flange: { ...flange, flat } }, ends };
}

/**
 * Every line to scribe: of each fold its tangents, nearer the base first, its middle and the
 * brake's; of each edge its joint's.
 */
const linesOf = (folds: readonly BlankFold[], edges: readonly BlankEdge[]): BlankLine[] => [
  ...folds.flatMap((fold): BlankLine[] => {
    const of = { kind: 'fold' as const, id: fold.id };
    const across = (role: BlankLine['role'], [a, b]: [Vec, Vec]): BlankLine => ({
      role,
      of,
      path: [line(a, b)],
    });
    return [
      across('tangent', fold.tangents[0]),
      across('tangent', fold.tangents[1]),
      across('centre', fold.centre),
      across('brake', fold.brake),
    ];
  }),
  ...edges.flatMap((edge) =>
    edge.allowance.lines.map((one): BlankLine => ({
      role: one.role,
      of: { kind: 'edge', id: edge.id },
      path: besideRun(edge.net, outsOf(one)),
    })),
  ),
];

type BendPlan = { bend: Bend; allowance: Allowance; setbackMm: number; shiftMm: number };

function bendsOf(doc: PatternDoc, sheet: SheetMetal): Result<{ list: BendPlan[] }> {
  const list: BendPlan[] = [];
  for (const fold of doc.folds) {
    const bend: Bend = {
      thicknessMm: sheet.thicknessMm,
      radiusMm: achievedRadius(fold.radiusMm ?? sheet.usualRadiusMm, sheet.radii ?? []),
      angleDeg: fold.angleDeg,
    };
    const allowance = bendAllowance(bend, sheet.rule);
    if (!allowance.ok) {
      return failure(
        ...allowance.problems.map((p): Problem => ({ ...p, about: [fold.id], severity: 'stop' })),
      );
    }
    const setbackMm = setbackFor(fold.convention, bend, allowance);
    const used = fold.convention === 'outside-sharp' ? measuredOutside(allowance, bend) : allowance;
    list.push({ bend, allowance: used, setbackMm, shiftMm: used.allowanceMm - 2 * setbackMm });
  }
  return { ok: true, list };
}

function acrossFold(tree: FaceTree, fold: number): Vec {
  const parent = tree.faces[tree.sidesOfFold[fold]!.parent]!;
  const bound = parent.bounds.find((b) => b.kind === 'fold' && b.fold === fold)!;
  return scale(left(unit(sub(bound.segment.b, bound.segment.a))), -1);
}

function shiftsOf(tree: FaceTree, byFold: readonly number[], across: readonly Vec[]): Vec[] {
  const shifts = tree.faces.map((): Vec => [0, 0]);
  for (const face of tree.order.slice(1)) {
    const fold = tree.entry[face]!;
    const parent = tree.sidesOfFold[fold]!.parent;
    shifts[face] = along(shifts[parent]!, across[fold]!, byFold[fold]!);
  }
  return shifts;
}

function blankFold(
  doc: PatternDoc,
  fold: Fold,
  index: number,
  plan: BendPlan,
  tree: FaceTree,
  faces: readonly BlankFace[],
  across: Vec,
  practice: Practice,
): BlankFold {
  const { parent, child } = tree.sidesOfFold[index]!;
  const tangentOf = (face: number) =>
    faces[face]!.pieces.find((p) => p.kind === 'tangent' && p.fold === index)!.segment;
  // The parent's boundary runs along the fold one way, the child's the other; start both at the
  // fold's `from` end.
  const onCard = tree.faces[parent]!.bounds.find(
    (b) => b.kind === 'fold' && b.fold === index,
  )!.segment;
  const [from] = endsOfFold(doc, fold)!;
  const startsAtFrom = distance(from, onCard.a) <= distance(from, onCard.b);
  const near = tangentOf(parent);
  const far = tangentOf(child);
  const tangents: BlankFold['tangents'] = startsAtFrom
    ? [
        [near.a, near.b],
        [far.b, far.a],
      ]
    : [
        [near.b, near.a],
        [far.a, far.b],
      ];
  const share = {
    tangent: 0,
    centre: 0.5,
    // A bend without length has all its lines in one.
    'radius-in':
      plan.allowance.allowanceMm > 0
        ? Math.min(1, plan.bend.radiusMm / plan.allowance.allowanceMm)
        : 0,
  }[practice.brakeLine];
  const between = (t: number): [Vec, Vec] => [
    mix(tangents[0][0], tangents[1][0], t),
    mix(tangents[0][1], tangents[1][1], t),
  ];
  return {
    id: fold.id,
    ...plan,
    toward: fold.toward,
    convention: fold.convention,
    parent,
    child,
    across,
    tangents,
    centre: between(0.5),
    brake: between(share),
  };
}

/** Distance from a hole within which its face is the same, mm. */
const BESIDE_MM = 1e-3;

/** Which way a direction of the card lies on the blank, at a place, degrees. */
function turnedAt(fromCard: (p: Vec) => Vec, [x, y]: Vec, turnDeg: number): number {
  const turn = (turnDeg * Math.PI) / 180;
  const [a, b] = [
    fromCard([x, y]),
    fromCard([x + BESIDE_MM * Math.cos(turn), y + BESIDE_MM * Math.sin(turn)]),
  ];
  const found = (Math.atan2(b[1] - a[1], b[0] - a[0]) * 180) / Math.PI;
  // Faces are not turned but shoved in the flat, so that nothing but rounding is lost.
  return Math.abs(found - turnDeg) < 1e-6 ? turnDeg : found;
}
