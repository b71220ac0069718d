import type { Vec } from '#core/measure/vector';

/**
 * The triangles of a convex section in x and z drawn along y from one place to another, three
 * numbers a corner.
 */
export function prism(section: readonly Vec[], from: number, to: number): number[] {
  const found: number[] = [];
  const n = section.length;
  const at = (i: number, y: number): [number, number, number] => [
    section[i % n]![0],
    y,
    section[i % n]![1],
  ];
  for (let i = 0; i < n; i++) {
    const [a, b, c, d] = [at(i, from), at(i + 1, from), at(i + 1, to), at(i, to)];
    found.push(...a, ...b, ...c, ...a, ...c, ...d);
    if (i > 0 && i + 1 < n)
      found.push(...at(0, from), ...b, ...a, ...at(0, to), ...at(i, to), ...at(i + 1, to));
  }
  return found;
}
