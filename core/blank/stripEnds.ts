import { radians } from '../measure/angle';
import type { Ramp } from '../measure/ramp';
import { mostOfRamp, rampAt } from '../measure/ramp';
import { ROUNDING_MM } from '../measure/tolerance';

/**
 * How a strip that is turned over along an edge ends: square to the edge, mitred by an angle back
 * from square, or run out to nothing over a length.
 */
export type StripEnd =
  { kind: 'square' } | { kind: 'mitred'; deg: number } | { kind: 'run-out'; overMm: number };

/**
 * An end as it is cut in the flat: it begins `insetMm` in from the end of the edge (below 0: only
 * farther out does it take anything away) and leans back by
 * `lean` mm along the edge for each mm outward (0: square, the tangent of a mitre else). `bare`:
 * beyond it the edge itself is taken away. `stepped`: a strip of another width goes straight on there.
 */
export type EndCut = { insetMm: number; lean: number; bare?: boolean; stepped?: boolean };

/** The bend of a turned strip, as far as its neighbours are concerned; `toward` null: not said. */
export type StripTurn = {
  thicknessMm: number;
  angleDeg: number;
  deductionMm: number;
  toward: 'face' | 'back' | null;
};

export const SQUARE: EndCut = { insetMm: 0, lean: 0 };
/** What lies beyond a bend comes up beside a strip: mitred by half a right angle. */
export const AT_BEND: EndCut = { insetMm: 0, lean: 1 };
/** In a hollow corner each of two strips takes this share of the angle between the edges. */
const HOLLOW_SHARE = 0.45;
/**
 * Strips turned farther than this lie as good as flat on the panel: reckoned as turned through
 * this, degrees.
 */
export const FLAT_DEG = 150;

/** Metal far out, as a share of a turn: what leans less is square, mm per mm. */
const NO_LEAN = 1e-9;

/** `turnRad` below 0: a hollow corner, where both strips share the room between the edges. */
export const hollowCut = (turnRad: number): EndCut => ({
  insetMm: 0,
  lean: 1 / Math.tan(Math.min(Math.PI / 4, HOLLOW_SHARE * (Math.PI + turnRad))),
});

/**
 * A line on which a strip or wall ends, in its own plane: `atMm` beyond the corner along its edge at
 * the outside sharp corner of its bend, and `slope` mm farther for each mm up the sheet.
 */
export type LeaningEnd = { atMm: number; slope: number };

/**
 * Where the inside or outside face of a turned strip (`ownFace`) meets the inside or outside face of
 * another that is turned up to the same side round a corner: `turnRad` is how far the outline turns
 * there (above 0). Both faces are planes; at a height z over the card's outside they lie z/tan A (less
 * T/sin A inside) outward of their edges' lines, and those cross (other − own·cos ψ)/sin ψ beyond the
 * corner along the own edge.
 */
export function endLine(
  own: StripTurn,
  other: StripTurn,
  turnRad: number,
  ownFace: 'inner' | 'outer',
  otherFace: 'inner' | 'outer',
): LeaningEnd {
  const [a, b] = [own, other].map((one) => radians(Math.min(one.angleDeg, FLAT_DEG))) as [
    number,
    number,
  ];
  const off = (angle: number, z: number, t: number) => (z * Math.cos(angle) - t) / Math.sin(angle);
  const [t, t2] = [
    ownFace === 'inner' ? own.thicknessMm : 0,
    otherFace === 'inner' ? other.thicknessMm : 0,
  ];
  const at = (up: number) => {
    const z = up * Math.sin(a) + t * Math.cos(a);
    return (off(b, z, t2) - off(a, z, t) * Math.cos(turnRad)) / Math.sin(turnRad);
  };
  const atMm = at(0);
  const slope = at(1) - atMm;
  return { atMm, slope: Math.abs(slope) < NO_LEAN ? 0 : slope };
}

/** The end of a strip at a corner so that its inner edge and that of another just touch. */
export function touchingCut(own: StripTurn, other: StripTurn, turnRad: number): EndCut {
  const { atMm, slope } = endLine(own, other, turnRad, 'inner', 'inner');
  // The strip's place out in the flat, from the card's line, is its width less the deduction.
  const insetMm = -(atMm + slope * own.deductionMm);
  // Where they lean toward each other only farther up, the line of the end begins beyond the corner.
  return slope < 0 ? { insetMm, lean: -slope } : { insetMm: Math.max(0, insetMm), lean: 0 };
}

/**
 * The end of a strip beside an edge that is not turned up: square, but that what is turned past
 * square back over a pointed corner must not stand out beyond the other edge.
 */
export function besidePlain(own: StripTurn, turnRad: number): EndCut {
  const back = Math.cos(radians(own.angleDeg)) * Math.cos(turnRad);
  const lean = turnRad > 0 && turnRad > Math.PI / 2 ? back / Math.sin(turnRad) : 0;
  return { insetMm: 0, lean: Math.max(0, lean) };
}

/** An end as somebody chose it; where it begins stays where it has to. */
export function chosenCut(found: EndCut, chosen: StripEnd | undefined, mostMm: number): EndCut {
  switch (chosen?.kind) {
    case undefined:
      return found;
    case 'square':
      return { ...found, lean: 0 };
    case 'mitred':
      return { ...found, lean: Math.tan(radians(chosen.deg)) };
    case 'run-out':
      return { ...found, lean: mostMm > 0 ? chosen.overMm / mostMm : 0 };
  }
}

/** How far out metal reaches along a piece: places along it, mm, and how far out there, mm. */
export type Profile = readonly (readonly [alongMm: number, outMm: number])[];

/**
 * What is left of a strip over a piece `lengthMm` long that adds `adds` along it, when its ends are
 * cut (null: it goes on there). Places rise; where it ends square two stand at one place.
 */
export function stripProfile(
  lengthMm: number,
  adds: Ramp,
  start: EndCut | null,
  end: EndCut | null,
): Profile {
  const [first, last] = [start?.insetMm ?? 0, lengthMm - (end?.insetMm ?? 0)];
  const [from, to] = [Math.max(0, first), Math.min(lengthMm, last)];
  if (!(to - from > ROUNDING_MM)) return [];
  const bounds = [
    (s: number) => rampAt(adds, s / lengthMm),
    ...(start && start.lean > 0 ? [(s: number) => (s - first) / start.lean] : []),
    ...(end && end.lean > 0 ? [(s: number) => (last - s) / end.lean] : []),
  ];
  // Between these places each bound runs straight, and so does the least of them but where two
  // cross.
  const plain = [from, ...adds.map(([share]) => share * lengthMm), to]
    .filter((s) => s >= from && s <= to)
    .sort((a, b) => a - b);
  const places = plain.flatMap((s, i) => {
    const next = plain[i + 1];
    if (next === undefined) return [s];
    const crossings = bounds.flatMap((f, k) =>
      bounds.slice(k + 1).flatMap((g) => {
        const [before, after] = [f(s) - g(s), f(next) - g(next)];
        return before * after < 0 ? [s + ((next - s) * before) / (before - after)] : [];
      }),
    );
    return [s, ...crossings.sort((a, b) => a - b)];
  });
  const out = (s: number) => Math.max(0, Math.min(...bounds.map((bound) => bound(s))));
  const found = places
    .filter((s, i) => i === 0 || s - places[i - 1]! > ROUNDING_MM)
    .map((s): [number, number] => [s, out(s)]);
  return mostOfRamp(found) > 0 ? found : [];
}
