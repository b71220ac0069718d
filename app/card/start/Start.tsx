import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import type { Closing, Leg } from '#core/card/legs';
import {
  outlineFromLegs,
  outlineFromPoints,
  parseLegs,
  parsePoints,
  walk,
  writtenLeg,
} from '#core/card/legs';
import { emptyPattern } from '#core/card/emptyPattern';
import { patternParts } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import type { Path } from '#core/measure/path';
import { box, boxOf } from '#core/measure/path';
import type { Problem } from '#core/measure/result';
import { line } from '#core/measure/segment';
import type { Vec } from '#core/measure/vector';
import { useRef, useState } from 'react';
import { useFocusWhenLost } from '../../frame/focus';
import { Drawing } from '../../drawing/Drawing';
import { useDraft } from '../../forms/useDraft';
import { usePreferences } from '../../frame/preferences';
import { problemSentence } from '../../frame/sentences';
import { FIGURES } from '../../frame/theme';
import { usePiece } from '../../piece/pieceContext';
import { FromFigures } from './FromFigures';
import { FromFile } from './FromFile';
import { FromPicture } from '../photograph/FromPicture';
import { FromTape } from './FromTape';
import { KeepEdges } from './KeepEdges';
import { Sketch } from './Sketch';
import { Trace } from './Trace';
import { newId } from '../../frame/newId';

type Way = 'legs' | 'points' | 'draw' | 'tape' | 'figures' | 'picture' | 'file';
type Draft = { way: Way; legsText: string; pointsText: string; closing: Closing | null };

/** Ways in that make a whole card, with its folds and holes. */
const WHOLE_CARDS = { tape: FromTape, figures: FromFigures, picture: FromPicture, file: FromFile };

/** A walk that misses its start by more than this, or this share of its length, is asked about. */
const SMALL_MISS_MM = 5;
const SMALL_MISS_SHARE = 0.01;
const missOf = (legs: readonly Leg[]): boolean => {
  const { closingMm } = walk(legs);
  return (
    closingMm > SMALL_MISS_MM ||
    closingMm > SMALL_MISS_SHARE * legs.reduce((sum, leg) => sum + leg.lengthMm, 0)
  );
};

/** An empty card: seven ways in, with what is typed drawn as it is typed. */
export default function Start() {
  const { id, patternEditor, pattern } = usePiece();
  const page = useRef<HTMLDivElement>(null);
  useFocusWhenLost(page);
  const { unit, show } = usePreferences();
  const { draft, set, drop } = useDraft<Draft>(`start ${id}`, {
    way: 'legs',
    legsText: '',
    pointsText: '',
    closing: null,
  });
  const { way, legsText, pointsText, closing } = draft;
  // Edges that were named by their lengths keep their names, and what hangs on them.
  const [drawn, setDrawn] = useState<PatternDoc | null>(null);
  const put = (card: PatternDoc) => {
    drop();
    patternEditor.edit({ ...card, turned: pattern.turned });
  };
  const made = (card: PatternDoc) => (pattern.edges.length > 0 ? setDrawn(card) : put(card));
  const begin = (path: Path) => made({ ...emptyPattern(), ...patternParts(path, newId) });
  const Other = way in WHOLE_CARDS ? WHOLE_CARDS[way as keyof typeof WHOLE_CARDS] : null;
  const back = () => set({ way: 'legs' });
  if (drawn) return <KeepEdges drawn={drawn} onDone={put} onBack={() => setDrawn(null)} />;
  if (Other) return <Other onDone={made} onBack={back} />;
  if (way === 'draw') return <Sketch onDone={begin} onBack={back} />;

  const legs = legsText.trim() === '' ? null : parseLegs(legsText, unit);
  const points = pointsText.trim() === '' ? null : parsePoints(pointsText, unit);
  const read = way === 'legs' ? legs : points;
  const problems: Problem[] = read && !read.ok ? read.problems : [];
  const gone: Vec[] =
    way === 'legs'
      ? legs?.ok
        ? [...walk(legs.legs).corners, walk(legs.legs).end]
        : []
      : points?.ok
        ? points.points
        : [];
  const built =
    way === 'legs'
      ? legs?.ok
        ? outlineFromLegs(legs.legs, closing ?? (missOf(legs.legs) ? 'leave' : 'spread'))
        : null
      : points?.ok
        ? outlineFromPoints(points.points)
        : null;
  const closingMm = way === 'legs' && legs?.ok ? walk(legs.legs).closingMm : 0;
  // A small miss is spread over the corners; a large one is a leg forgotten or mistyped, and asked
  // about.
  const asked = legs?.ok === true && missOf(legs.legs);
  const undecided = closingMm > 1e-3 && asked && closing === null;
  const bounds = gone.length > 1 ? boxOf(gone) : { minX: 0, minY: 0, maxX: 300, maxY: 200 };

  const dragged = (list: Leg[]) =>
    set({
      legsText: list
        .map((leg) => writtenLeg({ ...leg, turnDeg: Math.round(leg.turnDeg * 10) / 10 }, unit))
        .join('\n'),
    });

  return (
    <Box
      ref={page}
      sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: { xs: 'column', md: 'row' } }}
    >
      <Box sx={{ flex: 1, position: 'relative', minHeight: 260 }}>
        <Drawing bounds={bounds} ground="card" label="The card so far">
          {gone.length > 1 ? (
            <Trace
              points={gone}
              closed={built?.ok ? built.path : null}
              onDrag={
                way === 'legs' && legs?.ok
                  ? (i, p) => dragged(legWithEnd(legs.legs, i, p))
                  : undefined
              }
            />
          ) : (
            <Trace
              points={[]}
              closed={[
                line([0, 0], [300, 0]),
                line([300, 0], [300, 200]),
                line([300, 200], [0, 200]),
                line([0, 200], [0, 0]),
              ]}
              faint
            />
          )}
        </Drawing>
      </Box>
      <Box
        component="aside"
        sx={{
          flex: { md: '0 0 440px' },
          bgcolor: 'var(--panel)',
          borderLeft: { md: '1.5px solid var(--rule)' },
          p: 2.5,
          overflowY: 'auto',
        }}
      >
        <Typography variant="h2" gutterBottom>
          Put the card in
        </Typography>
        <Typography sx={{ mb: 2 }}>
          Walk round the outline with a rule, leg by leg; paste its points; draw it; tape it corner
          to corner; photograph it, or read a drawing. What is made again and again is made from its
          figures.
        </Typography>
        <ToggleButtonGroup
          exclusive
          fullWidth
          value={way}
          onChange={(_, next: Way | null) => next && set({ way: next })}
          aria-label="How to put the card in"
          sx={{ mb: 2 }}
        >
          <ToggleButton value="legs">Legs</ToggleButton>
          <ToggleButton value="points">Points</ToggleButton>
          <ToggleButton value="draw">Draw</ToggleButton>
          <ToggleButton value="tape">Tape</ToggleButton>
          <ToggleButton value="figures">Figures</ToggleButton>
          <ToggleButton value="picture">Photo</ToggleButton>
          <ToggleButton value="file">File</ToggleButton>
        </ToggleButtonGroup>
        {pattern.edges.length === 0 && (
          <Button
            component={Link}
            to={`/pieces/${id}/card/crown`}
            color="inherit"
            variant="outlined"
            fullWidth
            sx={{ mb: 2 }}
          >
            Curved two ways: no paper lies on it
          </Button>
        )}
        {way === 'legs' ? (
          <TextField
            label={`Legs: a length and the turn at its end, ${unit === 'mm' ? 'mm' : 'inches'}`}
            multiline
            minRows={6}
            value={legsText}
            onChange={(event) => set({ legsText: event.target.value })}
            placeholder={
              unit === 'mm'
                ? '300\n200 left 60\n180 left 120\n200'
                : '12\n8 left 60\n7 1/4 left 120\n8'
            }
            helperText="One leg a line. A length alone turns square to the left; write left 60, right 30 or straight on."
            slotProps={{ htmlInput: { style: { fontFamily: FIGURES, fontSize: '1.1rem' } } }}
          />
        ) : (
          <TextField
            label={`Points: across and up, ${unit === 'mm' ? 'mm' : 'inches'}`}
            multiline
            minRows={8}
            value={pointsText}
            onChange={(event) => set({ pointsText: event.target.value })}
            placeholder={
              unit === 'mm' ? '0\t0\n300\t0\n300\t200\n0\t200' : '0\t0\n12\t0\n12\t8\n0\t8'
            }
            helperText="Paste two columns from a spreadsheet. Either way round."
            slotProps={{ htmlInput: { style: { fontFamily: FIGURES, fontSize: '1.1rem' } } }}
          />
        )}
        <Stack spacing={1.5} sx={{ mt: 2 }}>
          {problems.map((problem, i) => (
            <Box
              key={i}
              role="alert"
              sx={{ p: 1.2, bgcolor: 'var(--torch-ground)', borderLeft: '5px solid var(--torch)' }}
            >
              {problemSentence(problem, pattern, show)}
            </Box>
          ))}
          {closingMm > 1e-3 && (
            <Box>
              <Typography>
                The last leg misses the start by <b className="figure">{show(closingMm)}</b>.
                {undecided && ' A leg may be missing. Mend the legs, or choose:'}
              </Typography>
              <ToggleButtonGroup
                exclusive
                size="small"
                value={closing ?? (asked ? null : 'spread')}
                onChange={(_, next: Closing | null) => next && set({ closing: next })}
                aria-label="What to do about the closing error"
                sx={{ mt: 0.5 }}
              >
                <ToggleButton value="spread">Spread it over the corners</ToggleButton>
                <ToggleButton value="leave">Leave it: add a side</ToggleButton>
              </ToggleButtonGroup>
            </Box>
          )}
          {built?.ok && (
            <Typography>
              {built.path.length} sides,{' '}
              <span className="figure">{show(box(built.path).maxX - box(built.path).minX)}</span> by{' '}
              <span className="figure">{show(box(built.path).maxY - box(built.path).minY)}</span>
            </Typography>
          )}
          <Button
            variant="contained"
            size="large"
            disabled={!built?.ok || undecided}
            onClick={() => built?.ok && begin(built.path)}
          >
            Make the card
          </Button>
          <Button
            color="inherit"
            component={Link}
            to={`/pieces/${id}/card/measured`}
            sx={{ alignSelf: 'start' }}
          >
            Or measure it on a picture of the real thing
          </Button>
        </Stack>
      </Box>
    </Box>
  );
}

/**
 * The legs with the end of leg `i` pulled to a point: its length and turn, and the turn of the one
 * after, follow.
 */
function legWithEnd(legs: readonly Leg[], i: number, p: Vec): Leg[] {
  const { corners } = walk(legs);
  const start = corners[i]!;
  const lengthMm = Math.max(1, Math.hypot(p[0] - start[0], p[1] - start[1]));
  const heading = (Math.atan2(p[1] - start[1], p[0] - start[0]) * 180) / Math.PI;
  const before = legs.slice(0, i).reduce((sum, leg) => sum + leg.turnDeg, 0);
  const wrapped = (turn: number) => ((((turn + 180) % 360) + 360) % 360) - 180;
  const bent = wrapped(heading - before);
  return legs.map((leg, k) => {
    if (k === i - 1) return { ...leg, turnDeg: wrapped(leg.turnDeg + bent) };
    if (k === i) return { lengthMm, turnDeg: wrapped(leg.turnDeg - (i === 0 ? 0 : bent)) };
    return leg;
  });
}
