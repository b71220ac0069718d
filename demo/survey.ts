import type { SurveyBody, SurveyedFile } from '#core/survey/references';

/** Where the points of the van's right side stand, mm: along it and up; measured with a tape, give or take. */
const PLACES = {
  A: {
    short: 'upper hinge',
    name: 'Door hinge, upper bolt',
    at: [0, 0],
    where: 'Front pillar, in the centre of the bolt',
  },
  B: { short: 'lower hinge', name: 'Door hinge, lower bolt', at: [12, -905], where: 'Front pillar' },
  C: { short: 'striker', name: 'Striker bolt', at: [812, -410], where: 'Door shut pillar' },
  D: {
    short: 'sill drain',
    name: 'Sill drain hole',
    at: [1395, -1010],
    where: 'Front edge of the hole behind the step',
  },
  E: { short: 'arch bolt', name: 'Arch bolt, front', at: [1650, -540], where: 'Inside the wheel arch' },
  F: { short: 'roof rail', name: 'Roof rail joint', at: [1010, 420], where: 'Where the two mouldings meet' },
} as const;
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
type Name = keyof typeof PLACES;
const TAPES: [Name, Name][] = [['A', 'B'], ['A', 'C'], ['B', 'C'], ['B', 'D'], ['C', 'D'], ['C', 'E'], ['D', 'E'], ['A', 'F'], ['C', 'F'], ['E', 'F'], ['A', 'D'], ['B', 'F'], ['A', 'E']]; // prettier-ignore

/** By how much each tape was out, mm, in the three rounds; one of the first round was misread by a centimetre. */
const OUT = [
  [0.4, -0.6, 0.3, 0.7, -0.4, 0.2, -0.8, 0.5, -0.3, 0.6, 10.2, -0.5, 0.1],
  [-0.2, 0.5, -0.7, 0.1, 0.6, -0.4, 0.3, -0.6, 0.8, -0.1, 0.4, 0.2, -0.5],
  [0.6, 0.1, 0.4, -0.5, 0.3, 0.7, -0.2, 0.2, -0.6, 0.5, -0.3, -0.4, 0.3],
]; // prettier-ignore
/** Cut open, the pillar behind the door went back and down a little. */
const MOVED: Partial<Record<Name, readonly [number, number]>> = { C: [3.6, -1.4] };

const tape = (from: Name, to: Name, round: number, k: number): number => {
  const [a, b] = [from, to].map((name) => {
    const [x, y] = PLACES[name].at;
    const [dx, dy] = round === 2 ? (MOVED[name] ?? [0, 0]) : [0, 0];
    return [x + dx, y + dy];
  });
  return Math.round((Math.hypot(a![0]! - b![0]!, a![1]! - b![1]!) + OUT[round]![k]!) * 2) / 2;
};

const ROUNDS = [
  { stage: 'found', name: 'As found', at: '2026-10-01T11:00:00.000Z' },
  { stage: 'braced', name: 'Braced', at: '2026-10-05T08:30:00.000Z' },
  { stage: 'cut', name: 'Cut open', at: '2026-10-06T14:20:00.000Z' },
] as const;

/** The references of the demonstration job: six points, thirteen tapes and a door gap, read in three rounds. */
export function demoSurvey(): SurveyedFile[] {
  const at = '2026-10-01T10:30:00.000Z';
  const put = (id: string, body: SurveyBody): SurveyedFile => ({ id, at, body });
  const points = (Object.keys(PLACES) as Name[]).map((id) => {
    const { name, where } = PLACES[id];
    return put(`p${id}`, { kind: 'point', name, where, side: 'right', partner: null, putAway: false });
  });
  const measures = TAPES.map(([a, b], k) =>
    put(`m${k}`, { kind: 'measure', of: 'distance', name: capital(`${PLACES[a].short} to ${PLACES[b].short}`), from: `p${a}`, to: `p${b}`, where: '', u: 1, tolerance: null, putAway: false }),
  ); // prettier-ignore
  const gap = put('g1', { kind: 'measure', of: 'gap', name: 'Door gap, rear, middle', from: null, to: null, where: 'Half way down the rear edge of the door', u: 0.5, tolerance: 1, putAway: false }); // prettier-ignore
  const rounds = ROUNDS.map(({ stage, name, at: when }, round) => {
    const readings = Object.fromEntries(
      TAPES.map(([a, b], k) => [`m${k}`, { value: tape(a, b, round, k), note: '' }]),
    );
    const gaps = [4.5, 4.5, 7.5];
    return put(`r${round}`, { kind: 'round', stage, name, at: when, readings: { ...readings, g1: { value: gaps[round]!, note: '' } }, putAway: false }); // prettier-ignore
  });
  return [...points, ...measures, gap, ...rounds];
}
