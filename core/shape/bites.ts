import type { Result } from '../measure/result';
import { failure } from '../measure/result';

/** A strip that was measured, bitten `bites` times along its edge and measured again, mm. */
export type BiteStrip = { lengthMm: number; bites: number; afterMm: number };

/**
 * `strainPerBite`: what one bite does to a strip of this length; `bites` as reckoned, `wholeBites`
 * as counted.
 */
export type Bites = { bites: number; wholeBites: number; strainPerBite: number };

/**
 * What one bite changes its strip by, a share: (after/before)^(1/bites) − 1.
 *
 * Problems: `bite-strip` (about: the figures that are not above 0), `bite-strip-same` (its length
 * did not change).
 */
export function strainPerBite({
  lengthMm,
  bites,
  afterMm,
}: BiteStrip): Result<{ strainPerBite: number }> {
  const bad = Object.entries({ lengthMm, bites, afterMm }).flatMap(([name, value]) =>
    value > 0 && Number.isFinite(value) ? [] : [name],
  );
  if (bad.length > 0) return failure({ code: 'bite-strip', about: bad });
  if (lengthMm === afterMm) return failure({ code: 'bite-strip-same' });
  return { ok: true, strainPerBite: (afterMm / lengthMm) ** (1 / bites) - 1 };
}

/**
 * How many bites bring a strain about over `overMm` of an edge (as long as the strip where nothing
 * is said), spread evenly: ln(1 + e)/ln(1 + e of one bite) for every length of the strip.
 *
 * Problems: those of `strainPerBite`; `strain-impossible` (numbers: strain; −100 % and less),
 * `bite-strip-other-way` (the strip was stretched and the edge is to shrink, or the other way
 * about).
 */
export function bitesFor(strain: number, strip: BiteStrip, overMm = strip.lengthMm): Result<Bites> {
  const one = strainPerBite(strip);
  if (!one.ok) return one;
  if (!(strain > -1) || !Number.isFinite(strain))
    return failure({ code: 'strain-impossible', numbers: { strain } });
  if (strain * one.strainPerBite < 0) return failure({ code: 'bite-strip-other-way' });
  const bites = (Math.log1p(strain) / Math.log1p(one.strainPerBite)) * (overMm / strip.lengthMm);
  return { ok: true, bites, wholeBites: Math.round(bites), strainPerBite: one.strainPerBite };
}
