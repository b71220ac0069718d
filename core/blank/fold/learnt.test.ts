import fc from 'fast-check';
import Papa from 'papaparse';
import { readingsCsv, readingsFrom } from '../../format/readings';
import { spread } from '../../measure/spread.arbitrary';
import type { Shop } from '../shopSchema';
import { bendAllowance } from './allowance';
import { changedPieces, learntGroups } from './learnt';
import { DEFAULT_SHOP } from './practice';
import { achievedRadius, legsOutBy, radiusFromLegs } from './achievedRadius';

const strip = (
  legBMm: number,
  more: Partial<Shop['strips'][number]> = {},
): Shop['strips'][number] => ({
  metal: 'dc01',
  thicknessMm: 1,
  radiusMm: 1.5,
  angleDeg: 90,
  flatMm: 100,
  legAMm: 50,
  legBMm,
  readingMm: 0.1,
  ...more,
});
const spring = (cameBackToDeg: number): Shop['springs'][number] => ({
  metal: 'dc01',
  thicknessMm: 1,
  radiusMm: 1,
  foldedToDeg: 92,
  cameBackToDeg,
  uDeg: 0.5,
  on: null,
});
const radius = (gotMm: number, piece: string | null = null): Shop['radii'][number] => ({
  metal: 'dc01',
  thicknessMm: 1,
  wantedMm: 1,
  gotMm,
  uMm: 0.125,
  on: piece === null ? null : { piece, fold: 'f1', at: '2026-01-01' },
});

describe('the radius that came out', () => {
  test('from the legs of a strip cut for it by a handbook’s rule it comes back', () => {
    // Machinery's Handbook, length of a square bend in half-hard sheet: 0.64·T + 1.57·R; legs to
    // the sharp.
    fc.assert(
      fc.property(spread(0.5, 3), spread(0.5, 6), spread(30, 80), spread(30, 80), (t, r, a, b) => {
        const flatMm = a + b - 2 * (r + t) + 0.64 * t + (Math.PI / 2) * r;
        const found = radiusFromLegs(
          { thicknessMm: t, angleDeg: 90, flatMm, legAMm: a, legBMm: b, readingMm: 0.1 },
          0.64 / (Math.PI / 2),
        );
        expect(found.ok && found.radiusMm).toBeCloseTo(r, 6);
        // u(R) = 0.1·√3 / |π/2 − 2| = 0.4035.
        expect(found.ok && found.uMm).toBeCloseTo(0.4035, 3);
      }),
    );
  });

  test('a piece cut for one radius is out by what the other would have been cut for', () => {
    fc.assert(
      fc.property(spread(0.5, 4), spread(0.5, 4), spread(20, 90), (was, got, angleDeg) => {
        const bend = { thicknessMm: 1, radiusMm: was, angleDeg };
        const [a, b] = [was, got].map((radiusMm) =>
          bendAllowance({ ...bend, radiusMm }, { kind: 'machinery', temper: 'soft' }),
        );
        if (!a?.ok || !b?.ok) throw new Error();
        // The flat length stays: legs less deduction.
        expect(100 - a.deductionMm).toBeCloseTo(
          100 + legsOutBy(bend, { kind: 'machinery', temper: 'soft' }, got)! - b.deductionMm,
          9,
        );
      }),
    );
  });

  test('readings of about the radius that is wanted count, and of nothing else', () => {
    expect(
      achievedRadius(1, [
        { wantedMm: 1, gotMm: 1.6, uMm: 0.1 },
        { wantedMm: 1.05, gotMm: 1.4, uMm: 0.1 },
      ]),
    ).toBeCloseTo(1.5, 9);
    expect(achievedRadius(1, [{ wantedMm: 1.2, gotMm: 3, uMm: 0.1 }])).toBe(1);
    expect(achievedRadius(0, [{ wantedMm: 0, gotMm: 0.3, uMm: 0.1 }])).toBe(0.3);
  });
});

describe('what a shop has learnt', () => {
  test('a reading far from the others stands out, whatever their order; one that is left out does not count', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray([52, 52.1, 52.2, 51.2], { minLength: 4 }), (legs) => {
        const shop = { ...DEFAULT_SHOP, strips: legs.map((leg) => strip(leg)) };
        const [group] = learntGroups(shop, 'strips');
        expect(
          group!.readings.filter(({ standsOut }) => standsOut).map(({ index }) => legs[index]),
        ).toEqual([51.2]);
        const without = {
          ...shop,
          strips: shop.strips.map((one) =>
            one.legBMm === 51.2 ? { ...one, leftOut: 'slipped' } : one,
          ),
        };
        expect(learntGroups(without, 'strips')[0]!.mean!.value).toBeLessThan(group!.mean!.value);
        expect(
          learntGroups(without, 'strips')[0]!.readings.every(({ standsOut }) => !standsOut),
        ).toBe(true);
      }),
    );
  });

  test('metals, thicknesses and roundness are told apart; within a tenth they are one', () => {
    const shop = {
      ...DEFAULT_SHOP,
      strips: [
        strip(52),
        strip(52, { thicknessMm: 1.1 }),
        strip(52, { thicknessMm: 1.2 }),
        strip(52, { metal: 'dc04' }),
      ],
    };
    expect(learntGroups(shop, 'strips').map(({ readings }) => readings.length)).toEqual([2, 1, 1]);
    const springs = { ...DEFAULT_SHOP, springs: [spring(90), { ...spring(90), radiusMm: 5 }] };
    expect(learntGroups(springs, 'springs')).toHaveLength(2);
  });

  test('a piece changes by what other settings take off its folds, and never by what was read on itself', () => {
    const piece = {
      id: 'p',
      name: 'P',
      job: 'J',
      metal: 'dc01' as const,
      thicknessMm: 1,
      folds: [
        { angleDeg: 90, radiusMm: null },
        { angleDeg: 45, radiusMm: 3 },
      ],
    };
    const [changed] = changedPieces(DEFAULT_SHOP, { ...DEFAULT_SHOP, radii: [radius(2)] }, [piece]);
    const by = legsOutBy({ thicknessMm: 1, radiusMm: 1, angleDeg: 90 }, { kind: 'din6935' }, 2)!;
    expect(changed).toMatchObject({ folds: 1 });
    expect(changed!.mostMm).toBeCloseTo(Math.abs(by), 9);
    expect(
      changedPieces(DEFAULT_SHOP, { ...DEFAULT_SHOP, radii: [radius(2, 'p')] }, [piece]),
    ).toEqual([]);
    expect(
      changedPieces(DEFAULT_SHOP, { ...DEFAULT_SHOP, radii: [{ ...radius(2), leftOut: 'no' }] }, [
        piece,
      ]),
    ).toEqual([]);
  });

  test('the table that is taken out is taken in again as it was, by a reader that is not ours; what does not fit is named', () => {
    const all = {
      strips: [strip(52), strip(52.1, { leftOut: 'bent, "twice"', brake: 'folder' })],
      springs: [spring(90)],
      radii: [radius(2, 'p')],
    };
    const { data } = Papa.parse<Record<string, string>>(readingsCsv(all), {
      header: true,
      skipEmptyLines: true,
    });
    expect(readingsFrom(data)).toEqual({ readings: all, wrong: [] });
    const spoilt = data.map((row, i) =>
      i === 0
        ? { ...row, thickness_mm: 'one' }
        : i === 2
          ? { ...row, came_back_to_deg: '20' }
          : row,
    );
    expect(readingsFrom([...spoilt, { kind: 'bead' }]).wrong).toEqual([
      { line: 2, column: 'thickness_mm' },
      { line: 4, column: 'came_back_to_deg' },
      { line: 6, column: 'kind' },
    ]);
    expect(
      readingsFrom([{ ...data[2]!, folded_to_deg: '92,5' }]).readings.springs[0]!.foldedToDeg,
    ).toBe(92.5);
  });
});
