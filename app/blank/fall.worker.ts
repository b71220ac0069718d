import type { Development } from '#core/blank/fold/developed';
import type { FallRemedy, WaterAsked } from '#core/blank/fold/water/water';
import { fallRemedies } from '#core/blank/fold/water/water';

/** What is asked, as text: a development carries functions with it, which no message takes. */
export type FallAsked = string;
export type FallAnswer = FallRemedy[];

self.onmessage = ({ data }: MessageEvent<FallAsked>) => {
  const { development, asked } = JSON.parse(data) as {
    development: Development;
    asked: WaterAsked;
  };
  self.postMessage(fallRemedies(development, asked) satisfies FallAnswer);
};
