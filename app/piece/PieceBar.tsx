import ArrowBack from '@mui/icons-material/ArrowBack';
import Redo from '@mui/icons-material/Redo';
import Undo from '@mui/icons-material/Undo';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import { Link } from 'react-router';
import { useHeldWord } from '../forms/browserStore';
import { TopBar } from '../frame/TopBar';
import { formatTime } from '../frame/dates';
import { usePreferences } from '../frame/preferences';
import { useWho } from '../frame/recordedBy';
import type { SaveStatus } from './documents/documentState';
import { usePiece } from './pieceContext';
import type { Stepping } from './useStepping';

export type PieceBarProps = { job: { id: string; name: string }; name: string; archived: boolean };

/** The top bar on a piece: the way back to its job, its name, how saving stands, undo and redo. */
export function PieceBar({
  job,
  name,
  archived,
  stepping: { undo, redo, what, said },
}: PieceBarProps & { stepping: Stepping }) {
  const looks = useWho()?.role === 'looks';
  return (
    <TopBar
      right={
        !looks && (
          <>
            <SaveLine said={said} />
            <Tooltip title={`Undo ${what} (Z)`}>
              <span>
                <IconButton aria-label="Undo" disabled={!undo} onClick={undo}>
                  <Undo />
                </IconButton>
              </span>
            </Tooltip>
            <Tooltip title={`Redo ${what} (Shift+Z)`}>
              <Box
                component="span"
                sx={{ display: { xs: redo ? 'inline' : 'none', sm: 'inline' } }}
              >
                <IconButton aria-label="Redo" disabled={!redo} onClick={redo}>
                  <Redo />
                </IconButton>
              </Box>
            </Tooltip>
          </>
        )
      }
    >
      <IconButton component={Link} to={`/jobs/${job.id}`} aria-label={`Back to ${job.name}`}>
        <ArrowBack />
      </IconButton>
      <Box
        component={Link}
        to={`/jobs/${job.id}`}
        className="condensed"
        sx={{
          color: 'var(--pencil)',
          textDecoration: 'none',
          whiteSpace: 'nowrap',
          display: { xs: 'none', md: 'inline' },
          fontSize: '1.1rem',
        }}
      >
        {job.name}
      </Box>
      <Box component="span" sx={{ color: 'var(--rule)', display: { xs: 'none', md: 'inline' } }}>
        /
      </Box>
      <Box
        component="h1"
        className="condensed"
        sx={{
          m: 0,
          fontSize: { xs: '1.15rem', sm: '1.35rem' },
          lineHeight: 1.1,
          fontWeight: 600,
          overflow: 'hidden',
          textOverflow: 'ellipsis',
          whiteSpace: { sm: 'nowrap' },
        }}
      >
        {name}
      </Box>
      {archived && (
        <Box sx={{ fontSize: '0.85rem', px: 1, border: '1px solid var(--rule)' }}>put away</Box>
      )}
    </TopBar>
  );
}

/** Most wanting attention first: of the card and the plan the one is told that comes first here. */
const RANK: readonly SaveStatus[] = ['conflict', 'refused', 'kept', 'saving', 'saved'];

/** How saving stands, and what was just undone. */
function SaveLine({ said: undone }: { said: string | null }) {
  const { patternEditor, planEditor } = usePiece();
  const { dates } = usePreferences();
  const held = useHeldWord();
  const { status, refusal } = [patternEditor, planEditor].sort(
    (a, b) => RANK.indexOf(a.status) - RANK.indexOf(b.status),
  )[0]!;
  const savedAt = [patternEditor.savedAt ?? '', planEditor.savedAt ?? ''].sort().pop();
  const said = {
    saved: savedAt ? `Saved ${formatTime(savedAt, dates)}` : '',
    saving: 'Saving …',
    kept: `No answer from the server: ${held}, trying again`,
    conflict: 'Saved elsewhere too: choose below',
    refused: `Not saved: ${refusal?.message ?? ''} Undo takes it back.`,
  }[status];
  const quiet = status === 'saved' || status === 'saving';
  return (
    <Box
      role="status"
      className="on-screen"
      sx={{
        fontSize: '0.9rem',
        color: quiet ? 'var(--pencil)' : 'var(--torch)',
        display: quiet ? { xs: 'none', sm: 'block' } : 'block',
        maxWidth: { xs: 130, sm: 300, md: 'none' },
        lineHeight: 1.1,
        textAlign: 'right',
      }}
    >
      {status === 'saved' && undone ? undone : said}
    </Box>
  );
}
