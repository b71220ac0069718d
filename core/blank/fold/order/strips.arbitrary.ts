import type { Vec } from '../../../measure/vector';
import { develop } from '../develop';
import type { Development } from '../developed';
import type { PlainCard } from '../plain';
import { PlainCardSchema, fromPlain } from '../plain';

type Folds = NonNullable<PlainCard['folds']>;
type Turn = Pick<Folds[number], 'angleDeg' | 'toward'>;

/**
 * A piece of 1 mm by its outline and folds, developed; one that cannot be fails the test that asks.
 */
export function piece(
  outline: readonly Vec[],
  folds: readonly (Turn & { from: Vec; to: Vec })[],
): Development {
  const read = fromPlain(
    PlainCardSchema.parse({ thicknessMm: 1, rule: { kind: 'din6935' }, outline, folds }),
  );
  const found = read.ok ? develop(read.doc, read.sheet, read.practice) : read;
  if (!found.ok) throw new Error(JSON.stringify(found));
  return found.development;
}
export const UP = { angleDeg: 90, toward: 'face' } as const;
export const DOWN = { angleDeg: 90, toward: 'back' } as const;

/** A strip folded between parts of the given widths, mm. */
export function strip(widths: readonly number[], bends: readonly Turn[], long = 200): Development {
  let y = 0;
  const folds = bends.map((bend, i) => {
    y += widths[i]!;
    return { from: [0, y] as Vec, to: [long, y] as Vec, ...bend };
  });
  const wide = widths.reduce((sum, w) => sum + w, 0);
  return piece(
    [
      [0, 0],
      [long, 0],
      [long, wide],
      [0, wide],
    ],
    folds,
  );
}

/** A tray `l` × `w` without corners, its four walls `h` high, mm, and turned up. */
export const tray = (l: number, w: number, h: number): Development =>
  piece(
    [
      [0, 0],
      [0, -h],
      [l, -h],
      [l, 0],
      [l + h, 0],
      [l + h, w],
      [l, w],
      [l, w + h],
      [0, w + h],
      [0, w],
      [-h, w],
      [-h, 0],
    ],
    (
      [
        [
          [0, 0],
          [l, 0],
        ],
        [
          [l, 0],
          [l, w],
        ],
        [
          [l, w],
          [0, w],
        ],
        [
          [0, w],
          [0, 0],
        ],
      ] as const
    ).map(([from, to]) => ({ from, to, ...UP })),
  );
