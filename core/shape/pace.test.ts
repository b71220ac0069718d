import { DEFAULT_SHOP } from '../blank/fold/practice';
import { paceLearnt } from './pace';
import { triedGroups } from './tried';

const reading = (what: 'flange' | 'bead', metres: number, hours: number, more: object = {}) => ({
  metal: 'dc04' as const,
  thicknessMm: 1,
  tool: null,
  piece: null,
  at: '',
  what,
  metres,
  hours,
  ...more,
});

test('a metre takes all the time over all the length, as the shop’s page says; other sheets, other work and what was left out say nothing', () => {
  const paces = [
    reading('flange', 2, 1),
    reading('flange', 1, 0.8),
    reading('bead', 5, 0.5),
    reading('flange', 1, 9, { leftOut: 'phone rang' }),
    reading('flange', 1, 9, { thicknessMm: 3 }),
  ];
  const of = (what: 'flange' | 'bead', thicknessMm = 1) =>
    paceLearnt({ ...DEFAULT_SHOP, paces }, { id: 'dc04' }, thicknessMm, what);
  // 1.8 h over 3 m.
  expect(of('flange')).toEqual({ hoursPerMetre: expect.closeTo(0.6, 12) as number, readings: 2 });
  expect(of('bead')).toEqual({ hoursPerMetre: expect.closeTo(0.1, 12) as number, readings: 1 });
  const [group] = triedGroups({ ...DEFAULT_SHOP, paces }).filter(
    ({ kind, thicknessMm }) => kind === 'flange-pace' && thicknessMm === 1,
  );
  expect(group!.said!.value).toBeCloseTo(of('flange')!.hoursPerMetre, 12);
  expect(of('bead', 3)).toBeNull();
  expect(paceLearnt({ ...DEFAULT_SHOP, paces: [] }, { id: 'dc04' }, 1, 'bead')).toBeNull();
});
