import { z } from 'zod';
import { emptyPattern } from '#core/card/emptyPattern';
import { countingIds } from '#core/card/kinds';
import { otherSide } from '#core/card/otherSide';
import { outlineFromPoints } from '#core/card/legs';
import { patternParts } from '#core/card/outline';
import { readPattern } from '#core/card/read';
import { profileOf } from '#core/card/profile';
import { ruled } from '#core/card/rule/ruled';
import type { Rule } from '#core/card/rule/rules';
import { frustum, squareToRound } from '#core/card/shape/cone';
import { shaped } from '#core/card/shape/figures';
import type { RolledSheet } from '#core/card/shape/rolledSheet';
import { elbow, tubeCut, tubeNotch } from '#core/card/shape/tube';
import { paperCurve } from '#core/card/tucks';
import type { Verb } from './verb';
import { verb } from './verb';

const length = z.number();
const place = z.tuple([length, length]);
const number = z.number().int().min(0).max(4000);
const several = z.array(number).min(1).max(400);
const pair = z.tuple([number, number]);
/** As many corners as are ruled at once. */
const MAX_RULED = 400;

const RuleSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('parallel'), sides: several }),
  z.object({ kind: z.literal('square'), sides: pair }),
  z.object({ kind: z.literal('straight'), sides: several }),
  z.object({ kind: z.literal('equal-length'), sides: several }),
  z.object({ kind: z.literal('length'), side: number, mm: length }),
  z.object({ kind: z.literal('width'), sides: pair, mm: length }),
  z.object({ kind: z.literal('arc'), points: several }),
  z.object({ kind: z.literal('pitch'), holes: several }),
  z.object({ kind: z.literal('in-line'), places: several }),
  z.object({ kind: z.literal('level'), places: several }),
  z.object({ kind: z.literal('symmetric'), places: several }),
  z.object({ kind: z.literal('circle'), holes: several }),
  z.object({ kind: z.literal('rectangle'), holes: z.tuple([number, number, number, number]) }),
  z.object({ kind: z.literal('on'), place: number, side: number }),
  z.object({ kind: z.literal('share'), place: number, side: number, of: place }),
  z.object({ kind: z.literal('hold'), points: several }),
]) satisfies z.ZodType<Rule>;

/**
 * Of what is rolled from sheet: how thick it is, and whether diameters are of its outside or inside
 * (`tubeIs` of tubes, `diametersAre` of cones; either is taken). Left out: a paper wrap.
 */
const face = z.enum(['outside', 'inside']).optional();
const ROLLED_FROM = { thicknessMm: length.optional(), tubeIs: face, diametersAre: face };
type RolledGiven = {
  thicknessMm?: number | undefined;
  tubeIs?: 'outside' | 'inside' | undefined;
  diametersAre?: 'outside' | 'inside' | undefined;
};
const sheetOf = ({ thicknessMm, tubeIs, diametersAre }: RolledGiven): RolledSheet | null => {
  const measured = tubeIs ?? diametersAre;
  return measured ? { thicknessMm: thicknessMm ?? Number.NaN, measured } : null;
};

const ShapeSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('tube-notch'),
    tubeMm: length,
    wallMm: length.optional(),
    ontoMm: length,
    angleDeg: length.default(90),
    offsetMm: length.default(0),
    ...ROLLED_FROM,
  }),
  z.object({
    kind: z.literal('tube-cut'),
    tubeMm: length,
    angleDeg: length,
    ...ROLLED_FROM,
  }),
  z.object({
    kind: z.literal('elbow'),
    tubeMm: length,
    radiusMm: length,
    bendDeg: length,
    pieces: length,
    ...ROLLED_FROM,
  }),
  z.object({
    kind: z.literal('frustum'),
    lowerMm: length,
    upperMm: length,
    heightMm: length,
    ...ROLLED_FROM,
  }),
  z.object({
    kind: z.literal('square-to-round'),
    wideMm: length,
    deepMm: length,
    roundMm: length,
    heightMm: length,
    shiftMm: place.default([0, 0]),
    parts: length.default(8),
    ...ROLLED_FROM,
  }),
]);

/** Flat ones, by figures that have usual values. */
const FLAT = [
  'disc',
  'ring',
  'strip',
  'washer-plate',
  'gusset',
  'angle',
  'channel',
  'hat',
  'tray',
  'box',
  'leaning-cone',
  'elbow-end',
  'elbow-middle',
] as const;
const FlatSchema = z
  .object({ kind: z.enum(FLAT), tubeIs: face, diametersAre: face })
  .catchall(length);

function flatOf({ kind, tubeIs, diametersAre, ...figures }: z.output<typeof FlatSchema>): object {
  const sheet = sheetOf({ tubeIs, diametersAre, thicknessMm: figures.thicknessMm });
  const found = shaped(kind, figures, sheet);
  if (!found.ok) return found;
  const { path, holes, folds } = found;
  return {
    ok: true,
    outline: path.map(({ a, bulge }) => ({ x: a[0], y: a[1], bulge })),
    holes,
    folds,
  };
}

function shapeOf(given: z.output<typeof ShapeSchema>): object {
  const sheet = sheetOf(given);
  switch (given.kind) {
    case 'tube-notch': {
      const wallMm = given.wallMm ?? given.thicknessMm ?? Number.NaN;
      return tubeNotch({
        ...given,
        wallMm,
        sheet: sheet && { ...sheet, thicknessMm: given.thicknessMm ?? wallMm },
      });
    }
    case 'tube-cut':
      return tubeCut(given.tubeMm, given.angleDeg, sheet);
    case 'elbow':
      return elbow({ ...given, sheet });
    case 'frustum':
      return frustum(given.lowerMm, given.upperMm, given.heightMm, sheet);
    case 'square-to-round':
      return squareToRound({ ...given, sheet });
  }
}

const isFlat = (
  given: z.output<typeof ShapeSchema> | z.output<typeof FlatSchema>,
): given is z.output<typeof FlatSchema> => (FLAT as readonly string[]).includes(given.kind);

/** A plate for the example. */
function plate() {
  const built = outlineFromPoints([
    [0, 0],
    [300, 0],
    [300, 200],
    [0, 200],
  ]);
  if (!built.ok) throw new Error('The example is no card');
  return { ...emptyPattern(), ...patternParts(built.path, countingIds('s')) };
}

/** What is reckoned to make a card of what was measured. */
export const CARD_VERBS: Record<string, Verb> = {
  rule: verb(
    'An outline ruled straight: the least movement of all corners, holes and lines across it that meets what they are meant to be (lines are sides on from those of the outline, their ends places on from the holes)',
    z.object({
      points: z.array(place).min(3).max(MAX_RULED),
      holes: z.array(place).max(MAX_RULED).default([]),
      lines: z
        .array(z.tuple([place, place]))
        .max(MAX_RULED)
        .default([]),
      rules: z.array(RuleSchema).max(MAX_RULED),
    }),
    {
      points: [
        [0, 0],
        [400, 3],
        [398, 251],
        [1, 248],
      ],
      holes: [
        [60, 60],
        [118, 63],
        [181, 58],
      ],
      rules: [
        { kind: 'parallel', sides: [0, 2] },
        { kind: 'square', sides: [0, 1] },
        { kind: 'pitch', holes: [0, 1, 2] },
      ],
    },
    ({ points, holes, rules, lines }) => ruled(points, holes, rules, lines),
  ),
  profile: verb(
    'A profile from ordinates: drops from a straight edge (y = -drop) as the fewest lines and arcs within a tolerance',
    z.object({ ordinates: z.array(place).min(2).max(1000), toleranceMm: length.default(0.3) }),
    {
      ordinates: [
        [0, 12],
        [50, 5.4],
        [100, 1.3],
        [150, 0],
        [200, 1.3],
        [250, 5.4],
        [300, 12],
      ],
      toleranceMm: 0.3,
    },
    ({ ordinates, toleranceMm }) => {
      const found = profileOf(ordinates, toleranceMm);
      if (!found.ok) return found;
      const arcs = found.arcs.map(({ a, b, bulge }) => ({ from: a, to: b, bulge }));
      return { ok: true, arcs, worstMm: found.worstMm };
    },
  ),
  tucks: verb(
    'How a surface curves that paper was laid on with tucks and slits',
    z.object({
      tucks: z
        .array(z.object({ overlapMm: length, depthMm: length }))
        .max(1000)
        .default([]),
      slits: z
        .array(z.object({ openMm: length, depthMm: length }))
        .max(1000)
        .default([]),
      areaMm2: length,
    }),
    {
      tucks: [{ overlapMm: 12, depthMm: 80 }],
      slits: [{ openMm: 5, depthMm: 60 }],
      areaMm2: 40_000,
    },
    ({ tucks, slits, areaMm2 }) => paperCurve(tucks, slits, areaMm2),
  ),
  shape: verb(
    'A shape by figures: tube-notch, tube-cut, elbow, frustum, square-to-round; disc, ring, strip, washer-plate, gusset, angle, channel, hat, tray. What is rolled from sheet: thicknessMm and tubeIs or diametersAre (outside, inside); left out, a paper wrap on what was typed',
    z.union([ShapeSchema, FlatSchema]),
    { kind: 'tube-notch', tubeMm: 42.4, wallMm: 2, ontoMm: 48.3, angleDeg: 60, offsetMm: 0 },
    (given) => (isFlat(given) ? flatOf(given) : shapeOf(given)),
  ),
  mirror: verb(
    'The card for the other side: mirrored, less (or plus, below 0) so much along some edges, by their letters',
    z.object({
      pattern: z.unknown(),
      takeOff: z
        .array(z.object({ edge: z.string().min(1).max(24), mm: length }))
        .max(1000)
        .default([]),
    }),
    { pattern: plate(), takeOff: [{ edge: 'B', mm: 3 }] },
    ({ pattern, takeOff }) => {
      const read = readPattern(pattern);
      if (!read.ok) return read;
      const found = otherSide(read.doc, takeOff);
      return found.ok ? { ok: true, pattern: found.doc } : found;
    },
  ),
};
