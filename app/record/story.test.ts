import fc from 'fast-check';
import { uncut } from '#core/cutdown/uncut';
import { noWork } from '#core/shape/shaping';
import type { Fit } from '../records/records.server';
import type { Picture } from '../records/pictures.server';
import { byDay, durationSaid, secondsWorked, storyOf } from './story';

const moment = fc
  .date({ min: new Date('2020-01-01'), max: new Date('2030-01-01'), noInvalidDate: true })
  .map((d) => d.toISOString());
const fitAt = (at: string): Fit => ({
  id: at,
  at,
  who: '',
  held: 'hand',
  notes: '',
  revision: 1,
  withdrawn: null,
  edges: [],
});
const pictureAt = (
  at: string,
  owner: Picture['owner'],
  taken: string | null,
  putAway: string | null,
) => ({ id: at, at, owner, of: '', taken, putAway }) as Picture;

test('a story has each thing once, in the order of time, whatever order it came in', () => {
  fc.assert(
    fc.property(fc.array(moment), fc.array(moment), fc.array(moment), (trials, steps, shots) => {
      const given = {
        survey: { cutOut: null },
        cutDown: uncut(),
        fits: [...trials].sort().map(fitAt),
        takenBack: [],
        welds: [],
        inspections: [],
        shaping: {
          work: Object.fromEntries(steps.map((done, i) => [`s${i}`, { ...noWork(), done }])),
        },
        pictures: shots.map((at, i) =>
          pictureAt(
            at,
            (['piece', 'edge', 'weld', 'fit'] as const)[i % 4]!,
            i % 3 === 0 ? at : null,
            i % 5 === 4 ? at : null,
          ),
        ),
      };
      const story = storyOf(given);
      const hung = given.pictures.filter(
        ({ owner, putAway }) => ['piece', 'edge'].includes(owner) && !putAway,
      );
      expect(story).toHaveLength(trials.length + steps.length + hung.length);
      const times = story.map(({ at }) => Date.parse(at));
      expect(times).toEqual([...times].sort((a, b) => a - b));
      // Trials keep their numbers.
      const numbers = story.flatMap((event) => (event.kind === 'trial' ? [event.number] : []));
      expect(numbers).toEqual(given.fits.map((_, i) => i + 1));
      // Days: nothing lost, no day twice, no neighbour of its own day.
      const days = byDay(story, (at) => at.slice(0, 10));
      expect(days.flatMap(({ events }) => events)).toEqual(story);
      expect(new Set(days.map(({ day }) => day)).size).toBe(days.length);
    }),
  );
});

test('what was made again counts too; no watch, no time', () => {
  expect(secondsWorked({ a: noWork() })).toBeNull();
  const again = {
    ...noWork(),
    seconds: 90,
    before: [{ count: 1, seconds: 3600, note: '', at: '2026-10-01T08:00:00.000Z' }],
  };
  expect(secondsWorked({ a: again, b: { ...noWork(), seconds: 30 } })).toBe(3720);
  expect([29, 60, 3600, 3720, 7_199].map(durationSaid)).toEqual([
    'under a minute',
    '1 min',
    '1 h',
    '1 h 2 min',
    '2 h',
  ]);
});
