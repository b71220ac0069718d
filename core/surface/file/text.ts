/** Number of bytes decoded into text at once. */
const CHUNK = 1 << 20;

/**
 * The lines of a text file, without their ends, one after another: a file of any size in little
 * memory.
 */
export function* linesOf(bytes: Uint8Array, from = 0): Generator<string> {
  const decoder = new TextDecoder('latin1');
  let rest = '';
  for (let at = from; at < bytes.length; at += CHUNK) {
    const lines = (rest + decoder.decode(bytes.subarray(at, at + CHUNK))).split('\n');
    rest = lines.pop()!;
    for (const line of lines) yield line.endsWith('\r') ? line.slice(0, -1) : line;
  }
  if (rest) yield rest;
}

/** Figures as they come, in an array that grows. */
export class Growing {
  private held = new Float64Array(1024);
  length = 0;

  push(...values: number[]): void {
    for (const value of values) {
      if (this.length === this.held.length) {
        const more = new Float64Array(2 * this.length);
        more.set(this.held);
        this.held = more;
      }
      this.held[this.length++] = value;
    }
  }

  get values(): Float64Array {
    return this.held.slice(0, this.length);
  }
}
