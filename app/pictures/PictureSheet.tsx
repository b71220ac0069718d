import Box from '@mui/material/Box';
import { useGesture } from '@use-gesture/react';
import { useEffect, useRef, useState } from 'react';
import type { PictureMark } from '#core/picture/marks';
import { LINE_STEP } from '#core/picture/marks';
import type { Picture } from '../records/pictures.server';
import { Marks } from './Marks';
import { useGone } from './useGone';
import { useSight } from './useSight';

export type Tool = PictureMark['kind'];
type Point = [number, number];

/** A mark translated by (dx, dy), picture pixels. */
function moved(mark: PictureMark, dx: number, dy: number): PictureMark {
  const by = ([x, y]: readonly [number, number]): Point => [x + dx, y + dy];
  switch (mark.kind) {
    case 'pin':
    case 'ring':
      return { ...mark, at: by(mark.at) };
    case 'arrow':
      return { ...mark, from: by(mark.from), to: by(mark.to) };
    case 'line':
      return { ...mark, points: mark.points.map(by) };
  }
}

const round = ([x, y]: Point): Point => [Math.round(x * 10) / 10, Math.round(y * 10) / 10];

/**
 * What is drawn from where the hand went down by way of where it was to where it is; null while
 * there is too little of it.
 */
function drawn(tool: Tool, id: string, way: readonly Point[], unit: number): PictureMark | null {
  const [from, to] = [round(way[0]!), round(way[way.length - 1]!)];
  const far = Math.hypot(to[0] - from[0], to[1] - from[1]);
  switch (tool) {
    case 'pin':
      return { id, name: '', kind: 'pin', at: to };
    case 'ring':
      return far < 4 * unit
        ? null
        : { id, name: '', kind: 'ring', at: from, radius: Math.round(far * 10) / 10 };
    case 'arrow':
      return far < 6 * unit ? null : { id, name: '', kind: 'arrow', from, to };
    case 'line': {
      const step = Math.max(LINE_STEP, 3 * unit);
      const points = way
        .map(round)
        .filter(
          (p, i, all) =>
            i === 0 ||
            i === all.length - 1 ||
            Math.hypot(p[0] - all[i - 1]![0], p[1] - all[i - 1]![1]) >= step / 2,
        );
      const every = Math.ceil(points.length / 398);
      const kept = points.filter((_, i) => i % every === 0 || i === points.length - 1);
      return kept.length < 2 ? null : { id, name: '', kind: 'line', points: kept };
    }
  }
}

/**
 * The picture itself under its marks: zoomed, moved about in, and drawn over by hand, by touch and
 * by keys.
 */
export function PictureSheet({
  picture,
  marks,
  tool,
  picked,
  keys,
  onTool,
  onPick,
  onPut,
  onChange,
  onRemove,
}: {
  picture: Picture;
  marks: readonly PictureMark[];
  tool: Tool | null;
  picked: string | null;
  keys: readonly { tool: Tool; key: string }[];
  onTool: (tool: Tool | null) => void;
  onPick: (id: string | null) => void;
  onPut: (mark: PictureMark) => void;
  onChange: (id: string, to: (mark: PictureMark) => PictureMark) => void;
  onRemove: (id: string) => void;
}) {
  const box = useRef<HTMLDivElement>(null);
  const [frame, setFrame] = useState({ width: 4, height: 3 });
  useEffect(() => {
    const watching = new ResizeObserver(([entry]) => {
      const { width, height } = entry!.contentRect;
      if (width > 0 && height > 0) setFrame({ width, height });
    });
    watching.observe(box.current!);
    return () => watching.disconnect();
  }, []);
  const { sight, isWhole, zoom, pan, all } = useSight(
    picture.width,
    picture.height,
    frame.width / frame.height,
  );
  // Pixels of the picture for one of the screen.
  const unit = sight.width / frame.width;
  const [way, setWay] = useState<Point[]>([]);
  const holding = useRef<string | null>(null);
  const gone = useGone(`/pictures/${picture.id}/large`);
  const placeOf = ([x, y]: readonly [number, number]): Point => {
    const { left, top } = box.current!.getBoundingClientRect();
    return [sight.x + (x - left) * unit, sight.y + (y - top) * unit];
  };
  const bind = useGesture(
    {
      onDrag: ({ first, last, xy, delta: [dx, dy], pinching, cancel, tap }) => {
        if (pinching) {
          setWay([]);
          return cancel();
        }
        if (tool) {
          const next = first ? [placeOf(xy)] : [...way, placeOf(xy)];
          if (!last) return setWay(next);
          setWay([]);
          const mark = drawn(tool, crypto.randomUUID().slice(0, 8), next, unit);
          if (mark) onPut(mark);
        } else if (holding.current) {
          const id = holding.current;
          if (dx !== 0 || dy !== 0) onChange(id, (mark) => moved(mark, dx * unit, dy * unit));
          if (last) holding.current = null;
        } else if (tap) onPick(null);
        else pan(-dx * unit, -dy * unit);
      },
      onPinch: ({ delta: [scale], origin, offset: [now] }) =>
        zoom(now / (now - scale), placeOf(origin)),
      onWheel: ({ event, delta: [, dy], ctrlKey }) => {
        // A wheel held with Ctrl is a pinch of a touch pad, and told as one.
        if (!ctrlKey) zoom(Math.exp(-dy / 400), placeOf([event.clientX, event.clientY]));
      },
    },
    {
      drag: { filterTaps: false },
      pinch: { scaleBounds: { min: 0.05, max: 60 }, rubberband: false },
    },
  );
  const onKeyDown = (event: React.KeyboardEvent) => {
    const stepBy = (event.shiftKey ? 20 : 4) * unit;
    const way: Record<string, Point> = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, -1],
      ArrowDown: [0, 1],
    };
    const arrow = way[event.key];
    const chosen = keys.find(({ key }) => key === event.key.toLowerCase())?.tool;
    const centre: Point = [
      sight.x + sight.width / 2,
      sight.y + (sight.width * frame.height) / frame.width / 2,
    ];
    if (event.key === '+' || event.key === '=') zoom(1.25);
    else if (event.key === '-') zoom(0.8);
    else if (event.key === '0') all();
    else if (arrow && picked)
      onChange(picked, (mark) => moved(mark, arrow[0] * stepBy, arrow[1] * stepBy));
    else if (arrow) pan(arrow[0] * 40 * unit, arrow[1] * 40 * unit);
    else if (event.key === 'Enter' && tool) {
      const reach = 60 * unit;
      const mark = drawn(
        tool,
        crypto.randomUUID().slice(0, 8),
        [centre, [centre[0] + (tool === 'pin' ? 0 : reach), centre[1]]],
        unit,
      );
      if (mark) onPut(mark);
    } else if (event.key === 'Delete' && picked) onRemove(picked);
    else if (event.key === 'Escape' && (tool || picked)) {
      onTool(null);
      onPick(null);
      event.stopPropagation();
    } else if (chosen) onTool(tool === chosen ? null : chosen);
    else return;
    event.preventDefault();
  };
  const coming = tool && way.length > 0 ? drawn(tool, 'coming', way, unit) : null;
  return (
    <Box
      ref={box}
      {...bind()}
      tabIndex={0}
      role="application"
      aria-label="The picture. Plus and minus look closer, arrows move; P, R, A and L draw."
      onKeyDown={onKeyDown}
      sx={{
        flex: 1,
        minHeight: { xs: 240, md: 0 },
        minWidth: 0,
        position: 'relative',
        bgcolor: '#191714',
        touchAction: 'none',
        cursor: tool ? 'crosshair' : isWhole ? 'default' : 'grab',
        outlineOffset: -3,
      }}
    >
      {gone ? (
        <Box sx={{ p: 4, color: '#ece6da' }}>
          The file of this picture is missing or damaged. A backup may have it: ./patrone restore.
        </Box>
      ) : (
        <svg
          width="100%"
          height="100%"
          style={{ position: 'absolute', inset: 0 }}
          viewBox={`${sight.x} ${sight.y} ${sight.width} ${(sight.width * frame.height) / frame.width}`}
        >
          {/* Closer than the copy shows, the whole picture comes in over it. */}
          <image
            href={`/pictures/${picture.id}/large`}
            width={picture.width}
            height={picture.height}
          />
          {unit < 0.8 * (Math.max(picture.width, picture.height) / 1600) && (
            <image
              href={`/pictures/${picture.id}/whole`}
              width={picture.width}
              height={picture.height}
            />
          )}
          <Marks
            marks={coming ? [...marks, coming] : marks}
            unit={unit}
            picked={picked}
            onPick={
              tool
                ? undefined
                : (id) => {
                    holding.current = id;
                    onPick(id);
                  }
            }
          />
        </svg>
      )}
      <Box sx={{ position: 'absolute', right: 8, bottom: 8, display: 'flex', gap: 0.5 }}>
        {(
          [
            ['Closer', '+', () => zoom(1.5)],
            ['Farther', '−', () => zoom(1 / 1.5)],
            ['All of it', '▢', all],
          ] as const
        ).map(([label, sign, act]) => (
          <Box
            key={label}
            component="button"
            type="button"
            aria-label={label}
            onClick={act}
            onPointerDown={(event: React.PointerEvent) => event.stopPropagation()}
            sx={{
              width: 44,
              height: 44,
              border: '1px solid #6b655b',
              borderRadius: 1,
              fontSize: '1.3rem',
              bgcolor: '#2b2824',
              color: '#ece6da',
              cursor: 'pointer',
            }}
          >
            {sign}
          </Box>
        ))}
      </Box>
    </Box>
  );
}
