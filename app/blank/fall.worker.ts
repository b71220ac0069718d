import type { Development } from '#core/blank/fold/developed';
import type { FallRemedy, WaterAsked } from '#core/blank/fold/water/water';
import { fallRemedies } from '#core/blank/fold/water/water';

export type FallAsked = { development: Development; asked: WaterAsked };
export type FallAnswer = FallRemedy[];

self.onmessage = ({ data: { development, asked } }: MessageEvent<FallAsked>) =>
  self.postMessage(fallRemedies(development, asked) satisfies FallAnswer);
