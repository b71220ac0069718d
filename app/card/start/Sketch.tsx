import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { FormEvent } from 'react';
import { outlineFromPoints } from '#core/card/legs';
import { snap } from '#core/card/snap';
import type { Path } from '#core/measure/path';
import { line } from '#core/measure/segment';
import type { Vec } from '#core/measure/vector';
import { add, distance, scale as times, sub, unit as direction } from '#core/measure/vector';
import { parseLength } from '#core/measure/writtenLength';
import { Drawing, useView } from '../../drawing/Drawing';
import { Figure } from '../../drawing/marks';
import { useKeys } from '../../frame/keys';
import { usePreferences } from '../../frame/preferences';
import { Trace } from './Trace';

const BENCH = { minX: 0, minY: 0, maxX: 400, maxY: 260 };
/** How near the pointer must be to count, in pixels. */
const REACH_PX = 11;

/**
 * Drawing an outline corner by corner, with snapping; a length may be typed for the side in hand.
 */
export function Sketch({ onDone, onBack }: { onDone: (path: Path) => void; onBack: () => void }) {
  const { unit, show } = usePreferences();
  const [points, setPoints] = useState<Vec[]>([]);
  const [pointer, setPointer] = useState<{ at: Vec; scale: number } | null>(null);
  const [typed, setTyped] = useState('');
  useKeys({ Backspace: () => setPoints(points.slice(0, -1)), Escape: onBack });

  const last = points[points.length - 1];
  const directions = points.slice(1).map((p, i) => direction(sub(p, points[i]!)));
  const snapped = (at: Vec, scale: number) =>
    snap(at, {
      anchors: last ? [last] : [],
      ends: points.slice(0, -1),
      directions,
      reachMm: REACH_PX / scale,
      unit,
    });
  const found = pointer && snapped(pointer.at, pointer.scale);
  const closes = found !== null && points.length > 2 && distance(found.point, points[0]!) < 1e-9;

  const place = (p: Vec) => {
    if (points.length > 2 && distance(p, points[0]!) < 1e-9) return finish();
    if (!last || distance(p, last) > 0.01) setPoints([...points, p]);
  };
  const finish = () => {
    const built = outlineFromPoints(points);
    if (built.ok) onDone(built.path);
  };
  const typedLength = (event: FormEvent) => {
    event.preventDefault();
    const read = parseLength(typed, unit);
    if (!read.ok || !last || !found || distance(found.point, last) < 1e-9) return;
    setPoints([...points, add(last, times(direction(sub(found.point, last)), read.mm))]);
    setTyped('');
  };

  return (
    <Box
      sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: { xs: 'column', md: 'row' } }}
    >
      <Box sx={{ flex: 1, position: 'relative', minHeight: 320 }}>
        <Drawing
          bounds={BENCH}
          ground="card"
          label="Draw the card: touch to put a corner"
          onDown={() => true}
          onMove={(at, scale) => setPointer({ at, scale })}
          onUp={(at, scale) => place(snapped(at, scale).point)}
        >
          <Trace
            points={points}
            closed={
              points.length > 2
                ? points.map((p, i) => line(p, points[(i + 1) % points.length]!))
                : null
            }
            faint
          />
          {found && (
            <Rubber
              from={last}
              found={found}
              closes={closes}
              label={last ? show(distance(last, found.point)) : ''}
            />
          )}
        </Drawing>
      </Box>
      <Box
        component="aside"
        sx={{
          flex: { md: '0 0 340px' },
          bgcolor: 'var(--panel)',
          borderLeft: { md: '1.5px solid var(--rule)' },
          p: 2.5,
        }}
      >
        <Typography variant="h2" gutterBottom>
          Draw the card
        </Typography>
        <Typography sx={{ mb: 2 }}>
          {points.length === 0
            ? 'Touch where the datum corner is.'
            : points.length < 3
              ? 'Touch each next corner. Lines catch level, square, parallel and round lengths.'
              : 'Touch the first corner again to close it.'}
        </Typography>
        {last && (
          <form onSubmit={typedLength}>
            <label className="condensed" htmlFor="sketch-length">
              Length of this side, then Enter (points where the pencil points)
            </label>
            <input
              id="sketch-length"
              className="figure"
              value={typed}
              onChange={(event) => setTyped(event.target.value)}
              autoComplete="off"
              style={{
                display: 'block',
                width: '100%',
                fontSize: '1.3rem',
                padding: 8,
                marginBottom: 12,
                background: 'var(--chalk)',
                color: 'var(--ink)',
                border: '1.5px solid var(--rule)',
              }}
            />
          </form>
        )}
        <Stack spacing={1}>
          <Button variant="contained" disabled={points.length < 3} onClick={finish}>
            Close and make the card
          </Button>
          <Button
            variant="outlined"
            disabled={points.length === 0}
            onClick={() => setPoints(points.slice(0, -1))}
          >
            Take back the last corner
          </Button>
          <Button onClick={onBack} color="inherit">
            Legs or points instead
          </Button>
        </Stack>
      </Box>
    </Box>
  );
}

function Rubber({
  from,
  found,
  closes,
  label,
}: {
  from: Vec | undefined;
  found: ReturnType<typeof snap>;
  closes: boolean;
  label: string;
}) {
  const { px } = useView();
  const [x, y] = px(found.point);
  return (
    <g pointerEvents="none">
      {found.guides.map(([a, b], i) => {
        const [x1, y1] = px(a);
        const [x2, y2] = px(b);
        return (
          <line
            key={i}
            x1={x1}
            y1={y1}
            x2={x2}
            y2={y2}
            stroke="var(--layout)"
            strokeWidth={1.2}
            strokeDasharray="3 5"
          />
        );
      })}
      {from && (
        <line
          x1={px(from)[0]}
          y1={px(from)[1]}
          x2={x}
          y2={y}
          stroke="var(--torch)"
          strokeWidth={2}
        />
      )}
      <circle
        cx={x}
        cy={y}
        r={closes ? 12 : 6}
        fill="none"
        stroke="var(--torch)"
        strokeWidth={2.4}
      />
      {label && (
        <Figure at={found.point} text={label} colour="var(--ink)" ground="var(--panel)" dy={-22} />
      )}
    </g>
  );
}
