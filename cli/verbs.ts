import { z } from 'zod';
import { bendAllowance } from '#core/blank/fold/allowance';
import { develop } from '#core/blank/fold/develop';
import type { Development } from '#core/blank/fold/developed';
import { PlainCardSchema, RuleSchema, fromPlain } from '#core/blank/fold/plain';
import type { SheetMetal } from '#core/blank/fold/practice';
import { DEFAULT_SHOP, sheetMetal } from '#core/blank/fold/practice';
import { combinedK, kFromStrip } from '#core/blank/fold/testBend';
import { scribeTable } from '#core/blank/scribe';
import { ShopSchema, StripSchema } from '#core/blank/shopSchema';
import { parseLegs, walk } from '#core/card/legs';
import { readPattern } from '#core/card/read';
import { edgeConditionOf } from '#core/fit/gapCondition';
import { points, simplified } from '#core/measure/path';
import type { Result } from '#core/measure/result';
import { LENGTH_UNITS } from '#core/measure/length';
import { parseLength } from '#core/measure/writtenLength';
import { GAUGE_SYSTEMS, nearestGauges, thicknessOfGauge } from '#core/metal/gauges';
import { METAL_IDS, metalById } from '#core/metal/metals';
import { layersOfBlank } from '#core/sheet/layers';
import { PAPERS, tilePages } from '#core/sheet/tiles';
import { plugPositions, tackOrder } from '#core/weld/spacing';
import { CARD_VERBS } from './cardVerbs';
import { FOLD_VERBS } from './foldVerbs';
import { PICTURE_VERBS } from './pictureVerbs';
import { SEAM_VERBS } from './seamVerbs';
import { SHAPE_VERBS } from './shapeVerbs';
import { SURFACE_VERBS } from './surfaceVerbs';
import { SURVEY_VERBS } from './surveyVerbs';
import type { Verb } from './verb';
import { verb } from './verb';

/** A whole pattern document with the sheet it is cut from. */
const DocumentSchema = z.object({
  /** Of any version. */
  pattern: z.unknown(),
  metal: z.enum(METAL_IDS),
  thicknessMm: z.number().positive(),
  rule: RuleSchema.optional(),
  shop: ShopSchema.partial().optional(),
});

function developGiven(
  input: z.output<typeof PlainCardSchema> | z.output<typeof DocumentSchema>,
): object {
  if ('pattern' in input) {
    const shop = { ...DEFAULT_SHOP, ...input.shop };
    const usual = sheetMetal(metalById(input.metal), input.thicknessMm, shop);
    const sheet: SheetMetal = { ...usual, rule: input.rule ?? usual.rule };
    const read = readPattern(input.pattern);
    return read.ok ? told(develop(read.doc, sheet, shop)) : read;
  }
  const plain = fromPlain(input);
  return plain.ok ? told(develop(plain.doc, plain.sheet, plain.practice)) : plain;
}

function told(found: Result<{ development: Development }>): object {
  if (!found.ok) return found;
  const d = found.development;
  const path = simplified(d.outline.map((p) => p.segment));
  return {
    ok: true,
    blank: { outline: points(path, 0.01), ...d.size },
    folds: d.folds.map((fold) => ({
      id: fold.id,
      angleDeg: fold.bend.angleDeg,
      radiusMm: fold.bend.radiusMm,
      k: fold.allowance.k,
      allowanceMm: fold.allowance.allowanceMm,
      deductionMm: fold.allowance.deductionMm,
      outsideSetbackMm: fold.allowance.outsideSetbackMm,
      setbackMm: fold.setbackMm,
      shiftMm: fold.shiftMm,
      tangents: fold.tangents,
      brake: fold.brake,
      centre: fold.centre,
      formula: fold.allowance.formula,
    })),
    holes: d.holes.map((hole) => ({ id: hole.id, at: hole.centre, diameterMm: hole.diameterMm })),
    scribe: scribeTable(d),
    warnings: d.warnings,
  };
}

const length = z.number();

const text = z.string().max(100_000);
export const VERBS: Record<string, Verb> = {
  length: verb(
    'A written length in millimetres: sums, fractions, feet and inches; `currentMm` is what +3 and -3 change',
    z.object({ text: text.max(500), unit: z.enum(LENGTH_UNITS), currentMm: z.number().optional() }),
    { text: '8 1/4 + 1/2', unit: 'in' },
    ({ text, unit, currentMm }) => {
      const read = parseLength(text, unit, currentMm);
      const problem = read.ok ? null : read.problems[0]!;
      const inDoubt =
        problem?.code === 'length-ambiguous' || problem?.code === 'length-fraction-ambiguous';
      return inDoubt ? { ...read, ambiguous: Object.values(problem.numbers) } : read;
    },
  ),
  legs: verb(
    'A walk round an outline as it is written, leg by leg, and by how much it misses its start',
    z.object({ text, unit: z.enum(LENGTH_UNITS) }),
    { text: '300 left 90, 200, 300, 200', unit: 'mm' },
    ({ text, unit }) => {
      const read = parseLegs(text, unit);
      if (!read.ok) return read;
      const { corners, closingMm } = walk(read.legs);
      return { ok: true, legs: read.legs, corners, closingMm };
    },
  ),
  gauge: verb(
    'Thickness of a gauge number, or the nearest gauge in each system to a thickness',
    z.union([
      z.object({ system: z.enum(GAUGE_SYSTEMS), gauge: z.number() }),
      z.object({ thicknessMm: length }),
    ]),
    { system: 'msg', gauge: 20 },
    (input) =>
      'system' in input
        ? thicknessOfGauge(input.system, input.gauge)
        : nearestGauges(input.thicknessMm),
  ),
  allowance: verb(
    'Bend allowance, setback and deduction of one fold',
    z.object({ thicknessMm: length, radiusMm: length, angleDeg: length, rule: RuleSchema }),
    { thicknessMm: 1, radiusMm: 1.6, angleDeg: 90, rule: { kind: 'din6935' } },
    ({ rule, ...bend }) => bendAllowance(bend, rule),
  ),
  'test-bend': verb(
    'K and its uncertainty from the shop’s own test strips',
    z.object({ strips: z.array(StripSchema).min(1) }),
    {
      strips: [
        {
          thicknessMm: 1,
          radiusMm: 1.6,
          angleDeg: 90,
          flatMm: 100,
          legAMm: 50.9,
          legBMm: 51.2,
          readingMm: 0.1,
        },
      ],
    },
    ({ strips }) => {
      const each = strips.map(kFromStrip);
      const failed = each.find((k) => !k.ok);
      return failed ?? { ...combinedK(each.filter((k) => k.ok)), strips: each };
    },
  ),
  develop: verb(
    'The flat blank of a card: plain outline and folds, or a whole pattern document with its metal',
    z.union([PlainCardSchema, DocumentSchema]),
    {
      thicknessMm: 2,
      rule: { kind: 'din6935' },
      outline: [
        [0, 0],
        [60, 0],
        [60, 30],
        [0, 30],
      ],
      folds: [
        {
          from: [25, 0],
          to: [25, 30],
          angleDeg: 90,
          radiusMm: 4,
          convention: 'outside-sharp',
          toward: 'face',
        },
      ],
      base: [5, 5],
    },
    developGiven,
  ),
  tiles: verb(
    'Pages needed to print a card full size',
    z.object({
      card: PlainCardSchema,
      paper: z.enum(Object.keys(PAPERS) as [keyof typeof PAPERS]),
    }),
    {
      card: {
        thicknessMm: 1,
        rule: { kind: 'din6935' },
        outline: [
          [0, 0],
          [600, 0],
          [600, 400],
          [0, 400],
        ],
      },
      paper: 'a4',
    },
    ({ card, paper }) => {
      const plain = fromPlain(card);
      if (!plain.ok) return plain;
      const found = develop(plain.doc, plain.sheet, plain.practice);
      if (!found.ok) return found;
      const cut = points(layersOfBlank(found.development).cut);
      const [xs, ys] = [cut.map((p) => p[0]), cut.map((p) => p[1])];
      return tilePages(
        {
          minX: Math.min(...xs),
          minY: Math.min(...ys),
          maxX: Math.max(...xs),
          maxY: Math.max(...ys),
        },
        paper,
      );
    },
  ),
  lie: verb(
    'How an edge lies at a trial fit, from its gap readings against a target',
    z.object({
      gapMm: length,
      toleranceMm: length,
      flushMm: length.default(1),
      readings: z.array(
        z.object({
          atMm: length,
          gapMm: length.nullable(),
          flushMm: length.nullable().default(null),
        }),
      ),
    }),
    {
      gapMm: 1,
      toleranceMm: 0.5,
      readings: [
        { atMm: 10, gapMm: 0.8 },
        { atMm: 200, gapMm: 1.6 },
        { atMm: 390, gapMm: 2.3 },
      ],
    },
    ({ readings, ...target }) => {
      const found = edgeConditionOf(readings, target);
      // Two figures under the names that older scripts read, too.
      return { ok: true, ...found, lie: found.condition, strayMm: found.maxDeviationMm };
    },
  ),
  plugs: verb(
    'Plug weld centres along an edge',
    z.object({ lengthMm: length, pitchMm: length, endMm: length }),
    { lengthMm: 420, pitchMm: 25, endMm: 12 },
    ({ lengthMm, pitchMm, endMm }) => plugPositions(lengthMm, pitchMm, endMm),
  ),
  tacks: verb(
    'Tack positions in tacking order: ends, middle, halves',
    z.object({ lengthMm: length, pitchMm: length, closed: z.boolean().default(false) }),
    { lengthMm: 420, pitchMm: 50, closed: false },
    ({ lengthMm, pitchMm, closed }) => tackOrder(lengthMm, pitchMm, closed),
  ),
  ...SURVEY_VERBS,
  ...SURFACE_VERBS,
  ...FOLD_VERBS,
  ...SEAM_VERBS,
  ...SHAPE_VERBS,
  ...CARD_VERBS,
  ...PICTURE_VERBS,
};

/** Runs a verb on parsed JSON; input that does not fit comes back as problems, never as a throw. */
export async function reckon(
  name: string,
  given: unknown,
): Promise<{ ok: boolean } & Record<string, unknown>> {
  const found = Object.hasOwn(VERBS, name) ? VERBS[name] : undefined;
  if (!found) return { ok: false, problems: [{ code: 'no-such-verb', about: [name] }] };
  const parsed = found.input.safeParse(given);
  if (!parsed.success) return { ok: false, problems: inputProblems(parsed.error) };
  try {
    return (await found.run(parsed.data)) as { ok: boolean };
  } catch (error) {
    // A fault of ours must still be an answer: whoever reads line by line would else wait for ever.
    return { ok: false, problems: [{ code: 'internal', message: (error as Error).message }] };
  }
}

/** What does not fit the verb's own form of input: by field. */
type InputProblem = { code: 'input'; about: string[]; message: string };

function inputProblems(error: z.ZodError): InputProblem[] {
  const flat = error.issues.flatMap((issue) =>
    issue.code === 'invalid_union' && issue.errors.length > 0
      ? // Of a union, tell of the form that came nearest.
        [...issue.errors]
          .sort((a, b) => a.length - b.length)[0]!
          .map((inner) => ({ ...inner, path: [...issue.path, ...inner.path] }))
      : [issue],
  );
  return flat.map((issue) => ({
    code: 'input',
    about: [issue.path.join('.')],
    message: issue.message,
  }));
}
