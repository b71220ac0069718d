import type { Paper } from '#core/picture/scaleFrame';
import { task } from '../../workers/task';

/** A frame on a paper, its middle white or dark; or the four loose corner cards, two by two. */
export type ScaleFrameGiven =
  | { kind: 'frame'; paper: Paper; middle: 'white' | 'dark' }
  | { kind: 'cards'; paper: 'a4' | 'letter' };

/** Draws the scale frame that is printed and laid round a card. */
export const drawScaleFrame = task<ScaleFrameGiven, Uint8Array>('draw-scale-frame', 'papers');
