import Box from '@mui/material/Box';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { memo, useRef, useState } from 'react';
import { moveCorner, setHole } from '#core/card/edit';
import { outlineOf, placeNearest, pointOfPlace } from '#core/card/outline';
import type { PatternDoc, Place } from '#core/card/pattern';
import { snap } from '#core/card/snap';
import { area, box, perimeter } from '#core/measure/path';
import type { Vec } from '#core/measure/vector';
import { distance, sub, unit as direction } from '#core/measure/vector';
import { CardPicture } from '../drawing/CardPicture';
import { Drawing, useView } from '../drawing/Drawing';
import { StageLayout } from '../shell/StageLayout';
import type { TallyFigure } from '../shell/Tally';
import type { Pick } from '../shell/pieceContext';
import { usePiece } from '../shell/pieceContext';
import { usePreferences } from '../shell/preferences';
import { CardDrawer } from './CardDrawer';
import { newId } from './newId';

type Tool = 'move' | 'fold' | 'hole' | 'base';
type Held = { kind: 'corner' | 'hole'; id: string; moved: boolean };

const GRAB_PX = 16;
const SNAP_PX = 9;

const SAYS: Record<Tool, string> = {
  move: 'Touch an edge, fold, hole or corner. Drag corners and holes.',
  fold: 'Touch the outline where the fold begins, then where it ends.',
  hole: 'Touch where the centre of the hole is.',
  base: 'Touch the face that stays put on the bench.',
};

/** The card stage proper: drawing to drag on, drawer for what is picked, tally of the card. */
export function Editor() {
  const { card, pattern, pick, setPick, development } = usePiece();
  const { unit, show } = usePreferences();
  const [tool, setTool] = useState<Tool>('move');
  const [foldFrom, setFoldFrom] = useState<Place | null>(null);
  const [pointer, setPointer] = useState<Vec | null>(null);
  const [guides, setGuides] = useState<[Vec, Vec][]>([]);
  const held = useRef<Held | null>(null);
  const frame = useRef(0);
  const { path } = outlineOf(pattern);
  const bounds = box(path);

  const choose = (next: Tool) => {
    setTool(next);
    setFoldFrom(null);
  };

  const down = (p: Vec, scale: number): boolean => {
    if (tool !== 'move') return true;
    const reach = GRAB_PX / scale;
    const corner = pattern.corners.find((c) => distance([c.x, c.y], p) <= reach);
    const hole = pattern.holes.find((h) => distance([h.x, h.y], p) <= Math.max(reach, h.diameterMm / 2));
    if (corner) held.current = { kind: 'corner', id: corner.id, moved: false };
    else if (hole) held.current = { kind: 'hole', id: hole.id, moved: false };
    return corner !== undefined || hole !== undefined;
  };

  const drag = (p: Vec, scale: number) => {
    const h = held.current!;
    const from =
      h.kind === 'corner' ? pattern.corners.find((c) => c.id === h.id) : pattern.holes.find((c) => c.id === h.id);
    if (!from) return;
    if (!h.moved && distance([from.x, from.y], p) * scale < 4) return;
    h.moved = true;
    const found = snap(p, { ...snapAround(pattern, h), reachMm: SNAP_PX / scale, unit });
    setGuides(found.guides);
    card.edit(
      h.kind === 'corner'
        ? moveCorner(pattern, h.id, found.point)
        : setHole(pattern, h.id, { x: found.point[0], y: found.point[1] }),
    );
  };

  const move = (p: Vec, scale: number) => {
    if (tool === 'fold') setPointer(p);
    if (!held.current) return;
    // One edit for each frame that is shown, however fast the pointer reports.
    cancelAnimationFrame(frame.current);
    frame.current = requestAnimationFrame(() => held.current && drag(p, scale));
  };

  const up = (p: Vec, scale: number) => {
    cancelAnimationFrame(frame.current);
    setGuides([]);
    const h = held.current;
    held.current = null;
    if (h && !h.moved) return setPick(h);
    if (h || tool === 'move') return;
    if (tool === 'base') {
      card.edit({ ...pattern, base: [p[0], p[1]] });
      return choose('move');
    }
    if (tool === 'hole') {
      const id = newId();
      const found = snap(p, { anchors: [], ends: [], directions: [], reachMm: SNAP_PX / scale, unit });
      card.edit({
        ...pattern,
        holes: [...pattern.holes, { id, x: found.point[0], y: found.point[1], diameterMm: 8 }],
      });
      setPick({ kind: 'hole', id });
      return choose('move');
    }
    const near = placeNearest(pattern, p, GRAB_PX / scale);
    if (!near) return;
    if (!foldFrom) return setFoldFrom(near.place);
    const id = newId();
    const fold = {
      id,
      from: foldFrom,
      to: near.place,
      angleDeg: 90,
      toward: 'face' as const,
      radiusMm: null,
      made: 'outside-sharp' as const,
    };
    card.edit({ ...pattern, folds: [...pattern.folds, fold] });
    setPick({ kind: 'fold', id });
    choose('move');
  };

  const difference = development.ok ? development.development.size.differenceMm : null;
  const tally: TallyFigure[] = [
    {
      label: 'Card',
      value: `${show(bounds.maxX - bounds.minX)} × ${show(bounds.maxY - bounds.minY)}`,
      working: {
        title: 'Size of the card',
        lines: ['The smallest upright rectangle round the outline as measured.'],
        source: 'Exact geometry',
      },
    },
    {
      label: 'Round the outline',
      value: show(perimeter(path)),
      working: {
        title: 'Length round the outline',
        lines: ['Sum of all sides, arcs along the curve.'],
        source: 'Exact geometry',
      },
    },
    {
      label: 'Area of the card',
      value: `${(area(path) / 100).toFixed(0)} cm²`,
      working: {
        title: 'Area of the card',
        lines: ['Shoelace sum of the corners, plus the segment of each arc.'],
        source: 'Exact geometry',
      },
    },
    { label: 'Folds', value: String(pattern.folds.length) },
    {
      label: 'Card as blank would be out by',
      value: difference === null ? 'no blank yet' : show(difference, 2),
      working:
        difference === null
          ? undefined
          : {
              title: 'Paper has no thickness',
              lines: [
                'Each fold moves what is beyond it by allowance − 2 × setback.',
                'This is the most that any two faces move against each other.',
              ],
              source: 'docs/formulas.md, From card to blank',
            },
    },
  ];

  return (
    <StageLayout
      tally={tally}
      drawer={<CardDrawer />}
      drawing={
        <Drawing
          bounds={bounds}
          ground="card"
          label="The card"
          onDown={down}
          onMove={move}
          onUp={up}
          overlay={
            <Box
              sx={{
                position: 'absolute',
                left: 12,
                top: 12,
                right: 12,
                display: 'flex',
                flexWrap: 'wrap',
                gap: 1,
                alignItems: 'center',
                pointerEvents: 'none',
              }}
            >
              <ToggleButtonGroup
                exclusive
                value={tool}
                onChange={(_, next: Tool | null) => next && choose(next)}
                aria-label="What the pointer does"
                sx={{ pointerEvents: 'auto', bgcolor: 'var(--panel)' }}
              >
                <ToggleButton value="move">Move</ToggleButton>
                <ToggleButton value="fold">Lay a fold</ToggleButton>
                <ToggleButton value="hole">Put a hole</ToggleButton>
                <ToggleButton value="base">Stays put</ToggleButton>
              </ToggleButtonGroup>
              <Box sx={{ bgcolor: 'var(--panel)', px: 1.2, py: 0.8, fontSize: '0.95rem', opacity: 0.94 }}>
                {tool === 'fold' && foldFrom ? 'Now touch where the fold ends.' : SAYS[tool]}
              </Box>
            </Box>
          }
        >
          <CardPicture pattern={pattern} pick={pick} onPick={tool === 'move' ? setPick : undefined} />
          <Handles
            pattern={pattern}
            pick={pick?.kind === 'corner' ? pick.id : null}
            onPick={tool === 'move' ? setPick : undefined}
          />
          {tool === 'fold' && <FoldInHand pattern={pattern} from={foldFrom} pointer={pointer} />}
          <Guides guides={guides} />
        </Drawing>
      }
    />
  );
}

/** What a dragged corner or hole may catch on: neighbours as anchors, the other corners, the directions of other sides. */
function snapAround(pattern: PatternDoc, h: Held): { anchors: Vec[]; ends: Vec[]; directions: Vec[] } {
  const at = (id: string): Vec => {
    const c = pattern.corners.find((corner) => corner.id === id)!;
    return [c.x, c.y];
  };
  const touching = pattern.sides.filter((s) => s.from === h.id || s.to === h.id);
  const neighbours = touching.map((s) => (s.from === h.id ? s.to : s.from));
  const others = pattern.corners.filter((c) => c.id !== h.id);
  // Guides through every corner of a traced outline would catch everywhere; the nearest few dozen are enough.
  const few = others.length <= 60 ? others : others.filter((c) => neighbours.includes(c.id));
  return {
    anchors: neighbours.map(at),
    ends: few.map((c): Vec => [c.x, c.y]),
    directions: pattern.sides
      .filter((s) => !touching.includes(s) && s.shape.kind === 'line')
      .slice(0, 24)
      .map((s) => direction(sub(at(s.to), at(s.from)))),
  };
}

function Handles({
  pattern,
  pick,
  onPick,
}: {
  pattern: PatternDoc;
  pick: string | null;
  onPick?: (pick: Pick) => void;
}) {
  const { px } = useView();
  const half = pattern.corners.length > 80 ? 2.5 : 5;
  return (
    <g>
      {pattern.corners.map((c, i) => {
        const [x, y] = px([c.x, c.y]);
        return (
          <Handle
            key={c.id}
            id={c.id}
            number={i + 1}
            x={x}
            y={y}
            half={half}
            picked={pick === c.id}
            onPick={onPick}
          />
        );
      })}
    </g>
  );
}

type HandleProps = {
  id: string;
  number: number;
  x: number;
  y: number;
  half: number;
  picked: boolean;
  onPick?: (pick: Pick) => void;
};

const Handle = memo(function Handle({ id, number, x, y, half, picked, onPick }: HandleProps) {
  return (
    <rect
      role={onPick ? 'button' : undefined}
      tabIndex={onPick ? 0 : undefined}
      aria-label={`Corner ${number}`}
      data-corner={number}
      onKeyDown={(event) => (event.key === 'Enter' || event.key === ' ') && onPick?.({ kind: 'corner', id })}
      x={x - half}
      y={y - half}
      width={2 * half}
      height={2 * half}
      transform={`rotate(45 ${x} ${y})`}
      fill={picked ? 'var(--torch)' : 'var(--manila)'}
      stroke={picked ? 'var(--torch)' : 'var(--card-pencil)'}
      strokeWidth={1.8}
      style={{ cursor: onPick ? 'grab' : 'crosshair' }}
    />
  );
});

function FoldInHand({ pattern, from, pointer }: { pattern: PatternDoc; from: Place | null; pointer: Vec | null }) {
  const { px, scale } = useView();
  const near = pointer && placeNearest(pattern, pointer, GRAB_PX / scale);
  const start = from && pointOfPlace(pattern, from);
  const dots = [start, near?.point].filter((p) => p != null);
  return (
    <g pointerEvents="none">
      {start && near && (
        <line
          x1={px(start)[0]}
          y1={px(start)[1]}
          x2={px(near.point)[0]}
          y2={px(near.point)[1]}
          stroke="var(--torch)"
          strokeWidth={2.4}
          strokeDasharray="11 4"
        />
      )}
      {dots.map((p, i) => (
        <circle key={i} cx={px(p)[0]} cy={px(p)[1]} r={7} fill="none" stroke="var(--torch)" strokeWidth={2.6} />
      ))}
    </g>
  );
}

function Guides({ guides }: { guides: [Vec, Vec][] }) {
  const { px } = useView();
  return (
    <g pointerEvents="none" stroke="var(--layout)" strokeWidth={1.4} strokeDasharray="3 5">
      {guides.map(([a, b], i) => (
        <line key={i} x1={px(a)[0]} y1={px(a)[1]} x2={px(b)[0]} y2={px(b)[1]} />
      ))}
    </g>
  );
}
