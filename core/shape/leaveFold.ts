import type { Development } from '../blank/fold/developed';

/**
 * The fold that is left for the last because its flange comes up to a gap that is adjusted with it,
 * by id: of several the one that comes last in `foldOrder`, else the one that is listed last. Null
 * where there is none.
 *
 * @param gaps ids of the edges beyond which a gap is to be adjusted
 */
export function foldLeftForGap(
  { folds, net }: Pick<Development, 'folds' | 'net'>,
  gaps: readonly string[],
  foldOrder: readonly string[],
): { fold: string; edge: string } | null {
  const place = (id: string) => (foldOrder.includes(id) ? foldOrder.indexOf(id) : foldOrder.length);
  const found = folds.flatMap(({ id, child }) => {
    if (folds.some(({ parent }) => parent === child)) return [];
    const edge = gaps.find((gap) =>
      net.some((piece) => piece.edge === gap && piece.face === child),
    );
    return edge === undefined ? [] : [{ fold: id, edge }];
  });
  return found.reduce<(typeof found)[number] | null>(
    (last, one) => (last && place(last.fold) > place(one.fold) ? last : one),
    null,
  );
}
