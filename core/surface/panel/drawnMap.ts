import { MAX_LINES, MAX_MARKS, MAX_PLACES, MAX_TRACKS } from './drawnLimits';
import { thinned, thinnedLine } from '../../measure/thin';
import type { Vec } from '../../measure/vector';
import { sub } from '../../measure/vector';
import { inFlat } from '../mesh/isoLines';
import type { LaidPanel } from './laidPanel';
import { panelOf } from '../strain/strain';
import { benchStep, evened } from '../strain/strainMap';
import { raisingTracks } from '../strain/tracks';
import type { DrawnMap } from './drawnMapSchema';

export type { DrawnMap };

/** Tolerance within which lines are thinned for drawing, mm. */
const OFF_MM = 0.25;

const to = (x: number, digits: number): number => Math.round(x * 10 ** digits) / 10 ** digits + 0;

/**
 * The map of a laid panel with `origin` of its flat as nought: as much as is drawn of it, the
 * longest lines first to stay.
 */
export function drawnMap(
  { lines, marks, flat, disc, map, stretch, shrink }: LaidPanel,
  origin: Vec,
): DrawnMap {
  const panel = panelOf(disc.mesh);
  const tracks = raisingTracks(
    panel,
    flat,
    evened(panel, map.stretch),
    benchStep(Math.max(stretch, shrink)),
  );
  const placed = (p: Vec): [number, number] => {
    const [x, y] = sub(p, origin);
    return [to(x, 1), to(y, 1)];
  };
  const drawn = lines.map(({ way: what, value, closed, places }) => {
    const line = inFlat(places, flat);
    const few = closed ? thinned(line, OFF_MM) : thinnedLine(line, OFF_MM);
    return {
      way: what,
      value: to(value, 5),
      closed,
      places: few.slice(0, MAX_PLACES).map(placed),
    };
  });
  return {
    lines: drawn.sort((a, b) => b.places.length - a.places.length).slice(0, MAX_LINES),
    marks: marks.slice(0, MAX_MARKS).map((mark) => ({
      way: mark.way,
      strain: to(mark.strain, 5),
      at: placed(mark.at),
      turn: to(mark.turn, 3),
    })),
    tracks: tracks.slice(0, MAX_TRACKS).map(({ tool, round, places }) => ({
      tool,
      round,
      places: thinnedLine(places, OFF_MM).slice(0, MAX_PLACES).map(placed),
    })),
  };
}

/** The map of a blank that is turned over about the line x = `aboutMm`. */
export function turnedMap({ lines, marks, tracks }: DrawnMap, aboutMm: number): DrawnMap {
  const flip = ([x, y]: readonly [number, number]): [number, number] => [2 * aboutMm - x, y];
  return {
    lines: lines.map((line) => ({ ...line, places: line.places.map(flip) })),
    marks: marks.map((mark) => ({
      ...mark,
      at: flip(mark.at),
      turn: mark.turn === 0 ? 0 : -mark.turn,
    })),
    tracks: tracks.map((track) => ({ ...track, places: track.places.map(flip) })),
  };
}
