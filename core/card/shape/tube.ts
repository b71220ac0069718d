import { radians } from '../../measure/angle';
import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';

/**
 * A paper wrap once round the outside of a tube: along its girth, and how much is cut off a square
 * end there, mm.
 */
export type Wrap = [along: number, height: number][];

/** As many places as a wrap is reckoned at round the tube. */
export const WRAP_STEPS = 72;

const round = (diameter: number, height: (turn: number) => number): Wrap => {
  const all = Array.from({ length: WRAP_STEPS + 1 }, (_, i): [number, number] => {
    const turn = (2 * Math.PI * (i % WRAP_STEPS)) / WRAP_STEPS;
    return [(Math.PI * diameter * i) / WRAP_STEPS, height(turn)];
  });
  const least = Math.min(...all.map(([, h]) => h));
  return all.map(([at, h]) => [at, h - least]);
};

const positive = (given: Record<string, number>): string[] =>
  Object.entries(given).flatMap(([name, value]) =>
    value > 0 && Number.isFinite(value) ? [] : [name],
  );

/**
 * A tube notched to sit on another: `wrap` for an end that is bevelled to the outside of the other
 * all through its wall, `square` for a cut straight through the wall, where the inside may be what
 * touches. The wrap begins at the side of the acute angle. `tubeMm` and `ontoMm` are outside
 * diameters, `angleDeg` the angle between the axes (above 0, to 90), `offsetMm` how far the axes
 * pass each other. With the other along x and this one rising in the x–z plane, s(φ) = (√(R² − (e +
 * r·sin φ)²) − r·cos φ·cos θ)/sin θ.
 *
 * Problems: `shape-figures` (about: the figures out of range), `tube-misses` (about: `offsetMm`;
 * some of it passes beside).
 */
export function tubeNotch(given: {
  tubeMm: number;
  wallMm: number;
  ontoMm: number;
  angleDeg: number;
  offsetMm: number;
}): Result<{ wrap: Wrap; square: Wrap; girthMm: number }> {
  const { tubeMm, wallMm, ontoMm, angleDeg, offsetMm } = given;
  const bad = positive({ tubeMm, wallMm, ontoMm, angleDeg });
  if (wallMm > tubeMm / 2) bad.push('wallMm');
  if (angleDeg > 90) bad.push('angleDeg');
  if (!Number.isFinite(offsetMm)) bad.push('offsetMm');
  if (bad.length > 0) return failure({ code: 'shape-figures', about: bad });
  const [r, onto, angle] = [tubeMm / 2, ontoMm / 2, radians(angleDeg)];
  if (r + Math.abs(offsetMm) > onto) return failure({ code: 'tube-misses', about: ['offsetMm'] });
  const reach = (radius: number) => (turn: number) =>
    (Math.sqrt(onto ** 2 - (offsetMm + radius * Math.sin(turn)) ** 2) -
      radius * Math.cos(turn) * Math.cos(angle)) /
    Math.sin(angle);
  const [outside, inside] = [reach(r), reach(r - wallMm)];
  return {
    ok: true,
    wrap: round(tubeMm, outside),
    square: round(tubeMm, (turn) => Math.max(outside(turn), inside(turn))),
    girthMm: Math.PI * tubeMm,
  };
}

/**
 * A tube cut off at an angle: `angleDeg` off square (0 up to below 90). The wrap begins at the
 * longest side.
 *
 * Problems: `shape-figures`.
 */
export function tubeCut(tubeMm: number, angleDeg: number): Result<{ wrap: Wrap; girthMm: number }> {
  const bad = positive({ tubeMm });
  if (!(angleDeg >= 0 && angleDeg < 90)) bad.push('angleDeg');
  if (bad.length > 0) return failure({ code: 'shape-figures', about: bad });
  const rise = (tubeMm / 2) * Math.tan(radians(angleDeg));
  return {
    ok: true,
    wrap: round(tubeMm, (turn) => -rise * Math.cos(turn)),
    girthMm: Math.PI * tubeMm,
  };
}

/**
 * An elbow of segments: pieces of tube cut at the same angle, the first and the last half as long
 * as those between. `radiusMm` is of the axis. `end`: the cut of an end piece from its square end,
 * once round from the throat: a length, not a depth; a piece between is twice that, the same at
 * both ends. Each mitre is bend/(2·(pieces − 1)).
 *
 * Problems: `shape-figures`.
 */
export function elbow(given: {
  tubeMm: number;
  radiusMm: number;
  bendDeg: number;
  pieces: number;
}): Result<{
  end: Wrap;
  mitreDeg: number;
  girthMm: number;
}> {
  const { tubeMm, radiusMm, bendDeg, pieces } = given;
  const bad = positive({ tubeMm, radiusMm, bendDeg });
  if (!(Number.isInteger(pieces) && pieces >= 2 && pieces <= 40)) bad.push('pieces');
  if (radiusMm < tubeMm / 2) bad.push('radiusMm');
  const mitreDeg = bendDeg / (2 * (pieces - 1));
  if (!(mitreDeg < 60)) bad.push('bendDeg');
  if (bad.length > 0) return failure({ code: 'shape-figures', about: [...new Set(bad)] });
  const lean = Math.tan(radians(mitreDeg));
  const end = Array.from({ length: WRAP_STEPS + 1 }, (_, i): [number, number] => {
    const turn = (2 * Math.PI * i) / WRAP_STEPS;
    return [(Math.PI * tubeMm * i) / WRAP_STEPS, lean * (radiusMm - (tubeMm / 2) * Math.cos(turn))];
  });
  return { ok: true, end, mitreDeg, girthMm: Math.PI * tubeMm };
}
