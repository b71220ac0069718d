import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import type { DrawnMap } from '#core/surface/panel/drawnMap';
import { TRACK_MM } from '#core/surface/strain/tracks';
import { distance } from '#core/measure/vector';
import { usePreferences } from '../frame/preferences';

type Track = DrawnMap['tracks'][number];
/** What is drawn over the blank: the map, or the tracks of a tool in a round. */
export type TrackLook = { tool: 'map' | 'wheel' | 'hammer'; round: number };
type Asked = { tool: string; round: number };

/** The tracks that a look asks for. */
export const tracksOf = (tracks: readonly Track[], { tool, round }: Asked): Track[] =>
  tracks.filter((track) => track.tool === tool && track.round === round);

const long = (tracks: readonly Track[]): number =>
  tracks.reduce(
    (sum, { places }) =>
      sum + places.slice(1).reduce((all, p, i) => all + distance(p, places[i]!), 0),
    0,
  );

/** Where the wheel or the hammer goes to raise the middle, round by round. */
export function RaisingTracks({
  tracks,
  look,
  onLook,
}: {
  tracks: readonly Track[];
  look: TrackLook;
  onLook: (look: TrackLook) => void;
}) {
  const { show } = usePreferences();
  const rounds = Math.max(
    1,
    ...tracks.filter(({ tool }) => tool === look.tool).map(({ round }) => round),
  );
  const mine = tracksOf(tracks, look);
  return (
    // Right under the drawing on a phone: what is chosen here is seen there.
    <Box
      component="section"
      aria-label="Where it is worked"
      sx={{ display: 'grid', gap: 1, order: { xs: -1, md: 0 } }}
    >
      <ToggleButtonGroup
        exclusive
        fullWidth
        value={look.tool}
        aria-label="What is drawn"
        onChange={(_, tool: TrackLook['tool'] | null) => tool && onLook({ tool, round: 1 })}
      >
        <ToggleButton value="map">Map</ToggleButton>
        <ToggleButton value="wheel">Wheel</ToggleButton>
        <ToggleButton value="hammer">Hammer</ToggleButton>
      </ToggleButtonGroup>
      {look.tool !== 'map' && (
        <>
          <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
            <Button
              variant="outlined"
              aria-label="The round before"
              disabled={look.round <= 1}
              onClick={() => onLook({ ...look, round: look.round - 1 })}
              sx={{ minWidth: 52 }}
            >
              −
            </Button>
            <Typography role="status" sx={{ flex: 1, textAlign: 'center', fontSize: '1.08rem' }}>
              Round {look.round} of {rounds}: {mine.length}{' '}
              {look.tool === 'wheel'
                ? mine.length === 1
                  ? 'track'
                  : 'tracks'
                : mine.length === 1
                  ? 'ring'
                  : 'rings'}
              , <span className="figure">{show(long(mine), 0)}</span> in all
            </Typography>
            <Button
              variant="outlined"
              aria-label="The next round"
              disabled={look.round >= rounds}
              onClick={() => onLook({ ...look, round: look.round + 1 })}
              sx={{ minWidth: 52 }}
            >
              +
            </Button>
          </Box>
          <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
            {look.tool === 'wheel'
              ? `Tracks ${show(TRACK_MM, 0)} apart, to and fro. Each round lies within the next line of the map and runs between the tracks of the one before. Look after each round: the last may not be wanted.`
              : 'Rings from the middle out, blow by blow along each; turn the panel and go round again where it still lies low.'}
          </Typography>
        </>
      )}
    </Box>
  );
}
