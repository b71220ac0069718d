import { z } from 'zod';

/** A NUL, or one half of a sign that is written in two: neither a database nor JSON keeps them. */
const BROKEN = /\0|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/;

/** Whether a text can be kept as it is. */
export const storable = (text: string): boolean => !BROKEN.test(text);

/** Text of at most `most` UTF-16 units that can be kept as it is. */
export const text = (most: number) =>
  z.string().max(most).refine(storable, { error: 'it holds a sign that cannot be kept' });
