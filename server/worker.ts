import workerpool from 'workerpool';
import { drawBenchCardNow } from '#app/blank/drawBenchCard.server';
import { drawScaleFrameNow } from '#app/card/drawScaleFrame.server';
import { drawStripNow } from '#app/sheet/drawStrip.server';
import { takeInNow, writeOutNow } from '#app/jobs/doJobFiles.server';
import { copyPictureNow, keepPictureNow } from '#app/pictures/doKeepPicture.server';
import { judgeNow } from '#app/piece/doJudge.server';
import { sumUpNow } from '#app/piece/doSumUp.server';
import { drawPatternNow } from '#app/sheet/drawPattern.server';
import { drawMeasuringSheetNow } from '#app/survey/drawMeasuringSheet.server';
import type { Doing } from '#app/workers/task';

/** What worker threads can be asked to do. */
const all: Doing[] = [
  sumUpNow,
  judgeNow,
  drawPatternNow,
  writeOutNow,
  takeInNow,
  keepPictureNow,
  copyPictureNow,
  drawMeasuringSheetNow,
  drawScaleFrameNow,
  drawStripNow,
  drawBenchCardNow,
];

workerpool.worker(
  Object.fromEntries(
    all.map(({ name, run }) => [
      name,
      (given: unknown) => run(given as never, (done) => workerpool.workerEmit(done)),
    ]),
  ),
);
