import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { CORNERS } from '#core/picture/scaleFrame';
import { useEffect, useRef } from 'react';
import type { Share } from './TapPicture';
import { TapPicture } from './TapPicture';
import { useView } from '../../drawing/Drawing';

/**
 * What is pointed at by hand because it was not found: the frame's four corners, or those of the
 * card.
 */
export type Tapping = { what: 'frame' | 'card'; at: Share[] };
export type TappedAt = { frameAt: Share[] | null; cardAt: Share[] | null };
export const NOWHERE: TappedAt = { frameAt: null, cardAt: null };
/**
 * Where the pins for the frame stand until they are moved: as the corners lie when the paper is
 * looked at upright.
 */
export const FRAME_FIRST: Share[] = [
  [0.15, 0.85],
  [0.85, 0.85],
  [0.85, 0.15],
  [0.15, 0.15],
];
/** Maximum number of corners tapped by hand. */
const MAX_TAPPED = 100;

type Props = { tapping: Tapping; setTapping: (next: Tapping | null) => void };

const nameOf = (what: Tapping['what'], i: number) =>
  what === 'frame' ? CORNERS[i]! : String(i + 1);

/** The picture as it was taken, with a pin on each place pointed at. */
export function TapInPicture({ url, tapping, setTapping }: Props & { url: string }) {
  const { what, at } = tapping;
  return (
    <TapPicture
      url={url}
      label="The picture, to be tapped"
      pins={at.map((p, i) => ({ name: nameOf(what, i), at: p }))}
      onMove={(pin, to) => setTapping({ what, at: at.map((p, i) => (i === pin ? to : p)) })}
      onTap={
        what === 'card' && at.length < MAX_TAPPED
          ? (to) => setTapping({ what, at: [...at, to] })
          : undefined
      }
    >
      {(on) => <Around at={at.map(on)} />}
    </TapPicture>
  );
}

function Around({ at }: { at: readonly (readonly [number, number])[] }) {
  const { px } = useView();
  return (
    <polygon
      points={at.map((p) => px(p).join(',')).join(' ')}
      fill="none"
      stroke="var(--torch)"
      strokeWidth={2}
      strokeDasharray="8 5"
      pointerEvents="none"
    />
  );
}

/** What to point at, and on with it. */
export function TapPanel({ tapping, setTapping, onLook }: Props & { onLook: () => void }) {
  const { what, at } = tapping;
  const panel = useRef<HTMLElement>(null);
  // What was touched to come here may stand far below.
  useEffect(() => {
    // In braces: newer browsers answer with a promise, which would be taken for what clears up.
    panel.current?.scrollIntoView({ block: 'nearest' });
  }, [what]);
  return (
    <Box
      ref={panel}
      sx={{ borderLeft: '5px solid var(--layout)', pl: 1.5, display: 'grid', gap: 1.2 }}
    >
      <Typography variant="h3">
        {what === 'frame' ? 'Tap the frame’s corners' : 'Tap the corners of the card'}
      </Typography>
      <Typography>
        {what === 'frame'
          ? 'Drag each pin to the outermost corner of its black angle. They are told by their windows: one has one window, two has two, three three and four four. Zoom in with wheel or two fingers.'
          : 'Touch one corner after the other, round the card. Pins can be dragged. The sides will be straight; curves and holes are put in on the card.'}
      </Typography>
      <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
        It is as sure as you point: the nearer you zoom in, the better. Edge and holes found by
        themselves are surer.
      </Typography>
      <Stack direction="row" spacing={1} useFlexGap sx={{ flexWrap: 'wrap' }}>
        <Button variant="contained" disabled={what === 'card' && at.length < 3} onClick={onLook}>
          {what === 'frame' ? 'Look with these' : 'These are its corners'}
        </Button>
        {what === 'card' && at.length > 0 && (
          <Button variant="outlined" onClick={() => setTapping({ what, at: at.slice(0, -1) })}>
            Take the last one back
          </Button>
        )}
        <Button color="inherit" onClick={() => setTapping(null)}>
          Not now
        </Button>
      </Stack>
    </Box>
  );
}
