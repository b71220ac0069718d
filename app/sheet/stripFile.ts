import type { CardProfile } from '#core/card/pattern';
import type { Result } from '#core/measure/result';
import type { StripSide } from '#core/sheet/checkingStrip';
import type { Head } from './pdf.server';
import { task } from '../workers/task';

export type StripGiven = {
  profile: CardProfile;
  lie: StripSide;
  as: 'pdf' | 'svg' | 'dxf';
  head: Head;
};
/** The file, or why there is none. */
export type StripDrawn = Result<{ body: Uint8Array | string }>;

/** Draws a profile as a checking strip. */
export const drawStrip = task<StripGiven, StripDrawn>('draw-strip', 'papers');
