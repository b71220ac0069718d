import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import type { LaidPanel } from '#core/surface/panel/laidPanel';
import { ChevronSign } from '../../drawing/shapeMarks';
import { usePreferences } from '../../frame/preferences';
import { edgeWords, zoneWords } from './crownWords';

/**
 * What has to be done to a blank to make it the panel, edge by edge and place by place; which edges
 * keep their length.
 */
export function WorkList({
  laid,
  letters,
  keep,
  onKeep,
}: {
  laid: LaidPanel;
  letters: readonly string[];
  keep: readonly number[];
  onKeep: (keep: number[]) => void;
}) {
  const { show, showArea } = usePreferences();
  return (
    <Box component="section" aria-label="What has to be done">
      <Typography variant="h3" gutterBottom>
        What has to be done
      </Typography>
      <Stack spacing={0.6}>
        {edgeWords(laid, letters, show).map(({ edge, letter, said, shrink }) => (
          <Stack key={letter} direction="row" spacing={1} sx={{ alignItems: 'center' }}>
            <Typography
              component="span"
              className="condensed"
              sx={{ fontSize: '1.15rem', fontWeight: 600, width: 26 }}
            >
              {letter}
            </Typography>
            {shrink !== null && <ChevronSign shrink={shrink} />}
            <Typography component="span" className="figure" sx={{ flex: 1 }}>
              {said}
            </Typography>
            <Checkbox
              checked={keep.includes(edge)}
              onChange={(_, on) =>
                onKeep(
                  on ? [...keep, edge].sort((a, b) => a - b) : keep.filter((one) => one !== edge),
                )
              }
              slotProps={{ input: { 'aria-label': `Edge ${letter} keeps its length` } }}
            />
          </Stack>
        ))}
        <Typography variant="body2">
          Ticked: an edge that keeps its length, because it meets a neighbour that is there.
        </Typography>
        {laid.zones.slice(0, 5).map((zone, i) => (
          <Stack key={i} direction="row" spacing={1} sx={{ alignItems: 'center' }}>
            <ChevronSign shrink={zone.way === 'shrink'} />
            <Typography component="span">
              {zoneWords(zone, laid, letters, (mm2) => showArea(mm2, 1))}
            </Typography>
          </Stack>
        ))}
        {laid.zones.length === 0 && (
          <Typography>
            Nothing: it unrolls. Roll or bend it, no metal is stretched or gathered.
          </Typography>
        )}
      </Stack>
    </Box>
  );
}
