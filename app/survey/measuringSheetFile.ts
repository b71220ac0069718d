import type { Unit } from '#core/measure/length';
import type { PictureMark } from '#core/picture/marks';
import type { Paper } from '#core/sheet/tiles';
import { task } from '../workers/task';

/** What a measuring sheet is drawn from, in the words and the order of the survey. */
export type MeasuringSheet = {
  job: string;
  shop: string;
  /** The day of printing, as the shop writes it. */
  date: string;
  unit: Unit;
  paper: Paper;
  /** What is to be read: its name, from where to where, and what it is read in. */
  rows: { name: string; from: string; to: string; where: string; degrees: boolean }[];
  /** Pictures of the points, with what is marked on them. */
  pictures: {
    path: string;
    width: number;
    height: number;
    of: string;
    caption: string;
    marks: PictureMark[];
  }[];
  /** How many more pictures there are than are printed. */
  more: number;
};

/** As many pictures as go on a measuring sheet. */
export const MAX_PRINTED = 24;

/** Draws the sheet that a round is read on where there is only paper. */
export const drawMeasuringSheet = task<MeasuringSheet, Uint8Array>(
  'draw-measuring-sheet',
  'papers',
);
