import type { Segment } from '../measure/segment';
import { line, part, pointAt } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { add, along, cross, dot, left, length, meet, scale, sub, turned, unit } from '../measure/vector';
import { crossingsWithLine } from '../measure/segment';

export type ReliefKind = 'round' | 'square' | 'none';

/** A corner this near the rim of a relief counts as inside it, so that rounding does not choose the outline, mm. */
const TOUCHING = 1e-6;

/** Anything that carries a segment of the blank's outline. */
export type Carrier = { segment: Segment };

/**
 * The outline with a relief cut out round the point where two neighbouring pieces meet, and the pieces the cut adds.
 * `at` is the index of the piece that starts at the point; `reach` mm is how far the relief goes beyond it each way;
 * `axis` is a direction for the sides of a square one. Null when the relief would swallow the whole outline.
 *
 * A counter-clockwise outline keeps its metal on the left, so the new boundary runs clockwise round the relief.
 */
export function cutRound<P extends Carrier>(
  pieces: readonly P[],
  at: number,
  reach: number,
  kind: 'round' | 'square',
  axis: Vec,
  make: (segment: Segment) => P,
): P[] | null {
  const centre = pieces[at]!.segment.a;
  const u: Vec = length(axis) > 1e-9 ? unit(axis) : [1, 0];
  const beyond = (p: Vec): number => {
    const d = sub(p, centre);
    return (kind === 'round' ? length(d) : Math.max(Math.abs(dot(d, u)), Math.abs(cross(u, d)))) - reach;
  };
  const ahead = [...pieces.slice(at), ...pieces.slice(0, at)];
  let start: Vec | null = null;
  let end: Vec | null = null;
  while (ahead.length > 0 && !start) {
    const s = ahead[0]!.segment;
    if (beyond(s.b) <= TOUCHING) {
      ahead.shift();
      continue;
    }
    const t = exitOf(s, beyond);
    start = pointAt(s, t);
    ahead[0] = { ...ahead[0]!, segment: part(s, t, 1) };
  }
  while (ahead.length > 0 && !end) {
    const last = ahead[ahead.length - 1]!;
    const s = last.segment;
    if (beyond(s.a) <= TOUCHING) {
      ahead.pop();
      continue;
    }
    const t = 1 - exitOf({ a: s.b, b: s.a, bulge: -s.bulge }, beyond);
    end = pointAt(s, t);
    ahead[ahead.length - 1] = { ...last, segment: part(s, 0, t) };
  }
  if (!start || !end || ahead.length < 2) return null;
  const angle = (p: Vec) => Math.atan2(cross(u, sub(p, centre)), dot(sub(p, centre), u));
  let sweep = angle(end) - angle(start);
  while (sweep <= 1e-12) sweep += 2 * Math.PI;
  if (kind === 'round') return [...ahead, make({ a: end, b: start, bulge: -Math.tan(sweep / 4) })];
  // The corners of the square that the clockwise way from `end` to `start` passes.
  const turns = [0, 1, 2, 3].map((k) => Math.PI / 4 + (k * Math.PI) / 2);
  const passed = turns
    .map((turn) => ({ turn, after: (((angle(end) - turn) % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI) }))
    .filter(({ after }) => after > 1e-9 && after < sweep - 1e-9)
    .sort((p, q) => p.after - q.after)
    .map(({ turn }) => add(centre, scale(turned(u, turn), reach * Math.SQRT2)));
  const corners = [end, ...passed, start];
  return [...ahead, ...corners.slice(1).map((p, i) => make(line(corners[i]!, p)))];
}

/** The fraction at which a segment that starts inside leaves, by halving: the reliefs are convex and the pieces short. */
function exitOf(s: Segment, beyond: (p: Vec) => number): number {
  let low = 0;
  let high = 1;
  for (let i = 0; i < 60; i++) {
    const mid = (low + high) / 2;
    if (beyond(pointAt(s, mid)) > 0) high = mid;
    else low = mid;
  }
  return high;
}

/**
 * The outline with a slit opened to a slot `width` wide on the side away from the fold, and `deeper` mm beyond the
 * tangent. `at` is the index of the slit. Null when the piece beside it is too short to take the slot.
 */
export function cutSlot<P extends Carrier & { inward?: Vec }>(
  pieces: readonly P[],
  at: number,
  width: number,
  deeper: number,
  kind: 'round' | 'square',
  make: (segment: Segment) => P,
): P[] | null {
  const slit = pieces[at]!;
  const inward = slit.inward!;
  const descends = dot(sub(slit.segment.b, slit.segment.a), inward) >= 0 && !startsAtTangent(pieces, at);
  const mouth = descends ? slit.segment.a : slit.segment.b;
  const foot = descends ? slit.segment.b : slit.segment.a;
  // Away from the fold: against the outline's way where the slit is met before the fold, with it where after.
  const out = descends ? left(inward) : scale(left(inward), -1);
  const wall = along(mouth, out, width);
  const n = pieces.length;
  const besideAt = descends ? (at - 1 + n) % n : (at + 1) % n;
  const beside = pieces[besideAt]!;
  const hits = crossingsWithLine(beside.segment, wall, inward);
  const t = descends ? hits[hits.length - 1] : hits[0];
  if (t === undefined) return null;
  const rim = pointAt(beside.segment, t);
  const bottom = along(foot, inward, kind === 'round' ? Math.max(0, deeper - width / 2) : deeper);
  const corner = meet(rim, inward, bottom, out) ?? along(bottom, out, width);
  const floor: Segment = {
    a: descends ? corner : bottom,
    b: descends ? bottom : corner,
    bulge: kind === 'round' ? -1 : 0,
  };
  const cut = descends
    ? [line(rim, corner), floor, line(bottom, foot)]
    : [line(foot, bottom), floor, line(corner, rim)];
  const kept = { ...beside, segment: descends ? part(beside.segment, 0, t) : part(beside.segment, t, 1) };
  const out2 = [...pieces];
  out2[besideAt] = kept;
  out2.splice(at, 1, ...cut.map(make));
  return out2;
}

/** Whether the slit at `at` follows its fold (runs from the tangent up to the card's line). */
const startsAtTangent = <P extends Carrier & { inward?: Vec }>(pieces: readonly P[], at: number): boolean =>
  dot(sub(pieces[at]!.segment.b, pieces[at]!.segment.a), pieces[at]!.inward!) < 0;
