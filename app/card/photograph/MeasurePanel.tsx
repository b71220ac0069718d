import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { cut } from '#core/card/cut';
import type { Asked, PictureScale } from '#core/picture/pictureScale';
import { LengthField } from '../../forms/LengthField';
import { Told } from '../../frame/Told';
import { usePreferences } from '../../frame/preferences';
import { problemSentence } from '../../frame/sentences';
import { usePiece } from '../../piece/pieceContext';
import type { Measuring } from './measuring';
import { cardThrough, measured, pointingPx, profileThrough, withoutPin } from './measuring';
import { newId } from '../../frame/newId';

type Props = {
  draft: Measuring;
  set: (change: Partial<Measuring>) => void;
  size: { wide: number; high: number };
  gathered: readonly number[];
  setGathered: (next: number[]) => void;
};

const named = (pins: readonly number[]) => pins.map((pin) => pin + 1).join(' – ');

/**
 * What the gathered pins can be said to be or be read for; what is known, what was read, and how
 * sure.
 */
export function MeasurePanel(props: Props) {
  const { draft, set, size, gathered, setGathered } = props;
  const { show } = usePreferences();
  const [a, b] = gathered;
  // A draft from before a pin was moved may have two pins on one place: that is told, and nothing
  // read.
  const found = useMemo(
    () =>
      measured(draft, size, {
        spans: gathered.length === 2 ? [[a!, b!]] : [],
        rounds: gathered.length > 2 ? [[...gathered]] : [],
      }),
    [draft, size, gathered, a, b],
  );
  const scale = found.ok ? found : null;
  const reading = scale && gathered.length === 2 ? scale.asked.at(-1)! : null;
  const round = scale && gathered.length > 2 ? scale.round.at(-1)! : null;
  return (
    <Stack spacing={2}>
      <Gathered {...props} reading={reading} round={round} />
      {!found.ok && draft.known.length + draft.square.length > 0 && (
        <Typography role="status">{problemSentence(found.problems[0]!, null, show)}</Typography>
      )}
      {draft.known.length + draft.square.length > 0 && <KnownList {...props} scale={scale} />}
      {scale && (
        <Typography variant="body2" sx={{ color: 'var(--pencil)' }} role="note">
          {scale.tilt === 'known'
            ? 'What is known says how the plane is tilted.'
            : 'What is known does not say how the plane is tilted: it is taken to have been photographed about square on, within some 15°, and the ± allow for that. More distances, not all the same way, make it surer.'}{' '}
          A pin is taken to be sure to ± {pointingPx(size.wide, size.high).toFixed(1)} px.
        </Typography>
      )}
      {draft.spans.length + draft.rounds.length > 0 && <Readings {...props} scale={scale} />}
      {scale && gathered.length >= 3 && <Become {...props} scale={scale} />}
      {draft.pins.length > 0 && (
        <Button
          color="inherit"
          onClick={() => {
            set({ pins: [], known: [], square: [], spans: [], rounds: [] });
            setGathered([]);
          }}
        >
          Take all pins out
        </Button>
      )}
    </Stack>
  );
}

const said = ({ mm, uMm }: Asked, show: (mm: number) => string) => `${show(mm)} ± ${show(uMm)}`;

function Gathered({
  draft,
  set,
  gathered,
  setGathered,
  reading,
  round,
}: Props & { reading: Asked | null; round: Asked | null }) {
  const { show } = usePreferences();
  const [mm, setMm] = useState<number | null>(null);
  const [second, setSecond] = useState<number | null>(null);
  const done = (change: Partial<Measuring>) => {
    set(change);
    setMm(null);
    setSecond(null);
    setGathered([]);
  };
  const [a, b, c, d] = gathered;
  if (gathered.length === 0) return <Typography role="status">No pin is gathered.</Typography>;
  return (
    <Box
      component="section"
      aria-label="Gathered pins"
      sx={{ borderLeft: '5px solid var(--torch)', pl: 1.5, display: 'grid', gap: 1.2 }}
    >
      <Typography variant="h3">
        {gathered.length === 1 ? `Pin ${a! + 1}` : `Pins ${named(gathered)}`}
      </Typography>
      {gathered.length === 1 && (
        <Button
          variant="outlined"
          onClick={() => {
            set(withoutPin(draft, a!));
            setGathered([]);
          }}
        >
          Take this pin out
        </Button>
      )}
      {gathered.length === 2 && (
        <>
          {reading && (
            <Box>
              <span className="figure" style={{ fontSize: '1.7rem' }}>
                {show(reading.mm)}
              </span>{' '}
              <span className="figure">± {show(reading.uMm)}</span>
              <Box>
                <Button
                  variant="contained"
                  size="small"
                  onClick={() => done({ spans: [...draft.spans, [a!, b!]] })}
                >
                  Keep this reading
                </Button>
              </Box>
            </Box>
          )}
          <LengthField
            label="Known to be"
            mm={mm}
            min={0.1}
            empty="how far apart"
            onChange={setMm}
          />
          <Button
            variant={reading ? 'outlined' : 'contained'}
            disabled={mm === null}
            onClick={() => done({ known: [...draft.known, { from: a!, to: b!, mm: mm! }] })}
          >
            This is known
          </Button>
        </>
      )}
      {gathered.length === 3 && (
        <Button
          variant="outlined"
          onClick={() => done({ square: [...draft.square, [a!, b!, c!]] })}
        >
          A right angle at pin {b! + 1}
        </Button>
      )}
      {gathered.length === 4 && (
        <>
          <Typography variant="body2">
            A rectangle, its corners in the order of the pins:
          </Typography>
          <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
            <LengthField
              label={`${named([a!, b!])}`}
              mm={mm}
              min={0.1}
              empty="length"
              onChange={setMm}
            />
            <LengthField
              label={`${named([b!, c!])}`}
              mm={second}
              min={0.1}
              empty="width"
              onChange={setSecond}
            />
          </Box>
          <Button
            variant="contained"
            disabled={mm === null || second === null}
            onClick={() =>
              done({
                known: [
                  ...draft.known,
                  { from: a!, to: b!, mm: mm! },
                  { from: b!, to: c!, mm: second! },
                  { from: c!, to: d!, mm: mm! },
                  { from: d!, to: a!, mm: second! },
                ],
                square: [...draft.square, [a!, b!, c!], [b!, c!, d!]],
              })
            }
          >
            Its sides are known
          </Button>
        </>
      )}
      {round && Number.isFinite(round.mm) && (
        <Box>
          <Typography>
            A circle through them: <span className="figure">Ø {said(round, show)}</span>, radius{' '}
            <span className="figure">{show(round.mm / 2)}</span>
          </Typography>
          <Button
            size="small"
            variant="outlined"
            onClick={() => done({ rounds: [...draft.rounds, [...gathered]] })}
          >
            Keep this reading
          </Button>
        </Box>
      )}
      <Button color="inherit" onClick={() => setGathered([])}>
        Put them down
      </Button>
    </Box>
  );
}

type Shown = Props & { scale: PictureScale | null };

/** What is known, each read back; those that go against the others are named. */
function KnownList({ draft, set, scale }: Shown) {
  const { show } = usePreferences();
  const off = (list: readonly unknown[], i: number) => list.filter((_, k) => k !== i);
  return (
    <Box>
      <Typography variant="h3">Known</Typography>
      <Box component="ul" aria-label="Known" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {draft.known.map(({ from, to, mm }, i) => (
          <Row
            key={i}
            name={`${named([from, to])} is ${show(mm)}`}
            onOff={() => set({ known: off(draft.known, i) as Measuring['known'] })}
          >
            {scale && ` (read back ${show(scale.asked[i]!.mm)})`}
            {scale?.contradict.includes(i) && (
              <b style={{ color: 'var(--torch)' }}>
                {' '}
                goes against the others: measure it again, or look where its pins are
              </b>
            )}
          </Row>
        ))}
        {draft.square.map((three, i) => (
          <Row
            key={`s${i}`}
            name={`Square at ${three[1] + 1}, to ${three[0] + 1} and ${three[2] + 1}`}
            onOff={() => set({ square: off(draft.square, i) as Measuring['square'] })}
          />
        ))}
      </Box>
    </Box>
  );
}

function Readings({ draft, set, scale }: Shown) {
  const { show } = usePreferences();
  return (
    <Box>
      <Typography variant="h3">Read</Typography>
      <Box component="ul" aria-label="Read" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {draft.spans.map((two, i) => (
          <Row
            key={i}
            name={named(two)}
            onOff={() => set({ spans: draft.spans.filter((_, k) => k !== i) })}
          >
            {scale && (
              <span className="figure">: {said(scale.asked[draft.known.length + i]!, show)}</span>
            )}
          </Row>
        ))}
        {draft.rounds.map((rim, i) => (
          <Row
            key={`r${i}`}
            name={`Circle through ${named(rim)}`}
            onOff={() => set({ rounds: draft.rounds.filter((_, k) => k !== i) })}
          >
            {scale && <span className="figure">: Ø {said(scale.round[i]!, show)}</span>}
          </Row>
        ))}
      </Box>
    </Box>
  );
}

function Row({
  name,
  onOff,
  children,
}: {
  name: string;
  onOff: () => void;
  children?: React.ReactNode;
}) {
  return (
    <Box
      component="li"
      aria-label={name}
      sx={{
        display: 'flex',
        gap: 1,
        alignItems: 'center',
        borderBottom: '1px solid var(--rule)',
        py: 0.5,
      }}
    >
      <Box sx={{ flex: 1 }}>
        {name}
        {children}
      </Box>
      <Button size="small" color="inherit" onClick={onOff}>
        Take off
      </Button>
    </Box>
  );
}

/** What is said where a card would drop the edges that were named by their lengths. */
const EDGES_NAMED =
  'Its edges have names already. Make the card at its start (Photo), where they are matched.';

/** What gathered pins become: the card, or a profile of it. */
function Become({ gathered, scale }: Props & { scale: PictureScale }) {
  const { id, pattern, patternEditor } = usePiece();
  const navigate = useNavigate();
  const { show } = usePreferences();
  const [name, setName] = useState('');
  const [told, setTold] = useState<string | null>(null);
  const places = gathered.map((pin) => scale.placed[pin]!);
  const card = () => {
    if (pattern.source === 'lengths') return setTold(EDGES_NAMED);
    const made = cardThrough(places, pattern, newId);
    if (!made.ok) return setTold(problemSentence(made.problems[0]!, pattern, show));
    patternEditor.edit(made.doc);
    void navigate(`/pieces/${id}/card`);
  };
  const profile = () => {
    const one = profileThrough(
      places.map(({ at }) => at),
      name.trim(),
      newId,
    );
    patternEditor.edit({ ...pattern, profiles: [...pattern.profiles, one] });
    void navigate(`/pieces/${id}/card/profiles`);
  };
  return (
    <Box component="section" aria-label="Become" sx={{ display: 'grid', gap: 1.2 }}>
      <Typography variant="h3">In the order they were gathered they become</Typography>
      <Button variant="outlined" disabled={pattern.sides.length > 0} onClick={card}>
        The outline of the card
      </Button>
      {pattern.sides.length > 0 && (
        <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
          The card has an outline already.
        </Typography>
      )}
      <TextField
        label="Name of the profile"
        value={name}
        placeholder="Where it was taken"
        onChange={(event) => setName(cut(event.target.value, 40))}
      />
      <Button variant="outlined" disabled={name.trim() === ''} onClick={profile}>
        A profile: first and last on the straight edge
      </Button>
      {told && <Told>{told}</Told>}
    </Box>
  );
}
