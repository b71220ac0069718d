import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Slider from '@mui/material/Slider';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import type { Strip } from '#core/surface/flatten/strips';
import { StripPicture } from './StripPicture';

type Props = {
  runs: Strip['runs'];
  at: number;
  /** The strip there; null where none can be read. */
  cut: Strip | null;
  /** Nothing more can be held. */
  full: boolean;
  onRuns: (runs: Strip['runs']) => void;
  onAt: (at: number) => void;
  onLook: () => void;
  onHold: () => void;
};

/**
 * A cut straight across or along the panel, as a strip would read it; it can be kept straight on
 * the blank.
 */
export function PanelCut({ runs, at, cut, full, onRuns, onAt, onLook, onHold }: Props) {
  return (
    <Box component="section" aria-label="A cut of the panel" sx={{ display: 'grid', gap: 0.8 }}>
      <Typography variant="h3">A cut of the panel</Typography>
      <ToggleButtonGroup
        exclusive
        size="small"
        value={runs}
        aria-label="Which way it is cut"
        onChange={(_, next: Strip['runs'] | null) => next && onRuns(next)}
      >
        <ToggleButton value="across">Across</ToggleButton>
        <ToggleButton value="along">Along</ToggleButton>
      </ToggleButtonGroup>
      <Slider
        aria-label="Where it is cut"
        min={0.02}
        max={0.98}
        step={0.02}
        value={at}
        onChange={(_, next) => onAt(next as number)}
        onChangeCommitted={onLook}
      />
      {cut ? (
        <StripPicture ordinates={cut.ordinates} />
      ) : (
        <Typography>It leans over here: no straight edge reads it.</Typography>
      )}
      <Button variant="outlined" sx={{ justifySelf: 'start' }} disabled={full} onClick={onHold}>
        Keep this line straight on the blank
      </Button>
    </Box>
  );
}
