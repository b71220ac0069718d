import { holePolygon } from '#core/card/holeForm';
import { ShapeUtils, Vector2 } from 'three';
import type { Development } from '#core/blank/fold/developed';
import type { Frame, Vec3 } from '#core/blank/fold/refold';
import { bendSkin, foldedFrames, placed } from '#core/blank/fold/refold';
import type { Edge, PatternDoc } from '#core/card/pattern';
import { radians } from '#core/measure/angle';
import { inside, points } from '#core/measure/path';
import { directionAt, flattened, offsetRight } from '#core/measure/segment';
import type { Vec } from '#core/measure/vector';
import { along, right } from '#core/measure/vector';
import { addsOf } from '#core/blank/blank';
import { widthsOf } from '#core/card/pattern';
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
 * made when `joined`, else in the flat.
 */
export function pieceMesh(
  development: Development,
  pattern: PatternDoc,
  thicknessMm: number,
  anglesDeg: readonly number[],
  joined: boolean,
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
  putStrips(mesh, put, development, pattern, frames, thicknessMm, joined);
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
  joined: boolean,
): void {
  const edges = new Map(pattern.edges.map((edge) => [edge.id, edge]));
  const added = new Map(
    development.edges.map(({ id, allowance }) => [id, meanOf(addsOf(allowance))]),
  );
  for (const piece of development.outline) {
    const addMm = added.get(piece.edge ?? '') ?? 0;
    const frame = frames[piece.face];
    if (piece.kind !== 'side' || addMm <= 0 || !frame) continue;
    const made = joined ? madeAs(edges.get(piece.edge!)!) : null;
    const outer = [...flattened(piece.segment, 0.2), piece.segment.b];
    const inward = offsetRight(piece.segment, -addMm);
    const inner = outer.length === 2 ? [inward.a, inward.b] : [...flattened(inward, 0.2), inward.b];
    const n = Math.min(outer.length, inner.length);
    const out = (i: number): Vec => right(directionAt(piece.segment, n > 1 ? i / (n - 1) : 0));
    // Where the strip's far rim comes to: across from its near rim, and up from the sheet.
    const turn = radians(made?.turnDeg ?? 0);
    const wide = made ? made.widthMm : addMm;
    // What is turned has its thickness square to itself; flat, or flat on the piece, it lies as the
    // sheet does.
    const leans = made !== null && made.turnDeg !== 0 && made.turnDeg !== 180;
    const aside = (height: number) => (leans ? -height * Math.sin(turn) : 0);
    const raised = (height: number) => (leans ? height * Math.cos(turn) : height);
    const reach = (i: number, height: number): Vec3 => {
      const across = wide * Math.cos(turn) + aside(height);
      const up =
        made?.turnDeg === 180 ? t - made.backMm : wide * Math.sin(turn) - (made?.backMm ?? 0);
      return placed(
        frame,
        made ? along(inner[i]!, out(i), across) : outer[i]!,
        up + raised(height),
      );
    };
    const root = (i: number, height: number): Vec3 =>
      placed(
        frame,
        along(inner[i]!, out(i), aside(height)),
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
          placed(frame, inner[i]!, 0),
          placed(frame, inner[i + 1]!, 0),
          root(i + 1, 0),
          root(i, 0),
        );
      }
    }
    put.rim(root(0, 0), reach(0, 0));
    put.rim(root(n - 1, 0), reach(n - 1, 0));
  }
}
