import { radians } from '../../../measure/angle';
import { inside, points } from '../../../measure/path';
import type { Segment } from '../../../measure/segment';
import { directionAt, pointAt, segmentLength } from '../../../measure/segment';
import type { Vec } from '../../../measure/vector';
import { along, distance, dot, left, sub, unit } from '../../../measure/vector';
import type { StripTurn } from '../../stripEnds';
import type { Development } from '../developed';
import type { Frame, Vec3 } from '../refold';
import { bendSkin } from '../refold';
import type { Shell } from './laid';
import { IDENTITY, apply } from './foldTransforms';
import { platesOf } from './plates';

/**
 * A rigid part of a piece in the machine. `face`: index of the face it hangs on; `on`: from its own
 * places to those of that face.
 *
 * - `face`: the flat of a face, laps and joggles that lie in its plane with it. The bodies begin
 *   with these, in the order of the faces.
 * - `edge`: what is turned over along an edge (a flange, a hem, a lip), with the edge's id.
 * - `bead`: a bead that stands up from a face, with its id.
 * - `bend`: the metal of a bend that is made; `fold` is the index of its fold. While that fold is
 *   not made it lies in the plane of its faces and is nobody's obstacle.
 */
export type Body = {
  kind: 'face' | 'edge' | 'bead' | 'bend';
  of: string | null;
  face: number;
  fold: number | null;
  on: Frame;
  shell: Shell;
};

/** A shell of the sheet as thin as this is left out when it is held against the machine, mm. */
const SHELL_MM = 0.02;
/** Turned edges and beads are followed to this, mm. */
const FOLLOWED_MM = 1;
/** The slabs that stand for a bend lie within this share of the thickness of it. */
const BEND_SAG = 0.5;
/** Arcs are followed in steps of this turn, radians. */
const ARC_STEP = Math.PI / 24;

/**
 * What there is of a piece in the machine: its faces, and on them the edges that are turned over,
 * but for those that are turned when all folds are made (`turnedAfter`, edge ids); beads; and of
 * each fold the metal of its bend, closed to `anglesDeg`.
 */
export function bodiesOf(
  development: Development,
  anglesDeg: readonly number[],
  turnedAfter: readonly string[] = [],
): Body[] {
  const t = development.folds[0]?.bend.thicknessMm ?? 1;
  return [
    ...platesOf(development).map(({ face, outline }): Body => ({
      kind: 'face',
      of: null,
      face,
      fold: null,
      on: IDENTITY,
      shell: { rim: outline, heights: [SHELL_MM - t, -SHELL_MM] },
    })),
    ...turnedEdges(development).flatMap((edge) =>
      turnedAfter.includes(edge.of) ? [] : edgeBodies(edge),
    ),
    ...beadBodies(development, t),
    ...bendBodies(development, anglesDeg),
  ];
}

/** A place along an edge that is turned over: on the edge, which way is out, how wide it is there. */
type Station = { near: Vec; wide: number };
/** A run of an edge that is turned over, on one face, by its stations. */
type TurnedEdge = { of: string; face: number; turn: StripTurn; stations: Station[] };

/** The ids of the edges that are turned over, once each. */
export const turnedEdgeIds = (development: Development): string[] => [
  ...new Set(turnedEdges(development).map(({ of }) => of)),
];

/** What is turned over along edges, run by run. */
function turnedEdges({ strips, edges }: Development): TurnedEdge[] {
  const turns = new Map(edges.map(({ id, allowance }) => [id, allowance.turn]));
  const runs: TurnedEdge[] = [];
  for (const { piece, profile } of strips) {
    const turn = piece.edge === null ? null : turns.get(piece.edge);
    if (!turn || piece.kind !== 'side' || profile.length === 0) continue;
    const stations = stationsAlong(piece.segment, profile).map(([s, out]): Station => {
      const near = pointAt(piece.segment, s / segmentLength(piece.segment));
      // What is turned over is as much wider than its flat as its bend takes up.
      return { near, wide: out > 0 ? out + turn.deductionMm : 0 };
    });
    const last = runs[runs.length - 1];
    const [end, start] = [last?.stations[last.stations.length - 1], stations[0]!];
    if (
      last?.of === piece.edge &&
      last.face === piece.face &&
      distance(end!.near, start.near) < FOLLOWED_MM / 10
    )
      last.stations.push(...stations);
    else runs.push({ of: piece.edge!, face: piece.face, turn, stations });
  }
  return runs;
}

/** Places along a segment where its profile turns or its arc does: along, mm, and how far out, mm. */
function stationsAlong(
  segment: Segment,
  profile: readonly (readonly [number, number])[],
): [number, number][] {
  const turn = Math.abs(4 * Math.atan(segment.bulge));
  const long = segmentLength(segment);
  return profile.flatMap(([from, out], i): [number, number][] => {
    const next = profile[i + 1];
    if (!next) return [[from, out]];
    const parts = Math.max(1, Math.ceil((turn * (next[0] - from)) / long / ARC_STEP));
    return Array.from({ length: parts }, (_, k): [number, number] => [
      from + ((next[0] - from) * k) / parts,
      out + ((next[1] - out) * k) / parts,
    ]);
  });
}

/** The chords of a run of an edge, each as a plate that stands on it. */
function edgeBodies({ of, face, turn, stations }: TurnedEdge): Body[] {
  const { thicknessMm: t, angleDeg } = turn;
  return chords(stations).flatMap(([from, to]): Body[] => {
    const [a, b] = [stations[from]!, stations[to]!];
    const long = distance(a.near, b.near);
    if (long < FOLLOWED_MM / 10) return [];
    const u = unit(sub(b.near, a.near));
    // The rim of the plate: how wide it is at each place along its chord.
    const rim = stations
      .slice(from, to + 1)
      .map(({ near, wide }): Vec => [dot(sub(near, a.near), u), wide]);
    const shell = (heights: Shell['heights'], outward: 1 | -1): Shell => ({
      rim: [[0, 0], [long, 0], ...rim.reverse().map(([s, w]): Vec => [s, outward * w])],
      heights,
    });
    const own = { kind: 'edge' as const, of, face, fold: null };
    // A hem lies on the face, as far off it as its bend is open.
    if (angleDeg >= HEM_DEG)
      return [
        {
          ...own,
          on: { ...IDENTITY, ...chordFrame(u, 0), origin: [...a.near, 0] },
          shell: shell([SHELL_MM, t - SHELL_MM], 1),
        },
      ];
    const toFace = turn.toward !== 'back';
    const angle = radians(toFace ? angleDeg : -angleDeg);
    return [
      {
        ...own,
        // It turns about the outside of its bend: the back of the sheet, where it comes to the face.
        on: { ...chordFrame(u, angle), origin: [...a.near, toFace ? -t : 0] },
        shell: shell(toFace ? [SHELL_MM, t - SHELL_MM] : [SHELL_MM - t, -SHELL_MM], -1),
      },
    ];
  });
}

/** What is turned this far lies flat on the sheet, degrees. */
const HEM_DEG = 175;

/**
 * The directions of a plate that stands on a chord: x along it, −y outward, turned by an angle
 * toward the face, radians.
 */
function chordFrame([ux, uy]: Vec, angle: number): Pick<Frame, 'x' | 'y' | 'z'> {
  const [lx, ly] = [-uy, ux];
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return { x: [ux, uy, 0], y: [lx * c, ly * c, -s], z: [lx * s, ly * s, c] };
}

/** Stations as few chords that stay within `FOLLOWED_MM` of them (Ramer 1972, Douglas and Peucker 1973). */
function chords(stations: readonly Station[]): [number, number][] {
  const split = (from: number, to: number): [number, number][] => {
    const [a, b] = [stations[from]!.near, stations[to]!.near];
    const long = distance(a, b);
    const across = long > 0 ? left(unit(sub(b, a))) : null;
    let [far, at] = [0, -1];
    for (let i = from + 1; i < to; i++) {
      const off = sub(stations[i]!.near, a);
      const mm = across ? Math.abs(dot(off, across)) : Math.hypot(...off);
      if (mm > far) [far, at] = [mm, i];
    }
    return at < 0 || far <= FOLLOWED_MM ? [[from, to]] : [...split(from, at), ...split(at, to)];
  };
  return stations.length > 1 ? split(0, stations.length - 1) : [];
}

/** Beads as what stands up over their width, each part on the face its middle is on. */
function beadBodies({ beads, faces }: Development, t: number): Body[] {
  const rims = faces.map(({ pieces }) =>
    points(
      pieces.map(({ segment }) => segment),
      FOLLOWED_MM,
    ),
  );
  return beads.flatMap(({ id, runs, toward, size }) => {
    const heights: Shell['heights'] =
      toward === 'face' ? [0, size.heightMm] : [-t - size.heightMm, -t];
    return runs.flatMap((run) =>
      run.flatMap((segment): Body[] => {
        const face = rims.findIndex((rim) => inside(pointAt(segment, 0.5), rim));
        if (face < 0) return [];
        const n = Math.max(1, Math.ceil(Math.abs(4 * Math.atan(segment.bulge)) / ARC_STEP / 2));
        const side = (half: number) =>
          Array.from({ length: n + 1 }, (_, i): Vec => {
            const at = i / n;
            return along(pointAt(segment, at), left(directionAt(segment, at)), half);
          });
        const rim = [...side(-size.widthMm / 2), ...side(size.widthMm / 2).reverse()];
        return [{ kind: 'bead', of: id, face, fold: null, on: IDENTITY, shell: { rim, heights } }];
      }),
    );
  });
}

/** The metal of each bend as slabs, each from one place round it to the next. */
function bendBodies({ folds }: Development, anglesDeg: readonly number[]): Body[] {
  return folds.flatMap((fold, index): Body[] => {
    const { thicknessMm: t } = fold.bend;
    const [angle, ba] = [radians(anglesDeg[index]!), fold.allowance.allowanceMm];
    if (!(angle > 0) || !(ba > 0)) return [];
    const radius = ba / angle;
    const most = 2 * Math.acos(Math.max(0, 1 - (BEND_SAG * t) / radius));
    const n = Math.max(1, Math.ceil(angle / most));
    const { face, back } = bendSkin(fold, IDENTITY, anglesDeg[index]!, n);
    return Array.from({ length: n }, (_, i) => slab(fold.parent, index, t, face, back, i));
  });
}

function slab(
  parent: number,
  fold: number,
  t: number,
  face: [Vec3, Vec3][],
  back: [Vec3, Vec3][],
  i: number,
): Body {
  const middle = (a: Vec3, b: Vec3): Vec3 => [
    (a[0] + b[0]) / 2,
    (a[1] + b[1]) / 2,
    (a[2] + b[2]) / 2,
  ];
  const line = (k: number): [Vec3, Vec3] => [
    middle(face[k]![0], back[k]![0]),
    middle(face[k]![1], back[k]![1]),
  ];
  const [near, far] = [line(i), line(i + 1)];
  const [x, over] = [towards(near[0], near[1]), towards(near[0], far[0])];
  const lean = dot3(over, x);
  const y = towards(
    [0, 0, 0],
    [over[0] - lean * x[0], over[1] - lean * x[1], over[2] - lean * x[2]],
  );
  const z: Vec3 = [x[1] * y[2] - x[2] * y[1], x[2] * y[0] - x[0] * y[2], x[0] * y[1] - x[1] * y[0]];
  const own = (p: Vec3): Vec => {
    const d: Vec3 = [p[0] - near[0][0], p[1] - near[0][1], p[2] - near[0][2]];
    return [dot3(d, x), dot3(d, y)];
  };
  return {
    kind: 'bend',
    of: null,
    face: parent,
    fold,
    on: { x, y, z, origin: near[0] },
    shell: {
      rim: [own(near[0]), own(near[1]), own(far[1]), own(far[0])],
      heights: [SHELL_MM - t / 2, t / 2 - SHELL_MM],
    },
  };
}

const dot3 = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
function towards(a: Vec3, b: Vec3): Vec3 {
  const d: Vec3 = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  const long = Math.hypot(...d) || 1;
  return [d[0] / long, d[1] / long, d[2] / long];
}

/** A body's rim where a frame puts its face, in the middle of its thickness. */
export const rimIn = ({ shell: { rim, heights }, on }: Body, frame: Frame): Vec3[] =>
  rim.map(([x, y]) => apply(frame, apply(on, [x, y, (heights[0] + heights[1]) / 2])));
