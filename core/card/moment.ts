import { z } from 'zod';

/** A moment, ISO 8601 in UTC, in a year that somebody can mean. */
export const moment = z.iso
  .datetime()
  .refine((at) => at >= '1900' && at < '2200', { error: 'a day between 1900 and 2200' });
