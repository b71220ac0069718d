import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import type { Problem } from '#core/measure/result';
import { usePreferences } from '../frame/preferences';
import { problemSentence } from '../frame/sentences';
import { usePick, usePiece } from './pieceContext';

/** What would mend a fault, as one touch. */
export type Cure = { label: string; run: () => void };

/** What is wrong or wants care, each a line; touching one picks the thing concerned. */
export function Notices({
  problems,
  cureOf = () => null,
}: {
  problems: readonly Problem[];
  cureOf?: (problem: Problem) => Cure | null;
}) {
  const { pattern } = usePiece();
  const { setPick } = usePick();
  const { show } = usePreferences();
  const pickFirst = (about: readonly string[] = []) => {
    for (const id of about) {
      const edge = pattern.edges.find((e) => e.id === id || e.sides.includes(id));
      if (pattern.folds.some((f) => f.id === id)) return setPick({ kind: 'fold', id });
      if (pattern.holes.some((h) => h.id === id)) return setPick({ kind: 'hole', id });
      if (edge) return setPick({ kind: 'edge', id: edge.id });
    }
  };
  return (
    <Box role="list" aria-label="To mend or to mind" sx={{ display: 'grid', gap: 1 }}>
      {problems.map((problem, i) => (
        <Box role="listitem" key={`${problem.code}${i}`}>
          <ButtonBase
            onClick={() => pickFirst(problem.about)}
            sx={{
              width: '100%',
              justifyContent: 'flex-start',
              textAlign: 'left',
              gap: 1.2,
              p: 1.2,
              bgcolor: 'var(--torch-ground)',
              borderLeft: `5px solid var(--torch)`,
              fontFamily: 'inherit',
              fontSize: '0.98rem',
              lineHeight: 1.3,
            }}
          >
            <svg
              width="22"
              height="20"
              viewBox="0 0 20 20"
              aria-label={problem.severity === 'stop' ? 'Stop' : 'Take care'}
              style={{ flex: 'none' }}
            >
              {problem.severity === 'stop' ? (
                <path
                  d="M6 1h8l5 5v8l-5 5H6l-5-5V6zM6 10h8"
                  fill="none"
                  stroke="var(--torch)"
                  strokeWidth="2.4"
                />
              ) : (
                <path
                  d="M10 1.5l8.8 16H1.2zM10 7v5M10 13.8v1.8"
                  fill="none"
                  stroke="var(--torch)"
                  strokeWidth="2"
                />
              )}
            </svg>
            <span>{problemSentence(problem, pattern, show)}</span>
          </ButtonBase>
          <CureButton cure={cureOf(problem)} />
        </Box>
      ))}
    </Box>
  );
}

function CureButton({ cure }: { cure: Cure | null }) {
  if (!cure) return null;
  return (
    <Button variant="contained" fullWidth size="large" sx={{ mt: 0.8 }} onClick={cure.run}>
      {cure.label}
    </Button>
  );
}
