import workerpool from 'workerpool';
import { drawBenchCard } from '#app/blank/benchCardFile';
import { drawScaleFrame } from '#app/card/photograph/scaleFrameFile';
import { takeIn, writeOut } from '#app/jobs/jobFiles';
import { surveyVerdictTask, summaryTask } from '#app/piece/loaded/reckonTasks';
import { copyPicture, keepPicture } from '#app/pictures/keepPicture';
import { drawPattern } from '#app/sheet/patternFiles';
import { drawStrip } from '#app/sheet/stripFile';
import { drawMeasuringSheet } from '#app/survey/measuringSheetFile';
import type { Doing } from '#app/workers/task';

/**
 * What worker threads can be asked to do. Each is loaded when it is first asked for: a thread of one
 * lane never holds what the others need.
 */
const all: [{ name: string }, () => Promise<Doing>][] = [
  [summaryTask, async () => (await import('#app/piece/loaded/summaryTask.server')).summariesNow],
  [
    surveyVerdictTask,
    async () => (await import('#app/piece/loaded/verdictTask.server')).verdictNow,
  ],
  [drawPattern, async () => (await import('#app/sheet/drawPattern.server')).drawPatternNow],
  [writeOut, async () => (await import('#app/jobs/doJobFiles.server')).writeOutNow],
  [takeIn, async () => (await import('#app/jobs/doJobFiles.server')).takeInNow],
  [keepPicture, async () => (await import('#app/pictures/doKeepPicture.server')).keepPictureNow],
  [copyPicture, async () => (await import('#app/pictures/doKeepPicture.server')).copyPictureNow],
  [
    drawMeasuringSheet,
    async () => (await import('#app/survey/drawMeasuringSheet.server')).drawMeasuringSheetNow,
  ],
  [
    drawScaleFrame,
    async () => (await import('#app/card/photograph/drawScaleFrame.server')).drawScaleFrameNow,
  ],
  [drawStrip, async () => (await import('#app/sheet/drawStrip.server')).drawStripNow],
  [drawBenchCard, async () => (await import('#app/blank/drawBenchCard.server')).drawBenchCardNow],
];

workerpool.worker(
  Object.fromEntries(
    all.map(([{ name }, load]) => [
      name,
      async (given: unknown) =>
        (await load()).run(given as never, (done) => workerpool.workerEmit(done)),
    ]),
  ),
);
