import { performance } from 'node:perf_hooks';
import { runToCompletion } from '#core/measure/runToCompletion';
import { CARD, off, onPaper } from '#core/picture/cardScene.arbitrary';
import { photographed } from '#core/picture/photographed.arbitrary';
import {
  ABOVE,
  BETWEEN_CORNERS,
  DOUBTFUL,
  LARGE,
  ON_A4,
  SHOT,
  SMALLER,
  TAPES,
  asLaid,
  onBench,
} from '#core/picture/photographs.arbitrary';
import type { Picture } from '#core/picture/picture';
import { trace } from '#core/picture/trace';

/**
 * Every photograph of a card whose outline is known: how far the outline that is found lies from
 * it, and what of it is told as doubtful. The tests look at four of them.
 */
const corners = { kind: 'corners', tapes: TAPES } as const;

function told(
  name: string,
  picture: Picture,
  scale: Parameters<typeof trace>[1],
  distances: (outline: Parameters<typeof off>[0]) => ReturnType<typeof off>,
): void {
  const began = performance.now();
  const found = runToCompletion(trace(picture, scale));
  const ms = performance.now() - began;
  if (!found.ok) {
    console.log(`  ${name}: ${found.problems.map(({ code }) => code).join(', ')}`);
    return;
  }
  const { rms, worst } = distances(found.outline);
  const doubtful = found.doubtful.length > 0 ? `, ${found.doubtful.length} stretches doubtful` : '';
  console.log(
    `  ${name}: ${rms.toFixed(2)} mm rms, ${worst.toFixed(2)} mm at most${doubtful}; ${ms.toFixed(0)} ms`,
  );
}

console.log('\nPhotographs of a card on the frame of A4 (aim 0.1 and 0.4 mm)');
for (const [name, card, bench, middle, shot] of ON_A4)
  told(
    name,
    await photographed(onPaper(card, bench, middle), { ...SHOT, ...shot }),
    { kind: 'paper', paper: 'a4' },
    (outline) => off(outline, CARD),
  );
const laid: Parameters<typeof told>[3] = (outline) =>
  off(
    outline.map(({ a, b, bulge }) => ({ a: asLaid(a), b: asLaid(b), bulge })),
    LARGE,
  );
console.log('A card of 900 mm between four loose corner cards (aim 1 mm at most)');
for (const [name, card, bench, shadow] of BETWEEN_CORNERS)
  told(name, await photographed(onBench(card, bench), { ...ABOVE, shadow }), corners, laid);
console.log('The edge of a shadow passes for its own (each stretch that is wrong is to be told)');
for (const [name, card, bench, shadow] of DOUBTFUL)
  told(
    name,
    await photographed(onBench(card, bench), { ...ABOVE, ...SMALLER, shadow }),
    corners,
    laid,
  );
