import type { LaidOver } from '#core/card/link/laidOver';
import { laidOverCard } from '#core/card/link/laidOver';
import type { PatternDoc } from '#core/card/pattern';

/** What is asked of the worker that lays one card on another. */
export type OverAsked = { here: PatternDoc; there: PatternDoc; turnedOver: boolean };
/** Null where one of both has no outline. */
export type OverAnswer = LaidOver | null;

self.onmessage = ({ data: { here, there, turnedOver } }: MessageEvent<OverAsked>) =>
  self.postMessage(laidOverCard(here, there, turnedOver) satisfies OverAnswer);
