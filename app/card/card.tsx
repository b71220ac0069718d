import { usePiece } from '../shell/pieceContext';
import { Editor } from './Editor';
import { Start } from './Start';

/** The card stage: an empty card asks how to begin; any other is edited. */
export default function CardStage() {
  const { pattern } = usePiece();
  return pattern.sides.length === 0 ? <Start /> : <Editor />;
}
