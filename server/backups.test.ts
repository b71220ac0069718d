import fc from 'fast-check';
import { backupsToDrop } from './backups';

const dayAfter = (start: string, n: number) =>
  new Date(Date.parse(`${start}T00:00:00Z`) + n * 86_400_000).toISOString().slice(0, 10);
const file = (day: string) => `patrone-${day}.backup`;

/** A folder kept by the rule night after night, some nights without the machine on. */
function kept(start: string, nights: readonly boolean[]): { files: string[]; today: string } {
  let files: string[] = [];
  nights.forEach((on, n) => {
    if (!on) return;
    const today = dayAfter(start, n);
    files.push(file(today));
    const gone = new Set(backupsToDrop(files, today));
    files = files.filter((f) => !gone.has(f));
  });
  return { files, today: dayAfter(start, nights.length - 1) };
}

test('night after night: the last week whole, then a week and a month each; never more than 23 files', () => {
  const { files, today } = kept(
    '2024-01-01',
    Array.from({ length: 800 }, () => true),
  );
  expect(files.length).toBeLessThanOrEqual(7 + 4 + 12);
  for (let back = 0; back < 7; back++) expect(files).toContain(file(dayAfter(today, -back)));
  const months = new Set(files.map((f) => f.slice(8, 15)));
  expect(months.size).toBe(12);
  // The fourth week back ended at least fifteen days ago: from any day since, no more than a week
  // is lost.
  const days = files.map((f) => f.slice(8, 18)).sort();
  for (let back = 0; back < 15; back++) {
    const before = days.filter((d) => d <= dayAfter(today, -back));
    expect(before[before.length - 1]! >= dayAfter(today, -back - 7)).toBe(true);
  }
});

test('however seldom the machine is on, the newest is kept, and only backups are ever named', () => {
  fc.assert(
    fc.property(fc.array(fc.boolean(), { minLength: 1, maxLength: 300 }), (nights) => {
      const { files } = kept('2025-06-15', [...nights, true]);
      expect(files).toContain(file(dayAfter('2025-06-15', nights.length)));
    }),
  );
  const others = [
    'notes.txt',
    'patrone-2020-01-01.backup.part',
    'my-patrone-2020-01-01.backup',
    'kept.backup',
  ];
  expect(backupsToDrop(others, '2026-11-25')).toEqual([]);
  const updates = Array.from(
    { length: 8 },
    (_, i) => `before-update-2026-0${i + 1}-01-120000.backup`,
  );
  expect(backupsToDrop(updates, '2026-11-25')).toEqual(updates.slice(0, 3));
});
