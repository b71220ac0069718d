import type { Result } from '../measure/result';
import { failure } from '../measure/result';
import type { Vec } from '../measure/vector';
import type { Brake } from './brakeSchema';

export type { Brake };

/**
 * A convex part of a machine in section, counter-clockwise. Bar or fingers are one or two of them.
 */
export type Part = { name: 'bar' | 'beam' | 'bed' | 'apron' | 'bench'; section: Vec[] };

/**
 * The thickest sheet that is folded at a length, mm: the most that is said for that length or a
 * longer one; null where nothing is said.
 */
export function thickestAt(
  { thickest = [] }: Pick<Brake, 'thickest'>,
  longMm: number,
): number | null {
  if (thickest.length === 0) return null;
  const longer = thickest.filter(({ lengthMm }) => lengthMm >= longMm);
  // Longer than any that was tried, it takes no more than at the longest.
  const rows =
    longer.length > 0
      ? longer
      : thickest.filter(
          ({ lengthMm }) => lengthMm === Math.max(...thickest.map((row) => row.lengthMm)),
        );
  return Math.max(...rows.map(({ thicknessMm }) => thicknessMm));
}

/** Beyond what any piece reaches, mm. */
export const FAR_MM = 20_000;
/** Depth to which the apron hangs down, mm. */
const APRON_DEEP_MM = 150;
/**
 * Where the front of the bar leans back far, this share of its depth is left as a neck up to the
 * beam.
 */
const NECK = 0.25;
/** Default gap between fingers, mm (common practice). */
export const FINGER_GAP_MM = 10;

/**
 * A brake in section, its parts convex, z = 0 on top of the sheet (thickness T): bar or fingers
 * between the sheet and the beam; the beam over all that lies behind the front of the bar; the bed
 * under the sheet; the apron in front of it, at rest; the bench below them all, where one is told.
 *
 * Problems: `machine-figures` (about: figures that leave no bar between them; a front that does not
 * rise from point to point, or goes farther back than the bar).
 */
export function sectionOf(brake: Brake, thicknessMm: number): Result<{ parts: Part[] }> {
  const {
    noseHeightMm: high,
    noseDepthMm: deep,
    noseRakeDeg,
    apronMm,
    bedMm = deep,
    benchMm,
  } = brake;
  if (!(deep > 0 && high > 0))
    return failure({ code: 'machine-figures', about: ['noseDepthMm', 'noseHeightMm'] });
  if (brake.noseMm) return byPoints(brake, brake.noseMm, thicknessMm);
  const lean = Math.tan((noseRakeDeg * Math.PI) / 180);
  // The front leans back until a neck is left that carries the foot, and goes straight up from
  // there to the beam.
  const neck = Math.min(lean * high, (1 - NECK) * deep);
  const top = lean > 0 ? Math.min(high, neck / lean) : high;
  const foot: Vec[] = [
    [0, 0],
    [-neck, top],
    [-deep, top],
    [-deep, 0],
  ];
  const bars =
    top < high
      ? [
          foot,
          [
            [-neck, top],
            [-neck, high],
            [-deep, high],
            [-deep, top],
          ] as Vec[],
        ]
      : [foot];
  return {
    ok: true,
    parts: [
      ...bars.map((section): Part => ({ name: 'bar', section: distinct(section) })),
      ...around({ high, bedMm, apronMm, benchMm }, -neck, thicknessMm),
    ],
  };
}

/** Beam, bed, apron and bench; `front` is where the bar meets the beam. */
const around = (
  {
    high,
    bedMm,
    apronMm,
    benchMm,
  }: { high: number; bedMm: number; apronMm: number; benchMm?: number | undefined },
  front: number,
  t: number,
): Part[] => [
  {
    name: 'beam',
    section: [
      [-FAR_MM, high],
      [front, high],
      [front, FAR_MM],
      [-FAR_MM, FAR_MM],
    ],
  },
  {
    name: 'bed',
    section: [
      [-bedMm, -FAR_MM],
      [0, -FAR_MM],
      [0, -t],
      [-bedMm, -t],
    ],
  },
  {
    name: 'apron',
    section: [
      [0, -t - APRON_DEEP_MM],
      [apronMm, -t - APRON_DEEP_MM],
      [apronMm, -t],
      [0, -t],
    ],
  },
  ...(benchMm === undefined
    ? []
    : [
        {
          name: 'bench' as const,
          section: [
            [-FAR_MM, -t - benchMm - FAR_MM],
            [FAR_MM, -t - benchMm - FAR_MM],
            [FAR_MM, -t - benchMm],
            [-FAR_MM, -t - benchMm],
          ] as Vec[],
        },
      ]),
];

/** The same with the front of the bar point by point: between each two of them a part of it. */
function byPoints(
  brake: Brake,
  nose: readonly (readonly [number, number])[],
  thicknessMm: number,
): Result<{ parts: Part[] }> {
  const { noseHeightMm: high, noseDepthMm: deep, apronMm, bedMm = deep, benchMm } = brake;
  const given = nose.filter(([back, up]) => back > 0 || up > 0);
  const all = [
    [0, 0] as const,
    ...given,
    ...((given.at(-1)?.[1] ?? 0) < high ? [[given.at(-1)?.[0] ?? 0, high] as const] : []),
  ];
  const rises = all.every(
    ([back, up], i) => back < deep && up <= high && (i === 0 || up > all[i - 1]![1]),
  );
  if (!rises) return failure({ code: 'machine-figures', about: ['noseMm'] });
  const bars = all.slice(1).map(([back, up], i): Part => {
    const [below, low] = all[i]!;
    return {
      name: 'bar',
      section: [
        [-deep, low],
        [-below, low],
        [-back, up],
        [-deep, up],
      ],
    };
  });
  return {
    ok: true,
    parts: [...bars, ...around({ high, bedMm, apronMm, benchMm }, -all.at(-1)![0], thicknessMm)],
  };
}

/** Without a corner that stands on the one before it. */
const distinct = (section: readonly Vec[]): Vec[] =>
  section.filter((p, i) => {
    const q = section[(i + section.length - 1) % section.length]!;
    return Math.hypot(p[0] - q[0], p[1] - q[1]) > 1e-9;
  });

/** Machines of no maker, to start from. */
export const USUAL_BRAKES: Record<'box-and-pan' | 'folder' | 'over-a-bar', Brake> = {
  'box-and-pan': {
    lengthMm: 1250,
    openMm: 45,
    noseHeightMm: 100,
    noseDepthMm: 40,
    noseRakeDeg: 30,
    noseRadiusMm: 1,
    apronMm: 15,
    fingersMm: [25, 30, 35, 40, 50, 75, 100, 150, 200, 250, 295],
    thickest: [
      { lengthMm: 600, thicknessMm: 2 },
      { lengthMm: 1250, thicknessMm: 1.5 },
    ],
  },
  folder: {
    lengthMm: 2000,
    openMm: 60,
    noseHeightMm: 120,
    noseDepthMm: 60,
    noseRakeDeg: 35,
    noseRadiusMm: 1.5,
    apronMm: 20,
    fingersMm: null,
    thickest: [
      { lengthMm: 1000, thicknessMm: 2 },
      { lengthMm: 2000, thicknessMm: 1.5 },
    ],
  },
  'over-a-bar': {
    lengthMm: 600,
    openMm: 300,
    noseHeightMm: 1000,
    noseDepthMm: 50,
    noseRakeDeg: 0,
    noseRadiusMm: 0.5,
    apronMm: 0,
    fingersMm: null,
  },
};
