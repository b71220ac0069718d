import { describedDisc, layingPanel } from '#core/surface/panel/laidPanel';
import { onCut } from '#core/surface/flatten/part';
import type { LaidPanel } from '#core/surface/panel/laidPanel';
import type { Result } from '#core/measure/result';
import type { Vec } from '#core/measure/vector';
import { stripsOf } from '#core/surface/flatten/strips';
import type { LayAnswer, LayAsked } from './laying';
import { FINE, ROUGH } from './laying';

const say = (answer: LayAnswer) => self.postMessage(answer);
let latest = 0;

self.onmessage = ({ data }: MessageEvent<LayAsked>) => {
  latest = data.ask;
  // Whatever goes wrong is said: a page that waits for nothing says nothing.
  lay(data).catch(() =>
    say({ ask: data.ask, what: 'refused', problems: [{ code: 'flatten-failed', about: [] }] }),
  );
};

async function lay(asked: LayAsked): Promise<void> {
  const { ask, made, balance, strips, compare } = asked;
  // A scan and taped paper have their own triangles.
  for (const triangles of made.kind === 'scan' || made.kind === 'taped' ? [FINE] : [ROUGH, FINE]) {
    const found = await laidUnless(asked, balance, triangles);
    if (!found) return;
    if (!found.ok) return say({ ask, what: 'refused', problems: found.problems });
    const { laid } = found;
    const whole = asked.part && describedDisc(made, triangles);
    const seams = whole?.ok ? onCut(whole.disc, asked.part!, laid.disc, laid.outline.edges) : [];
    say({
      ask,
      what: 'laid',
      laid,
      strips: stripsOf(laid.disc, laid.flat, strips),
      seams,
      rough: triangles === ROUGH,
    });
  }
  if (!compare) return;
  const outlines: { balance: number; line: Vec[]; mm2: number }[] = [];
  for (const one of [0, 0.5, 1]) {
    const found = await laidUnless(asked, one, FINE / 3);
    if (!found?.ok) return;
    const { disc, flat, blankMm2 } = found.laid;
    outlines.push({
      balance: one,
      line: [...disc.rim].map((v): Vec => [flat[2 * v]!, flat[2 * v + 1]!]),
      mm2: blankMm2,
    });
  }
  say({ ask, what: 'compared', outlines });
}

/** The panel laid flat, step by step; null as soon as something else is asked. */
async function laidUnless(
  { ask, made, keep, hold, part }: LayAsked,
  balance: number,
  triangles: number,
): Promise<Result<{ laid: LaidPanel }> | null> {
  const way = layingPanel(made, balance, triangles, keep, part, hold);
  for (let step = way.next(); ; step = way.next()) {
    if (step.done) return step.value;
    await new Promise((done) => setTimeout(done));
    if (latest !== ask) return null;
  }
}
