import { z } from 'zod';
import { emptyPattern } from '../../card/emptyPattern';
import { CONVENTIONS, countingIds } from '../../card/kinds';
import { outlineFromPoints } from '../../card/legs';
import type { Spot } from '../../card/outline';
import { patternParts, spotNearest } from '../../card/outline';
import type { PatternDoc, Place } from '../../card/pattern';
import type { Result } from '../../measure/result';
import { failure, stop } from '../../measure/result';
import type { Practice, SheetMetal } from './practice';
import { DEFAULT_SHOP } from './practice';

const mm = z.number().min(-100_000).max(100_000);
const point = z.tuple([mm, mm]);

export const RuleSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('measured'),
    k: z.number(),
    uK: z.number(),
    tested: z
      .object({ ratio: z.number().min(0), span: z.tuple([z.number().min(0), z.number().min(0)]) })
      .optional(),
  }),
  z.object({
    kind: z.literal('din6935'),
    temper: z.enum(['soft', 'half', 'hard']).optional(),
  }),
  z.object({ kind: z.literal('machinery'), temper: z.enum(['soft', 'half', 'hard']) }),
  z.object({ kind: z.literal('faa') }),
  z.object({ kind: z.literal('k'), k: z.number() }),
]);

/**
 * A card in the plain form of scripts: points and fold lines instead of a pattern document. Lengths
 * in mm.
 */
export const PlainCardSchema = z.object({
  thicknessMm: z.number().positive().max(100),
  rule: RuleSchema,
  outline: z.array(point).min(3).max(4000),
  folds: z
    .array(
      z
        .object({
          from: point,
          to: point,
          angleDeg: z.number(),
          radiusMm: z.number().min(0).max(100_000).optional(),
          convention: z.enum(CONVENTIONS).optional(),
          /** The convention, as older scripts name it. */
          made: z.enum(CONVENTIONS).optional(),
          toward: z.enum(['face', 'back']).default('face'),
        })
        .transform(({ made, ...fold }) => ({
          ...fold,
          convention: fold.convention ?? made ?? ('outside-sharp' as const),
        })),
    )
    .max(400)
    .default([]),
  holes: z
    .array(z.object({ at: point, diameterMm: z.number().positive().max(100_000) }))
    .max(2000)
    .default([]),
  base: point.optional(),
  relief: z.enum(['round', 'square', 'none']).default(DEFAULT_SHOP.relief),
  brakeLine: z.enum(['tangent', 'centre', 'radius-in']).default(DEFAULT_SHOP.brakeLine),
  kgPerM2PerMm: z.number().positive().default(7.85),
});
export type PlainCard = z.input<typeof PlainCardSchema>;

const shareOf = ({ side, at }: Spot): Place => ({ side, share: at });

/** Fold ends may be this far off the outline, mm. */
const SNAP_MM = 0.5;

/**
 * A plain card as a pattern document with its sheet and practice. The outline may run either way
 * round.
 *
 * Problems (stop): `too-few-corners`, `fold-off-outline` (about: `fold 1` …; numbers: offMm).
 */
export function fromPlain(
  plain: z.output<typeof PlainCardSchema>,
): Result<{ doc: PatternDoc; sheet: SheetMetal; practice: Practice }> {
  const outline = outlineFromPoints(plain.outline);
  if (!outline.ok) return outline;
  const newId = countingIds();
  const parts = patternParts(outline.path, newId);
  const doc: PatternDoc = { ...emptyPattern(), ...parts, base: plain.base ?? null };
  for (const [i, fold] of plain.folds.entries()) {
    const from = spotNearest(doc, fold.from)!;
    const to = spotNearest(doc, fold.to)!;
    const offMm = Math.max(from.distance, to.distance);
    if (offMm > SNAP_MM) {
      return failure(stop('fold-off-outline', [`fold ${i + 1}`], { offMm }));
    }
    doc.folds.push({
      id: `fold ${i + 1}`,
      path: { kind: 'between', from: shareOf(from.spot), to: shareOf(to.spot) },
      angleDeg: fold.angleDeg,
      toward: fold.toward,
      radiusMm: fold.radiusMm ?? null,
      convention: fold.convention,
    });
  }
  doc.holes = plain.holes.map((hole, i) => ({
    id: `hole ${i + 1}`,
    x: hole.at[0],
    y: hole.at[1],
    diameterMm: hole.diameterMm,
  }));
  const sheet: SheetMetal = {
    thicknessMm: plain.thicknessMm,
    rule: plain.rule,
    usualRadiusMm: plain.thicknessMm,
    leastRadiusMm: 0,
    temper: 'half',
    weight: plain.kgPerM2PerMm,
  };
  return {
    ok: true,
    doc,
    sheet,
    practice: { brakeLine: plain.brakeLine, relief: plain.relief, shortestFlangeMm: 0 },
  };
}
