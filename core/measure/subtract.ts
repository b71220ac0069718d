import { boxesOf, meetings, turnsRound } from './intersect';
import type { Path } from './path';
import { area, box } from './path';
import type { Segment } from './segment';
import {
  directionAt,
  isStraight,
  nearest,
  part,
  pointAt,
  reversed,
  segmentLength,
} from './segment';
import { SAME_PLACE_MM } from './tolerance';
import type { Vec } from './vector';
import { along, distance, left } from './vector';

/** Anything that carries a segment of an outline. */
export type Carrier = { segment: Segment };

/** How far to the metal's side of a line it is asked whether there is metal, mm. */
const ASIDE_MM = 1e-4;
/** Ends of pieces that were cut at the same place come out this near to each other, mm. */
const JOINED_MM = 1e-4;

type Loop<P> = { pieces: P[]; areaMm2: number };

/**
 * An outline less a number of closed paths (holes drilled, slots sawn), all at once: what each
 * takes is found from the untouched outline, so that no order of them can matter. Arcs stay arcs.
 *
 * `outline` runs counter-clockwise, may touch or lie on itself (a slit), and each of its pieces
 * keeps what it carries; `tools` run counter-clockwise; `make` makes the pieces of the rims they
 * leave, told by which tool. Comes back as closed loops, the largest first: more than one where the
 * tools cut something off, or lie wholly inside. Null where the pieces do not join up again (an
 * outline that crosses itself in the middle of a tool).
 */
export function subtracted<P extends Carrier>(
  outline: readonly P[],
  tools: readonly Path[],
  make: (segment: Segment, tool: number) => P,
): Loop<P>[] | null {
  const path = outline.map((p) => p.segment);
  const boxes = boxesOf(path);
  const toolBoxes = tools.map((tool) => box(tool));
  const cuts: number[][] = path.map(() => []);
  /** Pieces that a tool comes near; the others stay as they are. */
  const near = new Uint8Array(path.length);
  const toolCuts: number[][][] = tools.map((tool) => tool.map(() => []));

  tools.forEach((tool, j) => {
    const b = toolBoxes[j]!;
    for (let i = 0; i < path.length; i++) {
      if (boxes[4 * i]! > b.maxX + ASIDE_MM || boxes[4 * i + 2]! < b.minX - ASIDE_MM) continue;
      if (boxes[4 * i + 1]! > b.maxY + ASIDE_MM || boxes[4 * i + 3]! < b.minY - ASIDE_MM) continue;
      near[i] = 1;
      tool.forEach((s, k) => {
        for (const { at, other } of meetings(path[i]!, s)) {
          cuts[i]!.push(at);
          toolCuts[j]![k]!.push(other);
        }
      });
    }
    for (let other = 0; other < j; other++) {
      const o = toolBoxes[other]!;
      if (o.minX > b.maxX || o.maxX < b.minX || o.minY > b.maxY || o.maxY < b.minY) continue;
      tool.forEach((s, k) =>
        tools[other]!.forEach((r, l) => {
          for (const met of meetings(s, r)) {
            toolCuts[j]![k]!.push(met.at);
            toolCuts[other]![l]!.push(met.other);
          }
        }),
      );
    }
  });

  const inTool = (p: Vec, except = -1): boolean =>
    tools.some((tool, j) => {
      const b = toolBoxes[j]!;
      if (j === except || p[0] < b.minX || p[0] > b.maxX || p[1] < b.minY || p[1] > b.maxY)
        return false;
      return turnsRound(tool, p) !== 0;
    });
  /** A point beside the middle of a segment, to its left: where its metal is. */
  const beside = (s: Segment): Vec => along(pointAt(s, 0.5), left(directionAt(s, 0.5)), ASIDE_MM);

  // What is left of the outline, as runs of pieces that follow each other.
  const runs: P[][] = [];
  let open = false;
  outline.forEach((piece, i) => {
    for (const segment of pieces(piece.segment, cuts[i]!)) {
      if (near[i] && inTool(beside(segment))) {
        open = false;
        continue;
      }
      const kept = segment === piece.segment ? piece : { ...piece, segment };
      if (open) runs[runs.length - 1]!.push(kept);
      else runs.push([kept]);
      open = true;
    }
  });
  if (runs.length > 1 && open && startsWhere(runs[0]!, runs[runs.length - 1]!)) {
    const last = runs.pop()!;
    runs[0] = [...last, ...runs[0]!];
  }
  // The rims of the tools that lie in metal, run the other way round.
  const rims: P[][] = [];
  tools.forEach((tool, j) =>
    tool.forEach((s, k) => {
      for (const segment of pieces(s, toolCuts[j]![k]!)) {
        const middle = pointAt(segment, 0.5);
        const cut = reversed(segment);
        const metal = beside(cut);
        if (inTool(metal, j) || turnsRound(path, metal) <= 0) continue;
        // Where a rim lies on the outline, the outline has told already; of two rims that lie on
        // each other the first.
        if (
          path.some(
            (r, i) => onBox(boxes, i, middle) && nearest(r, middle).distance < 10 * SAME_PLACE_MM,
          )
        )
          continue;
        if (
          tools
            .slice(0, j)
            .some((other) => other.some((r) => nearest(r, middle).distance < 10 * SAME_PLACE_MM))
        )
          continue;
        rims.push([make(cut, j)]);
      }
    }),
  );
  // An outline that nothing has cut is whole as it is; what lies within it is drilled out of it.
  const [first] = runs;
  if (!first || runs.length > 1 || !startsWhere(first, first)) return joined([...runs, ...rims]);
  const holes = joined(rims);
  return (
    holes && [loopOf(first), ...holes].sort((a, b) => Math.abs(b.areaMm2) - Math.abs(a.areaMm2))
  );
}

const onBox = (boxes: Float64Array, i: number, [x, y]: Vec): boolean =>
  x >= boxes[4 * i]! - ASIDE_MM &&
  x <= boxes[4 * i + 2]! + ASIDE_MM &&
  y >= boxes[4 * i + 1]! - ASIDE_MM &&
  y <= boxes[4 * i + 3]! + ASIDE_MM;

/**
 * A segment parted at fractions of its length; slivers that are shorter than rounding are left out.
 */
function pieces(s: Segment, at: readonly number[]): Segment[] {
  if (at.length === 0) return [s];
  const length = segmentLength(s);
  const places = [0, ...[...at].sort((a, b) => a - b), 1];
  const found: Segment[] = [];
  let from = 0;
  for (const to of places) {
    if ((to - from) * length <= 2 * SAME_PLACE_MM) continue;
    found.push(from === 0 && to === 1 ? s : part(s, from, to));
    from = to;
  }
  // A sliver at the very end goes with the last piece.
  const last = found[found.length - 1];
  if (last && from < 1)
    found[found.length - 1] = part(s, 1 - (segmentLength(last) / length + (1 - from)), 1);
  return found;
}

const endOf = (run: readonly Carrier[]): Vec => run[run.length - 1]!.segment.b;
const startsWhere = (run: readonly Carrier[], before: readonly Carrier[]): boolean =>
  distance(endOf(before), run[0]!.segment.a) <= JOINED_MM;

function loopOf<P extends Carrier>(run: readonly P[]): Loop<P> {
  // Ends that came out a hair apart are made one, so that the outline is closed to the last figure.
  const closed = run.map((piece, i) => {
    const { a, b, bulge } = piece.segment;
    const next = run[(i + 1) % run.length]!.segment.a;
    return b === next ? piece : { ...piece, segment: { a, b: next, bulge } };
  });
  const pieces = closed.filter(
    ({ segment }) => !isStraight(segment) || distance(segment.a, segment.b) > SAME_PLACE_MM,
  );
  return { pieces, areaMm2: area(pieces.map((p) => p.segment)) };
}

/** Runs joined end to start into closed loops; null where one finds no next. */
function joined<P extends Carrier>(runs: readonly P[][]): Loop<P>[] | null {
  const waiting = new Set(runs);
  const loops: Loop<P>[] = [];
  for (const first of runs) {
    if (!waiting.delete(first)) continue;
    const loop = [...first];
    while (distance(endOf(loop), loop[0]!.segment.a) > JOINED_MM) {
      let next: P[] | null = null;
      let best = JOINED_MM;
      for (const run of waiting) {
        const d = distance(endOf(loop), run[0]!.segment.a);
        if (d <= best) [next, best] = [run, d];
      }
      if (!next) return null;
      waiting.delete(next);
      loop.push(...next);
    }
    loops.push(loopOf(loop));
  }
  return loops.sort((a, b) => Math.abs(b.areaMm2) - Math.abs(a.areaMm2));
}
