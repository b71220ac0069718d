import type { PieceSurvey } from '#core/survey/pieceSurvey';
import { unsurveyed } from '#core/survey/pieceSurvey';
import type { Look, SurveyBody, SurveyedFile } from '#core/survey/references';

/**
 * Where the points of the van's right side stand, mm: along it and up; measured with a tape, give
 * or take.
 */
const PLACES = {
  A: {
    short: 'upper hinge',
    name: 'Door hinge, upper bolt',
    at: [0, 0],
    where: 'Front pillar, in the centre of the bolt',
  },
  B: {
    short: 'lower hinge',
    name: 'Door hinge, lower bolt',
    at: [12, -905],
    where: 'Front pillar',
  },
  C: { short: 'striker', name: 'Striker bolt', at: [812, -410], where: 'Door shut pillar' },
  D: {
    short: 'sill drain',
    name: 'Sill drain hole',
    at: [1395, -1010],
    where: 'Front edge of the hole behind the step',
  },
  E: {
    short: 'arch bolt',
    name: 'Arch bolt, front',
    at: [1650, -540],
    where: 'Inside the wheel arch',
  },
  F: {
    short: 'roof rail',
    name: 'Roof rail joint',
    at: [1010, 420],
    where: 'Where the two mouldings meet',
  },
  G: {
    short: 'tail lamp',
    name: 'Tail lamp bolt',
    at: [2105, 300],
    where: 'Upper of the two, in its centre',
  },
} as const;
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
type Name = keyof typeof PLACES;
const TAPES: [Name, Name][] = [
  ['A', 'B'],
  ['A', 'C'],
  ['B', 'C'],
  ['B', 'D'],
  ['C', 'D'],
  ['C', 'E'],
  ['D', 'E'],
  ['A', 'F'],
  ['C', 'F'],
  ['E', 'F'],
  ['A', 'D'],
  ['B', 'F'],
  ['A', 'E'],
  ['A', 'G'],
  ['F', 'G'],
  ['C', 'G'],
];

/**
 * By how much each tape was out, mm, in the three rounds; one of the first round was misread by a
 * centimetre.
 */
const OUT = [
  [0.4, -0.6, 0.3, 0.7, -0.4, 0.2, -0.8, 0.5, -0.3, 0.6, 10.2, -0.5, 0.1, 0.4, -0.2, 0.3],
  [-0.2, 0.5, -0.7, 0.1, 0.6, -0.4, 0.3, -0.6, 0.8, -0.1, 0.4, 0.2, -0.5, -0.3, 0.4, 0.1],
  [0.6, 0.1, 0.4, -0.5, 0.3, 0.7, -0.2, 0.2, -0.6, 0.5, -0.3, -0.4, 0.3, 0.2, 0.1, -0.5],
];
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
  { stage: 'braced', name: 'Braced', at: '2026-10-02T16:30:00.000Z' },
  { stage: 'cut', name: 'Cut open', at: '2026-10-03T14:20:00.000Z' },
] as const;

/**
 * The same places on the left side, which is the pattern: a hand-built body is not its own mirror
 * image.
 */
const LEFT = [
  {
    id: 'pAl',
    partner: 'pA',
    name: 'Door hinge, upper bolt, left',
    where: 'Front pillar, in the centre of the bolt',
  },
  { id: 'pCl', partner: 'pC', name: 'Striker bolt, left', where: 'Door shut pillar' },
] as const;

const look = (
  at: string,
  how: Look['how'],
  lengthMm: number,
  widthMm: number,
  note = '',
): Look => ({
  at: `2026-${at}:00.000Z`,
  how,
  lengthMm,
  widthMm,
  outline: null,
  note,
});
const found = (
  name: string,
  where: string,
  layers: ('outer' | 'inner' | 'structural')[],
  looks: Look[],
): SurveyBody => ({ kind: 'finding', name, where, side: 'right', layers, looks, putAway: false });

const FINDINGS: [id: string, body: SurveyBody][] = [
  [
    'fTray',
    found(
      'Tray floor, under the mat',
      'A hand behind the front edge',
      ['outer'],
      [
        look('10-01T09:40', 'seen', 110, 70),
        look('10-02T15:10', 'sanded', 150, 90, 'Sound metal rings; this does not'),
        look('10-03T11:25', 'cut', 180, 110),
      ],
    ),
  ],
  [
    'fRiser',
    found(
      'Tray floor, at the riser',
      'Rear corner, where the water stood',
      ['outer'],
      [
        look('10-01T09:45', 'seen', 40, 30),
        look('10-02T15:15', 'sanded', 60, 35),
        look('10-03T11:30', 'cut', 70, 45),
      ],
    ),
  ],
  [
    'fSill',
    found(
      'Sill box, lower edge',
      'From the drain hole forward',
      ['inner', 'structural'],
      [
        look('10-01T10:00', 'seen', 260, 30),
        look('10-02T14:00', 'probed', 300, 35, 'Spike goes in as far as the step'),
        look('11-03T09:10', 'cut', 340, 45),
      ],
    ),
  ],
  [
    'fArch',
    found(
      'Rear arch lip',
      'Behind the wheel, at the lowest point',
      ['outer'],
      [look('10-01T10:20', 'seen', 90, 22), look('10-21T09:00', 'probed', 160, 28)],
    ),
  ],
];

const BRACES: [id: string, body: SurveyBody][] = [
  [
    'b1',
    {
      kind: 'brace',
      name: 'Tube across the door opening',
      from: 'pA',
      to: 'pC',
      made: 'Tube 25 × 25 × 2, tacked to tabs on both pillars',
      in: '2026-10-02T15:30:00.000Z',
      out: null,
      putAway: false,
    },
  ],
  [
    'b2',
    {
      kind: 'brace',
      name: 'Batten along the sill',
      from: 'pB',
      to: 'pD',
      made: 'Hardwood 45 × 45, screwed through old bolt holes',
      in: '2026-10-02T15:50:00.000Z',
      out: null,
      putAway: false,
    },
  ],
];

/** What is surveyed of the pieces of the demonstration job, by their names; of others nothing. */
const SURVEYS: Record<string, Partial<PieceSurvey>> = {
  'Step-well tray': {
    mends: ['fTray', 'fRiser'],
    cutOut: {
      at: '2026-10-03T11:25:00.000Z',
      note: 'Left 25 mm all round',
      backAt: '2026-10-06T15:00:00.000Z',
    },
    oldMetal: [1.21, 1.2, 1.19, 1.38, 1.22, 1.07],
    options: [
      { id: 'o1', of: 'patch', name: '', hours: [5, 7, 12], material: 14, price: 0 },
      { id: 'o2', of: 'panel', name: '', hours: [8, 10, 13], material: 26, price: 0 },
    ],
    choice: {
      option: 'o2',
      why: 'Sanded back, two patches would have met.',
      at: '2026-10-02T16:00:00.000Z',
      hoursTaken: 11,
    },
  },
  'Sill closing plate': {
    takes: ['pD'],
    mends: ['fSill'],
    braces: ['b1', 'b2'],
    cutOut: {
      at: '2026-11-03T09:10:00.000Z',
      note: 'In two lengths, the door hung throughout',
      backAt: null,
    },
    oldMetal: [2.03, 2.01, 1.98, 2.02],
  },
  'Rear arch lip': {
    takes: ['pE', 'pG'],
    toleranceMm: 1.5,
    mends: ['fArch'],
    options: [
      { id: 'o1', of: 'patch', name: 'Patch the lip', hours: [5, 7, 12], material: 18, price: 0 },
      {
        id: 'o2',
        of: 'panel',
        name: 'Make the whole arch',
        hours: [12, 16, 24],
        material: 40,
        price: 0,
      },
      { id: 'o3', of: 'buy', name: 'Bought half arch', hours: [2, 6, 12], material: 6, price: 140 },
    ],
    choice: {
      option: 'o1',
      why: 'The wired edge is sound on both sides of it: keep it.',
      at: '2026-10-21T10:00:00.000Z',
      hoursTaken: null,
    },
  },
};

export const demoSurveyOf = (piece: string): PieceSurvey => ({
  ...unsurveyed(),
  ...SURVEYS[piece],
});

/**
 * What is surveyed of the demonstration job: seven points on the right, sixteen tapes and a door
 * gap, read in three rounds, two points on the left; what was found, and the braces.
 */
export function demoSurvey(): SurveyedFile[] {
  const at = '2026-10-01T10:30:00.000Z';
  const put = (id: string, body: SurveyBody): SurveyedFile => ({ id, at, body });
  const points = (Object.keys(PLACES) as Name[]).map((id) => {
    const { name, where } = PLACES[id];
    return put(`p${id}`, {
      kind: 'point',
      name,
      where,
      side: 'right',
      partner: null,
      putAway: false,
    });
  });
  const measures = TAPES.map(([a, b], k) =>
    put(`m${k}`, {
      partner: null,
      kind: 'measure',
      of: 'distance',
      name: capital(`${PLACES[a].short} to ${PLACES[b].short}`),
      from: `p${a}`,
      to: `p${b}`,
      where: '',
      u: 1,
      tolerance: null,
      putAway: false,
    }),
  );
  const gap = put('g1', {
    partner: null,
    kind: 'measure',
    of: 'gap',
    name: 'Door gap, rear, middle',
    from: null,
    to: null,
    where: 'Half way down the rear edge of the door',
    u: 0.5,
    tolerance: 1,
    putAway: false,
  });
  const rounds = ROUNDS.map(({ stage, name, at: when }, round) => {
    const readings = Object.fromEntries(
      TAPES.map(([a, b], k) => [`m${k}`, { value: tape(a, b, round, k), note: '', as: '' }]),
    );
    const gaps = [4.5, 4.5, 7.5];
    return put(`r${round}`, {
      kind: 'round',
      stage,
      name,
      at: when,
      readings: {
        ...readings,
        g1: { value: gaps[round]!, note: '', as: '' },
        ...(round === 0 ? { mL: { value: 915, note: '', as: '' } } : {}),
      },
      putAway: false,
    });
  });
  const left = LEFT.map(({ id, ...said }) =>
    put(id, { kind: 'point', side: 'left', ...said, putAway: false }),
  );
  const across = put('mL', {
    partner: null,
    kind: 'measure',
    of: 'distance',
    name: 'Upper hinge to striker, left',
    from: 'pAl',
    to: 'pCl',
    where: '',
    u: 1,
    tolerance: null,
    putAway: false,
  });
  const opening = put('oDoor', {
    kind: 'opening',
    name: 'Door opening',
    corners: ['pA', 'pB', 'pD', 'pC'],
    putAway: false,
  });
  const view = put('view-right', {
    kind: 'view',
    name: 'right',
    turns: 3,
    mirrored: false,
    putAway: false,
  });
  const said = [...BRACES, ...FINDINGS].map(([id, body]) => put(id, body));
  return [...points, ...measures, gap, ...left, across, opening, view, ...said, ...rounds];
}
