import { z } from 'zod';
import { adjustNetwork } from '#core/measure/network/network';
import { METAL_IDS, metalById } from '#core/metal/metals';
import { growthOf, growthToCutOpen } from '#core/survey/growth';
import { inOneLine, notCompared } from '#core/survey/layerCuts';
import { originalThickness } from '#core/survey/originalThickness';
import { weighOptions } from '#core/survey/options';
import { LayerCutSchema, MAX_READINGS } from '#core/survey/pieceSurvey';
import { putBack } from '#core/survey/putBack';
import { LookSchema } from '#core/survey/references';
import { twistOf } from '#core/survey/twist';
import { COMMON_SHEETS_MM, stockCandidates } from '#core/survey/stockCandidates';
import type { Verb } from './verb';
import { verb } from './verb';

const length = z.number();
const name = z.string().min(1).max(200);
/** As many points and tapes as are adjusted at once: some hundred unknowns, in a second or two. */
const [MAX_POINTS, MAX_TAPES] = [200, 4000];
const lookGiven = LookSchema.extend({
  outline: LookSchema.shape.outline.default(null),
  note: LookSchema.shape.note.default(''),
});

/** What is reckoned before anything is cut. */
export const SURVEY_VERBS: Record<string, Verb> = {
  network: verb(
    'Where points lie by the distances taped between them, how sure that is, and which tape is most likely misread',
    z.object({
      dimension: z.union([z.literal(1), z.literal(2), z.literal(3)]).default(2),
      points: z
        .array(z.object({ name, at: z.array(length).nullable().optional() }))
        .max(MAX_POINTS),
      tapes: z
        .array(z.object({ from: name, to: name, mm: length, uMm: length.default(1) }))
        .max(MAX_TAPES),
    }),
    {
      dimension: 2,
      points: [{ name: 'A' }, { name: 'B' }, { name: 'C' }, { name: 'D' }],
      tapes: [
        { from: 'A', to: 'B', mm: 1200.5 },
        { from: 'B', to: 'C', mm: 900 },
        { from: 'C', to: 'D', mm: 1199.5 },
        { from: 'D', to: 'A', mm: 900.5 },
        { from: 'A', to: 'C', mm: 1500 },
        { from: 'B', to: 'D', mm: 1500.5 },
      ],
    },
    adjustNetwork,
  ),
  twist: verb(
    'How far the fourth corner of an opening lies off the plane of the others, from its sides and diagonals',
    z.object({
      sides: z.object({ ab: length, bc: length, cd: length, da: length }),
      diagonals: z.object({ ac: length, bd: length }),
      uMm: length.default(1),
    }),
    {
      sides: { ab: 1200, bc: 900, cd: 1200.7, da: 900.9 },
      diagonals: { ac: 1500, bd: 1501.5 },
      uMm: 1,
    },
    ({ sides, diagonals, uMm }) => twistOf({ ...sides, ...diagonals }, uMm),
  ),
  'put-back': verb(
    'How well points that are cut away can be placed again from those that stay, and which further measure helps most',
    z.object({
      dimension: z.union([z.literal(2), z.literal(3)]).default(2),
      points: z
        .array(z.object({ name, at: z.array(length), lost: z.boolean().default(false) }))
        .max(MAX_POINTS),
      tapes: z.array(z.object({ from: name, to: name, uMm: length.default(1) })).max(MAX_TAPES),
    }),
    {
      dimension: 2,
      points: [
        { name: 'A', at: [0, 0] },
        { name: 'B', at: [1200, 0] },
        { name: 'C', at: [600, 500] },
        { name: 'hinge', at: [600, 40], lost: true },
      ],
      tapes: [
        { from: 'hinge', to: 'A', uMm: 1 },
        { from: 'hinge', to: 'B', uMm: 1 },
      ],
    },
    ({ dimension, points, tapes }) => putBack(dimension, points, tapes),
  ),
  options: verb(
    'What each way of going about a piece costs, as a range, and how likely each is the cheapest',
    z.object({
      rate: length,
      options: z
        .array(
          z.object({
            name,
            hours: z.tuple([length, length, length]),
            material: length.default(0),
            price: length.default(0),
          }),
        )
        .max(20),
    }),
    {
      rate: 45,
      options: [
        { name: 'patch', hours: [4, 6, 11], material: 20 },
        { name: 'pressing', hours: [1, 3, 8], price: 160 },
      ],
    },
    ({ rate, options }) => weighOptions(rate, options),
  ),
  growth: verb(
    'How findings grow from first sight to cut open: looks with length and width, oldest first or by their `at`',
    z.object({ findings: z.array(z.object({ looks: z.array(lookGiven).max(50) })).max(1000) }),
    {
      findings: [
        {
          looks: [
            { at: '2026-10-01T09:40:00.000Z', how: 'seen', lengthMm: 110, widthMm: 70 },
            { at: '2026-10-03T11:25:00.000Z', how: 'cut', lengthMm: 180, widthMm: 110 },
          ],
        },
      ],
    },
    ({ findings }) => {
      const none = () => null;
      const grown = growthToCutOpen(findings, none);
      return { ok: true, findings: findings.map((one) => growthOf(one, none)), toCutOpen: grown };
    },
  ),
  'layer-cuts': verb(
    'Cuts of neighbouring layers that run too near each other, measured in from one edge',
    z.object({ cuts: z.array(LayerCutSchema).max(40), apartMm: length.default(50) }),
    {
      cuts: [
        { layer: 'outer', edge: 'A', inMm: 30 },
        { layer: 'inner', edge: 'A', inMm: 65 },
      ],
      apartMm: 50,
    },
    ({ cuts, apartMm }) => ({
      ok: true,
      inOneLine: inOneLine(cuts, apartMm),
      notCompared: notCompared(cuts),
    }),
  ),
  'old-metal': verb(
    'How thick old sheet was, from micrometer readings with paint and rust among them',
    z.object({ readingsMm: z.array(z.number().positive()).min(1).max(MAX_READINGS) }),
    { readingsMm: [1.21, 1.2, 1.19, 1.38, 1.22, 1.07] },
    ({ readingsMm }) => ({ ok: true, ...originalThickness(readingsMm) }),
  ),
  sheets: verb(
    'Of the usual sheet sizes those nearest to the old: stiffness, weight and the step at a butt weld against it',
    z.object({
      metal: z.enum(METAL_IDS),
      thicknessMm: z.number().positive(),
      uMm: z.number().min(0).default(0),
      structural: z.boolean().default(false),
    }),
    { metal: 'dc01', thicknessMm: 1.05, uMm: 0.006, structural: true },
    ({ metal, thicknessMm, uMm, structural }) => {
      const own = metalById(metal);
      const offered = COMMON_SHEETS_MM.map((t) => ({ metal: own, thicknessMm: t, name: '' }));
      const found = stockCandidates({ metal: own, thicknessMm, uMm }, structural, offered, 5);
      return {
        ok: true,
        sheets: found.map(({ metal: of, name: _name, ...row }) => ({ metal: of.id, ...row })),
      };
    },
  ),
};
