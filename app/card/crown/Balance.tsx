import Box from '@mui/material/Box';
import Slider from '@mui/material/Slider';
import Typography from '@mui/material/Typography';
import { balanceWords } from './crownWords';

/** How the panel is to be worked: from raising all of it to gathering all of it. */
export function Balance({
  balance,
  onChange,
}: {
  balance: number;
  onChange: (balance: number) => void;
}) {
  return (
    <Box component="section" aria-label="How it is worked">
      <Typography variant="h3">How it is worked</Typography>
      <Typography>{balanceWords(balance)}.</Typography>
      <Box sx={{ px: 3 }}>
        <Slider
          aria-label="From raising to gathering"
          min={0}
          max={1}
          step={0.05}
          value={balance}
          onChange={(_, next) => onChange(next as number)}
          getAriaValueText={balanceWords}
          marks={[
            { value: 0, label: 'Raise' },
            { value: 0.5, label: 'Both' },
            { value: 1, label: 'Gather' },
          ]}
        />
      </Box>
    </Box>
  );
}
