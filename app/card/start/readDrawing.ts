import { parsePoints } from '#core/card/legs';
import { line } from '#core/measure/segment';
import { problemSentence } from '../../frame/sentences';
import type { Drawing, Unread } from './drawingFile';
import { MAX_SEGMENTS, MAX_THINGS } from './drawingFile';
import { readDxf } from './readDxf';
import { readSvg } from './readSvg';

/** Reads DXF or SVG by what is in it; the libraries are loaded when they are wanted. */
export async function readDrawing(name: string, text: string): Promise<Drawing | Unread> {
  const found = await readAs(name, text);
  const many = 'drawn' in found ? found.drawn.reduce((sum, { run }) => sum + run.length, 0) : 0;
  return many > MAX_SEGMENTS
    ? {
        wrong: `There are ${many} lines and arcs in this file: too many. Leave out what is not the piece, or save curves as curves.`,
      }
    : found;
}

async function readAs(name: string, text: string): Promise<Drawing | Unread> {
  const start = text.slice(0, 2000);
  try {
    if (/\.svg$/i.test(name) || /<svg[\s>]/i.test(start)) return await readSvg(text);
    if (/\.(csv|tsv|txt)$/i.test(name)) return readTable(text);
    if (/\.dxf$/i.test(name) || /^\s*0\s+SECTION/m.test(start)) return await readDxf(text);
  } catch (error) {
    return { wrong: error instanceof Error ? error.message : 'The file cannot be read.' };
  }
  return {
    wrong: 'This is no DXF and no SVG. Save the drawing as one of them, or its points as CSV.',
  };
}

/** A table of points, across and up, one a line: the outline round them in their order. */
function readTable(text: string): Drawing | Unread {
  // Bare figures are taken as they are; how large they are is asked.
  const read = parsePoints(text, 'mm');
  if (!read.ok) return { wrong: problemSentence(read.problems[0]!, null, String) };
  const at = read.points;
  if (at.length < 3) return { wrong: 'It takes three points at least.' };
  if (at.length > MAX_THINGS)
    return { wrong: `There are ${at.length} points in this file: too many.` };
  const closed =
    Math.hypot(at[0]![0] - at.at(-1)![0], at[0]![1] - at.at(-1)![1]) < 1e-9 ? at.slice(0, -1) : at;
  const run = closed.map((a, i) => line(a, closed[(i + 1) % closed.length]!));
  return { drawn: [{ layer: 'Points', run }], unitMm: null, passedOver: [] };
}
