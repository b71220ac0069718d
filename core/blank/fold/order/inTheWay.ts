import { FAR_MM } from '../../../machine/brake';
import type { Vec } from '../../../measure/vector';
import type { Vec3 } from '../refold';
import type { Ready, Sheet } from './clash';
import { depthWithin, spanWithin } from './clash';
import type { Span } from './fingers';

/** What stands in the way of a fold: which part of the machine, or the piece itself, and how deep, mm; where along the machine's y, where that is known. */
export type Hit = {
  of: 'bar' | 'beam' | 'bed' | 'apron' | 'piece' | 'length' | 'thickness' | 'way in' | 'way out';
  depthMm: number;
  alongMm?: number;
  /** The face that is in the way, by its index, where it is one. */
  face?: number;
};
/** The two sides of a plate, as places. */
export type Sides = Vec3[][];

/** What of one plate is in the machine's way while it is held. */
export type Held = {
  face: number;
  /** Where along the line it stands where bar or fingers would be, and how deep in the bar's section. */
  bar: { span: Span; depthMm: number } | null;
  fixed: Hit | null;
  /** Above the sheet, and below the bed, by so much behind the line: what the bar has to be lifted by; and where along it. */
  up: number;
  down: number;
  span: Span;
};
/** The same of one that swings, and where it stands all the way up and when it is let go. */
export type Swung = Pick<Held, 'face' | 'bar' | 'fixed'> & { at: Sides[]; end: Sides; out: Map<number, Out> };
/** What a plate runs into as the piece is drawn out to the front, the bar lifted by so much. */
export type Out = { beam: { depthMm: number; alongMm: number } | null; bar: Held['bar'] };

/** Nearest to the line and farthest from it, mm. The nearest of a polygon may lie on a side: its corners less half its longest side. */
export function reachOf(sheets: readonly Sheet[]): [number, number] {
  let [low, high] = [Infinity, 0];
  for (const { at } of sheets)
    at.forEach(([x, , z], i) => {
      const [p, , q] = at[(i + 1) % at.length]!;
      const [u, w] = [p - x, q - z];
      const t = Math.min(1, Math.max(0, -(x * u + z * w) / (u * u + w * w || 1)));
      low = Math.min(low, Math.hypot(x + t * u, z + t * w));
      high = Math.max(high, Math.hypot(x, z));
    });
  // A plate that the line itself runs through has its rim all round it.
  return [sheets.length > 0 ? low : 0, high];
}

/** What of a plate that is held is over and under the sheet behind the line, and where along it. */
export function wayOf(at: Sides, thicknessMm: number, bar: readonly Ready[]): Omit<Held, 'fixed' | 'face'> {
  let [up, down, low, high] = [0, 0, Infinity, -Infinity];
  for (const [x, y, z] of at.flat()) {
    if (x > 0) continue;
    up = Math.max(up, z);
    down = Math.max(down, -z - thicknessMm);
    low = Math.min(low, y);
    high = Math.max(high, y);
  }
  const span = spanWithin(at, bar);
  return { bar: span && { span, depthMm: depthWithin(at, bar) }, up, down, span: low <= high ? [low, high] : [0, 0] }; // prettier-ignore
}

/** A convex section lifted, with all that lies behind it: where it would be as the piece is drawn out to the front. */
export function behind(section: readonly Vec[], lift: number): Vec[] {
  const up = section.map(([x, z]): Vec => [x, z + lift]);
  const low = Math.min(...up.map((p) => p[1]));
  const high = Math.max(...up.map((p) => p[1]));
  // Counter-clockwise from below: the front of it, and straight back at its lowest and highest.
  const n = up.length;
  const start = up.reduce((best, p, i) => (p[1] < up[best]![1] - 1e-9 || (Math.abs(p[1] - up[best]![1]) <= 1e-9 && p[0] > up[best]![0]) ? i : best), 0); // prettier-ignore
  const front: Vec[] = [];
  for (let k = 0; k < n; k++) {
    const p = up[(start + k) % n]!;
    front.push(p);
    if (Math.abs(p[1] - high) <= 1e-9) break;
  }
  return [[-2 * FAR_MM, low], ...front, [-2 * FAR_MM, high]];
}
