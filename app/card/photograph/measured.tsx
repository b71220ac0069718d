import PhotoCamera from '@mui/icons-material/PhotoCamera';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import type { Vec } from '#core/measure/vector';
import { useDraft } from '../../forms/useDraft';
import { StopLayout } from '../../frame/StopLayout';
import { useView } from '../../drawing/Drawing';
import { usePiece } from '../../piece/pieceContext';
import { onArrival, send } from '../../pictures/waiting';
import { MeasurePanel } from './MeasurePanel';
import { TapPicture } from './TapPicture';
import type { Measuring } from './measuring';
import { MAX_PINS, NOTHING } from './measuring';
import { usePicked } from './usePicked';

/** Distances, radii and places read on a photograph of something flat, from what is known on it. */
export default function MeasuredPage() {
  const { id, job, pictures, took } = usePiece();
  const { draft, set } = useDraft<Measuring>(`measured ${id}`, NOTHING);
  const [chosen, choose] = usePicked();
  const [gathered, setGathered] = useState<number[]>([]);
  const [size, setSize] = useState<{ wide: number; high: number } | null>(null);
  const shown = pictures.filter(({ putAway }) => putAway === null);
  const kept = shown.find((one) => one.id === draft.picture);
  // Once it hangs on the piece it is known by that, also when the page is opened again.
  const waitsFor = draft.picture === '' ? (chosen?.file.name ?? null) : null;
  useEffect(
    () =>
      onArrival((on, all) => {
        if (on.piece !== id) return;
        took({ pictures: all });
        const arrived = all[all.length - 1];
        if (waitsFor !== null && arrived?.name === waitsFor) set({ picture: arrived.id });
      }),
    [id, set, took, waitsFor],
  );
  const url = chosen?.url ?? (kept ? `/pictures/${kept.id}/whole` : null);
  const begin = (picture: string) => {
    set({ ...NOTHING, picture });
    setGathered([]);
    setSize(null);
  };
  const take = (file: File) => {
    choose(file);
    begin('');
    // It stays with the piece.
    void send({ job, piece: id, owner: 'piece', of: '' }, [file]);
  };
  const pins = draft.pins.map((at, i) => ({
    name: String(i + 1),
    at,
    gathered: gathered.includes(i),
  }));
  const lines = useMemo(
    () => [
      ...draft.known.map(({ from, to }) => ({ pins: [from, to], known: true })),
      ...draft.spans.map((pins) => ({ pins, known: false })),
    ],
    [draft.known, draft.spans],
  );
  return (
    <StopLayout
      tally={[]}
      drawerWidth={400}
      drawing={
        url ? (
          <TapPicture
            url={url}
            label="The picture, to be tapped"
            pins={pins}
            onSize={(wide, high) => setSize({ wide, high })}
            onMove={(pin, to) => set({ pins: draft.pins.map((p, i) => (i === pin ? to : p)) })}
            onTap={(at) => {
              if (draft.pins.length >= MAX_PINS) return;
              set({ pins: [...draft.pins, at] });
              setGathered([...gathered, draft.pins.length]);
            }}
            onPin={(pin) =>
              setGathered(
                gathered.includes(pin) ? gathered.filter((one) => one !== pin) : [...gathered, pin],
              )
            }
          >
            {(on) => (
              <Lines
                lines={lines.map(({ pins: ends, known }) => ({
                  known,
                  at: ends.flatMap((pin) => (draft.pins[pin] ? [on(draft.pins[pin])] : [])),
                }))}
              />
            )}
          </TapPicture>
        ) : (
          <Box
            sx={{
              position: 'absolute',
              inset: 0,
              bgcolor: 'var(--bench-top)',
              display: 'grid',
              placeItems: 'center',
              p: 3,
            }}
          >
            <Typography sx={{ maxWidth: 420, fontSize: '1.15rem' }}>
              A photograph of something flat, taken as square on as can be, with something on it
              whose size is known.
            </Typography>
          </Box>
        )
      }
      drawer={
        <Stack spacing={2}>
          <Box>
            <Typography variant="h2">Measure on a picture</Typography>
            <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
              {url
                ? 'Touch a place to put a pin there; drag pins to where they belong, zoomed in. Touch pins to gather them, then say what is known, or read.'
                : 'Of the real thing, or of another vehicle of the same kind where nothing is left to measure. Everything must lie in one plane.'}
            </Typography>
          </Box>
          {url && size && (
            <MeasurePanel
              draft={draft}
              set={set}
              size={size}
              gathered={gathered}
              setGathered={setGathered}
            />
          )}
          <Button
            component="label"
            variant={url ? 'outlined' : 'contained'}
            startIcon={<PhotoCamera />}
          >
            {url ? 'Another picture' : 'Take or choose a picture'}
            <input
              type="file"
              accept="image/*"
              hidden
              aria-label="The picture to measure on"
              onChange={(event) => {
                const file = event.target.files?.[0];
                if (file) take(file);
                event.target.value = '';
              }}
            />
          </Button>
          {!url && shown.length > 0 && (
            <Box>
              <Typography variant="h3">Or one that hangs on the piece</Typography>
              <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
                {shown.map((one) => (
                  <ButtonBase
                    key={one.id}
                    aria-label={one.caption || one.name}
                    onClick={() => begin(one.id)}
                    sx={{ border: '1.5px solid var(--rule)', p: 0.5 }}
                  >
                    <img
                      src={`/pictures/${one.id}/small`}
                      alt=""
                      style={{ width: '100%', aspectRatio: '4 / 3', objectFit: 'cover' }}
                    />
                  </ButtonBase>
                ))}
              </Box>
            </Box>
          )}
          <Button
            color="inherit"
            component={Link}
            to={`/pieces/${id}/card`}
            sx={{ justifySelf: 'start' }}
          >
            Back to the card
          </Button>
        </Stack>
      }
    />
  );
}

/** What is known drawn firm, what is read drawn thin. */
function Lines({ lines }: { lines: readonly { known: boolean; at: Vec[] }[] }) {
  const { px } = useView();
  return (
    <g pointerEvents="none" fill="none">
      {lines.map(({ known, at }, i) => (
        <g key={i}>
          <polyline
            points={at.map((p) => px(p).join(',')).join(' ')}
            stroke="var(--panel)"
            strokeWidth={known ? 6 : 5}
          />
          <polyline
            points={at.map((p) => px(p).join(',')).join(' ')}
            stroke={known ? 'var(--layout)' : 'var(--torch)'}
            strokeWidth={known ? 3 : 2}
            strokeDasharray={known ? undefined : '9 5'}
          />
        </g>
      ))}
    </g>
  );
}
