/** A date and time as the shop reads it. The server may stand in another time zone, hence the suppressed warning. */
export function Moment({ at }: { at: string }) {
  const said = new Date(at).toLocaleString('en-GB', {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
  });
  return (
    <time dateTime={at} suppressHydrationWarning>
      {said}
    </time>
  );
}

/** A moment for a datetime-local field, in the time of this browser. */
export function localInput(at: string): string {
  const date = new Date(at);
  return new Date(date.getTime() - date.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
}

/** The time of day of a moment, in the time of this browser. */
export const timeOfDay = (at: string): string =>
  new Date(at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
