import fc from 'fast-check';
import { spread } from '../measure/spread.arbitrary';
import { growthOf, growthToCutOpen, timesAsLarge } from './growth';
import type { LookKind } from './kinds';
import type { Look } from './references';

const look = (
  day: number,
  how: LookKind,
  size: readonly [number, number] | null,
  mark: string | null = null,
): Look => ({
  at: `2026-10-${String(day).padStart(2, '0')}T09:00:00.000Z`,
  how,
  lengthMm: size?.[0] ?? null,
  widthMm: size?.[1] ?? null,
  outline: mark === null ? null : { picture: mark[0]!, mark: mark.slice(1) },
  note: '',
});
const none = () => null;

test('a finding has grown by the ratio of its areas, whichever order its looks were written down in', () => {
  const size = fc.tuple(spread(5, 500), spread(5, 500));
  fc.assert(
    fc.property(fc.array(size, { minLength: 2, maxLength: 6 }), spread(0.2, 5), (sizes, scale) => {
      const looks = sizes.map((s, i) => look(i + 1, 'sanded', s));
      const [first, last] = [sizes[0]!, sizes[sizes.length - 1]!];
      const times = (last[0] * last[1]) / (first[0] * first[1]);
      expect(growthOf({ looks: [...looks].reverse() }, none)).toBeCloseTo(times, 9);
      // Read in inches it has grown as much.
      const inInches = looks.map((l) => ({
        ...l,
        lengthMm: l.lengthMm! * scale,
        widthMm: l.widthMm! * scale,
      }));
      expect(growthOf({ looks: inInches }, none)! / times).toBeCloseTo(1, 9);
    }),
  );
});

test('lines on one picture are compared, on two they cannot be', () => {
  const areaOf = ({ mark }: { mark: string }) => ({ small: 100, large: 360 })[mark] ?? null;
  expect(
    timesAsLarge(look(1, 'seen', null, 'Psmall'), look(2, 'cut', null, 'Plarge'), areaOf),
  ).toBeCloseTo(3.6);
  expect(
    timesAsLarge(look(1, 'seen', null, 'Psmall'), look(2, 'cut', null, 'Qlarge'), areaOf),
  ).toBeNull();
  expect(
    timesAsLarge(look(1, 'seen', null, 'Pgone'), look(2, 'cut', null, 'Plarge'), areaOf),
  ).toBeNull();
  expect(timesAsLarge(look(1, 'seen', [10, 5]), look(2, 'cut', null, 'Plarge'), areaOf)).toBeNull();
  // The first that can be compared with the last counts.
  const looks = [
    look(1, 'seen', null, 'Psmall'),
    look(2, 'probed', [10, 5]),
    look(3, 'cut', [20, 10]),
  ];
  expect(growthOf({ looks }, areaOf)).toBe(4);
});

test('how findings grow until they are cut open is the geometric mean of those that were', () => {
  const cut = (a: number, b: number) => ({
    looks: [look(1, 'seen', [a, 10]), look(5, 'cut', [b, 10])],
  });
  const later = { looks: [...cut(10, 40).looks, look(9, 'seen', [400, 10])] };
  const onlySeen = { looks: [look(1, 'seen', [10, 10]), look(3, 'probed', [90, 90])] };
  expect(growthToCutOpen([cut(10, 20), later, onlySeen], none)).toEqual({
    times: expect.closeTo(Math.sqrt(8), 9),
    of: 2,
  });
  expect(growthToCutOpen([onlySeen, { looks: [look(1, 'cut', [10, 10])] }], none)).toBeNull();
  expect(growthToCutOpen([], none)).toBeNull();
});
