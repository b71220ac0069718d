import Box from '@mui/material/Box';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { useRef, useState } from 'react';
import { moveCorner, reshapeSide, setHole, splitSide } from '#core/card/edit';
import { outlineOf, segmentOfSide } from '#core/card/outline';
import type { SnappedPlace } from '#core/card/foldPlace';
import type { PatternDoc } from '#core/card/pattern';
import { snap } from '#core/card/snap';
import { box } from '#core/measure/path';
import { bulgeThrough, pointAt } from '#core/measure/segment';
import type { Vec } from '#core/measure/vector';
import { cross, distance, sub, unit as direction } from '#core/measure/vector';
import { CardPicture } from '../drawing/CardPicture';
import { Drawing } from '../drawing/Drawing';
import { StageLayout } from '../frame/StageLayout';
import { usePick, usePiece } from '../piece/pieceContext';
import { usePreferences } from '../frame/preferences';
import { CardDrawer } from './CardDrawer';
import { Bows, Handles } from './Handles';
import { Guides, PlaceInHand, placeMeant } from './InHand';
import { cardTally } from './cardTally';
import { newFold } from './newFold';
import { newId } from './newId';

type Tool = 'move' | 'fold' | 'corner' | 'hole' | 'base';
type Held = { kind: 'corner' | 'hole' | 'side'; id: string; at: Vec; moved: boolean };

const GRAB_PX = 16;
const SNAP_PX = 9;

const SAYS: Record<Tool, string> = {
  move: 'Touch an edge, fold, hole or corner. Drag corners, holes, and the ring of a touched edge.',
  fold: 'Touch the outline where the fold begins, then where it ends.',
  corner: 'Touch the outline where another corner should be.',
  hole: 'Touch where the centre of the hole is.',
  base: 'Touch the face that stays put on the bench.',
};

/** The card stage proper: drawing to drag on, drawer for what is picked, tally of the card. */
export function Editor() {
  const { patternEditor, pattern, development } = usePiece();
  const { pick, setPick } = usePick();
  const { unit, show, showArea } = usePreferences();
  const [tool, setTool] = useState<Tool>('move');
  const [foldFrom, setFoldFrom] = useState<SnappedPlace | null>(null);
  const [pointer, setPointer] = useState<Vec | null>(null);
  const [guides, setGuides] = useState<[Vec, Vec][]>([]);
  const held = useRef<Held | null>(null);
  const frame = useRef(0);
  const { path } = outlineOf(pattern);
  const bounds = box(path);
  const bows = pick?.kind === 'edge' ? bowsOf(pattern, pick.id) : [];

  const choose = (next: Tool) => {
    setTool(next);
    setFoldFrom(null);
  };

  const down = (p: Vec, scale: number): boolean => {
    if (tool !== 'move') return true;
    const reach = GRAB_PX / scale;
    const grab = (kind: Held['kind'], id: string, at: Vec) => {
      held.current = { kind, id, at, moved: false };
      return true;
    };
    const corner = pattern.corners.find((c) => distance([c.x, c.y], p) <= reach);
    if (corner) return grab('corner', corner.id, [corner.x, corner.y]);
    for (const { side, at } of bows) if (distance(at, p) <= reach) return grab('side', side, at);
    const hole = pattern.holes.find((h) => distance([h.x, h.y], p) <= Math.max(reach, h.diameterMm / 2));
    return hole ? grab('hole', hole.id, [hole.x, hole.y]) : false;
  };

  const drag = (p: Vec, scale: number) => {
    const h = held.current!;
    if (!h.moved && distance(h.at, p) * scale < 4) return;
    h.moved = true;
    if (h.kind === 'side') return patternEditor.edit(bowed(pattern, h.id, p, SNAP_PX / scale), h.id);
    const found = snap(p, { ...snapAround(pattern, h.id), reachMm: SNAP_PX / scale, unit });
    setGuides(found.guides);
    patternEditor.edit(
      h.kind === 'corner'
        ? moveCorner(pattern, h.id, found.point)
        : setHole(pattern, h.id, { x: found.point[0], y: found.point[1] }),
      h.id,
    );
  };

  const move = (p: Vec, scale: number) => {
    if (tool === 'fold' || tool === 'corner') setPointer(p);
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
    if (h && !h.moved && h.kind !== 'side') return setPick({ kind: h.kind, id: h.id });
    if (h || tool === 'move') return;
    if (tool === 'base') {
      patternEditor.edit({ ...pattern, base: [p[0], p[1]] });
      return choose('move');
    }
    if (tool === 'hole') {
      const id = newId();
      const found = snap(p, { anchors: [], ends: [], directions: [], reachMm: SNAP_PX / scale, unit });
      patternEditor.edit({
        ...pattern,
        holes: [...pattern.holes, { id, x: found.point[0], y: found.point[1], diameterMm: 8 }],
      });
      setPick({ kind: 'hole', id });
      return choose('move');
    }
    const meant = placeMeant(pattern, p, tool === 'fold' ? (foldFrom?.spot ?? null) : null, scale, unit);
    if (!meant) return;
    if (tool === 'corner') {
      const split = splitSide(pattern, meant.spot.side, meant.spot.at, newId);
      if (split.ok) patternEditor.edit(split.doc);
      return choose('move');
    }
    if (!foldFrom) return setFoldFrom(meant);
    const id = newId();
    patternEditor.edit({
      ...pattern,
      folds: [...pattern.folds, newFold(pattern, id, { kind: 'between', from: foldFrom.place, to: meant.place })],
    });
    setPick({ kind: 'fold', id });
    choose('move');
  };

  const tally = cardTally(pattern, development, show, showArea);

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
          onGround={tool === 'move' ? () => setPick(null) : undefined}
          overlay={
            <Box
              sx={{
                position: 'absolute',
                inset: '12px 12px auto 12px',
                display: 'flex',
                flexWrap: { xs: 'wrap', sm: 'nowrap' },
                gap: 1.5,
                alignItems: 'center',
                pointerEvents: 'none',
              }}
            >
              <ToggleButtonGroup
                exclusive
                value={tool}
                onChange={(_, next: Tool | null) => next && choose(next)}
                aria-label="What the pointer does"
                sx={{
                  pointerEvents: 'auto',
                  bgcolor: 'var(--panel)',
                  flex: { md: 'none' },
                  flexWrap: { xs: 'wrap', md: 'nowrap' },
                }}
              >
                <ToggleButton value="move">Move</ToggleButton>
                <ToggleButton value="fold">Lay a fold</ToggleButton>
                <ToggleButton value="corner">Put a corner</ToggleButton>
                <ToggleButton value="hole">Put a hole</ToggleButton>
                <ToggleButton value="base">Stays put</ToggleButton>
              </ToggleButtonGroup>
              <Box
                sx={{
                  bgcolor: 'var(--panel)',
                  px: 1.2,
                  py: 0.6,
                  fontSize: '0.92rem',
                  lineHeight: 1.25,
                  maxWidth: 320,
                  display: { xs: tool === 'move' ? 'none' : 'block', md: 'block' },
                }}
              >
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
          {tool === 'move' && <Bows bows={bows} />}
          {(tool === 'fold' || tool === 'corner') && (
            <PlaceInHand pattern={pattern} from={foldFrom?.spot ?? null} pointer={pointer} />
          )}
          <Guides guides={guides} />
        </Drawing>
      }
    />
  );
}

/** The middles of an edge's sides, by which they are bent; a long traced edge is shaped at its corners instead. */
function bowsOf(pattern: PatternDoc, edgeId: string): { side: string; at: Vec }[] {
  const sides = pattern.edges.find((edge) => edge.id === edgeId)?.sides ?? [];
  if (sides.length > 12) return [];
  return sides.flatMap((side) => {
    const segment = segmentOfSide(pattern, side);
    return segment ? [{ side, at: pointAt(segment, 0.5) }] : [];
  });
}

/** The side as the arc through its two ends and a third point; straight when that is within `reachMm` of the chord. */
function bowed(pattern: PatternDoc, side: string, via: Vec, reachMm: number): PatternDoc {
  const s = segmentOfSide(pattern, side);
  if (!s) return pattern;
  const off = cross(direction(sub(s.b, s.a)), sub(via, s.a));
  return reshapeSide(pattern, side, Math.abs(off) < reachMm ? 0 : bulgeThrough(s.a, via, s.b));
}

/** What a dragged corner or hole may catch on: neighbours as anchors, the other corners, the directions of other sides. */
function snapAround(pattern: PatternDoc, id: string): { anchors: Vec[]; ends: Vec[]; directions: Vec[] } {
  const at = (of: string): Vec => {
    const c = pattern.corners.find((corner) => corner.id === of)!;
    return [c.x, c.y];
  };
  const touching = pattern.sides.filter((s) => s.from === id || s.to === id);
  const neighbours = touching.map((s) => (s.from === id ? s.to : s.from));
  const others = pattern.corners.filter((c) => c.id !== id);
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
