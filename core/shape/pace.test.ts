import { USUAL_SHOP } from '../blank/fold/practice';
import { paceLearnt } from './pace';

const reading = (what: 'flange' | 'bead', metres: number, hours: number, more: object = {}) => ({ metal: 'dc04' as const, thicknessMm: 1, tool: null, piece: null, at: '', what, metres, hours, ...more }); // prettier-ignore

test('a metre takes what all metres took together; other sheets, other work and what was left out say nothing', () => {
  const paces = [
    reading('flange', 2, 1),
    reading('flange', 1, 0.8),
    reading('bead', 5, 0.5),
    reading('flange', 1, 9, { leftOut: 'phone rang' }),
    reading('flange', 1, 9, { thicknessMm: 3 }),
  ];
  const of = (what: 'flange' | 'bead', thicknessMm = 1) => paceLearnt({ ...USUAL_SHOP, paces }, { id: 'dc04' }, thicknessMm, what); // prettier-ignore
  expect(of('flange')).toEqual({ hoursPerMetre: expect.closeTo(0.6, 12) as number, readings: 2 });
  expect(of('bead')).toEqual({ hoursPerMetre: expect.closeTo(0.1, 12) as number, readings: 1 });
  expect(of('bead', 3)).toBeNull();
  expect(paceLearnt({ ...USUAL_SHOP, paces: [] }, { id: 'dc04' }, 1, 'bead')).toBeNull();
});
