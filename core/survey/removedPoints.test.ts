import fc from 'fast-check';
import { spread } from '../measure/spread.arbitrary';
import type { PieceSurvey } from './pieceSurvey';
import { unsurveyed } from './pieceSurvey';
import { putBack } from './putBack';
import type { Brace, Measure, ReferencePlace, Round, SurveyBody, Surveyed } from './references';
import { removedPoints } from './removedPoints';
import { surveyVerdict } from './verdict';

type Place = {
  id: string;
  at: readonly [number, number];
  side?: ReferencePlace['side'];
  partner?: string;
};
const DAY = (day: number) => `2026-10-${String(day).padStart(2, '0')}T12:00:00.000Z`;
const point = ({ id, side = 'right', partner }: Place): Surveyed => ({
  id,
  kind: 'point',
  name: id,
  where: '',
  side,
  partner: partner ?? null,
  putAway: false,
});
const named = (a: string, b: string) => `${a}-${b}`;
const tape = (from: string, to: string): Surveyed<Measure> => ({
  id: named(from, to),
  kind: 'measure',
  of: 'distance',
  name: named(from, to),
  from,
  to,
  where: '',
  u: 1,
  tolerance: null,
  partner: null,
  putAway: false,
});
const round = (
  id: string,
  day: number,
  values: Record<string, number>,
  stage: Round['stage'] = 'found',
): Surveyed => ({
  id,
  kind: 'round',
  stage,
  name: id,
  at: DAY(day),
  putAway: false,
  readings: Object.fromEntries(
    Object.entries(values).map(([m, value]) => [m, { value, note: '', as: '' }]),
  ),
});

/** A job of points with these tapes, all read truly on one day. */
function surveyOf(places: Place[], ties: [string, string][], day = 1): Surveyed[] {
  const at = new Map(places.map((place) => [place.id, place.at]));
  const mm = ([a, b]: [string, string]) =>
    Math.hypot(at.get(a)![0] - at.get(b)![0], at.get(a)![1] - at.get(b)![1]);
  const values = Object.fromEntries(ties.map((tie) => [named(...tie), mm(tie)]));
  return [...places.map(point), ...ties.map(([a, b]) => tape(a, b)), round('r1', day, values)];
}
const taking = (change: Partial<PieceSurvey>): PieceSurvey => ({ ...unsurveyed(), ...change });

/** Four points round a field, and one somewhere in or about it. */
const corner = (x: number, y: number) =>
  fc.tuple(spread(x - 200, x + 200), spread(y - 200, y + 200));
const field = fc.tuple(
  corner(0, 0),
  corner(1500, 0),
  corner(1500, 1100),
  corner(0, 1100),
  corner(750, 550),
);
const NAMES = ['A', 'B', 'C', 'D', 'P'];
const RIGID: [string, string][] = [
  ['A', 'B'],
  ['B', 'C'],
  ['C', 'D'],
  ['D', 'A'],
  ['A', 'C'],
  ['B', 'D'],
];
const placesOf = (at: readonly (readonly [number, number])[]): Place[] =>
  NAMES.map((id, i) => ({ id, at: at[i]! }));

test('from tapes alone it is reckoned as if the places were known', () => {
  const ties = fc.subarray<[string, string]>(
    [
      ['P', 'A'],
      ['B', 'P'],
      ['P', 'C'],
      ['D', 'P'],
    ],
    { minLength: 3 },
  );
  fc.assert(
    fc.property(field, ties, (at, mine) => {
      const [found] = removedPoints(
        taking({ takes: ['P'] }),
        surveyOf(placesOf(at), [...RIGID, ...mine]),
      ).points;
      const known = putBack(
        2,
        NAMES.map((name, i) => ({ name, at: at[i]!, lost: name === 'P' })),
        mine.map(([from, to]) => ({ from, to, uMm: 1 })),
      );
      if (!known.ok) throw new Error('not reckoned');
      const { uMm, bestNext } = known.lost[0]!;
      expect(found!.uMm! / uMm!).toBeCloseTo(1, 4);
      if (bestNext) expect(found!.bestNext!.uMm / bestNext.uMm).toBeCloseTo(1, 4);
      else expect(found!.bestNext).toBeNull();
    }),
    { numRuns: 60 },
  );
});

test('measured from two points only it could lie on either side: what the next tape promises is true of both', () => {
  fc.assert(
    fc.property(field, (at) => {
      const survey = taking({ takes: ['P'] });
      const [before] = removedPoints(
        survey,
        surveyOf(placesOf(at), [...RIGID, ['P', 'A'], ['P', 'B']]),
      ).points;
      const next = before!.bestNext;
      if (!next) return;
      const [after] = removedPoints(
        survey,
        surveyOf(placesOf(at), [...RIGID, ['P', 'A'], ['P', 'B'], ['P', next.to]]),
      ).points;
      expect(after!.uMm!).toBeLessThanOrEqual(next.uMm * (1 + 1e-6));
    }),
    { numRuns: 60 },
  );
});

describe('what counts', () => {
  const places = placesOf([
    [0, 0],
    [1500, 0],
    [1500, 1100],
    [0, 1100],
    [700, 400],
  ]);
  const all = surveyOf(places, [...RIGID, ['P', 'A'], ['P', 'B'], ['P', 'C']], 5);

  test('only what was read before it was cut out', () => {
    const cutOut = (day: number) => ({ at: DAY(day), note: '', backAt: null });
    expect(removedPoints(taking({ takes: ['P'] }), all).points[0]).toMatchObject({ good: true });
    expect(removedPoints(taking({ takes: ['P'], cutOut: cutOut(6) }), all).points[0]).toMatchObject(
      {
        good: true,
      },
    );
    expect(removedPoints(taking({ takes: ['P'], cutOut: cutOut(4) }), all).points[0]).toMatchObject(
      {
        uMm: null,
        good: false,
      },
    );
  });

  test('of several readings the latest; what is put away and what is on another side not at all', () => {
    const far = [...all, round('r2', 7, { 'P-A': 2000 })];
    expect(removedPoints(taking({ takes: ['P'] }), far).notPlane).toBe(true);
    const away = all.map((one) =>
      one.kind === 'measure' && one.id !== 'P-A'
        ? one
        : { ...one, putAway: one.id === 'P-A' || one.putAway },
    );
    expect(removedPoints(taking({ takes: ['P'] }), away).points[0]!.uMm).toBeGreaterThan(
      removedPoints(taking({ takes: ['P'] }), all).points[0]!.uMm!,
    );
    const left = all.map((one) =>
      one.kind === 'point' && one.id !== 'P' ? { ...one, side: 'left' as const } : one,
    );
    expect(removedPoints(taking({ takes: ['P'] }), left).points[0]).toMatchObject({ uMm: null });
    expect(removedPoints(taking({ takes: ['P'], space: true }), left).points).toHaveLength(1);
    expect(removedPoints(taking({ takes: ['gone'] }), all)).toMatchObject({
      points: [],
      network: null,
    });
  });
});

describe('what wants attention', () => {
  const places = placesOf([
    [0, 0],
    [1500, 0],
    [1500, 1100],
    [0, 1100],
    [700, 400],
  ]);
  const good = surveyOf(places, [...RIGID, ['P', 'A'], ['P', 'B'], ['P', 'C']]);
  const brace = (change: Partial<Brace> = {}): Surveyed<Brace> => ({
    id: 'b',
    kind: 'brace',
    name: 'tube',
    from: 'A',
    to: 'B',
    made: '',
    in: DAY(2),
    out: null,
    putAway: false,
    ...change,
  });
  const codes = (
    survey: Partial<PieceSurvey>,
    all: Surveyed<SurveyBody>[] = good,
    more: { structural?: boolean; others?: { name: string; survey: PieceSurvey }[] } = {},
  ) =>
    surveyVerdict({
      survey: taking(survey),
      structural: false,
      others: [],
      layersApartMm: 50,
      all,
      ...more,
    }).warnings.map(({ code }) => code);
  const cutOut = { at: DAY(9), note: '', backAt: null };

  test('a reference that cannot be put back as well as is asked, until all is back in its place', () => {
    expect(codes({ takes: ['P'] })).toEqual([]);
    expect(codes({ takes: ['P'], toleranceMm: 0.1 })).toEqual(['put-back-poor']);
    expect(codes({ takes: ['P'], toleranceMm: 0.1, cutOut })).toEqual(['put-back-poor']);
    expect(
      codes({ takes: ['P'], toleranceMm: 0.1, cutOut: { ...cutOut, backAt: DAY(12) } }),
    ).toEqual([]);
  });

  test('a structural piece cut out without a brace of its own in, or no round read with it', () => {
    const structural = { structural: true };
    expect(codes({ cutOut }, good, structural)).toEqual(['no-brace', 'not-braced-round']);
    expect(codes({ cutOut }, good)).toEqual([]);
    expect(codes({}, good, structural)).toEqual([]);
    const braced = [...good, brace(), round('r2', 3, { 'A-B': 1500 }, 'braced')];
    expect(codes({ cutOut, braces: ['b'] }, braced, structural)).toEqual([]);
    expect(codes({ cutOut }, braced, structural)).toEqual(['no-brace']);
    // Too late, out too early, put away: none of these holds anything when it is cut.
    for (const change of [{ in: DAY(10) }, { in: null }, { out: DAY(8) }, { putAway: true }])
      expect(
        codes(
          { cutOut, braces: ['b'] },
          [...good, brace(change), round('r2', 3, { 'A-B': 1500 }, 'braced')],
          structural,
        ),
      ).toEqual(['no-brace']);
    // A round that is begun and not read says nothing.
    expect(
      codes(
        { cutOut, braces: ['b'] },
        [...good, brace(), round('r2', 3, {}, 'braced')],
        structural,
      ),
    ).toEqual(['not-braced-round']);
    expect(
      codes(
        { cutOut, braces: ['b'] },
        [...good, brace(), round('r2', 10, { 'A-B': 1500 }, 'braced')],
        structural,
      ),
    ).toEqual(['not-braced-round']);
  });

  test('cuts of neighbouring layers nearer than asked, along one edge, in whatever order they are listed', () => {
    const cut = (layer: 'outer' | 'inner' | 'structural', inMm: number, edge = 'e') => ({
      layer,
      edge,
      inMm,
    });
    expect(codes({ layerCuts: [cut('outer', 30), cut('inner', 79.9)] })).toEqual(['one-line']);
    expect(codes({ layerCuts: [cut('inner', 79.9), cut('outer', 30)] })).toEqual(['one-line']);
    expect(codes({ layerCuts: [cut('outer', 30), cut('inner', 80)] })).toEqual([]);
    expect(codes({ layerCuts: [cut('outer', 30), cut('structural', 35)] })).toEqual(['one-line']);
    // With a layer between them that is cut elsewhere they are no neighbours.
    expect(
      codes({ layerCuts: [cut('outer', 30), cut('inner', 100), cut('structural', 35)] }),
    ).toEqual([]);
    expect(codes({ layerCuts: [cut('outer', 30), cut('inner', 30, 'f')] })).toEqual([
      'not-compared',
    ]);
    expect(codes({ layerCuts: [cut('outer', 30), cut('outer', 31)] })).toEqual([]);
  });

  test('a reference whose partner another piece has out', () => {
    const pair = good.map((one) => (one.id === 'P' ? { ...one, partner: 'Q' } : one)) as Surveyed[];
    const all = [...pair, point({ id: 'Q', at: [0, 0], side: 'left' })];
    const other = (change: Partial<PieceSurvey>) => ({
      others: [{ name: 'left lip', survey: taking({ takes: ['Q'], ...change }) }],
    });
    expect(codes({ takes: ['P'] }, all, other({ cutOut }))).toEqual(['both-sides-out']);
    expect(codes({ takes: ['P'] }, all, other({}))).toEqual([]);
    expect(codes({ takes: ['P'] }, all, other({ cutOut: { ...cutOut, backAt: DAY(10) } }))).toEqual(
      [],
    );
    expect(codes({ takes: ['A'] }, all, other({ cutOut }))).not.toContain('both-sides-out');
    // It is enough that one of the two says whose partner it is.
    const told = [...good, point({ id: 'Q', at: [0, 0], side: 'left', partner: 'P' })];
    expect(codes({ takes: ['P'] }, told, other({ cutOut }))).toEqual(['both-sides-out']);
  });
});
