/** A generator run to its end. */
export function runToCompletion<T>(steps: Generator<unknown, T>): T {
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value as T;
  }
}
