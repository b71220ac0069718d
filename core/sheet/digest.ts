import type { Layers } from './layers';

const ROUND = 1e4;

/** Figures to a tenth of a micron: rounding in the last place makes no other sheet. */
const rounded = (_key: string, value: unknown): unknown =>
  typeof value === 'number' ? Math.round(value * ROUND) / ROUND : value;

/**
 * A short word for all that a drawing was made from: the same drawing, sheet and way of bending
 * give the same word, any other another one. FNV-1a over the text, twice with different starts, 2 ×
 * 32 bits in base 36: to tell change, not to keep secrets.
 */
export function digestOf(layers: Layers, made: object): string {
  const text = JSON.stringify([layers, made], rounded);
  const hash = (start: number): number => {
    let h = start;
    for (let i = 0; i < text.length; i++) {
      h ^= text.charCodeAt(i);
      h = Math.imul(h, 0x01000193);
    }
    return h >>> 0;
  };
  return (
    hash(0x811c9dc5).toString(36).padStart(7, '0') + hash(0x9dc5811c).toString(36).padStart(7, '0')
  );
}
