import type { Process } from '../card/kinds';
import { PROCESSES } from '../card/kinds';
import type { Joint } from '../card/pattern';
import { edgeFit } from '../fit/gapRemedy';
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
  process: Process | null = null,
) => cautionsFor({ joint }, { family }, 1, structural, gap, process);

test('wherever something is welded, sparks are warned of; where nothing is, nothing', () => {
  for (const metal of METALS) {
    for (const joint of joints) {
      const said = cautionsFor({ joint }, metal, 1, true, null, 'mig');
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
  const ofGap = (joint: Joint, gap: number, process: Process | null) =>
    cautions(joint, 'steel', false, gap, process).filter((code) => code.startsWith('gap-'));
  const [, butt, backed] = joints as [Joint, Joint, Joint];
  // MIG jumps about a thickness, over a backing twice that; TIG and gas want edges that touch.
  expect(ofGap(butt, 0.9, 'mig')).toEqual([]);
  expect(ofGap(butt, 1.1, null)).toEqual(['gap-build-up']);
  expect(ofGap(backed, 1.9, 'mig')).toEqual([]);
  expect(ofGap(backed, 2.1, 'mig')).toEqual(['gap-build-up']);
  expect(ofGap(butt, 0.9, 'tig')).toEqual(['gap-thicker-rod']);
  expect(ofGap(butt, 0.9, 'gas')).toEqual(['gap-strip']);
  for (const process of PROCESSES) expect(ofGap(butt, 3.1, process)).toEqual(['gap-strip']);
  expect(ofGap(lap, 9, 'mig')).toEqual([]);
});

test('a wide gap has one remedy, at the trial fit and at the weld', () => {
  for (const joint of joints)
    for (const process of [...PROCESSES, null])
      for (const gapMm of [0.2, 0.6, 1, 1.6, 2.5, 4, 8]) {
        const stations = [{ atMm: 10, gapMm, flushMm: null }];
        const record = { own: false, targetMm: 0, toleranceMm: 0, flushMm: 0, stations };
        const { remedy } = edgeFit(record, joint, process, 1);
        const said = cautions(joint, 'steel', false, gapMm, process);
        const told = said.find((code) => code.startsWith('gap-'));
        if (told) expect(told).toBe(`gap-${remedy}`);
        else expect(['weldable', 'clamp-down', 'shut-line', null]).toContain(remedy);
      }
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
