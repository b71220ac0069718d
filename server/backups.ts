/** Nightly backups by their day, `patrone-2026-11-25.backup`, and those made before an update. */
const NIGHTLY = /^patrone-(\d{4}-\d\d-\d\d)\.backup$/;
const BEFORE_UPDATE = /^before-update-.*\.backup$/;

const DAYS = 7;
const WEEKS = 4;
const MONTHS = 12;
const UPDATES = 5;

const DAY_MS = 86_400_000;
const dayOf = (day: string): number => Date.parse(`${day}T00:00:00Z`) / DAY_MS;
/** Weeks begin on Monday; the first of January 1970 was a Thursday. */
const weekOf = (day: string): number => Math.floor((dayOf(day) + 3) / 7);
const monthOf = (day: string): number => Number(day.slice(0, 4)) * 12 + Number(day.slice(5, 7)) - 1;

/**
 * Which files of a folder of backups can go on a day: kept are those of the last 7 days, the last
 * of each of the last 4 weeks and of the last 12 months, and the last 5 made before an update.
 * Files that are no backups are never named.
 */
export function backupsToDrop(files: readonly string[], today: string): string[] {
  const days = files.flatMap((file) => NIGHTLY.exec(file)?.[1] ?? []).sort();
  const kept = new Set(days.filter((day) => dayOf(today) - dayOf(day) < DAYS));
  for (const [of, most] of [
    [weekOf, WEEKS],
    [monthOf, MONTHS],
  ] as const) {
    const last = new Map(days.map((day) => [of(day), day]));
    for (const [period, day] of last) if (of(today) - period < most) kept.add(day);
  }
  const updates = files.filter((file) => BEFORE_UPDATE.test(file)).sort();
  return [
    ...days.filter((day) => !kept.has(day)).map((day) => `patrone-${day}.backup`),
    ...updates.slice(0, Math.max(0, updates.length - UPDATES)),
  ];
}
