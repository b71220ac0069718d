import fc from 'fast-check';
import type { Dates } from './dates';
import { formatDay, formatTime } from './dates';

const ZONES = ['UTC', 'Europe/London', 'America/New_York', 'Asia/Kolkata', 'Pacific/Chatham'];
const LOCALES = { day: 'en-GB', month: 'en-US', year: 'sv-SE' } as const;

test('whatever was written before, a day and a time are those of the reader’s zone', () => {
  const dates = fc.record<Dates>({
    style: fc.constantFrom('day', 'month', 'year'),
    zone: fc.constantFrom(...ZONES),
  });
  fc.assert(
    fc.property(fc.date({ noInvalidDate: true }), dates, (moment, { style, zone }) => {
      const at = moment.toISOString();
      // The runtime's own, made anew for each.
      const year = moment.toLocaleDateString('en', { timeZone: zone, year: 'numeric' });
      const [hours, minutes] = moment
        .toLocaleTimeString('sv-SE', { timeZone: zone, hour: '2-digit', minute: '2-digit' })
        .split(':');
      expect(formatDay(at, { style, zone })).toContain(year.replace(/\D+/g, ''));
      expect(formatTime(at, { style, zone })).toContain(`:${minutes}`);
      if (LOCALES[style] !== 'en-US') expect(formatTime(at, { style, zone })).toContain(hours);
    }),
    { numRuns: 300 },
  );
  expect(formatDay('2026-11-05T23:30:00Z', { style: 'day', zone: 'Asia/Kolkata' })).toBe(
    '6 Nov 2026',
  );
});

test('a moment that is none stays as it was written', () => {
  expect(formatDay('last spring', { style: 'day', zone: 'UTC' })).toBe('last spring');
  expect(formatTime('', { style: 'year', zone: 'UTC' })).toBe('');
});
