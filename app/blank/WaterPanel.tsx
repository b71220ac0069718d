import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import type { Development } from '#core/blank/fold/developed';
import type { FallRemedy } from '#core/blank/fold/water/water';
import { lapsMet } from '#core/blank/fold/water/water';
import { AngleField } from '../forms/AngleField';
import { Choice } from '../forms/Choice';
import { SelfSavedWord } from '../forms/SelfSavedWord';
import { FoldAway } from '../frame/FoldAway';
import { Told } from '../frame/Told';
import { usePreferences } from '../frame/preferences';
import { problemSentence } from '../frame/sentences';
import { usePiece } from '../piece/pieceContext';
import type { Watered } from './useWater';
import { faceSaid, runSaid } from './waterWords';

const AS_IT_LIES = { fold: null, alongDeg: 0, acrossDeg: 0, faceUp: true };
const BASE = 'base';

/**
 * How the piece lies on the vehicle, where rain runs on it and where it would stand, and what makes
 * it fall.
 */
export function WaterPanel({
  development,
  saved,
  water,
  remedies,
}: Watered & { development: Development }) {
  const { pattern, patternEditor } = usePiece();
  const { show } = usePreferences();
  const { lies, drains, fallDeg } = saved.draft;
  const now = lies ?? AS_IT_LIES;
  const set = (change: Partial<typeof now>) => saved.set({ lies: { ...now, ...change } });
  const letter = (edge: string) => pattern.edges.find(({ id }) => id === edge)?.letter ?? '?';
  const hole = (id: string) => pattern.holes.findIndex((one) => one.id === id) + 1;
  const face = (index: number) => faceSaid(development, index);
  const take = (remedy: FallRemedy) => {
    if (remedy.kind === 'lie')
      return set({ alongDeg: remedy.alongDeg, acrossDeg: remedy.acrossDeg });
    const { id } = development.folds[remedy.fold]!;
    patternEditor.edit({
      ...pattern,
      folds: pattern.folds.map((fold) =>
        fold.id === id ? { ...fold, angleDeg: remedy.toDeg } : fold,
      ),
    });
  };
  const laps = water?.ok ? lapsMet(development, pattern, water.water.lying) : [];
  return (
    <FoldAway title="Where the water goes" open={lies !== null}>
      <Box component="section" aria-label="Water" sx={{ display: 'grid', gap: 1.4 }}>
        <SelfSavedWord {...saved} />
        <Typography variant="body2">
          Hold a level on a face of the piece as it lies on the vehicle: along the card from left to
          right, and along it from bottom to top. Rising counts up, falling down.
        </Typography>
        <Choice
          label="The level is held on"
          value={now.fold ?? BASE}
          onChange={(value) => set({ fold: value === BASE ? null : value })}
          options={[
            [BASE, 'the face that stays put'] as const,
            ...development.folds.map(({ id }, i) => [id, `the face beyond fold ${i + 1}`] as const),
          ]}
        />
        <ToggleButtonGroup
          exclusive
          fullWidth
          value={now.faceUp}
          aria-label="Which side looks up"
          onChange={(_, faceUp: boolean | null) => faceUp !== null && set({ faceUp })}
        >
          <ToggleButton value={true}>Drawn side up</ToggleButton>
          <ToggleButton value={false}>Drawn side down</ToggleButton>
        </ToggleButtonGroup>
        <Box
          sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', gap: 1.2, alignItems: 'end' }}
        >
          <AngleField
            label="Rises to the right"
            angleDeg={lies?.alongDeg ?? null}
            min={-90}
            max={90}
            wrong="Degrees, −90 to 90."
            onChange={(alongDeg) => set({ alongDeg })}
          />
          <AngleField
            label="Rises to the top"
            angleDeg={lies?.acrossDeg ?? null}
            min={-90}
            max={90}
            wrong="Degrees, −90 to 90."
            onChange={(acrossDeg) => set({ acrossDeg })}
          />
          <AngleField
            label="Least fall"
            angleDeg={fallDeg}
            min={0}
            max={45}
            wrong="Degrees, 0 to 45 (2 is common practice)."
            onChange={(deg) => saved.set({ fallDeg: deg })}
          />
        </Box>
        {pattern.holes.length > 0 && (
          <Box>
            <Typography className="condensed" sx={{ color: 'var(--pencil)', fontWeight: 500 }}>
              Open for water
            </Typography>
            <ToggleButtonGroup
              value={drains}
              aria-label="Open for water"
              onChange={(_, next: string[]) => saved.set({ drains: next })}
              sx={{ flexWrap: 'wrap' }}
            >
              {pattern.holes.slice(0, 24).map(({ id }, i) => (
                <ToggleButton key={id} value={id}>
                  Hole {i + 1}
                </ToggleButton>
              ))}
            </ToggleButtonGroup>
          </Box>
        )}
        {water && !water.ok && (
          <Told>{problemSentence(water.problems[0]!, pattern, (mm) => show(mm))}</Told>
        )}
        {water?.ok && (
          <>
            <Typography
              role="status"
              sx={{
                fontWeight: 600,
                borderLeft: `6px solid ${water.water.dry ? 'var(--done)' : 'var(--torch)'}`,
                pl: 1.4,
                py: 0.4,
              }}
            >
              {water.water.dry
                ? 'Everything falls, and nothing stands.'
                : 'Water would stand, or run too slowly.'}
            </Typography>
            <Box component="ul" aria-label="Where it runs" sx={{ m: 0, pl: 2.5 }}>
              {water.water.runs.map((run, i) => (
                <li key={i}>{runSaid(run, { show, letter, hole, face })}</li>
              ))}
              {water.water.tooFlat.map((index) => (
                <li key={`flat ${index}`}>
                  {`${face(index)} falls by ${water.water.lying.slopes[index]!.fallDeg.toFixed(1)}°: less than ${fallDeg}°.`.replace(
                    /^./,
                    (first) => first.toUpperCase(),
                  )}
                </li>
              ))}
              {laps.map(({ edge, top }) => (
                <li
                  key={edge}
                >{`At the lap along ${letter(edge)} water runs ${top === 'this' ? 'off this piece: it has to lie on top of the other part' : 'onto this piece: the other part has to lie on top'}, or the lap faces the water; seal it either way.`}</li>
              ))}
            </Box>
            {remedies && (
              <Box>
                <Typography variant="h3" sx={{ mb: 0.6 }}>
                  What makes it fall
                </Typography>
                {remedies === 'trying' && <Typography role="status">Being tried …</Typography>}
                {remedies === 'failed' && (
                  <Typography role="alert">
                    What tries them stopped. Load the page again.
                  </Typography>
                )}
                {remedies.length === 0 && (
                  <Typography>
                    No one fold, and no other way of laying it within 6°. Put a drain at the low
                    place, or another fold through the floor.
                  </Typography>
                )}
                <Box sx={{ display: 'grid', gap: 0.8 }}>
                  {(typeof remedies === 'string' ? [] : remedies).slice(0, 4).map((remedy) => (
                    <Button
                      key={remedy.kind === 'fold' ? remedy.fold : 'lie'}
                      variant="outlined"
                      onClick={() => take(remedy)}
                    >
                      {remedy.kind === 'fold'
                        ? `Fold ${remedy.fold + 1} to ${remedy.toDeg}° (now ${development.folds[remedy.fold]!.bend.angleDeg}°)`
                        : `Lay it at ${remedy.alongDeg}° and ${remedy.acrossDeg}°`}
                    </Button>
                  ))}
                </Box>
              </Box>
            )}
            <Typography variant="body2">
              Reckoned without splashing, wind and capillary gaps; corners where walls meet are
              taken for closed. Pour a cup of water over it before it is painted.
            </Typography>
          </>
        )}
      </Box>
    </FoldAway>
  );
}
