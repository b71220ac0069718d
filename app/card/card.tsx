import { Suspense, lazy } from 'react';
import { usePiece } from '../piece/pieceContext';
import { Editor } from './Editor';

// Wanted once in the life of a card.
const Start = lazy(() => import('./start/Start'));

/** The card stage: an empty card, and one that is known by lengths alone, ask how to begin; any other is edited. */
export default function CardStage() {
  const { pattern } = usePiece();
  if (pattern.sides.length > 0 && pattern.source !== 'lengths') return <Editor />;
  return (
    <Suspense>
      <Start />
    </Suspense>
  );
}
