import { z } from 'zod';
import { moment } from '../card/moment';
import { text } from '../card/text';
import { eachOnce } from '../card/eachOnce';
import { LAYERS, OPTION_KINDS } from './kinds';

const id = text(24).min(1);
const money = z.number().min(0).max(10_000_000);
const hours = z.number().min(0).max(10_000);

/** Where one layer is cut: at a distance in from an edge of the card, mm. */
export const LayerCutSchema = z.object({
  layer: z.enum(LAYERS),
  edge: id,
  inMm: z.number().min(-2000).max(10_000),
});
export type LayerCut = z.infer<typeof LayerCutSchema>;

/**
 * That the old metal was cut out: when, and when what it took away was back in its place (null
 * while it is out).
 */
const CutOutSchema = z.object({ at: moment, note: text(400), backAt: moment.nullable() });

/**
 * One way of going about a piece. Hours at best, likely and at worst; of a bought one the hours to
 * put it right.
 */
export const PieceOptionSchema = z
  .object({
    id,
    of: z.enum(OPTION_KINDS),
    name: text(60),
    hours: z.tuple([hours, hours, hours]),
    material: money,
    price: money,
  })
  .refine(({ hours: [a, m, b] }) => a <= m && m <= b, {
    error: 'hours at best, likely and at worst have to rise',
  });
export type PieceOption = z.infer<typeof PieceOptionSchema>;

/** Which option was taken and why; the hours it took, once that is known. */
const ChoiceSchema = z.object({
  option: id,
  why: text(400),
  at: moment,
  hoursTaken: hours.nullable(),
});
export type Choice = z.infer<typeof ChoiceSchema>;

export const MAX_READINGS = 40;

/** What is surveyed of a piece: it names points, findings and braces of its job by their ids. */
export const PieceSurveySchema = z.object({
  /** Reference points that are gone when it is cut out. */
  takes: z.array(id).max(200),
  /** Findings that it mends. */
  mends: z.array(id).max(200),
  /** Braces that hold its opening. */
  braces: z.array(id).max(100),
  /** Whether its references are reckoned in space; else in the plane of the side they are on. */
  space: z.boolean(),
  /** How well a point has to be put back, ± mm. */
  toleranceMm: z.number().min(0.05).max(100),
  layerCuts: z.array(LayerCutSchema).max(40),
  cutOut: CutOutSchema.nullable(),
  /** Micrometer readings of old metal, mm. */
  oldMetal: z.array(z.number().min(0.05).max(20)).max(MAX_READINGS),
  options: eachOnce(z.array(PieceOptionSchema).max(12)),
  choice: ChoiceSchema.nullable(),
});
export type PieceSurvey = z.infer<typeof PieceSurveySchema>;

/** A piece of which nothing has been surveyed. */
export const unsurveyed = (): PieceSurvey => ({
  takes: [],
  mends: [],
  braces: [],
  space: false,
  toleranceMm: 2,
  layerCuts: [],
  cutOut: null,
  oldMetal: [],
  options: [],
  choice: null,
});
