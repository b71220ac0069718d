import { asTheClockStood, formatDay, formatTime } from './dates';
import { usePreferences } from './preferences';

/**
 * A date and time as the shop writes it, in the zone of whoever reads; `clock`: as some clock stood
 * whose zone nobody knows.
 */
export function Moment({ at, clock = false }: { at: string; clock?: boolean }) {
  const { dates: here } = usePreferences();
  const dates = clock ? asTheClockStood(here) : here;
  return (
    <time dateTime={at}>
      {formatDay(at, dates)}, {formatTime(at, dates)}
    </time>
  );
}
