/**
 * What pixels of one kind look like: a sum of normal distributions over three figures each, found
 * by expectation and maximisation (Bishop, Pattern Recognition and Machine Learning, 9.2). No
 * chance: it begins at samples far from each other.
 */
export type Mixture = readonly Component[];
/**
 * Share, mean, and the inverse of the covariance (xx, xy, xz, yy, yz, zz) with what goes before the
 * exponential, as a log.
 */
type Component = {
  share: number;
  mean: [number, number, number];
  spread: Float64Array;
  log: number;
};

/**
 * No kind is surer than this of its figures, as a variance: what a sensor's noise makes of one
 * colour.
 */
const MIN_VARIANCE = 16;
const TURNS = 8;

/**
 * The mixture of `lobes` lobes of some samples, three figures each one after another; null for
 * under ten.
 */
export function mixtureOf(samples: Float64Array, count: number): Mixture | null {
  const n = samples.length / 3;
  if (n < 10) return null;
  let found: Component[] = initialMeans(samples, count).map((mean) =>
    componentOf(1 / count, mean, [400, 0, 0, 400, 0, 400]),
  );
  const weights = new Float64Array(n * count);
  for (let turn = 0; turn < TURNS; turn++) {
    for (let i = 0; i < n; i++) {
      let [sum, most] = [0, -Infinity];
      for (let k = 0; k < found.length; k++) {
        const log = logDensity(
          found[k]!,
          samples[3 * i]!,
          samples[3 * i + 1]!,
          samples[3 * i + 2]!,
        );
        weights[i * count + k] = log;
        if (log > most) most = log;
      }
      for (let k = 0; k < found.length; k++)
        sum += weights[i * count + k] = Math.exp(weights[i * count + k]! - most);
      for (let k = 0; k < found.length; k++) weights[i * count + k]! /= sum;
    }
    found = found.flatMap((_, k) => maximized(samples, weights, count, k));
    // Lobes that are empty are gone: the weights are laid out for all of them, so their columns are
    // read as they were.
    if (found.length < count) return mixtureOf(samples, found.length);
  }
  return found;
}

/** The log of how likely three figures are of a kind. */
export function logLikelihood(mixture: Mixture, x: number, y: number, z: number): number {
  let most = -Infinity;
  for (const lobe of mixture) {
    const log = logDensity(lobe, x, y, z);
    if (log > most) most = log;
  }
  return most;
}

/**
 * How far three figures are from a kind, in spreads, squared: from the middle of its densest lobe
 * none, from a lobe that is thinner (fewer, or more widely spread) as far as what is as unlikely
 * lies from the densest.
 */
export function squaredDistance(mixture: Mixture, x: number, y: number, z: number): number {
  let most = -Infinity;
  for (const { log } of mixture) if (log > most) most = log;
  return 2 * (most - logLikelihood(mixture, x, y, z));
}

function mahalanobisSquared(
  { mean, spread: s }: Component,
  x: number,
  y: number,
  z: number,
): number {
  const a = x - mean[0];
  const b = y - mean[1];
  const c = z - mean[2];
  return (
    a * a * s[0]! +
    b * b * s[3]! +
    c * c * s[5]! +
    2 * (a * b * s[1]! + a * c * s[2]! + b * c * s[4]!)
  );
}

const logDensity = (lobe: Component, x: number, y: number, z: number): number =>
  lobe.log - mahalanobisSquared(lobe, x, y, z) / 2;

/** Samples far from each other: each the one farthest from all before it, the first the mean. */
function initialMeans(samples: Float64Array, lobes: number): [number, number, number][] {
  const n = samples.length / 3;
  const mean: [number, number, number] = [0, 0, 0];
  for (let i = 0; i < samples.length; i++) mean[i % 3]! += samples[i]! / n;
  const found = [mean];
  const away = new Float64Array(n).fill(Infinity);
  while (found.length < lobes) {
    const last = found[found.length - 1]!;
    let far = 0;
    for (let i = 0; i < n; i++) {
      const d =
        (samples[3 * i]! - last[0]) ** 2 +
        (samples[3 * i + 1]! - last[1]) ** 2 +
        (samples[3 * i + 2]! - last[2]) ** 2;
      if (d < away[i]!) away[i] = d;
      if (away[i]! > away[far]!) far = i;
    }
    found.push([samples[3 * far]!, samples[3 * far + 1]!, samples[3 * far + 2]!]);
  }
  return found;
}

function maximized(
  samples: Float64Array,
  weights: Float64Array,
  lobes: number,
  k: number,
): Component[] {
  const n = samples.length / 3;
  let total = 0;
  const mean: [number, number, number] = [0, 0, 0];
  for (let i = 0; i < n; i++) {
    const w = weights[i * lobes + k]!;
    total += w;
    for (let c = 0; c < 3; c++) mean[c]! += w * samples[3 * i + c]!;
  }
  if (total < 2) return [];
  for (let c = 0; c < 3; c++) mean[c]! /= total;
  const s: Six = [0, 0, 0, 0, 0, 0];
  for (let i = 0; i < n; i++) {
    const w = weights[i * lobes + k]! / total;
    const [a, b, c] = [
      samples[3 * i]! - mean[0],
      samples[3 * i + 1]! - mean[1],
      samples[3 * i + 2]! - mean[2],
    ];
    s[0] += w * a * a;
    s[1] += w * a * b;
    s[2] += w * a * c;
    s[3] += w * b * b;
    s[4] += w * b * c;
    s[5] += w * c * c;
  }
  for (const i of [0, 3, 5] as const) s[i] += MIN_VARIANCE;
  return [componentOf(total / n, mean, s)];
}

type Six = [number, number, number, number, number, number];

function componentOf(
  share: number,
  mean: [number, number, number],
  [a, b, c, d, e, f]: Six,
): Component {
  const whole = a * (d * f - e * e) - b * (b * f - c * e) + c * (b * e - c * d);
  const spread = Float64Array.from(
    [d * f - e * e, c * e - b * f, b * e - c * d, a * f - c * c, b * c - a * e, a * d - b * b],
    (x) => x / whole,
  );
  return { share, mean, spread, log: Math.log(share) - Math.log(whole) / 2 };
}
