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

/** The zone of this machine: of the browser, or of the server. */
export const zoneHere = (): string => new Intl.DateTimeFormat().resolvedOptions().timeZone;

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

/** A day: 5 Nov 2026, Nov 5, 2026 or 2026-11-05. */
export function formatDay(at: string, { style, zone: timeZone }: Dates): string {
  const { locale, month, day } = STYLES[style];
  return new Date(at).toLocaleDateString(locale, { day, month, year: 'numeric', timeZone });
}

/** The time of day. */
export function formatTime(at: string, { style, zone: timeZone }: Dates): string {
  const { locale, hour12 } = STYLES[style];
  return new Date(at).toLocaleTimeString(locale, {
    hour: hour12 ? 'numeric' : '2-digit',
    minute: '2-digit',
    hour12,
    timeZone,
  });
}
