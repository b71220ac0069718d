import { runToCompletion } from '#core/measure/runToCompletion';
import { packed } from '#core/surface/mesh/packed';
import { tapedPanel } from '#core/surface/flatten/taped';
import type { TapeAnswer, TapeAsked } from './taping';
import { PAPER } from './taping';

const say = (answer: TapeAnswer) => self.postMessage(answer);

self.onmessage = ({ data: { outline, wedges } }: MessageEvent<TapeAsked>) => {
  const found = runToCompletion(tapedPanel(outline, wedges, PAPER));
  if (!found.ok) return say({ what: 'refused', problems: found.problems });
  const { mesh, offMm, stretched } = found;
  say({ what: 'taped', taped: { ...packed(mesh, '', offMm), kind: 'taped' }, stretched });
};
