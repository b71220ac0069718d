import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { MAX_HELD } from '#core/card/crown';
import type { Hold } from '#core/surface/flatten/held';
import { usePreferences } from '../../frame/preferences';

const named = (hold: Hold): string =>
  hold.kind === 'straight'
    ? `A line ${hold.runs} at ${Math.round(hold.share * 100)} % stays straight`
    : `${hold.at.length} points stay where they are`;

/**
 * Lines that stay straight on the blank and points that stay where they are; how near they come,
 * and how more are put in.
 */
export function HeldList({
  hold,
  off,
  points,
  tapping,
  onTapping,
  onChange,
}: {
  hold: readonly Hold[];
  /** How far off each still lies, mm; empty while that is not known. */
  off: readonly number[];
  points: number;
  tapping: boolean;
  onTapping: (tapping: boolean) => void;
  onChange: (hold: Hold[]) => void;
}) {
  const { showThin } = usePreferences();
  return (
    <Box
      component="section"
      aria-label="Held"
      sx={{ display: 'grid', gap: 0.8, justifyItems: 'start' }}
    >
      {hold.length === 0 && !tapping && (
        <Typography variant="body2">
          Edges are ticked above. A line is held where the panel is cut below; points, like bolt
          holes, are tapped on it.
        </Typography>
      )}
      <Stack component="ul" spacing={0.5} sx={{ listStyle: 'none', p: 0, m: 0, width: '100%' }}>
        {hold.map((one, i) => (
          <Stack component="li" key={i} direction="row" spacing={1} sx={{ alignItems: 'center' }}>
            <Typography sx={{ flex: 1 }}>
              {named(one)}
              {off[i] !== undefined && (
                <>
                  , within <span className="figure">{showThin(Math.max(0.01, off[i]))}</span>
                </>
              )}
            </Typography>
            <Button
              size="small"
              color="inherit"
              aria-label={`Let go: ${named(one)}`}
              onClick={() => onChange(hold.filter((_, k) => k !== i))}
            >
              Let go
            </Button>
          </Stack>
        ))}
      </Stack>
      {tapping ? (
        <>
          <Typography role="status">
            Tap them on the panel: {points} so far, two or more are held.
          </Typography>
          <Button variant="outlined" onClick={() => onTapping(false)}>
            {points < 2 ? 'Leave it' : `Hold these ${points}`}
          </Button>
        </>
      ) : (
        <Button
          variant="outlined"
          disabled={hold.length >= MAX_HELD}
          onClick={() => onTapping(true)}
        >
          Points that stay
        </Button>
      )}
    </Box>
  );
}
