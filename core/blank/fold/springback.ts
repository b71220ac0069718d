import type { Result } from '../../measure/result';
import { weightedMean } from '../../measure/mean';
import { failure } from '../../measure/result';

/**
 * A bend as the tool makes it, before it is let go: thickness and inside radius in mm, angle turned
 * through in degrees (0 flat), yield stress and Young's modulus in N/mm².
 */
export type Sprung = {
  thicknessMm: number;
  radiusMm: number;
  angleDeg: number;
  yieldMpa: number;
  youngMpa: number;
};

export type Springback = {
  /** x = Ri·Y/(E·T). */
  x: number;
  /** Ri/Rf. */
  radiusRatio: number;
  /** Inside radius after it is let go, mm. */
  afterRadiusMm: number;
  /** Inside radius at the tool, mm. */
  toolRadiusMm: number;
  /** Ks: the angle that is left as a share of the angle folded to. */
  angleRatio: number;
  /** The angle to fold to so that the wanted one is left, degrees. */
  foldToDeg: number;
};

/** From here on the metal springs back all the way: it was only bent as far as it gives. */
const ALL_THE_WAY = 0.5;

/** Ri/Rf by x. */
const radiusRatio = (x: number): number => 4 * x ** 3 - 3 * x + 1;

/**
 * How a bend springs back: Ri/Rf = 4x³ − 3x + 1 with x = Ri·Y/(E·T); the length along the middle of
 * the sheet stays, so the angle goes as Ks = (2·Ri/T + 1)/(2·Rf/T + 1). Source: Kalpakjian &
 * Schmid, Manufacturing Engineering and Technology.
 *
 * Problems: `springback-figures` (about: the figures that are not above 0; the angle must be at
 * most 180), `springs-back-wholly` (numbers: x; at 0.5 and more the sheet comes back flat),
 * `springback-past-closed` (numbers: foldToDeg; nothing folds past 180°, where the legs meet).
 */
export function springback(given: Sprung): Result<Springback> {
  const bad = wrongIn(given);
  if (bad.length > 0) return failure({ code: 'springback-figures', about: bad });
  const { thicknessMm: t, radiusMm, angleDeg, yieldMpa, youngMpa } = given;
  const x = (radiusMm * yieldMpa) / (youngMpa * t);
  if (x >= ALL_THE_WAY) return failure({ code: 'springs-back-wholly', numbers: { x } });
  const ratio = radiusRatio(x);
  const afterRadiusMm = radiusMm / ratio;
  const angleRatio = (2 * radiusMm + t) / (2 * afterRadiusMm + t);
  const foldToDeg = angleDeg / angleRatio;
  if (foldToDeg > 180) return failure({ code: 'springback-past-closed', numbers: { foldToDeg } });
  return {
    ok: true,
    x,
    radiusRatio: ratio,
    afterRadiusMm,
    toolRadiusMm: radiusMm,
    angleRatio,
    foldToDeg,
  };
}

/**
 * The same where the radius given is the one wanted after springback: the tool's is found.
 *
 * Problems: those of `springback`.
 */
export function springbackTo(wanted: Sprung): Result<Springback> {
  const bad = wrongIn(wanted);
  if (bad.length > 0) return failure({ code: 'springback-figures', about: bad });
  const { thicknessMm: t, radiusMm: after, yieldMpa, youngMpa } = wanted;
  if (after === 0) return springback(wanted);
  // Rf grows with x from 0 without end on the way to 0.5: x halves in on the wanted one.
  const perX = (youngMpa * t) / yieldMpa;
  let [low, high] = [0, ALL_THE_WAY];
  for (let turn = 0; turn < 200 && high - low > 1e-17; turn++) {
    const x = (low + high) / 2;
    if ((x * perX) / radiusRatio(x) < after) low = x;
    else high = x;
  }
  return springback({ ...wanted, radiusMm: low * perX });
}

function wrongIn({ thicknessMm, radiusMm, angleDeg, yieldMpa, youngMpa }: Sprung): string[] {
  const above = { thicknessMm, yieldMpa, youngMpa, angleDeg };
  const bad = Object.entries(above).flatMap(([name, value]) =>
    value > 0 && Number.isFinite(value) ? [] : [name],
  );
  if (!(radiusMm >= 0 && Number.isFinite(radiusMm))) bad.push('radiusMm');
  return angleDeg > 180 ? [...bad, 'angleDeg'] : bad;
}

/**
 * A bend as the shop folded and measured it: folded to `foldedToDeg`, let go at `cameBackToDeg`,
 * each sure to `uDeg` (standard uncertainty).
 */
export type SpringReading = { foldedToDeg: number; cameBackToDeg: number; uDeg: number };

/** The angle left as a share of the one folded to, and how sure. */
export type AngleRatio = { ratio: number; u: number };

/**
 * What one try says of the metal: the angle that is left as a share of the angle folded to, its two
 * readings being independent.
 *
 * Problems: `spring-reading` (numbers: foldedToDeg, cameBackToDeg): a bend comes back by something
 * between nothing and a third, or its readings do not belong together.
 */
export function angleRatioOf({
  foldedToDeg,
  cameBackToDeg,
  uDeg,
}: SpringReading): Result<AngleRatio> {
  const ratio = cameBackToDeg / foldedToDeg;
  const credible =
    foldedToDeg > 0 &&
    foldedToDeg <= 180 &&
    ratio > 2 / 3 &&
    cameBackToDeg <= foldedToDeg + 2 * uDeg &&
    uDeg > 0;
  if (!credible)
    return failure({ code: 'spring-reading', numbers: { foldedToDeg, cameBackToDeg } });
  return { ok: true, ratio, u: (uDeg / foldedToDeg) * Math.hypot(1, ratio) };
}

/** Several tries as one, their mean weighted by how sure each is. Null for none. */
export function meanRatio(all: readonly AngleRatio[]): AngleRatio | null {
  const mean = weightedMean(all.map(({ ratio, u }) => ({ value: ratio, u })));
  return mean && { ratio: mean.value, u: mean.u };
}

/** The angle to fold to for one that is wanted, and how sure, degrees. */
export const foldToBy = (
  { ratio, u }: AngleRatio,
  angleDeg: number,
): { foldToDeg: number; uDeg: number } => ({
  foldToDeg: angleDeg / ratio,
  uDeg: (angleDeg * u) / ratio ** 2,
});
