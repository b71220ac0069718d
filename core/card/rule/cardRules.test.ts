import fc from 'fast-check';
import { removeCorner, splitSide } from '../edit';
import { emptyPattern } from '../emptyPattern';
import { countingIds } from '../kinds';
import { outlineFromPoints } from '../legs';
import { mirrored } from '../mirror';
import { outlineOf, patternParts } from '../outline';
import type { CardRule, PatternDoc } from '../pattern';
import { readPattern } from '../read';
import { curveOfCard } from '../tucksOnCard';
import { isMet, keptToRules, looksMeant, offNow, ruledCard } from './cardRules';

function card(points: [number, number][], holes: [number, number][] = []): PatternDoc {
  const built = outlineFromPoints(points);
  if (!built.ok) throw new Error();
  const doc = { ...emptyPattern(), ...patternParts(built.path, countingIds('s')) };
  return { ...doc, holes: holes.map(([x, y], i) => ({ id: `h${i}`, x, y, diameterMm: 6 })) };
}
const rough = () => card([[0, 0], [400, 3], [398, 251], [1, 244]], [[60, 60], [118, 63], [181, 58]]); // prettier-ignore
const side = (doc: PatternDoc, i: number) => doc.sides[i]!.id;
const rules = (doc: PatternDoc): CardRule[] => [
  { id: 'r1', kind: 'parallel', sides: [side(doc, 1), side(doc, 3)] },
  { id: 'r2', kind: 'square', sides: [side(doc, 0), side(doc, 1)] },
  { id: 'r3', kind: 'length', sides: [side(doc, 0)], mm: 402 },
  { id: 'r4', kind: 'pitch', holes: ['h0', 'h1', 'h2'] },
];

test('rules stay met whatever corner is dragged, and the corner stays where it was put if it can', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 3 }), fc.integer({ min: -60, max: 60 }), fc.integer({ min: -60, max: 60 }), (k, dx, dy) => {
      const plain = rough();
      const first = ruledCard({ ...plain, rules: rules(plain) });
      if (!first.ok) throw new Error(JSON.stringify(first));
      const { doc } = first;
      const moved = { ...doc, corners: doc.corners.map((c, i) => (i === k ? { ...c, x: c.x + dx, y: c.y + dy } : c)) };
      const kept = keptToRules(doc, moved);
      for (const off of offNow(kept)) expect(isMet(off)).toBe(true);
      expect(readPattern(JSON.parse(JSON.stringify(kept))).ok).toBe(true);
      expect(Math.hypot(kept.corners[k]!.x - moved.corners[k]!.x, kept.corners[k]!.y - moved.corners[k]!.y)).toBeLessThan(1e-6);
    }), { numRuns: 60 },
  ); // prettier-ignore
});

test('what contradicts is named by id, and nothing moves', () => {
  const plain = rough();
  const both: CardRule[] = [...rules(plain), { id: 'r9', kind: 'length', sides: [side(plain, 0)], mm: 300 }];
  expect(ruledCard({ ...plain, rules: both })).toMatchObject({ ok: false, problems: [{ code: 'rules-contradict', about: ['r3', 'r9'] }] }); // prettier-ignore
  // An edit under rules that cannot be met stands as it was made.
  const edited = { ...plain, rules: both };
  expect(keptToRules(plain, edited)).toBe(edited);
});

test('holes of one size: the mean of them, then whatever one of them is made by hand; a third taken out, the two go on', () => {
  const plain = rough();
  const sized = { ...plain, holes: plain.holes.map((hole, i) => ({ ...hole, diameterMm: 6 + i })) };
  const rule: CardRule = { id: 'z', kind: 'same-size', holes: ['h0', 'h1', 'h2'] };
  const sizes = (doc: typeof plain) => doc.holes.map(({ diameterMm }) => diameterMm);
  expect(offNow(sized, [rule])[0]).toMatchObject({ offMm: 2, leastMm: 6, mostMm: 8 });
  const done = ruledCard({ ...sized, rules: [...rules(sized), rule] });
  if (!done.ok) throw new Error(JSON.stringify(done));
  expect(sizes(done.doc)).toEqual([7, 7, 7]);
  expect(done.asMeasured.at(-1)).toMatchObject({ rule: 4, offMm: 2 });
  const drilled = keptToRules(done.doc, { ...done.doc, holes: done.doc.holes.map((hole) => (hole.id === 'h1' ? { ...hole, diameterMm: 8.5 } : hole)) }); // prettier-ignore
  expect(sizes(drilled)).toEqual([8.5, 8.5, 8.5]);
  const two = keptToRules(drilled, { ...drilled, holes: drilled.holes.slice(1) });
  expect(two.rules.find(({ id }) => id === 'z')).toMatchObject({ holes: ['h1', 'h2'] });
  expect(readPattern(JSON.parse(JSON.stringify(two))).ok).toBe(true);
});

test('corners on one arc: the sides between them are arcs of it', () => {
  const plain = card([[0, 0], [300, 0], [300, 100], [220, 132], [150, 141], [80, 131], [0, 100]]); // prettier-ignore
  const corners = [2, 3, 4, 5, 6].map((i) => plain.sides[i]!.from);
  const found = ruledCard({ ...plain, rules: [{ id: 'a', kind: 'arc', corners }] });
  if (!found.ok) throw new Error();
  const bulges = outlineOf(found.doc).path.slice(2, 6).map(({ bulge }) => bulge); // prettier-ignore
  for (const bulge of bulges) expect(bulge).toBeGreaterThan(0.03);
  expect(found.movedMm).toBeLessThan(5);
});

test('what looks meant is offered with the measured truth, until it is ruled or left', () => {
  const plain = rough();
  const kinds = (doc: PatternDoc) => looksMeant(doc, countingIds('o')).map(({ rule }) => `${rule.kind} ${'sides' in rule ? rule.sides.map((id) => doc.sides.findIndex((s) => s.id === id)).join() : ''}`); // prettier-ignore
  expect(kinds(plain)).toContain('parallel 0,2');
  expect(looksMeant(plain, countingIds('o'))[0]!.off.offMm).toBeGreaterThan(0.2);
  expect(kinds({ ...plain, left: [{ kind: 'parallel', sides: [side(plain, 0), side(plain, 2)] }] })).not.toContain('parallel 0,2'); // prettier-ignore
  // A true rectangle asks nothing.
  expect(kinds(card([[0, 0], [400, 0], [400, 250], [0, 250]]))).toEqual([]); // prettier-ignore
});

test('what rules and tucks hang on may be taken away, split or turned over', () => {
  const plain = rough();
  const doc: PatternDoc = {
    ...plain,
    rules: rules(plain),
    left: [{ kind: 'parallel', sides: [side(plain, 0), side(plain, 2)] }],
    tucks: [{ id: 't', kind: 'tuck', at: { side: side(plain, 2), startMm: 50 }, widthMm: 12, depthMm: 80 }],
  };
  const less = removeCorner(doc, doc.corners[2]!.id);
  if (!less.ok) throw new Error();
  const kept = keptToRules(doc, less.doc);
  expect(readPattern(kept).ok).toBe(true);
  const split = splitSide(doc, side(plain, 2), 0.3, countingIds('n'));
  if (!split.ok) throw new Error();
  expect(readPattern(keptToRules(doc, split.doc)).ok).toBe(true);
  const over = mirrored(mirrored(doc));
  expect(over.tucks).toEqual(doc.tucks);
  // 2·atan(6/80) over the card's own area.
  const curve = curveOfCard(doc);
  expect(curve).toMatchObject({ ok: true, shape: 'bowl', totalDeg: expect.closeTo(8.578, 3) });
  expect(readPattern({ ...doc, rules: [{ id: 'x', kind: 'length', sides: ['gone'], mm: 3 }] })).toMatchObject({ ok: false, problems: [{ code: 'document-reference-gone', about: ['x'] }] }); // prettier-ignore
});
