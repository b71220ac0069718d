import { freeLetter } from './edit';
import { byLetter, edgeLength } from './outline';
import type { Edge, PatternDoc } from './pattern';

/** Which edge of a card that was drawn each edge of the one before it is, by their ids. */
export type EdgePairs = ReadonlyMap<string, string>;

/** Edges clockwise, as one names them; an outline runs the other way. */
const clockwise = ({ edges }: PatternDoc): Edge[] => [...edges].reverse();

/** Where along the whole way round the middle of each edge lies, 0 to 1. */
function middles(doc: PatternDoc, edges: readonly Edge[]): number[] {
  const lengths = edges.map((edge) => edgeLength(doc, edge));
  const whole = lengths.reduce((sum, l) => sum + l, 0);
  let gone = 0;
  return lengths.map((length) => {
    gone += length;
    return (gone - length / 2) / whole;
  });
}

/**
 * The likeliest pairs of the edges of a card known by its lengths alone and one that was drawn since:
 * both clockwise, from whichever drawn edge makes the lengths agree best (sum of |ln| of their
 * ratios); with as many edges on both one to one, else each with the drawn one at its middle.
 */
export function likelyPairs(named: PatternDoc, drawn: PatternDoc): Map<string, string> {
  const [from, all] = [clockwise(named), clockwise(drawn)];
  const at = middles(named, from);
  let best: { off: number; pairs: Map<string, string> } = { off: Infinity, pairs: new Map() };
  for (let k = 0; k < all.length; k++) {
    const to = [...all.slice(k), ...all.slice(0, k)];
    const there = middles(drawn, to);
    const nearest = (share: number) =>
      there.reduce((b, s, i) => (Math.abs(s - share) < Math.abs(there[b]! - share) ? i : b), 0);
    const partner = from.map((_, i) => to[from.length === to.length ? i : nearest(at[i]!)]!);
    const off = from.reduce(
      (sum, edge, i) =>
        sum + Math.abs(Math.log(edgeLength(named, edge) / edgeLength(drawn, partner[i]!))),
      0,
    );
    // By a hair no better is no better: of a square the first stays.
    if (off < best.off - 1e-9)
      best = { off, pairs: new Map(from.map((edge, i) => [edge.id, partner[i]!.id])) };
  }
  return best.pairs;
}

/**
 * A drawn card whose edges are those of the card before it: ids and letters stay, and with them what
 * was read and welded there. Where several are one edge now, the first (by its letter) gives it its
 * name and the others are kept under it (`was`). Drawn edges that are nobody's get free letters. A
 * joint that was drawn stands, else that of the edge before.
 */
export function keptEdges(drawn: PatternDoc, named: PatternDoc, pairs: EdgePairs): PatternDoc {
  const before = new Map<string, Edge[]>();
  for (const edge of byLetter(named.edges)) {
    const to = pairs.get(edge.id);
    if (to !== undefined) before.set(to, [...(before.get(to) ?? []), edge]);
  }
  const idOf = (edge: string): string => before.get(edge)?.[0]?.id ?? edge;
  const kept = drawn.edges.map((edge): Edge => {
    const [first, ...others] = before.get(edge.id) ?? [];
    if (!first) return { ...edge, letter: '' };
    const was = [
      ...(first.was ?? []),
      ...others.flatMap(({ id, letter, was: earlier = [] }) => [
        { id, letter, span: null },
        ...earlier,
      ]),
    ];
    return {
      ...edge,
      id: first.id,
      letter: first.letter,
      joint: edge.joint.kind === 'free' ? first.joint : edge.joint,
      ...(was.length > 0 && { was }),
    };
  });
  return kept.reduceRight<PatternDoc>(
    (doc, edge, i) =>
      edge.letter === ''
        ? {
            ...doc,
            edges: doc.edges.map((one, k) => (k === i ? { ...one, letter: freeLetter(doc) } : one)),
          }
        : doc,
    {
      ...drawn,
      edges: kept,
      beads: drawn.beads.map((bead) =>
        bead.path.kind === 'along'
          ? { ...bead, path: { ...bead.path, edge: idOf(bead.path.edge) } }
          : bead,
      ),
    },
  );
}
