import { outlineFromPoints } from '#core/card/legs';
import type { NewId } from '#core/card/kinds';
import { patternParts } from '#core/card/outline';
import type { CardProfile, PatternDoc } from '#core/card/pattern';
import type { Result } from '#core/measure/result';
import type { Vec } from '#core/measure/vector';
import { cross, dot, sub, unit } from '#core/measure/vector';
import type { PictureScale } from '#core/picture/pictureScale';
import { pictureScale } from '#core/picture/pictureScale';
import type { Share } from './TapPicture';

/** Two pins and how far apart they are. */
export type Known = { from: number; to: number; mm: number };
/**
 * What was put into a picture by hand: pins, what is known between them, and which readings are
 * kept.
 */
export type Measuring = {
  /** The picture, by its id on the piece or the job; empty while there is none. */
  picture: string;
  pins: Share[];
  known: Known[];
  square: [number, number, number][];
  spans: [number, number][];
  rounds: number[][];
};
export const NOTHING: Measuring = {
  picture: '',
  pins: [],
  known: [],
  square: [],
  spans: [],
  rounds: [],
};

export const MAX_PINS = 60;
/**
 * A pin put down with care is sure to a share of the picture's longer side, and to a pixel at best.
 */
const CARE = 1500;
export const pointingPx = (wide: number, high: number): number =>
  Math.max(1, Math.max(wide, high) / CARE);

/**
 * The scale of the picture, and every reading asked for: known distances again first, then the
 * spans, then one more.
 */
export function measured(
  { pins, known, square, spans, rounds }: Measuring,
  { wide, high }: { wide: number; high: number },
  also: { spans: [number, number][]; rounds: number[][] },
): Result<PictureScale> {
  const px = pins.map(([u, v]): Vec => [u * wide, (1 - v) * high]);
  const at = (pin: number) => px[pin]!;
  const span = (from: number, to: number) => ({ from: at(from), to: at(to) });
  return pictureScale({
    known: known.map(({ from, to, mm }) => ({ ...span(from, to), mm })),
    square: square.map(([a, b, c]) => [at(a), at(b), at(c)] as const),
    ask: [
      ...known.map(({ from, to }) => span(from, to)),
      ...[...spans, ...also.spans].map(([a, b]) => span(a, b)),
    ],
    round: [...rounds, ...also.rounds].map((rim) => rim.map(at)),
    place: px,
    uPx: pointingPx(wide, high),
  });
}

/** Without a pin: what hung on it goes with it, those after it move up. */
export function withoutPin(given: Measuring, pin: number): Measuring {
  const has = (list: readonly number[]) => list.includes(pin);
  const next = (i: number) => (i > pin ? i - 1 : i);
  return {
    ...given,
    pins: given.pins.filter((_, i) => i !== pin),
    known: given.known
      .filter(({ from, to }) => !has([from, to]))
      .map(({ from, to, mm }) => ({ from: next(from), to: next(to), mm })),
    square: given.square
      .filter((three) => !has(three))
      .map(([a, b, c]) => [next(a), next(b), next(c)]),
    spans: given.spans.filter((two) => !has(two)).map(([a, b]) => [next(a), next(b)]),
    rounds: given.rounds.filter((rim) => !has(rim)).map((rim) => rim.map(next)),
  };
}

/** A card round places in their order; its measure says how it came about. */
export function cardThrough(
  places: readonly { at: Vec; uMm: number }[],
  empty: PatternDoc,
  newId: NewId,
): Result<{ doc: PatternDoc }> {
  const built = outlineFromPoints(places.map(({ at }) => at));
  if (!built.ok) return built;
  const uMm = Math.max(...places.map(({ uMm }) => uMm));
  return {
    ok: true,
    doc: { ...empty, ...patternParts(built.path, newId), measured: { by: 'picture', uMm } },
  };
}

/**
 * A profile from places: the first and the last are on the straight edge, drops are what the rest
 * lie off it.
 */
export function profileThrough(places: readonly Vec[], name: string, newId: NewId): CardProfile {
  const [first, last] = [places[0]!, places[places.length - 1]!];
  const along = unit(sub(last, first));
  const ordinates = places.map((p): [number, number] => [
    dot(sub(p, first), along),
    cross(sub(p, first), along),
  ]);
  // The side on which most of it lies is down.
  const down = ordinates.reduce((sum, [, drop]) => sum + drop, 0) < 0 ? -1 : 1;
  const rounded = (mm: number) => Math.round(mm * 100) / 100;
  return {
    id: newId(),
    name,
    ordinates: ordinates.map(([s, drop]) => [rounded(s), rounded(down * drop)]),
    toleranceMm: 0.5,
  };
}
