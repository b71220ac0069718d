import PhotoCamera from '@mui/icons-material/PhotoCamera';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useMemo, useState } from 'react';
import type { PatternDoc } from '#core/card/pattern';
import { scaleFrame } from '#core/picture/scaleFrame';
import { Drawing } from '../../drawing/Drawing';
import { useDraft } from '../../forms/useDraft';
import { Told } from '../../frame/Told';
import { usePreferences } from '../../frame/preferences';
import { problemSentence } from '../../frame/sentences';
import { send } from '../../pictures/waiting';
import { usePiece } from '../../piece/pieceContext';
import type { Left } from './FoundInPicture';
import { FoundInPicture, TracedOverlay, lineTaken } from './FoundInPicture';
import { FramePicture } from './FramePicture';
import { ScaleForm, scaleGiven } from './ScaleForm';
import type { ScaleDraft } from './ScaleForm';
import type { TappedAt, Tapping } from './TapInPicture';
import { FRAME_FIRST, NOWHERE, TapInPicture, TapPanel } from './TapInPicture';
import { UnderlayPicture } from './UnderlayPicture';
import { newId } from '../../frame/newId';
import type { Taken } from './traced';
import { canFold, cardOf } from './traced';
import { keepUnderlay } from './underlay';
import { usePicked } from './usePicked';
import { useTrace } from './useTrace';

const DOING = {
  reading: 'Reading the picture …',
  frame: 'Looking for the marks …',
  straight: 'Setting it straight …',
  card: 'Telling the card from the bench …',
  edge: 'Following its edge …',
  drawn: 'Looking for what is drawn on it …',
} as const;

/**
 * A card from a photograph or a scan: what tells its scale, the picture, what was found in it, and
 * what of that is taken.
 */
export function FromPicture({
  onDone,
  onBack,
}: {
  onDone: (card: PatternDoc) => void;
  onBack: () => void;
}) {
  const { id, job, pattern } = usePiece();
  const { show } = usePreferences();
  const { draft, set, drop } = useDraft<ScaleDraft & { toleranceMm: number }>(`picture ${id}`, {
    by: 'paper',
    paper: 'a4',
    printedWideMm: null,
    printedHighMm: null,
    tapesMm: [null, null, null, null, null],
    dpi: 300,
    toleranceMm: 0.5,
  });
  const { tracing, look, stop } = useTrace();
  const [chosen, choose] = usePicked();
  const file = chosen?.file ?? null;
  const [tapping, setTapping] = useState<Tapping | null>(null);
  const [at, setAt] = useState<TappedAt>({ frameAt: null, cardAt: null });
  const [left, setLeft] = useState<Left>({ holes: [], lines: {} });
  const found = tracing.state === 'found' ? tracing.found : null;
  const url = tracing.state === 'found' ? tracing.url : null;
  const foldable = useMemo(
    () => found?.lines.map((line) => canFold(found, line, newId)) ?? [],
    [found],
  );
  const scale = scaleGiven(draft);
  const lookAt = (picture: File, where: TappedAt, toleranceMm = draft.toleranceMm) => {
    if (picture !== file) choose(picture);
    setAt(where);
    setTapping(null);
    if (!scale) return;
    setLeft({ holes: [], lines: {} });
    look({ file: picture, scale, toleranceMm, ...where });
  };
  const refused = tracing.state === 'refused' ? tracing.problems.map(({ code }) => code) : [];
  const noFrame =
    draft.by !== 'scan' && refused.some((code) => code === 'no-frame' || code === 'other-paper');
  const noCard = refused.includes('card-not-found') || refused.includes('too-few-corners');
  const bounds = found
    ? {
        minX: found.underlay.leftMm,
        maxX: found.underlay.leftMm + found.underlay.wideMm,
        minY: found.underlay.topMm - found.underlay.highMm,
        maxY: found.underlay.topMm,
      }
    : {
        minX: 0,
        minY: 0,
        maxX: scaleFrame(draft.paper).widthMm,
        maxY: scaleFrame(draft.paper).heightMm,
      };
  const make = () => {
    if (!found || !file) return;
    const taken: Taken = {
      holes: found.holes.flatMap((_, i) => (left.holes.includes(i) ? [] : [i])),
      folds: found.lines.flatMap((_, i) => (lineTaken(left, foldable, i) === 'fold' ? [i] : [])),
      marks: found.lines.flatMap((_, i) => (lineTaken(left, foldable, i) === 'mark' ? [i] : [])),
    };
    const { picture, ...where } = found.underlay;
    const name = `square-on-${newId()}.jpg`;
    void keepUnderlay(id, found.underlay).then(() => {
      drop();
      const card = cardOf(found, taken, draft.by === 'scan' ? 'scan' : 'photograph', newId);
      onDone({ ...card, underlay: { picture: name, ...where } });
    });
    // The photograph itself stays with the piece, and as it is seen square on, behind the card of
    // everybody.
    void send({ job, piece: id, owner: 'piece', of: '' }, [
      file,
      new File([picture], name, { type: 'image/jpeg' }),
    ]);
  };
  return (
    <Box
      sx={{
        flex: 1,
        minHeight: 0,
        display: 'flex',
        flexDirection: { xs: found ? 'column' : 'column-reverse', md: 'row' },
      }}
    >
      <Box sx={{ flex: 1, position: 'relative', minHeight: { xs: found ? 380 : 0, md: 260 } }}>
        {tapping && chosen ? (
          <TapInPicture url={chosen.url} tapping={tapping} setTapping={setTapping} />
        ) : (
          <Drawing bounds={bounds} ground="card" label="What was found in the picture">
            {!found && draft.by === 'paper' && <FramePicture paper={draft.paper} />}
            {found && url && <UnderlayPicture shown={{ ...found.underlay, url }} opacity={0.85} />}
            {found && <TracedOverlay found={found} left={left} foldable={foldable} />}
          </Drawing>
        )}
      </Box>
      <Box
        component="aside"
        aria-label="Drawer"
        sx={{
          flex: { md: '0 0 440px' },
          bgcolor: 'var(--panel)',
          borderLeft: { md: '1.5px solid var(--rule)' },
          p: 2.5,
          overflowY: 'auto',
          display: 'grid',
          gap: 1.6,
          alignContent: 'start',
        }}
      >
        <Typography variant="h2">From a photograph or a scan</Typography>
        {tapping && file && (
          <TapPanel
            tapping={tapping}
            setTapping={setTapping}
            onLook={() =>
              lookAt(
                file,
                tapping.what === 'frame'
                  ? { frameAt: tapping.at, cardAt: null }
                  : { ...at, cardAt: tapping.at },
              )
            }
          />
        )}
        {found && (
          <FoundInPicture
            found={found}
            foldable={foldable}
            left={left}
            setLeft={setLeft}
            toleranceMm={draft.toleranceMm}
            onTolerance={(toleranceMm) => {
              set({ toleranceMm });
              if (file) lookAt(file, at, toleranceMm);
            }}
          />
        )}
        {found && (
          <Button
            variant="contained"
            size="large"
            onClick={make}
            disabled={pattern.sides.length > 0}
          >
            Make the card
          </Button>
        )}
        <ScaleForm
          draft={draft}
          set={(change) => {
            // What was found was measured by what the form said before.
            set(change);
            setAt(NOWHERE);
            stop();
          }}
        />
        <Button
          component="label"
          variant={found ? 'outlined' : 'contained'}
          size="large"
          disabled={!scale}
          startIcon={<PhotoCamera />}
        >
          {file ? 'Another picture' : 'Take or choose the picture'}
          <input
            type="file"
            accept="image/*"
            hidden
            aria-label="The picture of the card"
            onChange={(event) => {
              const picture = event.target.files?.[0];
              if (picture) lookAt(picture, NOWHERE);
              event.target.value = '';
            }}
          />
        </Button>
        {tracing.state === 'looking' && (
          <Stack spacing={1} role="status">
            <Typography>{DOING[tracing.doing]}</Typography>
            <LinearProgress variant="determinate" value={tracing.share * 100} sx={{ height: 10 }} />
            <Button variant="outlined" onClick={stop}>
              Stop
            </Button>
          </Stack>
        )}
        {tracing.state === 'refused' &&
          !tapping &&
          tracing.problems.map((problem, i) => (
            <Told key={i}>{problemSentence(problem, null, show)}</Told>
          ))}
        {tracing.state === 'unreadable' && (
          <Told>That picture cannot be read here. Take it as JPEG or PNG and choose it again.</Told>
        )}
        {file && scale && (tracing.state === 'refused' || tracing.state === 'none') && (
          <Button variant="outlined" onClick={() => lookAt(file, at)}>
            Look at it again
          </Button>
        )}
        {noFrame && !tapping && (
          <Button
            variant="contained"
            onClick={() => setTapping({ what: 'frame', at: FRAME_FIRST })}
          >
            Tap the frame’s corners
          </Button>
        )}
        {(noCard || found) && !tapping && (
          <Button
            variant={found ? 'outlined' : 'contained'}
            onClick={() => setTapping({ what: 'card', at: [] })}
          >
            Tap the corners of the card
          </Button>
        )}
        <Button color="inherit" onClick={onBack}>
          Another way in
        </Button>
      </Box>
    </Box>
  );
}
