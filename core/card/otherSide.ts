import type { Result } from '../measure/result';
import { failure } from '../measure/result';
import { carriersMeet, directionAt, isStraight, offsetRight, withEnds } from '../measure/segment';
import type { Vec } from '../measure/vector';
import { distance, dot } from '../measure/vector';
import { checkCard } from './check';
import { mirrored } from './mirror';
import { outlineOf } from './outline';
import type { PatternDoc, EdgeOffset } from './pattern';

/**
 * The card for the other side of the vehicle: mirrored, and along some edges offset inward or
 * outward (a door that works on one side only). Edges are named as they are on both.
 *
 * Problems: those of `takenOff`.
 */
export function otherSide(
  doc: PatternDoc,
  takeOff: readonly EdgeOffset[],
): Result<{ doc: PatternDoc }> {
  let found = mirrored(doc);
  for (const one of takeOff) {
    const next = withEdgesOffset(found, one);
    if (!next.ok) return next;
    found = next.doc;
  }
  return { ok: true, doc: found };
}

/**
 * An edge moved inward by `mm`, square to itself all along. The sides it meets run on, or end
 * sooner, along the lines and arcs they have; holes and folds stay where they are.
 *
 * Problems: `edge-gone` (about: its name), `take-off-too-far` (about: the edge; nothing of it, or
 * of a side beside it, would be left, a side beside it does not lead there, or what is left would
 * not be a card).
 */
export function withEdgesOffset(
  doc: PatternDoc,
  { edge: name, mm }: EdgeOffset,
): Result<{ doc: PatternDoc }> {
  const edge =
    doc.edges.find(({ id }) => id === name) ?? doc.edges.find(({ letter }) => letter === name);
  if (!edge) return failure({ code: 'edge-gone', about: [name] });
  const tooFar = failure({ code: 'take-off-too-far', about: [edge.id], numbers: { mm } });
  if (mm === 0) return { ok: true, doc };
  if (!Number.isFinite(mm)) return tooFar;
  const { path } = outlineOf(doc);
  const moves = new Set(edge.sides);
  const n = doc.sides.length;
  const shifted = doc.sides.map((side, i) =>
    moves.has(side.id) ? offsetRight(path[i]!, -mm) : path[i]!,
  );
  // An arc that is taken off to its centre and beyond is none any more.
  if (shifted.some((s, i) => isStraight(s) !== isStraight(path[i]!))) return tooFar;
  const places = new Map<string, Vec>();
  for (let i = 0; i < n; i++) {
    const before = (i + n - 1) % n;
    const [stays, corner] = [path[i]!.a, doc.sides[i]!.from];
    if (!moves.has(doc.sides[i]!.id) && !moves.has(doc.sides[before]!.id)) continue;
    // Sides of one edge that go on smoothly meet where their ends come to lie.
    const smooth = distance(shifted[before]!.b, shifted[i]!.a) < 1e-9;
    const at = smooth ? shifted[i]!.a : carriersMeet(shifted[before]!, shifted[i]!, stays);
    if (!at || !at.every(Number.isFinite)) return tooFar;
    places.set(corner, at);
  }
  const sides = doc.sides.map((side, i) => {
    const [a, b] = [places.get(side.from) ?? path[i]!.a, places.get(side.to) ?? path[i]!.b];
    return withEnds(shifted[i]!, a, b);
  });
  const turned = sides.some(
    (s, i) =>
      distance(s.a, s.b) < 1e-6 || dot(directionAt(s, 0.5), directionAt(path[i]!, 0.5)) <= 0,
  );
  if (turned) return tooFar;
  const found: PatternDoc = {
    ...doc,
    corners: doc.corners.map((corner) => {
      const at = places.get(corner.id);
      return at ? { ...corner, x: at[0], y: at[1] } : corner;
    }),
    sides: doc.sides.map((side, i) =>
      side.shape.kind === 'arc'
        ? { ...side, shape: { kind: 'arc', bulge: sides[i]!.bulge } }
        : side,
    ),
  };
  const crossing = ['outline-crosses', 'outline-clockwise', 'side-zero'];
  const was = new Set(checkCard(doc).map(({ code }) => code));
  if (checkCard(found).some(({ code }) => crossing.includes(code) && !was.has(code))) return tooFar;
  return { ok: true, doc: found };
}
