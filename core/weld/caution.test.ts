import type { Joint } from '../card/pattern';
import { METALS } from '../metal/metals';
import { cautionsFor } from './caution';
import { canBePlugged, isJoined, startCurrent, usualTackPitch, usualWeldPlan } from './start';

const joints: Joint[] = [
  { kind: 'free', trimMm: 0 },
  { kind: 'butt', trimMm: 0 },
  { kind: 'backed-butt', trimMm: 0 },
  { kind: 'lap', widthMm: 12 },
  { kind: 'joggle', widthMm: 12, depthMm: 1 },
  { kind: 'hem', widthMm: 10, gapMm: 0 },
  { kind: 'plug-flange', widthMm: 15, turnDeg: 0 },
];
const cautions = (
  joint: Joint,
  family: 'steel' | 'coated-steel' | 'stainless' | 'aluminium',
  structural = false,
  gap: number | null = null,
) => cautionsFor({ joint }, { family }, 1, structural, gap);

test('wherever something is welded, sparks are warned of; where nothing is, nothing', () => {
  for (const metal of METALS) {
    for (const joint of joints) {
      const said = cautionsFor({ joint }, metal, 1, true, null);
      expect(said.includes('sparks')).toBe(isJoined(joint));
      expect(new Set(said).size).toBe(said.length);
      // What holds the vehicle up comes before everything else.
      if (isJoined(joint)) expect(said[0]).toBe('structural');
    }
  }
});

test('fume by the metal, primer and water by the joint, a gap no one can jump by the reading', () => {
  const lap = joints[3]!;
  expect(cautions(lap, 'coated-steel')).toEqual(
    expect.arrayContaining(['zinc-fume', 'weld-through-primer', 'lap-traps-water']),
  );
  expect(cautions(lap, 'steel')).not.toContain('zinc-fume');
  expect(cautions(lap, 'stainless')).toContain('stainless-fume');
  expect(cautions(lap, 'aluminium')).not.toContain('weld-through-primer');
  expect(cautions(joints[2]!, 'steel')).toContain('prime-before-closing');
  expect(cautions(joints[1]!, 'steel', false, 1.1)).toContain('gap-too-wide');
  expect(cautions(joints[1]!, 'steel', false, 0.9)).not.toContain('gap-too-wide');
  expect(cautions(lap, 'steel', false, 9)).not.toContain('gap-too-wide');
});

test('a plan to begin with: plugs where the joint laps, tacks elsewhere, nothing where nothing is joined', () => {
  for (const joint of joints) {
    const plan = usualWeldPlan(joint, 0.9);
    expect(plan !== null).toBe(isJoined(joint));
    expect(plan?.plugs !== undefined && plan.plugs !== null).toBe(canBePlugged(joint));
  }
  // Factory spots about 50 mm apart, 25 on thick sills (common practice).
  expect(usualWeldPlan(joints[3]!, 0.8)?.plugs).toEqual({ holeMm: 5, pitchMm: 50, endMm: 12 });
  expect(usualWeldPlan(joints[3]!, 2)?.plugs).toEqual({ holeMm: 8, pitchMm: 25, endMm: 12 });
  // About 50 mm, closer on thin sheet; 1 A for each thousandth of an inch (common practice).
  expect([0.7, 1, 1.5].map(usualTackPitch)).toEqual([30, 40, 50]);
  expect(startCurrent(0.0359 * 25.4)).toBe(35);
  expect(startCurrent(0.0598 * 25.4)).toBe(60);
});
