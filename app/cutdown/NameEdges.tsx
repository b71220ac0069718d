import Close from '@mui/icons-material/Close';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link } from 'react-router';
import { cut } from '#core/card/cut';
import { cardFromLengths } from '#core/card/fromLengths';
import { countingIds } from '#core/card/kinds';
import { edgeLength, letterAt, outlineOf } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import { isOfEdge } from '#core/card/recordPlace';
import { box } from '#core/measure/path';
import { Drawing } from '../drawing/Drawing';
import { LengthField } from '../forms/LengthField';
import { useDraft } from '../forms/useDraft';
import { Told } from '../frame/Told';
import { newId } from '../frame/newId';
import { usePreferences } from '../frame/preferences';
import { problemSentence } from '../frame/sentences';
import { useStructure } from '../joint/useStructure';
import { usePiece } from '../piece/pieceContext';
import { CutDownPicture } from './CutDownPicture';

/** An edge as it is typed: `lengthMm` null until it was measured. */
type Row = { id: string; letter: string; lengthMm: number | null; meets: string };
type Draft = { rows: Row[] };

/** The edges that a card from lengths has, clockwise as they were typed. */
const rowsOf = (pattern: PatternDoc, meets: (edge: string) => string): Row[] =>
  [...pattern.edges].reverse().map((edge) => ({
    id: edge.id,
    letter: edge.letter,
    lengthMm: Math.round(edgeLength(pattern, edge) * 1000) / 1000,
    meets: meets(edge.id),
  }));

const blankRows = (): Row[] =>
  [0, 1, 2, 3].map((i) => ({ id: `new-${i}`, letter: letterAt(i), lengthMm: null, meets: '' }));

/** The first letter that no edge has. */
function nextLetter(rows: readonly Row[]): string {
  const taken = new Set(rows.map(({ letter }) => letter));
  for (let i = 0; ; i++) if (!taken.has(letterAt(i))) return letterAt(i);
}

/** The edges of a piece by their lengths and what they meet, drawn as they are typed. */
export function NameEdges({ onDone }: { onDone: () => void }) {
  const { id, pattern, joined, meets, patternEditor, fits, welds, inspections, pictures } =
    usePiece();
  const { joinToParts, change: changeJoint } = useStructure();
  const { show } = usePreferences();
  const known = pattern.edges.length > 0;
  const { draft, set, drop } = useDraft<Draft>(`edges ${id}`, {
    rows: known ? rowsOf(pattern, meets) : blankRows(),
  });
  const { rows } = draft;
  // What is wrong with them is said when all are measured, or when they are put in before.
  const [asked, setAsked] = useState(false);
  const asEdges = (ids: (row: Row) => string) =>
    rows.map((row) => {
      const before = pattern.edges.find((edge) => edge.id === row.id);
      return {
        id: ids(row),
        letter: row.letter,
        joint: before?.joint ?? { kind: 'free' as const, trimMm: 0 },
        ...(before?.was && { was: before.was }),
        lengthMm: row.lengthMm ?? 0,
      };
    });
  const seen = cardFromLengths(
    asEdges(({ id: row }) => row),
    countingIds(),
  );
  const measured = rows.filter(({ lengthMm }) => lengthMm !== null).length;
  const change = (at: number, what: Partial<Row>) =>
    set({ rows: rows.map((row, i) => (i === at ? { ...row, ...what } : row)) });
  const recorded = (edge: string) => {
    const here = pattern.edges.find((one) => one.id === edge);
    const on = (record: { edge: string }) => here && isOfEdge(pattern, record.edge, here);
    return (
      fits.some((fit) => fit.edges.some(on)) ||
      welds.some(on) ||
      inspections.some(on) ||
      pictures.some(({ owner, of }) => owner === 'edge' && of === edge)
    );
  };
  const keep = () => {
    // An edge gets its id when it is put in, and then keeps it.
    const ids = new Map(
      rows.map((row) => [row.id, pattern.edges.some((e) => e.id === row.id) ? row.id : newId()]),
    );
    const made = cardFromLengths(
      asEdges((row) => ids.get(row.id)!),
      newId,
    );
    if (!made.ok) return setAsked(true);
    patternEditor.edit({ ...made.doc, turned: pattern.turned });
    const said = rows.flatMap((row) => {
      const edge = ids.get(row.id)!;
      const word = row.meets.trim();
      return word === meets(edge) ? [] : [{ edge, word }];
    });
    for (const { edge } of said)
      for (const meeting of joined.meetings.get(edge) ?? [])
        changeJoint(meeting.id, { putAway: true });
    const named = said.filter(({ word }) => word !== '');
    if (named.length > 0)
      joinToParts(
        named.map(({ edge, word }) => [
          { piece: id, edge, turned: pattern.turned, stretch: null },
          word,
        ]),
      );
    drop();
    onDone();
  };
  const drawn = seen.ok ? seen.doc : null;
  return (
    <Box
      sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: { xs: 'column', md: 'row' } }}
    >
      <Box sx={{ flex: 1, position: 'relative', minHeight: { xs: 240, md: 260 } }}>
        <Drawing
          bounds={drawn ? grown(box(outlineOf(drawn).path)) : EMPTY}
          ground="fit"
          label="The piece as its edges are named"
        >
          {drawn && (
            <CutDownPicture
              pattern={drawn}
              meets={(edge) => rows.find((row) => row.id === edge)?.meets ?? ''}
              wrongAt={NONE}
              pick={null}
            />
          )}
        </Drawing>
      </Box>
      <Box
        component="aside"
        aria-label="Drawer"
        sx={{
          flex: { md: '0 0 460px' },
          bgcolor: 'var(--panel)',
          borderLeft: { md: '1.5px solid var(--rule)' },
          p: 2.5,
          overflowY: 'auto',
        }}
      >
        <Typography variant="h2" gutterBottom>
          Name its edges
        </Typography>
        <Typography sx={{ mb: 2 }}>
          Go round the piece clockwise as you look at its face, tape along each edge, and say what
          it comes up to. Gaps are read and welds are made edge by edge.
        </Typography>
        <Stack spacing={1.6}>
          {rows.map((row, i) => (
            <Box
              key={row.id}
              role="group"
              aria-label={`Edge ${row.letter}`}
              sx={{
                display: 'grid',
                gridTemplateColumns: '34px 128px 1fr 44px',
                columnGap: 1,
                alignItems: 'start',
              }}
            >
              <Box className="condensed" sx={{ fontSize: '1.6rem', fontWeight: 600, pt: 0.9 }}>
                {row.letter}
              </Box>
              <LengthField
                label="Length"
                mm={row.lengthMm}
                min={1}
                empty="not yet"
                onChange={(lengthMm) => change(i, { lengthMm })}
              />
              <TextField
                label="Meets"
                value={row.meets}
                placeholder="Floor edge, old sill …"
                onChange={(event) => change(i, { meets: cut(event.target.value, 120) })}
              />
              <IconButton
                aria-label={`Leave edge ${row.letter} out`}
                disabled={rows.length <= 3 || recorded(row.id)}
                onClick={() => set({ rows: rows.filter((_, k) => k !== i) })}
                sx={{ mt: 0.6 }}
              >
                <Close />
              </IconButton>
            </Box>
          ))}
          <Button
            variant="outlined"
            color="inherit"
            sx={{ alignSelf: 'start' }}
            disabled={rows.length >= MAX_EDGES}
            onClick={() =>
              set({
                rows: [
                  ...rows,
                  { id: `new-${newId()}`, letter: nextLetter(rows), lengthMm: null, meets: '' },
                ],
              })
            }
          >
            Another edge
          </Button>
          {rows.some(({ id: row }) => recorded(row)) && (
            <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
              An edge on which something was read, welded or photographed stays.
            </Typography>
          )}
          <Button variant="contained" size="large" onClick={keep}>
            {known ? 'Keep these lengths' : 'These are its edges'}
          </Button>
          {/* Below the button: where it goes away as the last length is put in, nothing moves. */}
          {!seen.ok && (asked || measured === rows.length) && (
            <Told>
              {seen.problems.map((problem) => (
                <div key={problem.code}>{problemSentence(problem, null, show)}</div>
              ))}
            </Told>
          )}
          <Stack direction="row" spacing={1} useFlexGap sx={{ flexWrap: 'wrap' }}>
            {known && (
              <Button
                color="inherit"
                onClick={() => {
                  drop();
                  onDone();
                }}
              >
                Leave them as they were
              </Button>
            )}
            <Button color="inherit" component={Link} to={`/pieces/${id}/card`}>
              Draw or trace its card instead
            </Button>
          </Stack>
        </Stack>
      </Box>
    </Box>
  );
}

/** Edges that one would name by hand; more are traced. */
const MAX_EDGES = 26;
const NONE: ReadonlySet<string> = new Set();
const EMPTY = { minX: 0, minY: 0, maxX: 400, maxY: 260 };

const grown = (b: { minX: number; minY: number; maxX: number; maxY: number }) => {
  const by = 0.14 * Math.max(b.maxX - b.minX, b.maxY - b.minY);
  return { minX: b.minX - by, minY: b.minY - by, maxX: b.maxX + by, maxY: b.maxY + by };
};
