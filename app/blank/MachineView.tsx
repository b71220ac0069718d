import Box from '@mui/material/Box';
import Slider from '@mui/material/Slider';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { Suspense, lazy, useState } from 'react';
import type { Development } from '#core/blank/fold/developed';
import { OrderPicture } from './OrderPicture';
import { settledBy } from '../folding/foldRows';
import type { Ordering } from '../folding/useOrdering';

// three.js is large and only wanted when someone turns the machine in space.
const AtMachine = lazy(() => import('./AtMachine'));
const Folded = lazy(() => import('./Folded'));

const Nothing = ({ children }: { children: string }) => (
  <Box sx={{ position: 'absolute', inset: 0, display: 'grid', placeItems: 'center', p: 4 }}>
    {children}
  </Box>
);

type Props = Pick<Ordering, 'shown' | 'brake' | 'saved' | 'ordered' | 'rows'> & {
  development: Development;
};

/** A fold at the machine, in section or in space, swung as far as the slider says. */
export function MachineView({ development, shown, brake, saved, ordered, rows }: Props) {
  const [space, setSpace] = useState(false);
  const [swing, setSwing] = useState<{ fold: number; share: number } | null>(null);
  if (!brake) return <Nothing>The shop has no machine to fold on yet.</Nothing>;
  if (!shown)
    return ordered.state === 'found' ? (
      <Suspense fallback={<Nothing>Setting the piece up …</Nothing>}>
        <Box sx={{ position: 'absolute', inset: 0, display: 'flex', flexDirection: 'column' }}>
          <Box sx={{ flex: 1, minHeight: 0, position: 'relative' }}>
            <Folded development={development} rows={rows} water={null} />
          </Box>
          <Box sx={{ px: 3, py: 1, bgcolor: 'var(--panel)' }}>
            This fold is made, and how it lay in the machine was not written down. Here is the piece
            in space: the slider folds it.
          </Box>
        </Box>
      </Suspense>
    ) : null;
  const { step, made, hit } = shown;
  const share = swing?.fold === step.fold ? swing.share : 1;
  const { anglesDeg } = settledBy(development, saved.draft, false);
  const now = anglesDeg.map((angle, i) =>
    i === step.fold ? step.angleDeg * share : made.includes(i) ? angle : 0,
  );
  return (
    <Box sx={{ position: 'absolute', inset: 0, display: 'flex', flexDirection: 'column' }}>
      <Box sx={{ flex: 1, minHeight: 0, position: 'relative' }}>
        {space ? (
          <Suspense fallback={<Box sx={{ p: 4 }}>Setting the machine up …</Box>}>
            <AtMachine
              development={development}
              brake={brake}
              step={step}
              anglesDeg={now}
              turnedAfter={saved.draft.turnedAfter}
            />
          </Suspense>
        ) : (
          <OrderPicture
            development={development}
            brake={brake}
            step={step}
            made={made}
            hit={hit}
            anglesDeg={anglesDeg}
            turnedAfter={saved.draft.turnedAfter}
            share={share}
          />
        )}
        <ToggleButtonGroup
          exclusive
          value={space}
          aria-label="How the machine is shown"
          onChange={(_, next: boolean | null) => next !== null && setSpace(next)}
          sx={{ position: 'absolute', left: 12, bottom: 12, bgcolor: 'var(--panel)' }}
        >
          <ToggleButton value={false}>Section</ToggleButton>
          <ToggleButton value={true}>In space</ToggleButton>
        </ToggleButtonGroup>
      </Box>
      <Box
        sx={{
          px: 3,
          py: 1,
          bgcolor: 'var(--panel)',
          display: 'flex',
          alignItems: 'center',
          gap: 3,
        }}
      >
        <Box className="condensed" sx={{ minWidth: 110, fontSize: '1.1rem', fontWeight: 600 }}>
          Fold {step.fold + 1}: {Math.round(step.angleDeg * share)}°
        </Box>
        <Slider
          value={share}
          min={0}
          max={1}
          step={0.02}
          onChange={(_, value) => setSwing({ fold: step.fold, share: value as number })}
          aria-label="How far it is swung"
        />
      </Box>
    </Box>
  );
}
