import Close from '@mui/icons-material/Close';
import KeyboardArrowLeft from '@mui/icons-material/KeyboardArrowLeft';
import KeyboardArrowRight from '@mui/icons-material/KeyboardArrowRight';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import IconButton from '@mui/material/IconButton';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useCallback, useMemo, useState } from 'react';
import { ReactCompareSlider, ReactCompareSliderImage } from 'react-compare-slider';
import { PICTURE_MERGE } from '#core/format/mergeRules';
import { cut } from '#core/card/cut';
import type { PictureMark, PictureSaid } from '#core/picture/marks';
import { Refused } from '../forms/Refused';
import { useDraft } from '../forms/useDraft';
import { usePost } from '../forms/usePost';
import { useSelfSending } from '../forms/useSelfSending';
import { Moment } from '../frame/Moment';
import { useWho } from '../frame/recordedBy';
import type { Picture } from '../records/pictures.server';
import { MarkList } from './PictureMarkList';
import type { Tool } from './PictureSheet';
import { PictureSheet } from './PictureSheet';

const TOOLS: { tool: Tool; word: string; key: string }[] = [
  { tool: 'pin', word: 'Pin', key: 'p' },
  { tool: 'ring', word: 'Ring', key: 'r' },
  { tool: 'arrow', word: 'Arrow', key: 'a' },
  { tool: 'line', word: 'Line', key: 'l' },
];

/**
 * A picture as large as the screen: looked at closely, drawn over, told of, laid over another of
 * the same thing.
 */
export default function PictureView({
  pictures,
  open,
  onOpen,
  took,
}: {
  pictures: readonly Picture[];
  open: string;
  onOpen: (id: string | null) => void;
  took: (pictures: Picture[]) => void;
}) {
  const at = pictures.findIndex((picture) => picture.id === open);
  const picture = pictures[at]!;
  const step = (by: number) => onOpen(pictures[(at + by + pictures.length) % pictures.length]!.id);
  const [beside, setBeside] = useState<string | null>(null);
  const other = pictures.find((one) => one.id === beside && one.id !== open);
  return (
    <Dialog
      open
      fullScreen
      onClose={() => onOpen(null)}
      aria-label={`Picture: ${picture.caption || picture.name}`}
      slotProps={{ paper: { sx: { bgcolor: 'var(--paper)', backgroundImage: 'none' } } }}
    >
      <Box
        sx={{
          display: 'flex',
          alignItems: 'center',
          gap: 1,
          px: 1,
          minHeight: 50,
          bgcolor: 'var(--panel)',
          borderBottom: '1.5px solid var(--rule)',
        }}
      >
        <Box
          sx={{
            flex: 1,
            minWidth: 0,
            overflow: 'hidden',
            textOverflow: 'ellipsis',
            whiteSpace: 'nowrap',
            pl: 1,
          }}
        >
          {picture.caption || picture.name}
        </Box>
        {pictures.length > 1 && (
          <>
            <IconButton aria-label="The one before" onClick={() => step(-1)}>
              <KeyboardArrowLeft />
            </IconButton>
            <span className="figure">
              {at + 1}/{pictures.length}
            </span>
            <IconButton aria-label="The next" onClick={() => step(1)}>
              <KeyboardArrowRight />
            </IconButton>
          </>
        )}
        <IconButton aria-label="Close the picture" onClick={() => onOpen(null)}>
          <Close />
        </IconButton>
      </Box>
      {other ? (
        <Compared before={picture} after={other} onDone={() => setBeside(null)} />
      ) : (
        <OnePicture key={picture.id} picture={picture} took={took}>
          {pictures.length > 1 && (
            <Box component="section" aria-label="Before and after" sx={{ mt: 2 }}>
              <b>Before and after</b>
              <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mt: 0.5 }}>
                {pictures
                  .filter((one) => one.id !== open)
                  .map((one) => (
                    <Box
                      key={one.id}
                      component="button"
                      type="button"
                      aria-label={`Lay over it: ${one.caption || one.name}`}
                      onClick={() => setBeside(one.id)}
                      sx={{
                        p: 0,
                        border: '1.5px solid var(--rule)',
                        width: 84,
                        height: 63,
                        cursor: 'pointer',
                        bgcolor: 'var(--bench-top)',
                      }}
                    >
                      <img
                        src={`/pictures/${one.id}/small`}
                        alt=""
                        style={{ width: '100%', height: '100%', objectFit: 'cover' }}
                      />
                    </Box>
                  ))}
              </Box>
            </Box>
          )}
        </OnePicture>
      )}
    </Dialog>
  );
}

function Compared({
  before,
  after,
  onDone,
}: {
  before: Picture;
  after: Picture;
  onDone: () => void;
}) {
  // The older one is the left one, whichever was opened first.
  const [left, right] =
    (before.taken ?? before.at) <= (after.taken ?? after.at) ? [before, after] : [after, before];
  const words = (picture: Picture) => picture.caption || picture.name;
  return (
    <Box sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: 'column' }}>
      <Box sx={{ flex: 1, minHeight: 0, bgcolor: '#191714' }}>
        <ReactCompareSlider
          aria-label="Divider between the two pictures"
          style={{ height: '100%' }}
          itemOne={
            <ReactCompareSliderImage
              src={`/pictures/${left.id}/large`}
              alt={words(left)}
              style={{ objectFit: 'contain' }}
            />
          }
          itemTwo={
            <ReactCompareSliderImage
              src={`/pictures/${right.id}/large`}
              alt={words(right)}
              style={{ objectFit: 'contain' }}
            />
          }
        />
      </Box>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, p: 1.2, bgcolor: 'var(--panel)' }}>
        <Box sx={{ flex: 1 }}>
          ◀ {words(left)} · <Moment at={left.taken ?? left.at} clock={left.taken !== null} />
        </Box>
        <Button variant="outlined" color="inherit" onClick={onDone}>
          One alone
        </Button>
        <Box sx={{ flex: 1, textAlign: 'right' }}>
          {words(right)} · <Moment at={right.taken ?? right.at} clock={right.taken !== null} /> ▶
        </Box>
      </Box>
    </Box>
  );
}

function OnePicture({
  picture,
  took,
  children,
}: {
  picture: Picture;
  took: (pictures: Picture[]) => void;
  children: React.ReactNode;
}) {
  const takeOver = useCallback(
    ({ pictures }: { pictures?: Picture[] }) => pictures && took(pictures),
    [took],
  );
  const post = usePost(`/pictures/${picture.id}`, takeOver);
  const initial = useMemo(
    () => ({ caption: picture.caption, marks: picture.marks }),
    [picture.caption, picture.marks],
  );
  const { draft, since, kept, set, drop } = useDraft<PictureSaid>(
    `picture ${picture.id}`,
    initial,
    // What another page has said meanwhile is shown; kept again, one's own stands.
    post.refusal?.now as PictureSaid | undefined,
    PICTURE_MERGE,
  );
  const looks = useWho()?.role === 'looks';
  const [tool, setTool] = useState<Tool | null>(null);
  const [picked, setPicked] = useState<string | null>(null);
  const { ask, refusal, state } = post;
  const say = () =>
    ask({ intent: 'say', since, mine: draft }).then((answer) => answer === 'taken' && drop(draft));
  useSelfSending(kept, JSON.stringify(draft), post, () => void say());
  const marks = draft.marks;
  const put = (mark: PictureMark) => {
    set({ marks: [...marks, mark].slice(-200) });
    setPicked(mark.id);
    setTool(null);
  };
  const change = (id: string, to: (mark: PictureMark) => PictureMark) =>
    set({ marks: marks.map((mark) => (mark.id === id ? to(mark) : mark)) });
  const remove = (id: string) => {
    set({ marks: marks.filter((mark) => mark.id !== id) });
    setPicked(null);
  };
  return (
    <Box
      sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: { xs: 'column', md: 'row' } }}
    >
      <PictureSheet
        picture={picture}
        marks={marks}
        tool={tool}
        picked={picked}
        keys={looks ? [] : TOOLS}
        onTool={setTool}
        onPick={looks ? () => undefined : setPicked}
        onPut={put}
        onChange={change}
        onRemove={remove}
      />
      <Box
        component="aside"
        aria-label="About the picture"
        sx={{
          flex: { xs: '0 1 auto', md: '0 0 340px' },
          maxHeight: { xs: '46dvh', md: 'none' },
          overflowY: 'auto',
          p: 2,
          bgcolor: 'var(--panel)',
          borderLeft: { md: '1.5px solid var(--rule)' },
        }}
      >
        {looks && (
          <Typography sx={{ mb: 1.5, fontSize: '1.1rem' }}>
            {picture.caption || picture.name}
          </Typography>
        )}
        {!looks && (
          <>
            <Box
              role="group"
              aria-label="Draw over it"
              sx={{ display: 'flex', gap: 1, mb: 1.5, flexWrap: 'wrap' }}
            >
              {TOOLS.map(({ tool: one, word, key }) => (
                <Button
                  key={one}
                  variant={tool === one ? 'contained' : 'outlined'}
                  color={tool === one ? 'primary' : 'inherit'}
                  aria-pressed={tool === one}
                  title={`${word} (${key.toUpperCase()})`}
                  onClick={() => setTool(tool === one ? null : one)}
                >
                  {word}
                </Button>
              ))}
            </Box>
            <Box sx={{ color: 'var(--pencil)', minHeight: 44, mb: 1 }}>
              {hint(tool, marks.length)}
            </Box>
            <TextField
              label="What is seen here"
              multiline
              minRows={2}
              fullWidth
              value={draft.caption}
              onChange={(event) => set({ caption: cut(event.target.value, 400) })}
            />
            <MarkList
              marks={marks}
              picked={picked}
              onPick={setPicked}
              onChange={change}
              onRemove={remove}
            />
          </>
        )}
        {refusal ? (
          <Refused
            message={refusal.message}
            onMine={() =>
              void ask({ intent: 'say', since, mine: draft }).then(
                (answer) => answer === 'taken' && drop(),
              )
            }
            onTheirs={() => drop()}
          />
        ) : (
          <Box role="status" sx={{ color: 'var(--pencil)', fontSize: '0.9rem', mt: 1 }}>
            {kept
              ? state === 'failed'
                ? 'Kept in this browser; the server is tried again.'
                : 'Saving …'
              : ' '}
          </Box>
        )}
        {children}
        <Box sx={{ mt: 2, fontSize: '0.9rem', color: 'var(--pencil)', overflowWrap: 'anywhere' }}>
          {picture.taken && (
            <div>
              Taken <Moment at={picture.taken} clock />, as the camera’s clock stood
            </div>
          )}
          <div>
            Came in <Moment at={picture.at} /> as {picture.name},{' '}
            <span className="figure">
              {picture.width} × {picture.height}
            </span>
          </div>
        </Box>
        <Box sx={{ display: 'flex', gap: 1, mt: 1, flexWrap: 'wrap' }}>
          <Button color="inherit" href={`/pictures/${picture.id}/whole`} download={picture.name}>
            The whole picture
          </Button>
          {!looks && (
            <Button
              color="inherit"
              disabled={state === 'busy'}
              onClick={() => void ask({ intent: picture.putAway ? 'take-out' : 'put-away' })}
            >
              {picture.putAway ? 'Take out again' : 'Put away'}
            </Button>
          )}
        </Box>
      </Box>
    </Box>
  );
}

function hint(tool: Tool | null, marks: number): string {
  switch (tool) {
    case 'pin':
      return 'Touch the place. With the keys: Enter sets it in the middle, arrows move it.';
    case 'ring':
      return 'Press in the middle and draw outward.';
    case 'arrow':
      return 'Press where it begins and draw to what it points at.';
    case 'line':
      return 'Draw with the finger or the mouse.';
    case null:
      return marks > 0
        ? 'Drag a mark to move it. Two fingers, the wheel, + and − look closer.'
        : 'Choose what to draw. Two fingers, the wheel, + and − look closer.';
  }
}
