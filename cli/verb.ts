import type { z } from 'zod';

/** One verb of `./patrone reckon`: what it takes, an example, and the core function behind it. */
export type Verb = {
  about: string;
  input: z.ZodType;
  example: unknown;
  run: (input: unknown) => object | Promise<object>;
};

export function verb<S extends z.ZodType>(
  about: string,
  input: S,
  example: z.input<S>,
  run: (input: z.output<S>) => object | Promise<object>,
): Verb {
  return { about, input, example, run: (given) => run(given as z.output<S>) };
}
