import type { RoadGiven, Stop } from './stop';
import { stop } from './stop';

export function sheetStop({ printed, revision, digest, fit }: RoadGiven): Stop {
  if (printed === null)
    return fit
      ? stop(
          'overtaken',
          'Marked out by hand',
          'It was tried in place, and never printed or sent to a cutter from here.',
        )
      : stop('ahead', 'Not printed');
  const same = printed.digest === null ? printed.revision === revision : printed.digest === digest;
  if (same) return stop('done', 'Printed', 'The last print is of the blank as it is now.');
  return fit
    ? stop(
        'overtaken',
        'Made by an older card',
        'It was cut and tried; the card has changed since that print.',
      )
    : stop('attention', 'Changed since print', 'The blank has changed since the last print.');
}
