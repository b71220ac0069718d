import { z } from 'zod';
import { develop } from '#core/blank/fold/develop';
import { DEFAULT_SHOP, sheetMetal } from '#core/blank/fold/practice';
import { ShopSchema } from '#core/blank/shopSchema';
import { emptyPattern } from '#core/card/emptyPattern';
import { countingIds } from '#core/card/kinds';
import { outlineFromPoints } from '#core/card/legs';
import { patternParts } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import { readPattern } from '#core/card/read';
import { reckonBead } from '#core/blank/bead/section';
import { flangeStrain, widestWithin } from '#core/blank/flange/strain';
import { flaredHole } from '#core/blank/flared/flaredHole';
import { edgeThickness, shrinkLimit, stretchLimit } from '#core/metal/forming';
import type { Limit } from '#core/metal/forming';
import type { Metal } from '#core/metal/metals';
import { METAL_IDS, metalById } from '#core/metal/metals';
import type { StretchedRim } from '#core/metal/rim';
import { rimVerdict } from '#core/metal/rim';
import { bitesFor } from '#core/shape/bites';
import { ORDER_RULES } from '#core/shape/rules';
import { shapeOrder } from '#core/shape/shapeOrder';
import { radiusByStrain, strainForRadius } from '#core/shape/pulledCurve';
import type { Verb } from './verb';
import { verb } from './verb';

const length = z.number();

/** The section of a bead in figures; a step with the radius and thickness it is made with. */
const Section = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('arc'), widthMm: length, heightMm: length }),
  z.strictObject({
    kind: z.literal('flat-topped'),
    widthMm: length,
    topMm: length,
    heightMm: length,
  }),
  z.strictObject({ kind: z.literal('v'), widthMm: length, heightMm: length }),
  z.strictObject({
    kind: z.literal('step'),
    depthMm: length,
    radiusMm: length,
    thicknessMm: length,
  }),
]);

/** A strip with a bead right across and a flange along it. */
function exampleCard(): PatternDoc {
  const made = outlineFromPoints([
    [0, 0],
    [300, 0],
    [300, 80],
    [0, 80],
  ]);
  if (!made.ok) throw new Error('the example is no outline');
  const parts = patternParts(made.path, countingIds());
  const [edge] = parts.edges;
  return {
    ...emptyPattern(),
    ...parts,
    edges: parts.edges.map((one) =>
      one === edge
        ? {
            ...one,
            flange: {
              card: 'fold',
              widthMm: 15,
              endWidthMm: null,
              turnDeg: 90,
              toward: 'face',
              radiusMm: null,
              how: 'tipped',
              landMm: 15,
            },
          }
        : one,
    ),
    beads: [
      {
        id: 'bead',
        path: { kind: 'along', edge: edge!.id, inMm: 40, startMm: 0, endMm: 0 },
        section: { kind: 'arc', widthMm: 12, heightMm: 3 },
        toward: 'face',
        drawsIn: null,
        acrossRadiusMm: null,
        acrossOn: null,
        atFolds: null,
        meets: null,
      },
    ],
  };
}

/** Both verdicts on a stretched rim; `hole` where it is closed. */
const rimOf = (
  metal: Metal,
  thicknessMm: number,
  strain: number,
  { hole, tornAt }: { hole: StretchedRim['hole']; tornAt?: number | undefined },
) =>
  rimVerdict({
    strain,
    thicknessMm,
    thinning: stretchLimit(metal, tornAt ?? null),
    elongation: metal.elongation.value,
    hole,
  });
const limitOf = ({ strain, why }: Limit): Limit => ({ strain, why });

/** What is reckoned of metal that goes round a curve. */
export const SHAPE_VERBS: Record<string, Verb> = {
  flange: verb(
    'What a flange round an arc must stretch or shrink at its free edge, and whether it may (widths in the flat beyond the fold line)',
    z.object({
      radiusMm: length,
      widthMm: length,
      angleDeg: length,
      curve: z.enum(['inside', 'outside']),
      arcDeg: length.default(90),
      thicknessMm: z.number().positive(),
      how: z.enum(['tipped', 'pulled']).default('tipped'),
      metal: z.enum(METAL_IDS).default('dc04'),
      made: z.enum(['drilled', 'punched']).default('drilled'),
      tornAt: z.number().positive().optional(),
      wrinkledAt: z.number().optional(),
    }),
    {
      radiusMm: 100,
      widthMm: 15,
      angleDeg: 90,
      curve: 'inside',
      arcDeg: 90,
      thicknessMm: 0.8,
      how: 'tipped',
      metal: 'dc04',
    },
    ({ thicknessMm, metal, tornAt, wrinkledAt, made, ...figures }) => {
      const found = flangeStrain(figures);
      if (!found.ok) return found;
      const { edgeStrain } = found;
      const { radiusMm, widthMm, arcDeg, curve, how } = figures;
      const curvature = (curve === 'inside' ? 1 : -1) / radiusMm;
      const closed = curve === 'inside' && how === 'tipped' && arcDeg === 360;
      const rim =
        curve === 'inside'
          ? rimOf(metalById(metal), thicknessMm, edgeStrain, {
              tornAt,
              hole: closed ? { firstHoleMm: 2 * (radiusMm - widthMm), made } : null,
            })
          : null;
      const limit = rim ? limitOf(rim[rim.decides]) : shrinkLimit(wrinkledAt);
      return {
        ...found,
        edgeThicknessMm: edgeThickness(thicknessMm, edgeStrain),
        limit,
        within: rim ? rim.within : Math.abs(edgeStrain) <= Math.abs(limit.strain),
        ...(rim && { thinning: rim.thinning, cracking: rim.cracking, decides: rim.decides }),
        widestMm: widestWithin(curvature, figures.angleDeg, figures.how, limit.strain),
      };
    },
  ),
  bites: verb(
    'How many bites of a shrinker or stretcher bring a strain about, by a test strip',
    z.object({
      strain: z.number(),
      strip: z.object({ lengthMm: length, bites: z.number(), afterMm: length }),
      overMm: z.number().positive().optional(),
    }),
    { strain: 0.1, strip: { lengthMm: 100, bites: 10, afterMm: 104 } },
    ({ strain, strip, overMm }) => bitesFor(strain, strip, overMm),
  ),
  bead: verb(
    'What a bead takes of the sheet, what of it the blank gains, passes, and what a curve along it asks',
    z.object({
      section: Section,
      drawsIn: z.number(),
      depthPerPassMm: z.number(),
      acrossRadiusMm: z.number().optional(),
    }),
    {
      section: { kind: 'arc', widthMm: 12, heightMm: 3 },
      drawsIn: 0.6,
      depthPerPassMm: 1,
      acrossRadiusMm: 800,
    },
    ({ section, drawsIn, depthPerPassMm, acrossRadiusMm }) =>
      reckonBead(section, drawsIn, depthPerPassMm, acrossRadiusMm ?? null),
  ),
  'flared-hole': verb(
    'The first hole of a flared one (height over all, the sheet included) and whether its rim may stretch so far',
    z
      .object({
        insideMm: length.optional(),
        meanMm: length.optional(),
        heightMm: length,
        radiusMm: length,
        thicknessMm: length,
        made: z.enum(['drilled', 'punched']).default('drilled'),
        metal: z.enum(METAL_IDS).default('dc04'),
      })
      .refine(({ insideMm, meanMm }) => (insideMm === undefined) !== (meanMm === undefined), {
        message: 'either insideMm or meanMm',
        path: ['insideMm'],
      }),
    { insideMm: 25, heightMm: 6, radiusMm: 2, thicknessMm: 1, made: 'drilled' },
    ({ insideMm, meanMm, made, metal: id, ...flare }) => {
      const metal = metalById(id);
      const found = flaredHole(
        { ...flare, meanMm: meanMm ?? insideMm! + flare.thicknessMm },
        made,
        metal.elongation.value,
      );
      if (!found.ok) return found;
      const { firstHoleMm, edgeStrain } = found;
      const hole = { firstHoleMm, made };
      const rim = rimOf(metal, flare.thicknessMm, edgeStrain, { hole });
      return {
        ...found,
        thinning: rim.thinning,
        cracking: rim.cracking,
        decides: rim.decides,
      };
    },
  ),
  'shape-order': verb(
    'The working order of a piece: each step with its reason and figures, and the rules that keep it',
    z.object({
      pattern: z.unknown(),
      metal: z.enum(METAL_IDS).default('dc04'),
      thicknessMm: z.number().positive().max(100).default(1),
      shop: ShopSchema.partial().optional(),
      folds: z.array(z.string()).default([]),
      turnedAfter: z.array(z.string()).default([]),
      gaps: z.array(z.string()).default([]),
    }),
    { pattern: exampleCard(), metal: 'dc04', thicknessMm: 1 },
    ({ pattern, metal: id, thicknessMm, shop: given, folds, turnedAfter, gaps }) => {
      const read = readPattern(pattern);
      if (!read.ok) return read;
      const shop = { ...DEFAULT_SHOP, ...given };
      const metal = metalById(id);
      const found = develop(read.doc, sheetMetal(metal, thicknessMm, shop), shop);
      if (!found.ok) return found;
      const { development } = found;
      const steps = shapeOrder({
        pattern: read.doc,
        development,
        metal,
        thicknessMm,
        shop,
        foldOrder: folds,
        turnedAfter,
        gaps,
      });
      return { ok: true, steps, rules: ORDER_RULES };
    },
  ),
  'strip-curve': verb(
    'The radius a strip takes up when one edge is strained, or what a radius asks of that edge',
    z.union([
      z.strictObject({ widthMm: length, strain: z.number() }),
      z.strictObject({ widthMm: length, radiusMm: length, edge: z.enum(['stretched', 'shrunk']) }),
    ]),
    { widthMm: 16, radiusMm: 900, edge: 'shrunk' },
    (given) =>
      'strain' in given
        ? radiusByStrain(given.widthMm, given.strain)
        : strainForRadius(given.widthMm, given.radiusMm, given.edge),
  ),
};
