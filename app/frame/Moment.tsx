import { formatDay, formatTime } from './dates';
import { usePreferences } from './preferences';

/**
 * A date and time as the shop writes it; `clock`: as some clock stood whose zone nobody knows. The
 * server may stand in another time zone, hence the suppressed warning.
 */
export function Moment({ at, clock = false }: { at: string; clock?: boolean }) {
  const { dates } = usePreferences();
  return (
    <time dateTime={at} suppressHydrationWarning>
      {formatDay(at, dates, clock)}, {formatTime(at, dates, clock)}
    </time>
  );
}
