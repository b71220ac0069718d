import { useCallback, useMemo } from 'react';
import type { PictureOwner } from '#core/format/lists';
import { Pictures } from '../pictures/Pictures';
import type { Picture } from '../records/pictures.server';
import { usePiece } from './pieceContext';

/** The pictures of the piece at hand, or of one of its edges or records. */
export function PiecePictures({
  owner,
  of = '',
  title,
  small,
  still,
}: {
  owner: Exclude<PictureOwner, 'job'>;
  of?: string;
  title: string;
  small?: boolean;
  still?: boolean;
}) {
  const { id, job, pictures, took } = usePiece();
  const on = useMemo(() => ({ job, piece: id, owner, of }), [job, id, owner, of]);
  const takeOver = useCallback((now: Picture[]) => took({ pictures: now }), [took]);
  return (
    <Pictures on={on} all={pictures} took={takeOver} title={title} small={small} still={still} />
  );
}
