import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import Typography from '@mui/material/Typography';
import { useEffect, useRef } from 'react';
import type { BlankFold, Development } from '#core/blank/fold/developed';
import { distance } from '#core/measure/vector';
import { beadsUnderBar, holesUnderBar } from '#core/blank/fold/order/underBar';
import { usePiece } from '../piece/pieceContext';
import { usePreferences } from '../frame/preferences';
import { PlanPicture } from './PlanPicture';
import { fingersSaid, heldSaid, lyingSaid, rowSaid, pressedSaid } from './orderWords';
import type { Ordering } from '../folding/useOrdering';

type Given = Pick<Ordering, 'rows' | 'next' | 'looked' | 'look' | 'saved' | 'brake'>;
type WithFolds = Given & { folds: readonly BlankFold[] };

/** The row that is looked at, large: how the piece is laid, what is set, what is done. */
export function Now({
  rows,
  next,
  looked,
  look,
  brake,
  development,
}: Given & { development: Development }) {
  const { show } = usePreferences();
  const { pattern } = usePiece();
  const { folds } = development;
  const box = useRef<HTMLDivElement>(null);
  const seen = useRef(looked);
  // Touched in the list below, what is to be done there comes into sight.
  useEffect(() => {
    if (seen.current !== looked) box.current?.scrollIntoView({ block: 'nearest' });
    seen.current = looked;
  }, [looked]);
  const row = rows[looked];
  if (!row) return null;
  const step = row.by === 'machine' ? row.step : null;
  const before = rows[looked - 1];
  const stepBefore = before?.by === 'machine' ? before.step : null;
  const pressed =
    step && brake
      ? [
          ...beadsUnderBar(development, step, brake).map(({ id, heightMm }) => ({
            name: `bead ${pattern.beads.findIndex((bead) => bead.id === id) + 1}`,
            heightMm,
          })),
          ...holesUnderBar(development, step, brake).flatMap((id) => {
            const flare = development.holes.find((hole) => hole.id === id)?.flare;
            const number = pattern.holes.findIndex((hole) => hole.id === id) + 1;
            return flare ? [{ name: `the rim of hole ${number}`, heightMm: flare.heightMm }] : [];
          }),
        ]
      : [];
  const fingers = step && fingersSaid(step, brake?.fingerGapMm, show);
  const all = next >= rows.length;
  return (
    <Box
      ref={box}
      role="status"
      aria-label="Now"
      sx={{
        borderLeft: `6px solid ${all ? 'var(--done)' : looked === next ? 'var(--torch)' : 'var(--rule)'}`,
        bgcolor: looked === next ? 'var(--torch-ground)' : undefined,
        px: 1.6,
        py: 1,
      }}
    >
      <Typography variant="body2">
        {looked + 1} of {rows.length}
        {row.done ? ' · done' : looked === next ? ' · now' : ''}
      </Typography>
      <Typography
        className="condensed"
        sx={{ fontSize: '1.5rem', fontWeight: 600, lineHeight: 1.15 }}
      >
        {rowSaid(row)}
      </Typography>
      {step && (
        <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'flex-start', flexWrap: 'wrap' }}>
          <PlanPicture development={development} step={step} />
          <Typography sx={{ flex: '1 1 150px' }}>
            {lyingSaid(stepBefore, step)} {heldSaid(step)} {fingers} {pressedSaid(pressed, show)}
          </Typography>
        </Box>
      )}
      {row.by === 'hand' && (
        <Typography>
          Over a bar of at least {show(distance(...folds[row.fold]!.centre))}, clamped along the
          line; a little at a time from end to end. Pack what it must not crush.
        </Typography>
      )}
      {looked !== next && !all && (
        <Button size="small" onClick={() => look(null)}>
          To what is next
        </Button>
      )}
    </Box>
  );
}

/** All rows; touched, one is looked at: nothing is written down by looking. */
export function Steps({ rows, next, looked, look }: Given) {
  return (
    <Box
      component="ol"
      aria-label="Steps"
      sx={{ listStyle: 'none', m: 0, p: 0, display: 'grid', gap: 0.6 }}
    >
      {rows.map((row, i) => (
        <li key={`${row.by} ${row.fold}`} aria-current={i === next ? 'step' : undefined}>
          <ButtonBase
            onClick={() => look(i === next ? null : i)}
            sx={{
              width: '100%',
              justifyContent: 'flex-start',
              textAlign: 'left',
              fontFamily: 'inherit',
              fontSize: '1rem',
              minHeight: 44,
              borderLeft: `6px solid ${i === next ? 'var(--torch)' : row.done ? 'var(--done)' : 'var(--rule)'}`,
              pl: 1.4,
              bgcolor: i === looked ? 'var(--torch-ground)' : undefined,
              opacity: row.done && i !== looked ? 0.75 : 1,
            }}
          >
            {i + 1}. {rowSaid(row)}
            {row.done ? ' · done' : ''}
          </ButtonBase>
        </li>
      ))}
    </Box>
  );
}

/** Done, and back: at the bottom of what is seen on a phone, whatever is above it. */
export function Done({ rows, next, looked, look, saved, folds }: WithFolds) {
  const { made, closed } = saved.draft;
  const row = rows[next];
  const last = rows[next - 1];
  const done = () => {
    if (!row) return;
    const { id } = folds[row.fold]!;
    saved.set(row.by === 'machine' ? { made: [...made, id] } : { closed: [...closed, id] });
    look(null);
  };
  const back = () => {
    if (!last) return;
    const { id } = folds[last.fold]!;
    saved.set(
      last.by === 'machine'
        ? { made: made.filter((one) => one !== id) }
        : { closed: closed.filter((one) => one !== id) },
    );
    look(null);
  };
  return (
    <Box
      sx={{
        display: 'flex',
        gap: 1,
        position: { xs: 'sticky', md: 'static' },
        bottom: 0,
        zIndex: 2,
        bgcolor: 'var(--panel)',
        py: { xs: 1, md: 0 },
        mx: { xs: -2, md: 0 },
        px: { xs: 2, md: 0 },
        borderTop: { xs: '1.5px solid var(--rule)', md: 0 },
      }}
    >
      <Button
        variant="contained"
        size="large"
        disabled={!row}
        onClick={done}
        sx={{ flex: 1, minHeight: 56, fontSize: '1.15rem' }}
      >
        {!row ? 'All folds made' : looked === next ? 'Done, next' : `Done: ${rowSaid(row)}`}
      </Button>
      <Button variant="outlined" size="large" disabled={!last} onClick={back}>
        Back
      </Button>
    </Box>
  );
}
