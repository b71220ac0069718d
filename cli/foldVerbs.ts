import { z } from 'zod';
import { develop } from '#core/blank/fold/develop';
import { remediesFor } from '#core/blank/fold/order/remedies';
import type { Furthest } from '#core/blank/fold/order/solve';
import { checkedOrder, foldOrder } from '#core/blank/fold/order/solve';
import { PlainCardSchema, fromPlain } from '#core/blank/fold/plain';
import { springback, springbackTo } from '#core/blank/fold/springback';
import type { Brake } from '#core/machine/brake';
import { BrakeSchema } from '#core/machine/brakeSchema';
import type { Verb } from './verb';
import { verb } from './verb';

const length = z.number();

/** What is reckoned of folding a blank. */
export const FOLD_VERBS: Record<string, Verb> = {
  springback: verb(
    'How a bend springs back, and what to fold to (Kalpakjian & Schmid)',
    z.object({
      thicknessMm: length,
      radiusMm: length,
      angleDeg: length,
      yieldMpa: length,
      youngMpa: length,
      want: z.enum(['tool', 'after']).default('tool'),
    }),
    { thicknessMm: 1, radiusMm: 2, angleDeg: 90, yieldMpa: 210, youngMpa: 207_000 },
    ({ want, ...bend }) => (want === 'after' ? springbackTo(bend) : springback(bend)),
  ),
  'fold-order': verb(
    'An order in which a folder or brake makes all folds of a card, or whether a given one can be made (sections in docs/machine.md)',
    z.object({
      card: PlainCardSchema,
      machine: BrakeSchema.refine(({ fingersMm }) => fingersMm?.length !== 0, {
        message: 'a machine with fingers has one at least; without any give null',
        path: ['fingersMm'],
      }),
      order: z.array(z.number().int().min(0)).optional(),
    }),
    {
      card: {
        thicknessMm: 1,
        rule: { kind: 'din6935' },
        outline: [
          [0, 0],
          [0, -30],
          [200, -30],
          [200, 0],
          [230, 0],
          [230, 120],
          [200, 120],
          [200, 150],
          [0, 150],
          [0, 120],
          [-30, 120],
          [-30, 0],
        ],
        folds: [
          { from: [0, 0], to: [200, 0], angleDeg: 90 },
          { from: [200, 0], to: [200, 120], angleDeg: 90 },
          { from: [200, 120], to: [0, 120], angleDeg: 90 },
          { from: [0, 120], to: [0, 0], angleDeg: 90 },
        ],
      },
      machine: {
        lengthMm: 1250,
        openMm: 45,
        noseHeightMm: 100,
        noseDepthMm: 40,
        noseRakeDeg: 30,
        noseRadiusMm: 1,
        apronMm: 15,
        fingersMm: [25, 25, 50, 75, 100],
      },
    },
    ({ card, machine, order }) => orderGiven(card, machine, order),
  ),
};

function orderGiven(
  card: z.output<typeof PlainCardSchema>,
  machine: Brake,
  order?: readonly number[],
): object {
  const plain = fromPlain(card);
  if (!plain.ok) return plain;
  const found = develop(plain.doc, plain.sheet, plain.practice);
  if (!found.ok) return found;
  const { development } = found;
  const answer = order
    ? checkedOrder(development, machine, order)
    : foldOrder(development, machine);
  if (answer.ok) return answer;
  const index = (id: string) => development.folds.findIndex((fold) => fold.id === id);
  const problems = answer.problems.map((problem) => ({
    ...problem,
    about: (problem.about ?? []).map(index),
  }));
  // Where another order goes, that is what frees it.
  const another = order ? foldOrder(development, machine) : answer;
  if (another.ok)
    return { ...answer, problems, remedies: [], instead: another.steps.map(({ fold }) => fold) };
  const handled = problems.some(({ code }) => code === 'no-order' || code === 'hits');
  const { furthest }: { ok: false; furthest?: Furthest | null } = another;
  return {
    ...answer,
    problems,
    ...(handled && { remedies: remediesFor(development, machine, {}, furthest?.leftMost) }),
  };
}
