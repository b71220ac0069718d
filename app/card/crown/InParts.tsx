import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useEffect, useRef, useState } from 'react';
import type { Described } from '#core/surface/panel/laidPanel';
import type { Part } from '#core/surface/flatten/part';
import { otherPart } from '#core/surface/flatten/part';
import { usePreferences } from '../../frame/preferences';
import { percent } from './crownWords';
import { hearing } from '../../workers/pageWorker';
import type { Parted, PartsAnswer, PartsAsked } from './parting';

type Limits = { stretch: number; shrink: number };
type Tried = {
  key: string;
  whole: (Limits & { tries: number }) | null;
  parted: Parted[];
  busy: boolean;
  failed?: boolean;
};
const SHOWN = 3;

/** Threshold above which crown along a cut is told, as a multiple of the panel's mean. */
const HIGH = 1.5;

const partSaid = (part: Part): string =>
  part.runs === 'line'
    ? 'one side of the line that was tapped'
    : `${part.runs === 'across' ? 'of its length' : 'of its width'} from ${Math.round(part.from * 100)} to ${Math.round(part.to * 100)} %`;

/** How near to its limits a metal comes: 1 is at one of them. */
const near = (strain: Limits, limits: Limits): number =>
  Math.max(strain.stretch / limits.stretch, strain.shrink / limits.shrink);
const place = ({ runs, share }: Pick<Parted, 'runs' | 'share'>): string =>
  `${runs === 'across' ? 'Across' : 'Along'}, at ${Math.round(share * 100)} % of its ${runs === 'across' ? 'length' : 'width'}`;

type Props = {
  made: Described;
  balance: number;
  limits: Limits;
  part: Part | null;
  onPart: (part: Part | null) => void;
  /** How many ends of a line have been tapped; null while none is being. */
  tapped: number | null;
  onTapping: (on: boolean) => void;
};

/**
 * A panel made of two: where a cut takes most off the worst strain for the least weld, and which of
 * the two this piece is.
 */
export function InParts({ made, balance, limits, part, onPart, tapped, onTapping }: Props) {
  const rest = part && otherPart(part);
  const { show } = usePreferences();
  const [tried, setTried] = useState<Tried | null>(null);
  const worker = useRef<Worker | null>(null);
  useEffect(() => () => worker.current?.terminate(), []);
  const key = JSON.stringify({ made, balance });
  const now = tried?.key === key ? tried : null;
  const find = () => {
    worker.current?.terminate();
    worker.current = new Worker(new URL('./parts.worker.ts', import.meta.url), { type: 'module' });
    setTried({ key, whole: null, parted: [], busy: true });
    const answered = (data: PartsAnswer) =>
      setTried((was) => {
        if (!was) return was;
        if (data.what === 'whole') return { ...was, whole: data };
        return data.what === 'done'
          ? { ...was, busy: false }
          : { ...was, parted: [...was.parted, data.parted] };
      });
    const failed = () => setTried((was) => was && { ...was, busy: false, failed: true });
    hearing<PartsAnswer>(worker.current, answered, failed).postMessage({
      made,
      balance,
    } satisfies PartsAsked);
  };
  if (part)
    return (
      <Box
        component="section"
        aria-label="Made of two"
        sx={{ display: 'grid', gap: 0.8, justifyItems: 'start' }}
      >
        <Typography>
          This piece is a part of the panel: {partSaid(part)}. The cut is an edge like any other,
          butted as long as nothing else is said of it under Card.
        </Typography>
        <Stack direction="row" spacing={1} useFlexGap sx={{ flexWrap: 'wrap' }}>
          {rest && (
            <Button variant="outlined" onClick={() => onPart(rest)}>
              Show the other part
            </Button>
          )}
          <Button color="inherit" onClick={() => onPart(null)}>
            The whole panel
          </Button>
        </Stack>
      </Box>
    );
  if (tapped !== null)
    return (
      <Box
        component="section"
        aria-label="Made of two"
        sx={{ display: 'grid', gap: 0.8, justifyItems: 'start' }}
      >
        <Typography role="status">
          Tap{' '}
          {tapped === 0
            ? 'where the weld is to begin, then where it is to end'
            : 'where it is to end'}
          : it runs straight between them as you look down on the panel, on to its edges.
        </Typography>
        <Button variant="outlined" onClick={() => onTapping(false)}>
          Leave it
        </Button>
      </Box>
    );
  const best = now?.whole
    ? [...now.parted]
        .sort((a, b) => gain(b, now.whole!, limits) - gain(a, now.whole!, limits))
        .slice(0, SHOWN)
    : [];
  return (
    <Box component="section" aria-label="Made of two" sx={{ display: 'grid', gap: 0.8 }}>
      {!now && (
        <Typography variant="body2">
          Parted where it is crowned most, each half has less to be worked, for the length of a
          weld.
        </Typography>
      )}
      <Stack direction="row" spacing={1} useFlexGap sx={{ flexWrap: 'wrap' }}>
        <Button variant="outlined" disabled={now?.busy} onClick={find}>
          Find where to part it
        </Button>
        <Button variant="outlined" color="inherit" onClick={() => onTapping(true)}>
          Tap where to part it
        </Button>
      </Stack>
      {now?.busy && (
        <Typography role="status">
          Trying cuts, {now.parted.length} of {now.whole?.tries ?? '…'}: a hand’s width off the
          ends, and off high crown where there is another way.
        </Typography>
      )}
      {now?.failed && (
        <Typography role="alert">
          What tries the cuts stopped before it was through. Load the page again.
        </Typography>
      )}
      {now?.whole && !now.busy && !now.failed && best.length === 0 && (
        <Typography>No straight cut parts it into two that lie flat.</Typography>
      )}
      {now?.whole && !now.busy && best.length > 0 && (
        <Stack spacing={1} role="list" aria-label="Cuts">
          <Typography>
            In one piece: stretched {percent(now.whole.stretch)}, gathered{' '}
            {percent(now.whole.shrink)} at the most.
          </Typography>
          {best.map((one) => (
            <Box
              key={place(one)}
              role="listitem"
              sx={{ border: '1.5px solid var(--rule)', p: 1.2 }}
            >
              <Typography sx={{ fontWeight: 600 }}>{place(one)}</Typography>
              <Typography className="figure">
                stretched {percent(one.stretch)}, gathered {percent(one.shrink)}; weld{' '}
                {show(one.seamMm, 0)}
                {one.crown > HIGH ? ', through high crown' : ''}
              </Typography>
              <Stack direction="row" spacing={1} sx={{ mt: 0.5 }}>
                <Button
                  size="small"
                  variant="outlined"
                  onClick={() => onPart({ runs: one.runs, from: 0, to: one.share })}
                >
                  This piece is the first part
                </Button>
                <Button
                  size="small"
                  variant="outlined"
                  onClick={() => onPart({ runs: one.runs, from: one.share, to: 1 })}
                >
                  The second
                </Button>
              </Stack>
            </Box>
          ))}
        </Stack>
      )}
    </Box>
  );
}

/** What a cut takes off the worst strain, for each millimetre of weld. */
const gain = (one: Parted, whole: Limits, limits: Limits): number =>
  (near(whole, limits) - near(one, limits)) / Math.max(1, one.seamMm);
