import { outlineFromPoints } from '#core/card/legs';
import { patternParts } from '#core/card/outline';
import { joinEdges } from '#core/card/edit';
import { countingIds, emptyPattern } from '#core/card/kinds';
import type { PatternDoc } from '#core/card/pattern';
import type { WeldRecord } from '#core/format/job';
import { usualWeldPlan } from '#core/weld/start';
import { seamsOf } from './seams';

const square = (): PatternDoc => {
  const built = outlineFromPoints([[0, 0], [200, 0], [200, 200], [0, 200]]); // prettier-ignore
  if (!built.ok) throw new Error('no outline');
  return { ...emptyPattern(), ...patternParts(built.path, countingIds()) };
};
const weld = (edge: string, from: number, to: number): WeldRecord => ({
  at: '2026-10-06T09:00:00.000Z',
  who: 'Wenna',
  edge,
  process: 'mig',
  work: 'tacks',
  from,
  to,
  settings: { amps: null, volts: null, wireMm: null, feed: '', gas: '' },
  note: '',
});

test('tacks written down are made, others not, and an entry past the last one counts no more than there are', () => {
  const doc = square();
  const edge = doc.edges[0]!;
  edge.joint = { kind: 'butt', trimMm: 0 };
  edge.weld = usualWeldPlan(edge.joint, 1.5);
  const [seam] = seamsOf(doc, [weld(edge.id, 1, 3), weld(edge.id, 5, 99)]);
  expect(seam!.tacks.length).toBe(5);
  expect([...seam!.tacksDone]).toEqual([1, 2, 3, 5]);
  expect(seamsOf(doc, [])).toHaveLength(1);
});

test('an edge all the way round is a closed loop: its first and last tack are one', () => {
  let doc = square();
  for (let i = 0; i < 3; i++) doc = joinEdges(doc, doc.edges[0]!.id);
  doc.edges[0]!.weld = { process: 'tig', tackPitchMm: 100, plugs: null };
  const [seam] = seamsOf(doc, []);
  expect(seam).toMatchObject({ closed: true, lengthMm: 800 });
  expect(seam!.tacks).toHaveLength(8);
});
