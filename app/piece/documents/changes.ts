import { edgeLength } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import type { PlanDoc } from '#core/weld/plan';
import { JOINT_WORDS, PROCESS_WORDS } from '../../frame/words';

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
/** Lengths nearer than this are told as the same, mm. */
const TOLD_MM = 0.005;

/**
 * What differs from one card to another, in words: most telling first, nothing when they are alike.
 */
export function changesOfCard(
  from: PatternDoc,
  to: PatternDoc,
  show: (mm: number) => string,
): string[] {
  if (from === to || same(from, to)) return [];
  const said: string[] = [];
  const count = (what: string, a: number, b: number) => a !== b && said.push(`${what} ${a} → ${b}`);
  for (const edge of from.edges) {
    const other = to.edges.find((e) => e.id === edge.id);
    if (!other) continue;
    const [a, b] = [JOINT_WORDS[edge.joint.kind], JOINT_WORDS[other.joint.kind]];
    if (a !== b) said.push(`edge ${edge.letter} ${a.toLowerCase()} → ${b.toLowerCase()}`);
    else if (!same(edge.joint, other.joint))
      said.push(`edge ${edge.letter}: its ${a.toLowerCase()} changed`);
    const [long, now] = [edgeLength(from, edge), edgeLength(to, other)];
    if (Math.abs(long - now) > TOLD_MM)
      said.push(`edge ${edge.letter} ${show(long)} → ${show(now)}`);
  }
  from.folds.forEach((fold, i) => {
    const other = to.folds.find((f) => f.id === fold.id);
    if (!other || same(fold, other)) return;
    said.push(
      fold.angleDeg !== other.angleDeg
        ? `fold ${i + 1} ${fold.angleDeg}° → ${other.angleDeg}°`
        : `fold ${i + 1} changed`,
    );
  });
  count('corners', from.corners.length, to.corners.length);
  count('folds', from.folds.length, to.folds.length);
  count('holes', from.holes.length, to.holes.length);
  if (from.turned !== to.turned) said.push('the card turned over');
  return said.length > 0 ? said : ['a small move of corners or holes'];
}

/** What differs from one plan to another, in words, by the letters the edges have on the card. */
export function changesOfPlan(from: PlanDoc, to: PlanDoc, card: PatternDoc): string[] {
  if (from === to) return [];
  return card.edges.flatMap((edge) => {
    const said: string[] = [];
    const [x, y] = [from, to].map((plan) => plan.edges.find((e) => e.edge === edge.id)?.weld);
    if (!same(x, y)) {
      const word = (w: typeof x) =>
        w ? PROCESS_WORDS[w.process] : w === null ? 'not welded' : 'as usual';
      said.push(
        word(x) === word(y)
          ? `edge ${edge.letter}: pitch or plugs changed`
          : `edge ${edge.letter} ${word(x)} → ${word(y)}`,
      );
    }
    return said;
  });
}
