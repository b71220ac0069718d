import { joinEdges } from '../card/edit';
import { setSideLength } from '../card/edit';
import { emptyPattern } from '../card/emptyPattern';
import { done } from '../card/given.arbitrary';
import { countingIds } from '../card/kinds';
import { outlineFromPoints } from '../card/legs';
import { mirrored } from '../card/mirror';
import { patternParts } from '../card/outline';
import type { PatternDoc } from '../card/pattern';
import { emptyPlan } from './emptyPlan';
import { setPlan } from './planned';
import type { Welded } from './seams';
import { seamsOf } from './seams';

const square = (): PatternDoc => {
  const built = outlineFromPoints([
    [0, 0],
    [200, 0],
    [200, 200],
    [0, 200],
  ]);
  if (!built.ok) throw new Error('no outline');
  return { ...emptyPattern(), ...patternParts(built.path, countingIds()) };
};
const weld = (edge: string, from: number, to: number): Welded => ({
  edge,
  work: 'tacks',
  from,
  to,
  made: null,
  withdrawn: null,
});

test('tacks written down are made, others not, and an entry past the last one counts no more than there are', () => {
  const doc = square();
  const edge = doc.edges[0]!;
  edge.joint = { kind: 'butt', trimMm: 0 };
  const [seam] = seamsOf(doc, emptyPlan(), 1.5, [weld(edge.id, 1, 3), weld(edge.id, 5, 99)]);
  expect(seam!.tacks.length).toBe(5);
  expect([...seam!.tacksDone]).toEqual([1, 2, 3, 5]);
  expect(seamsOf(doc, emptyPlan(), 1.5, [])).toHaveLength(1);
});

test('an edge all the way round is a closed loop: its first and last tack are one', () => {
  let doc = square();
  for (let i = 0; i < 3; i++) doc = done(joinEdges(doc, doc.edges[0]!.id));
  doc.edges[0]!.joint = { kind: 'butt', trimMm: 0 };
  const plan = setPlan(emptyPlan(), doc.edges[0]!.id, {
    weld: { process: 'tig', tackPitchMm: 100, plugs: null },
  });
  const [seam] = seamsOf(doc, plan, 1, []);
  expect(seam).toMatchObject({ closed: true, lengthMm: 800 });
  expect(seam!.tacks).toHaveLength(8);
});

test('what was welded stays where it was welded, whatever becomes of the edge', () => {
  const doc = square();
  const edge = doc.edges[0]!;
  edge.joint = { kind: 'butt', trimMm: 0 };
  const plan = setPlan(emptyPlan(), edge.id, {
    weld: { process: 'mig', tackPitchMm: 100, plugs: null },
  });
  const [before] = seamsOf(doc, plan, 1, []);
  const placesMm = before!.tacks;
  expect(placesMm).toEqual([0, 200, 100]);
  const record = { ...weld(edge.id, 1, 3), made: { revision: 1, turned: false, placesMm } };
  const made = (card: PatternDoc, records = [record]) => {
    const seam = seamsOf(card, plan, 1, records).find(
      (s) => s.edge.id === card.edges[0]!.id || s.edge.was,
    )!;
    const done = [...seam.tacksDone].map((n) => seam.tacks[n - 1]!);
    return [...done, ...seam.elsewhere].map((mm) => Math.round(mm)).sort((a, b) => a - b);
  };
  expect(made(doc)).toEqual([0, 100, 200]);
  const longer = done(setSideLength(doc, doc.sides[0]!.id, 250));
  expect(made(longer)).toEqual([0, 100, 200]);
  // Taken in by the edge before it, 200 farther along; its other end first once the card is turned
  // over.
  const before0 = doc.edges[3]!;
  const taken = done(
    joinEdges(
      { ...doc, edges: doc.edges.map((e) => (e === before0 ? { ...e, joint: edge.joint } : e)) },
      before0.id,
    ),
  );
  const whole = taken.edges.find((e) => e.id === before0.id)!;
  const of = (card: PatternDoc) => {
    const wide = setPlan(plan, whole.id, {
      weld: { process: 'mig', tackPitchMm: 100, plugs: null },
    });
    const seam = seamsOf(card, wide, 1, [
      { ...record, made: { ...record.made, placesMm: [0, 30] } },
    ]).find((s) => s.edge.id === whole.id)!;
    return [...[...seam.tacksDone].map((n) => seam.tacks[n - 1]!), ...seam.elsewhere].sort(
      (a, b) => a - b,
    );
  };
  expect(of(taken)).toEqual([200, 230]);
  expect(of(mirrored(taken))).toEqual([170, 200]);
  // Taken back with a reason, it counts no more.
  expect(made(doc, [{ ...record, withdrawn: { why: 'wrong edge' } }])).toEqual([]);
});

test('what is usual is round in the figures of the shop, whichever unit a page shows', () => {
  const doc = square();
  doc.edges[0]!.joint = { kind: 'plug-flange', widthMm: 15, turnDeg: 0 };
  const plugs = (plan = emptyPlan()) => seamsOf(doc, plan, 1.5, [])[0]!.plan.plugs!;
  expect(plugs()).toEqual({ holeMm: 6.5, pitchMm: 25, endMm: 12 });
  // A quarter, an inch, half an inch.
  expect(plugs(setPlan(emptyPlan('in'), doc.edges[1]!.id, {}))).toEqual({
    holeMm: 6.35,
    pitchMm: 25.4,
    endMm: 12.7,
  });
});
