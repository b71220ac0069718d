import { runToCompletion } from '#core/measure/runToCompletion';
import { describedDisc, layingPanel } from '#core/surface/panel/laidPanel';
import type { LaidPanel } from '#core/surface/panel/laidPanel';
import type { Part } from '#core/surface/flatten/part';
import { seamMm } from '#core/surface/flatten/part';
import { partPlaces } from '#core/surface/flatten/partPlaces';
import type { PartsAnswer, PartsAsked } from './parting';
import { EACH_WAY, PARTING } from './parting';

const say = (answer: PartsAnswer) => self.postMessage(answer);

self.onmessage = ({ data: { made, balance } }: MessageEvent<PartsAsked>) => {
  const laid = (part: Part | null): LaidPanel | null => {
    const found = runToCompletion(layingPanel(made, balance, PARTING, [], part));
    return found.ok ? found.laid : null;
  };
  const inOne = laid(null);
  const described = describedDisc(made, PARTING);
  if (!inOne || !described.ok) return say({ what: 'done' });
  const places = partPlaces(described.disc, EACH_WAY);
  say({ what: 'whole', stretch: inOne.stretch, shrink: inOne.shrink, tries: places.length });
  for (const place of places) {
    const { runs, share } = place;
    const halves = [laid({ runs, from: 0, to: share }), laid({ runs, from: share, to: 1 })];
    if (halves.some((half) => half === null || half.overlaps.length > 0)) continue;
    const most = (of: 'stretch' | 'shrink') => Math.max(...halves.map((half) => half![of]));
    say({
      what: 'parted',
      parted: {
        ...place,
        seamMm: seamMm(described.disc, { runs, from: 0, to: share }),
        stretch: most('stretch'),
        shrink: most('shrink'),
      },
    });
  }
  say({ what: 'done' });
};
