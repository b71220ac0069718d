import { useState } from 'react';
import { moveCorner, removeCorner, setHole, splitSide } from '#core/card/edit';
import type { SnappedPlace } from '#core/card/foldPlace';
import { byLetter, spotNearest } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import { snap } from '#core/card/snap';
import { usualLength } from '#core/measure/length';
import { useKeys } from '../../frame/keys';
import { usePreferences } from '../../frame/preferences';
import { usePick, usePiece } from '../../piece/pieceContext';
import type { Hand } from './hand';
import { asItLies, keyStep, movedAlong } from './hand';
import { newBead } from './newBead';
import { newFold } from './newFold';
import { newId } from '../../frame/newId';

/** Everything that can be done on the card from where the hand is. */
export type Doing = {
  take: (hand: Hand | null) => void;
  corner: (at: SnappedPlace) => void;
  foldFrom: (at: SnappedPlace) => void;
  foldTo: (at: SnappedPlace) => void;
  hole: () => void;
  /** A bead through the place, along the edge that lies nearest. */
  bead: () => void;
  /** A tuck of the paper at a place on the outline. */
  tuck: (at: SnappedPlace) => void;
  staysPut: () => void;
  takeOut: (corner: string) => void;
  /** Gathers a part to be ruled, or lets it go again. */
  gather: (part: string) => void;
};

/**
 * A new hole is as large as most plug and drain holes; it is in hand at once, to be made what it
 * should be.
 */
const HOLE_MM = 8;
/** A new tuck, to be made what it should be: as wide and deep as paper is usually tucked. */
const [TUCK_MM, TUCK_DEEP_MM] = [6, 60];

/**
 * The hand on the card and what it can do, by touch and by key: arrows move what is picked, letters
 * do what is offered, Escape puts the hand down before it puts down the pick.
 */
export function useHand(): { hand: Hand | null; doing: Doing } {
  const { patternEditor, pattern } = usePiece();
  const { pick, setPick } = usePick();
  const { unit } = usePreferences();
  const [held, take] = useState<Hand | null>(null);
  const hand = held && handNow(pattern, held, pick);

  const doing: Doing = {
    take,
    corner: (at) => {
      const split = splitSide(pattern, at.spot.side, at.spot.at, newId);
      take(null);
      if (!split.ok) return;
      patternEditor.edit(split.doc);
      const made = split.doc.corners.find((c) => !pattern.corners.some((old) => old.id === c.id));
      if (made) setPick({ kind: 'corner', id: made.id });
    },
    foldFrom: (from) => {
      setPick(null);
      take({ kind: 'fold', from, to: null });
    },
    foldTo: (to) => {
      if (hand?.kind !== 'fold') return;
      const id = newId();
      const path = { kind: 'between', from: hand.from.place, to: to.place } as const;
      patternEditor.edit({ ...pattern, folds: [...pattern.folds, newFold(pattern, id, path)] });
      take(null);
      setPick({ kind: 'fold', id });
    },
    hole: () => {
      if (hand?.kind !== 'inside') return;
      const id = newId();
      const [x, y] = hand.at;
      patternEditor.edit({
        ...pattern,
        holes: [...pattern.holes, { id, x, y, diameterMm: usualLength(HOLE_MM, unit) }],
      });
      take(null);
      setPick({ kind: 'hole', id });
    },
    bead: () => {
      if (hand?.kind !== 'inside') return;
      const near = spotNearest(pattern, hand.at);
      const edge = near && pattern.edges.find(({ sides }) => sides.includes(near.spot.side));
      if (!near || !edge) return;
      const bead = newBead(
        pattern,
        newId(),
        {
          kind: 'along',
          edge: edge.id,
          inMm: near.distance,
          startMm: 0,
          endMm: 0,
        },
        unit,
      );
      patternEditor.edit({ ...pattern, beads: [...pattern.beads, bead] });
      take(null);
      setPick({ kind: 'bead', id: bead.id });
    },
    tuck: (at) => {
      const tuck = {
        id: newId(),
        kind: 'tuck',
        at: at.place,
        widthMm: usualLength(TUCK_MM, unit),
        depthMm: usualLength(TUCK_DEEP_MM, unit),
      } as const;
      patternEditor.edit({ ...pattern, tucks: [...pattern.tucks, tuck] });
      take(null);
      setPick(null);
    },
    staysPut: () => {
      if (hand?.kind !== 'inside') return;
      patternEditor.edit({ ...pattern, base: [hand.at[0], hand.at[1]] });
      take(null);
    },
    takeOut: (corner) => {
      const next = removeCorner(pattern, corner);
      if (!next.ok) return;
      setPick(null);
      patternEditor.edit(next.doc);
    },
    gather: (part) => {
      if (hand?.kind !== 'rule') return;
      const has = hand.parts.includes(part);
      take({
        kind: 'rule',
        parts: has ? hand.parts.filter((id) => id !== part) : [...hand.parts, part],
      });
    },
  };

  const edge = pick?.kind === 'edge' ? pattern.edges.find((e) => e.id === pick.id) : undefined;
  const corner =
    pick?.kind === 'corner' ? pattern.corners.find((c) => c.id === pick.id) : undefined;
  const hole = pick?.kind === 'hole' ? pattern.holes.find((h) => h.id === pick.id) : undefined;
  const movable =
    corner ?? hole ?? (hand?.kind === 'inside' ? { x: hand.at[0], y: hand.at[1] } : undefined);
  const nudge = (across: number, up: number, shift: boolean) => {
    const step = keyStep(unit, shift);
    const to = movable && ([movable.x + across * step, movable.y + up * step] as const);
    if (corner && to) return patternEditor.edit(moveCorner(pattern, corner.id, to), corner.id);
    if (hole && to)
      return patternEditor.edit(setHole(pattern, hole.id, { x: to[0], y: to[1] }), hole.id);
    if (to) return take({ kind: 'inside', at: to });
    // Along the edge that is picked, or along the one a begun fold is to end on.
    const way = (across || up) * step;
    if (edge) {
      const at = movedAlong(pattern, edge, hand?.kind === 'place' ? hand.at : null, way);
      if (at) take({ kind: 'place', edge: edge.id, at });
    } else if (hand?.kind === 'fold' && hand.to) {
      const on = pattern.edges.find((e) => e.id === hand.to!.edge);
      const at = on && movedAlong(pattern, on, hand.to.at, way);
      if (at) take({ ...hand, to: { edge: on.id, at } });
    }
  };
  const arrow = (across: number, up: number) =>
    movable || edge || (hand?.kind === 'fold' && hand.to)
      ? (shift: boolean) => nudge(across, up, shift)
      : undefined;
  const nextEnd = (step: number) => {
    if (hand?.kind !== 'fold') return;
    const edges = byLetter(pattern.edges);
    const from = hand.to ? edges.findIndex((e) => e.id === hand.to!.edge) : -1;
    const on = edges[(from + step + edges.length) % edges.length]!;
    const at = movedAlong(pattern, on, null, 0);
    if (at) take({ ...hand, to: { edge: on.id, at } });
  };
  const place =
    hand?.kind === 'place' ? hand.at : corner ? placeOfCorner(pattern, corner.id) : null;
  useKeys(
    {
      ArrowLeft: arrow(-1, 0),
      ArrowRight: arrow(1, 0),
      ArrowUp: arrow(0, 1),
      ArrowDown: arrow(0, -1),
      c: hand?.kind === 'place' ? () => doing.corner(hand.at) : undefined,
      l: place ? () => doing.foldFrom(place) : undefined,
      t: hand?.kind === 'place' ? () => doing.tuck(hand.at) : undefined,
      h: hand?.kind === 'inside' ? doing.hole : undefined,
      b: hand?.kind === 'inside' ? doing.bead : undefined,
      s: hand?.kind === 'inside' ? doing.staysPut : undefined,
      i:
        hand || movable || edge || pick?.kind === 'fold' || pick?.kind === 'bead'
          ? undefined
          : () => takeInside(pattern, take, unit),
      e: hand?.kind === 'fold' ? () => nextEnd(1) : undefined,
      'Shift+E': hand?.kind === 'fold' ? () => nextEnd(-1) : undefined,
      Enter: hand?.kind === 'fold' && hand.to ? () => doing.foldTo(hand.to!.at) : undefined,
      Delete: corner ? () => doing.takeOut(corner.id) : undefined,
      Escape: hand ? () => take(null) : undefined,
    },
    { first: true },
  );
  return { hand, doing };
}

/**
 * What the hand is at, as it lies on the card now; null when it is gone or no longer goes with what
 * is picked.
 */
function handNow(
  pattern: PatternDoc,
  hand: Hand,
  pick: ReturnType<typeof usePick>['pick'],
): Hand | null {
  if (hand.kind === 'place') {
    const at = pick?.kind === 'edge' && pick.id === hand.edge ? asItLies(pattern, hand.at) : null;
    return at && { ...hand, at };
  }
  if (pick !== null) return null;
  if (hand.kind === 'inside') return hand;
  if (hand.kind === 'rule')
    return { ...hand, parts: hand.parts.filter((id) => isOnCard(pattern, id)) };
  const from = asItLies(pattern, hand.from);
  const to = hand.to && asItLies(pattern, hand.to.at);
  return from && { kind: 'fold', from, to: hand.to && to && { edge: hand.to.edge, at: to } };
}

const isOnCard = (pattern: PatternDoc, id: string) =>
  [pattern.sides, pattern.corners, pattern.holes, pattern.folds].some((list) =>
    list.some((one) => one.id === id),
  );

/** A corner as a place on the outline: the start of the side that leaves it. */
export function placeOfCorner(pattern: PatternDoc, id: string): SnappedPlace | null {
  const side = pattern.sides.find((s) => s.from === id);
  const corner = pattern.corners.find((c) => c.id === id);
  if (!side || !corner) return null;
  const { x, y } = corner;
  return {
    place: { side: side.id, share: 0 },
    spot: { side: side.id, at: 0 },
    point: [x, y],
    reason: 'corner',
  };
}

/**
 * From the keyboard: a place inside to begin with, in the middle of the corners at round figures.
 */
function takeInside(
  pattern: PatternDoc,
  take: (hand: Hand) => void,
  unit: ReturnType<typeof usePreferences>['unit'],
) {
  const n = pattern.corners.length || 1;
  const middle = [0, 1].map(
    (k) => pattern.corners.reduce((sum, c) => sum + (k === 0 ? c.x : c.y), 0) / n,
  );
  const { point } = snap([middle[0]!, middle[1]!], {
    anchors: [],
    ends: [],
    directions: [],
    reachMm: 2,
    unit,
  });
  take({ kind: 'inside', at: point });
}
