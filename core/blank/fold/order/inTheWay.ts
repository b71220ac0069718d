import { FAR_MM } from '../../../machine/brake';
import type { Vec } from '../../../measure/vector';
import type { Frame } from '../refold';
import type { Ready } from './clash';
import { depthWithin, isFree, spanWithin } from './clash';
import type { Span } from './fingers';
import type { Box, Shell, Sides } from './laid';
import { laid } from './laid';

/**
 * What stands in the way of a fold: which part of the machine, or the piece itself, and how deep,
 * mm; where along the machine's y, where that is known.
 */
export type Hit = {
  of:
    | 'bar'
    | 'beam'
    | 'bed'
    | 'apron'
    | 'bench'
    | 'piece'
    | 'length'
    | 'thickness'
    | 'way in'
    | 'way out';
  depthMm: number;
  alongMm?: number;
  /** The face that is in the way, by its index, where it is one; and the id of its turned edge. */
  face?: number;
  edge?: string;
};

/** What of one plate is in the machine's way while it is held, and the box it is in. */
export type Held = {
  body: number;
  /**
   * Where along the line it stands where bar or fingers would be, and how deep in the bar's
   * section.
   */
  bar: Standing | null;
  fixed: Hit | null;
  /**
   * Highest above the sheet, and deepest below the bed, behind the line, mm: what the bar has to be
   * lifted by; and where along it.
   */
  up: number;
  down: number;
  span: Span;
  box: Box;
};
export type Standing = { span: Span; depthMm: number };
/**
 * The same of one that swings: the box round all of its way up, and the box and the frame it ends
 * in.
 */
export type Swung = Pick<Held, 'body' | 'bar' | 'fixed' | 'box'> & {
  end: Box;
  endFrame: () => Frame;
};

/** What of a plate that is held is over and under the sheet behind the line, and where along it. */
export function wayOf(
  at: () => Sides,
  [x0, x1, y0, y1, z0, z1]: Box,
  thicknessMm: number,
): Pick<Held, 'up' | 'down' | 'span'> {
  const way = (up: number, down: number, span: Span) => ({
    up: Math.max(0, up),
    down: Math.max(0, down),
    span,
  });
  if (x1 <= 0) return way(z1, -z0 - thicknessMm, [y0, y1]);
  if (x0 > 0) return way(0, 0, [0, 0]);
  let [up, down, low, high] = [0, 0, Infinity, -Infinity];
  for (const [x, y, z] of at().flat()) {
    if (x > 0) continue;
    up = Math.max(up, z);
    down = Math.max(down, -z - thicknessMm);
    low = Math.min(low, y);
    high = Math.max(high, y);
  }
  return way(up, down, low <= high ? [low, high] : [0, 0]);
}

/**
 * A convex section lifted, with all that lies behind it: where it would be as the piece is drawn
 * out to the front.
 */
export function behind(section: readonly Vec[], lift: number): Vec[] {
  const up = section.map(([x, z]): Vec => [x, z + lift]);
  const low = Math.min(...up.map((p) => p[1]));
  const high = Math.max(...up.map((p) => p[1]));
  // Counter-clockwise from below: the front of it, and straight back at its lowest and highest.
  const n = up.length;
  const start = up.reduce(
    (best, p, i) =>
      p[1] < up[best]![1] - 1e-9 || (Math.abs(p[1] - up[best]![1]) <= 1e-9 && p[0] > up[best]![0])
        ? i
        : best,
    0,
  );
  const front: Vec[] = [];
  for (let k = 0; k < n; k++) {
    const p = up[(start + k) % n]!;
    front.push(p);
    if (Math.abs(p[1] - high) <= 1e-9) break;
  }
  return [[-2 * FAR_MM, low], ...front, [-2 * FAR_MM, high]];
}

export const middleOf = ([from, to]: Span): number => (from + to) / 2;

/** Where along the line a plate stands in bar or fingers, and how deep. */
export function standingIn(
  plate: Shell,
  frame: Frame,
  box: Box,
  sections: readonly Ready[],
): Standing | null {
  if (isFree(box, sections)) return null;
  const at = laid(plate, frame);
  const span = spanWithin(at, sections);
  return span && { span, depthMm: depthWithin(at, sections) };
}

/** What of a plate is in a fixed part of the machine. */
export function fixedHit(
  of: Hit['of'],
  plate: Shell,
  frame: Frame,
  box: Box,
  sections: readonly Ready[],
): Hit | null {
  const found = standingIn(plate, frame, box, sections);
  return found && { of, depthMm: found.depthMm, alongMm: middleOf(found.span) };
}
