import { useMemo } from 'react';
import { withAcross } from './road/joined';
import { usePiece } from './pieceContext';

/**
 * The welds and inspections of the piece at hand and its last trial, with those that were written
 * down beyond its joints.
 */
export function useAllRecords() {
  const { joined, fits, welds, inspections, patternEditor, digest } = usePiece();
  const { number } = patternEditor;
  return useMemo(
    () =>
      withAcross(joined, {
        fit: fits[fits.length - 1] ?? null,
        welds,
        inspections,
        revision: number,
        digest,
      }),
    [joined, fits, welds, inspections, number, digest],
  );
}
