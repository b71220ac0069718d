import type { Shop } from '#core/blank/shopSchema';

export type DateStyle = Shop['dates'];

/**
 * How the shop writes days: by name of month where that can be read only one way, by figures where
 * the year leads.
 */
const STYLES: Record<
  DateStyle,
  { locale: string; month: 'short' | '2-digit'; day: 'numeric' | '2-digit'; hour12: boolean }
> = {
  day: { locale: 'en-GB', month: 'short', day: 'numeric', hour12: false },
  month: { locale: 'en-US', month: 'short', day: 'numeric', hour12: true },
  year: { locale: 'sv-SE', month: '2-digit', day: '2-digit', hour12: false },
};

/** What a field for a moment is typed in: the same order as it is shown in. */
export const FIELD_FORMAT: Record<DateStyle, string> = {
  day: 'D MMM YYYY HH:mm',
  month: 'MMM D, YYYY hh:mm A',
  year: 'YYYY-MM-DD HH:mm',
};

/** How whoever reads writes days, and in which time zone they live (an IANA name). */
export type Dates = { style: DateStyle; zone: string };

/** Of a clock whose zone nobody knows its own figures are kept, as if they were UTC. */
export const asTheClockStood = (dates: Dates): Dates => ({ ...dates, zone: 'UTC' });

let here: string | undefined;
/** The zone of this machine: of the browser, or of the server. */
export const zoneHere = (): string =>
  (here ??= new Intl.DateTimeFormat().resolvedOptions().timeZone);

/** Whether a zone is one that dates can be written in. */
export function isZone(zone: string): boolean {
  try {
    return (
      /^[\w+/-]{1,60}$/.test(zone) && Boolean(new Intl.DateTimeFormat('en', { timeZone: zone }))
    );
  } catch {
    return false;
  }
}

/** A format takes a hundred times as long to make as to use: the last of them are kept. */
const MAX_FORMATS = 40;
const formats = new Map<string, Intl.DateTimeFormat>();
function formatOf(
  key: string,
  locale: string,
  options: Intl.DateTimeFormatOptions,
): Intl.DateTimeFormat {
  const known = formats.get(key);
  if (known) return known;
  const [oldest] = formats.keys();
  if (formats.size >= MAX_FORMATS && oldest !== undefined) formats.delete(oldest);
  const made = new Intl.DateTimeFormat(locale, options);
  formats.set(key, made);
  return made;
}

/** A moment in a format; one that is none stays as it was written. */
function written(at: string, format: Intl.DateTimeFormat): string {
  const moment = new Date(at);
  return Number.isNaN(moment.getTime()) ? at : format.format(moment);
}

/** A day: 5 Nov 2026, Nov 5, 2026 or 2026-11-05. */
export function formatDay(at: string, { style, zone: timeZone }: Dates): string {
  const { locale, month, day } = STYLES[style];
  const options = { day, month, year: 'numeric', timeZone } as const;
  return written(at, formatOf(`day ${style} ${timeZone}`, locale, options));
}

/** The time of day. */
export function formatTime(at: string, { style, zone: timeZone }: Dates): string {
  const { locale, hour12 } = STYLES[style];
  const options = {
    hour: hour12 ? 'numeric' : '2-digit',
    minute: '2-digit',
    hour12,
    timeZone,
  } as const;
  return written(at, formatOf(`time ${style} ${timeZone}`, locale, options));
}
