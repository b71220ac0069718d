import Close from '@mui/icons-material/Close';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { useFetcher } from 'react-router';
import { MAX_MICROMETER } from '#core/cutdown/kinds';
import { medianMm } from '#core/cutdown/progress';
import type { Answered } from '../records/changed.server';
import type { PieceFacts } from '#core/format/job';
import { LengthField } from '../forms/LengthField';
import { Told } from '../frame/Told';
import { usePreferences } from '../frame/preferences';
import { usePiece } from '../piece/pieceContext';

/** Farther apart than this, a piece is not of the thickness that is reckoned with, mm. */
const APART_MM = 0.03;

/** What a micrometer read of its metal, and whether joints and settings go by that. */
export function Micrometer({
  readingsMm,
  onChange,
}: {
  readingsMm: readonly number[];
  onChange: (readingsMm: number[]) => void;
}) {
  const { id, facts } = usePiece();
  const { showThin } = usePreferences();
  const [next, setNext] = useState<number | null>(null);
  const fetcher = useFetcher<Answered<PieceFacts>>();
  const median = medianMm(readingsMm);
  const apart = median !== null && Math.abs(median - facts.thicknessMm) > APART_MM;
  const add = (mm: number | null) => {
    if (mm === null || readingsMm.length >= MAX_MICROMETER) return;
    onChange([...readingsMm, mm]);
    setNext(null);
  };
  const told = fetcher.data && 'message' in fetcher.data ? fetcher.data.message : null;
  return (
    <Stack component="section" aria-label="Its metal" spacing={1}>
      <Typography variant="h2">Its metal</Typography>
      <Typography>
        Paint and rust off, a micrometer at three places or more. Joints and weld settings go by the
        thickness of the piece.
      </Typography>
      {readingsMm.length > 0 && (
        <Box
          component="ul"
          aria-label="Micrometer readings"
          sx={{ m: 0, p: 0, listStyle: 'none', display: 'flex', flexWrap: 'wrap', gap: 0.8 }}
        >
          {readingsMm.map((mm, i) => (
            <Box
              component="li"
              key={i}
              className="figure"
              sx={{
                display: 'flex',
                alignItems: 'center',
                border: '1.5px solid var(--rule)',
                bgcolor: 'var(--chalk)',
                pl: 1.2,
                fontSize: '1.05rem',
              }}
            >
              {showThin(mm)}
              <IconButton
                aria-label={`Take reading ${i + 1} out`}
                onClick={() => onChange(readingsMm.filter((_, k) => k !== i))}
              >
                <Close fontSize="small" />
              </IconButton>
            </Box>
          ))}
        </Box>
      )}
      <Stack direction="row" spacing={1}>
        <LengthField
          key={readingsMm.length}
          label="Micrometer reading"
          mm={next}
          thin
          min={0.05}
          max={20}
          empty="read, then Enter"
          onChange={(mm) => add(mm)}
        />
      </Stack>
      {apart && (
        <Box sx={{ borderLeft: '5px solid var(--torch)', pl: 1.4 }}>
          <Typography>
            Its metal is <b className="figure">{showThin(median)}</b>, the piece is reckoned with{' '}
            <b className="figure">{showThin(facts.thicknessMm)}</b>.
          </Typography>
          <Button
            variant="outlined"
            sx={{ mt: 1 }}
            disabled={fetcher.state !== 'idle'}
            onClick={() =>
              void fetcher.submit(
                {
                  since: facts,
                  mine: { ...facts, thicknessMm: median, thickness: { by: 'micrometer' } },
                },
                {
                  method: 'post',
                  action: `/pieces/${id}/survey`,
                  encType: 'application/json',
                },
              )
            }
          >
            Reckon with {showThin(median)}
          </Button>
          {told && <Told>{told}</Told>}
        </Box>
      )}
    </Stack>
  );
}
