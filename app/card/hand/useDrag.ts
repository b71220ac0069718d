import { useEffect, useRef, useState } from 'react';
import { moveCorner, reshapeSide, setHole } from '#core/card/edit';
import { edgeLength, segmentOfSide } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import { snap } from '#core/card/snap';
import { bulgeThrough, pointAt } from '#core/measure/segment';
import type { Vec } from '#core/measure/vector';
import { cross, distance, sub, unit as direction } from '#core/measure/vector';
import { usePreferences } from '../../frame/preferences';
import { useInHand, usePick, usePiece } from '../../piece/pieceContext';

type Held = {
  kind: 'corner' | 'hole' | 'side';
  id: string;
  at: Vec;
  moved: boolean;
  was: PatternDoc;
};

/** What a drag has changed, in words, and where to say it; `now` while the hand is still on it. */
export type Moved = { at: Vec; said: string[]; now: boolean };

const GRAB_PX = 22;
/** However near other corners are, a touch as near as this is on this one. */
const CLOSE_PX = 6;
const SNAP_PX = 9;
/** Lengths nearer than this are told as the same, mm. */
const TOLD_MM = 0.005;

/**
 * Dragging corners, holes, and the ring of a picked edge: drawn onto what is near, and told what it
 * changes. With `gather` nothing is dragged, and what is touched goes there.
 */
export function useDrag(able: boolean, gather?: (id: string) => void) {
  const { patternEditor } = usePiece();
  const { pattern, setMoving } = useInHand();
  const { pick, setPick } = usePick();
  const { unit, show } = usePreferences();
  const [guides, setGuides] = useState<[Vec, Vec][]>([]);
  const [told, setTold] = useState<(Moved & { pick: string }) | null>(null);
  const held = useRef<Held | null>(null);
  const frame = useRef(0);
  const last = useRef<[at: Vec, scale: number] | null>(null);

  const down = (p: Vec, scale: number): boolean => {
    setTold(null);
    if (!able) return false;
    const reach = GRAB_PX / scale;
    const nearest = <T>(
      things: readonly T[],
      at: (thing: T) => Vec,
      within: (thing: T, i: number) => number,
    ): T | undefined =>
      things
        .map((thing, i) => ({ thing, i, off: distance(at(thing), p) }))
        .filter(({ thing, i, off }) => off <= within(thing, i))
        .sort((a, b) => a.off - b.off)[0]?.thing;
    const grab = (kind: Held['kind'], id: string, at: Vec) => {
      held.current = { kind, id, at, moved: false, was: pattern };
      return true;
    };
    // No farther than part of the way to the next corner, or a short edge could not be touched.
    const corner = nearest(
      pattern.corners,
      (c) => [c.x, c.y],
      (_, i) => Math.max(CLOSE_PX / scale, Math.min(reach, 0.35 * nextCorner(pattern, i))),
    );
    if (corner) return grab('corner', corner.id, [corner.x, corner.y]);
    const bow = nearest(
      pick?.kind === 'edge' ? bowsOf(pattern, pick.id) : [],
      ({ at }) => at,
      () => reach,
    );
    if (bow) return grab('side', bow.side, bow.at);
    const hole = nearest(
      pattern.holes,
      (h) => [h.x, h.y],
      (h) => Math.max(reach, h.diameterMm / 2),
    );
    return hole ? grab('hole', hole.id, [hole.x, hole.y]) : false;
  };

  const pull = (p: Vec, scale: number) => {
    const h = held.current!;
    if (!h.moved && distance(h.at, p) * scale < 4) return;
    if (!h.moved) setMoving(true);
    h.moved = true;
    const put = (next: PatternDoc, at: Vec) => {
      patternEditor.edit(next, h.id);
      setTold({ at, said: lengthsChanged(h.was, next, show), now: true, pick: h.id });
    };
    if (h.kind === 'side') return put(bowed(pattern, h.id, p, SNAP_PX / scale), p);
    const found = snap(p, {
      ...snapAround(pattern, h.id),
      stood: h.at,
      reachMm: SNAP_PX / scale,
      unit,
    });
    setGuides(found.guides);
    const [x, y] = found.point;
    put(
      h.kind === 'corner'
        ? moveCorner(pattern, h.id, found.point)
        : setHole(pattern, h.id, { x, y }),
      found.point,
    );
  };

  // Left in the middle of a drag (the server's other version, the back button), the piece must not
  // stay at rest.
  useEffect(() => () => setMoving(false), [setMoving]);

  const drag = (p: Vec, scale: number) => {
    if (!held.current || gather) return;
    // One edit for each frame that is shown, however fast the pointer reports.
    cancelAnimationFrame(frame.current);
    last.current = [p, scale];
    frame.current = requestAnimationFrame(() => {
      last.current = null;
      if (held.current) pull(p, scale);
    });
  };

  const up = () => {
    cancelAnimationFrame(frame.current);
    // The last movement may not have been drawn yet: it counts all the same.
    if (held.current && last.current) pull(...last.current);
    last.current = null;
    setMoving(false);
    setGuides([]);
    const h = held.current;
    held.current = null;
    setTold((last) => last && { ...last, now: false });
    if (!h || h.kind === 'side' || h.moved) return;
    if (gather) gather(h.id);
    else setPick({ kind: h.kind, id: h.id });
  };

  return { guides, moved: told, down, drag, up };
}

/** What a drag changed of the edges' lengths: `B 170.0 → 168.5`. */
function lengthsChanged(from: PatternDoc, to: PatternDoc, show: (mm: number) => string): string[] {
  return from.edges.flatMap((edge) => {
    const [was, now] = [edgeLength(from, edge), edgeLength(to, edge)];
    return Math.abs(was - now) > TOLD_MM ? [`${edge.letter}  ${show(was)} → ${show(now)}`] : [];
  });
}

/** How far it is from a corner to the nearer of its two neighbours, mm. */
function nextCorner({ corners }: PatternDoc, i: number): number {
  const at = (k: number): Vec => {
    const c = corners[(k + corners.length) % corners.length]!;
    return [c.x, c.y];
  };
  return Math.min(distance(at(i), at(i - 1)), distance(at(i), at(i + 1)));
}

/**
 * The middles of an edge's sides, by which they are bent; a long traced edge is shaped at its
 * corners instead.
 */
export function bowsOf(pattern: PatternDoc, edgeId: string): { side: string; at: Vec }[] {
  const sides = pattern.edges.find((edge) => edge.id === edgeId)?.sides ?? [];
  if (sides.length > 12) return [];
  return sides.flatMap((side) => {
    const segment = segmentOfSide(pattern, side);
    return segment ? [{ side, at: pointAt(segment, 0.5) }] : [];
  });
}

/**
 * The side as the arc through its two ends and a third point; straight when that is within
 * `reachMm` of the chord.
 */
function bowed(pattern: PatternDoc, side: string, via: Vec, reachMm: number): PatternDoc {
  const s = segmentOfSide(pattern, side);
  if (!s) return pattern;
  const off = cross(direction(sub(s.b, s.a)), sub(via, s.a));
  return reshapeSide(pattern, side, Math.abs(off) < reachMm ? 0 : bulgeThrough(s.a, via, s.b));
}

/**
 * What a dragged corner or hole may catch on: neighbours as anchors, the other corners, the
 * directions of other sides.
 */
function snapAround(
  pattern: PatternDoc,
  id: string,
): { anchors: Vec[]; ends: Vec[]; directions: Vec[] } {
  const at = (of: string): Vec => {
    const c = pattern.corners.find((corner) => corner.id === of)!;
    return [c.x, c.y];
  };
  const touching = pattern.sides.filter((s) => s.from === id || s.to === id);
  const neighbours = touching.map((s) => (s.from === id ? s.to : s.from));
  const others = pattern.corners.filter((c) => c.id !== id);
  // Guides through every corner of a traced outline would catch everywhere; the nearest few dozen
  // are enough.
  const few = others.length <= 60 ? others : others.filter((c) => neighbours.includes(c.id));
  return {
    anchors: neighbours.map(at),
    ends: few.map((c): Vec => [c.x, c.y]),
    directions: pattern.sides
      .filter((s) => !touching.includes(s) && s.shape.kind === 'line')
      .slice(0, 24)
      .map((s) => direction(sub(at(s.to), at(s.from)))),
  };
}
