import { holePolygon } from '#core/card/holeForm';
import { ShapeUtils, Vector2 } from 'three';
import type { Development } from '#core/blank/fold/developed';
import type { Frame, Vec3 } from '#core/blank/fold/refold';
import { bendSkin, foldedFrames, placed } from '#core/blank/fold/refold';
import type { Edge, PatternDoc } from '#core/card/pattern';
import { radians } from '#core/measure/angle';
import { inside, points } from '#core/measure/path';
import type { Segment } from '#core/measure/segment';
import { directionAt, pointAt, segmentLength } from '#core/measure/segment';
import type { Vec } from '#core/measure/vector';
import { along, right } from '#core/measure/vector';
import { addsOf } from '#core/blank/blank';
import type { FoldPiece } from '#core/blank/fold/foldedOutline';
import type { StripPart } from '#core/blank/edgeStrip';
import type { Profile } from '#core/blank/stripEnds';
import { widthsOf } from '#core/card/flangeWidths';
import { meanOf } from '#core/measure/ramp';
import { beadRelief } from './beadRelief';

/**
 * Corner positions of triangles (face, rest) and of line pairs (rims), three numbers a corner, mm.
 */
export type PieceMesh = { face: number[]; rest: number[]; rims: number[] };

const BEND_STEPS = 14;
const HOLE_STEPS = 28;

type Put = {
  quad: (to: number[], a: Vec3, b: Vec3, c: Vec3, e: Vec3) => void;
  rim: (a: Vec3, b: Vec3) => void;
};

/**
 * The piece in space with each fold closed to the given angle, degrees: the drawn face of the
 * sheet, everything else of it (back and edges), and its rims as lines. What joints add is shown as
 * made when `joined`, else in the flat; of the edges in `flat`, by their ids, in the flat anyway.
 */
export function pieceMesh(
  development: Development,
  pattern: PatternDoc,
  thicknessMm: number,
  anglesDeg: readonly number[],
  joined: boolean,
  flat: readonly string[] = [],
): PieceMesh {
  const frames = foldedFrames(development, anglesDeg);
  const mesh: PieceMesh = { face: [], rest: [], rims: [] };
  const put: Put = {
    quad: (to, a, b, c, e) => to.push(...a, ...b, ...c, ...a, ...c, ...e),
    rim: (a, b) => mesh.rims.push(...a, ...b),
  };
  development.faces.forEach((_, f) => putFace(mesh, put, development, f, frames[f]!, thicknessMm));
  development.folds.forEach((fold, i) =>
    putBend(mesh, put, fold, frames[fold.parent]!, anglesDeg[i]!),
  );
  const isMade = (edge: string) => joined && !flat.includes(edge);
  putStrips(mesh, put, development, pattern, frames, thicknessMm, isMade);
  for (const { toward, quads, rims } of beadRelief(development, pattern, frames, thicknessMm)) {
    for (const quad of quads) put.quad(toward === 'face' ? mesh.face : mesh.rest, ...quad);
    for (const rim of rims) put.rim(...rim);
  }
  return mesh;
}

function putFace(
  mesh: PieceMesh,
  put: Put,
  development: Development,
  f: number,
  frame: Frame,
  t: number,
): void {
  const rim = points(
    development.faces[f]!.pieces.map((p) => p.segment),
    0.2,
  );
  const holes = development.holes
    .filter((hole) => inside(hole.centre, rim))
    .map((hole) =>
      hole.form
        ? holePolygon(hole.centre, hole, 0.2).reverse()
        : Array.from({ length: HOLE_STEPS }, (_, i): Vec => {
            const a = (-2 * Math.PI * i) / HOLE_STEPS;
            const r = hole.diameterMm / 2;
            return [hole.centre[0] + r * Math.cos(a), hole.centre[1] + r * Math.sin(a)];
          }),
    );
  const loops = [rim, ...holes];
  const corners = loops.flat();
  const flat = (loop: readonly Vec[]) => loop.map((p) => new Vector2(...p));
  for (const triangle of ShapeUtils.triangulateShape(flat(rim), holes.map(flat))) {
    for (const i of triangle) {
      mesh.face.push(...placed(frame, corners[i]!, 0));
      mesh.rest.push(...placed(frame, corners[i]!, -t));
    }
  }
  for (const loop of loops) {
    loop.forEach((p, i) => {
      const q = loop[(i + 1) % loop.length]!;
      const [a, b] = [placed(frame, p, 0), placed(frame, q, 0)];
      const [a2, b2] = [placed(frame, p, -t), placed(frame, q, -t)];
      put.quad(mesh.rest, a, b, b2, a2);
      put.rim(a, b);
      put.rim(a2, b2);
    });
  }
}

function putBend(
  mesh: PieceMesh,
  put: Put,
  fold: Development['folds'][number],
  parent: Frame,
  angleDeg: number,
): void {
  const skin = bendSkin(fold, parent, angleDeg, BEND_STEPS);
  for (let s = 0; s < BEND_STEPS; s++) {
    const [a, b] = skin.face[s]!;
    const [c, e] = skin.face[s + 1]!;
    const [a2, b2] = skin.back[s]!;
    const [c2, e2] = skin.back[s + 1]!;
    put.quad(mesh.face, a, b, e, c);
    put.quad(mesh.rest, a2, b2, e2, c2);
    put.quad(mesh.rest, a, c, c2, a2);
    put.quad(mesh.rest, b, e, e2, b2);
  }
}

/**
 * How a joint's strip stands once it is made: turned so far toward the face about the card's line,
 * and stepped back.
 */
function madeAs({
  joint,
  flange,
}: Pick<Edge, 'joint' | 'flange'>): { turnDeg: number; widthMm: number; backMm: number } | null {
  if (flange) {
    const widthMm = meanOf(widthsOf(flange));
    return {
      turnDeg: flange.toward === 'face' ? flange.turnDeg : -flange.turnDeg,
      widthMm,
      backMm: 0,
    };
  }
  switch (joint.kind) {
    case 'hem':
      return { turnDeg: 180, widthMm: joint.widthMm, backMm: -joint.gapMm };
    case 'plug-flange':
      return joint.turnDeg > 0
        ? { turnDeg: joint.turnDeg, widthMm: joint.widthMm, backMm: 0 }
        : null;
    case 'joggle':
      return { turnDeg: 0, widthMm: joint.widthMm, backMm: joint.depthMm };
    default:
      return null;
  }
}

/**
 * The strips that joints add, sheet by sheet along each edge; corners of their own bends are drawn
 * sharp.
 */
function putStrips(
  mesh: PieceMesh,
  put: Put,
  development: Development,
  pattern: PatternDoc,
  frames: readonly Frame[],
  t: number,
  isMade: (edge: string) => boolean,
): void {
  const edges = new Map(pattern.edges.map((edge) => [edge.id, edge]));
  const allowances = new Map(development.edges.map(({ id, allowance }) => [id, allowance]));
  for (const { piece, profile } of stripsOf(development)) {
    const edge = edges.get(piece.edge ?? '');
    const frame = frames[piece.face];
    if (!edge || !frame || profile.length === 0) continue;
    const made = isMade(edge.id) ? madeAs(edge) : null;
    const widest = Math.max(...profile.map(([, out]) => out));
    const deduction = allowances.get(edge.id)!.turn?.deductionMm ?? 0;
    // In space as wide as it is finished, in the flat as wide as the blank has it.
    const asMade = made && (made.turnDeg !== 0 ? widest + deduction : made.widthMm);
    const grown = asMade && widest > 0 ? asMade / widest : 1;
    const long = segmentLength(piece.segment);
    const stations = placesAlong(piece.segment, profile).map(([s, out]) => {
      const at = s / long;
      return {
        near: pointAt(piece.segment, at),
        out: right(directionAt(piece.segment, at)),
        wide: out * grown,
      };
    });
    const turn = radians(made?.turnDeg ?? 0);
    // What is turned has its thickness square to itself; flat, or flat on the piece, it lies as the
    // sheet does.
    const leans = made !== null && made.turnDeg !== 0 && made.turnDeg !== 180;
    // It turns about the outside of its bend: turned toward the face, that is the back of the sheet.
    const outside = leans && turn > 0 ? t : 0;
    const aside = (height: number) => (leans ? -(height + outside) * Math.sin(turn) : 0);
    const raised = (height: number) =>
      leans ? (height + outside) * Math.cos(turn) - outside : height;
    const n = stations.length;
    const reach = (i: number, height: number): Vec3 => {
      const { near, out, wide } = stations[i]!;
      const across = wide * Math.cos(turn) + aside(height);
      const up =
        made?.turnDeg === 180 ? t - made.backMm : wide * Math.sin(turn) - (made?.backMm ?? 0);
      return placed(frame, along(near, out, across), up + raised(height));
    };
    const root = (i: number, height: number): Vec3 =>
      placed(
        frame,
        along(stations[i]!.near, stations[i]!.out, aside(height)),
        (made?.turnDeg === 180 ? t - made.backMm : -(made?.turnDeg === 0 ? made.backMm : 0)) +
          raised(height),
      );
    for (let i = 0; i + 1 < n; i++) {
      const face = [root(i, 0), root(i + 1, 0), reach(i + 1, 0), reach(i, 0)] as const;
      const back = [root(i, -t), root(i + 1, -t), reach(i + 1, -t), reach(i, -t)] as const;
      // A hem shows its back to you.
      const [front, behind] =
        made?.turnDeg === 180 ? [mesh.rest, mesh.face] : [mesh.face, mesh.rest];
      put.quad(front, ...face);
      put.quad(behind, ...back);
      put.quad(mesh.rest, reach(i, 0), reach(i + 1, 0), reach(i + 1, -t), reach(i, -t));
      put.rim(reach(i, 0), reach(i + 1, 0));
      if (made?.turnDeg === 0) {
        // The step down to a joggle's land.
        put.quad(
          mesh.face,
          placed(frame, stations[i]!.near, 0),
          placed(frame, stations[i + 1]!.near, 0),
          root(i + 1, 0),
          root(i, 0),
        );
      }
    }
    put.rim(root(0, 0), reach(0, 0));
    put.rim(root(n - 1, 0), reach(n - 1, 0));
  }
}

/** Every strip that stands beside the net, piece by piece: what ends as it is cut, and flat ones. */
function stripsOf({ net, strips, edges }: Development): StripPart<FoldPiece>[] {
  const ended = new Set(strips.map(({ piece }) => piece));
  const flat = new Map(edges.map(({ id, allowance }) => [id, allowance]));
  const plain = net.flatMap((piece): StripPart<FoldPiece>[] => {
    const allowance = flat.get(piece.edge ?? '');
    if (!allowance || piece.kind !== 'side' || ended.has(piece)) return [];
    const out = meanOf(addsOf(allowance));
    const long = segmentLength(piece.segment);
    const profile: Profile = [
      [0, out],
      [long, out],
    ];
    return out > 0 ? [{ piece, profile, start: null, end: null }] : [];
  });
  return [...strips.filter(({ piece }) => piece.kind === 'side'), ...plain];
}

/** An arc is followed in steps of this turn, radians. */
const ARC_STEP = Math.PI / 45;

/** A profile with places between where the piece bends. */
function placesAlong(s: Segment, profile: Profile): Profile {
  const turn = Math.abs(4 * Math.atan(s.bulge));
  const long = segmentLength(s);
  return profile.flatMap(([from, out], i) => {
    const next = profile[i + 1];
    if (!next) return [[from, out] as const];
    const parts = Math.max(1, Math.ceil((turn * (next[0] - from)) / long / ARC_STEP));
    return Array.from({ length: parts }, (_, k) => {
      const share = k / parts;
      return [from + (next[0] - from) * share, out + (next[1] - out) * share] as const;
    });
  });
}
