import { radians } from '../../measure/angle';
import type { Result } from '../../measure/result';
import { failure } from '../../measure/result';
import type { RolledSheet } from './rolledSheet';
import { toNeutral, wrongSheet } from './rolledSheet';

/**
 * A wrap once round a tube, of paper or as the sheet it is rolled from: along its girth, and how much
 * is cut off a square end there, mm.
 */
export type Wrap = [along: number, height: number][];

/** As many places as a wrap is reckoned at round the tube. */
const WRAP_STEPS = 72;

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
 * pass each other; `sheet` where the tube is rolled from sheet: then it is the wall, and `tubeMm`
 * is measured as it says. With the other along x and this one rising in the x–z plane, s(φ) = (√(R² − (e +
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
  sheet?: RolledSheet | null;
}): Result<{ wrap: Wrap; square: Wrap; girthMm: number }> {
  const { ontoMm, angleDeg, offsetMm, sheet = null } = given;
  const wallMm = sheet?.thicknessMm ?? given.wallMm;
  const tubeMm = given.tubeMm + (sheet?.measured === 'inside' ? 2 * wallMm : 0);
  const bad = positive({ tubeMm, wallMm, ontoMm, angleDeg });
  if (wallMm > tubeMm / 2) bad.push('wallMm');
  if (angleDeg > 90) bad.push('angleDeg');
  if (!Number.isFinite(offsetMm)) bad.push('offsetMm');
  if (bad.length > 0) return failure({ code: 'shape-figures', about: bad });
  const wrong = wrongSheet(sheet, given.tubeMm);
  if (wrong) return wrong;
  const [r, onto, angle] = [tubeMm / 2, ontoMm / 2, radians(angleDeg)];
  if (r + Math.abs(offsetMm) > onto) return failure({ code: 'tube-misses', about: ['offsetMm'] });
  const reach = (radius: number) => (turn: number) =>
    (Math.sqrt(onto ** 2 - (offsetMm + radius * Math.sin(turn)) ** 2) -
      radius * Math.cos(turn) * Math.cos(angle)) /
    Math.sin(angle);
  const [outside, inside] = [reach(r), reach(r - wallMm)];
  const neutralMm = given.tubeMm + 2 * toNeutral(sheet);
  return {
    ok: true,
    wrap: round(neutralMm, outside),
    square: round(neutralMm, (turn) => Math.max(outside(turn), inside(turn))),
    girthMm: Math.PI * neutralMm,
  };
}

/**
 * A tube cut off at an angle: `angleDeg` off square (0 up to below 90). The wrap begins at the
 * longest side. Rolled from `sheet` it is developed on the middle of that.
 *
 * Problems: `shape-figures`.
 */
export function tubeCut(
  tubeMm: number,
  angleDeg: number,
  sheet: RolledSheet | null = null,
): Result<{ wrap: Wrap; girthMm: number }> {
  const bad = positive({ tubeMm });
  if (!(angleDeg >= 0 && angleDeg < 90)) bad.push('angleDeg');
  if (bad.length > 0) return failure({ code: 'shape-figures', about: bad });
  const wrong = wrongSheet(sheet, tubeMm);
  if (wrong) return wrong;
  const neutralMm = tubeMm + 2 * toNeutral(sheet);
  const rise = (neutralMm / 2) * Math.tan(radians(angleDeg));
  return {
    ok: true,
    wrap: round(neutralMm, (turn) => -rise * Math.cos(turn)),
    girthMm: Math.PI * neutralMm,
  };
}

/**
 * An elbow of segments: pieces of tube cut at the same angle, the first and the last half as long
 * as those between. `radiusMm` is of the axis. `end`: the cut of an end piece from its square end,
 * once round from the throat: a length, not a depth; a piece between is twice that, the same at
 * both ends; developed on the middle of `sheet` where it is rolled from that. Each mitre is bend/(2·(pieces − 1)).
 *
 * Problems: `shape-figures`.
 */
export function elbow(given: {
  tubeMm: number;
  radiusMm: number;
  bendDeg: number;
  pieces: number;
  sheet?: RolledSheet | null;
}): Result<{
  end: Wrap;
  mitreDeg: number;
  girthMm: number;
}> {
  const { tubeMm, radiusMm, bendDeg, pieces, sheet = null } = given;
  const bad = positive({ tubeMm, radiusMm, bendDeg });
  if (!(Number.isInteger(pieces) && pieces >= 2 && pieces <= 40)) bad.push('pieces');
  if (radiusMm < tubeMm / 2) bad.push('radiusMm');
  const mitreDeg = bendDeg / (2 * (pieces - 1));
  if (!(mitreDeg < 60)) bad.push('bendDeg');
  if (bad.length > 0) return failure({ code: 'shape-figures', about: [...new Set(bad)] });
  const wrong = wrongSheet(sheet, tubeMm);
  if (wrong) return wrong;
  const neutralMm = tubeMm + 2 * toNeutral(sheet);
  const lean = Math.tan(radians(mitreDeg));
  const end = Array.from({ length: WRAP_STEPS + 1 }, (_, i): [number, number] => {
    const turn = (2 * Math.PI * i) / WRAP_STEPS;
    const heightMm = lean * (radiusMm - (neutralMm / 2) * Math.cos(turn));
    return [(Math.PI * neutralMm * i) / WRAP_STEPS, heightMm];
  });
  return { ok: true, end, mitreDeg, girthMm: Math.PI * neutralMm };
}
