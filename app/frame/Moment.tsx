import { formatDay, formatTime } from './dates';
import { usePreferences } from './preferences';

/** A date and time as the shop writes it. The server may stand in another time zone, hence the suppressed warning. */
export function Moment({ at }: { at: string }) {
  const { dates } = usePreferences();
  return (
    <time dateTime={at} suppressHydrationWarning>
      {formatDay(at, dates)}, {formatTime(at, dates)}
    </time>
  );
}
