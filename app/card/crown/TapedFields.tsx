import Typography from '@mui/material/Typography';
import Stack from '@mui/material/Stack';
import type { PatternDoc } from '#core/card/pattern';
import type { Taped } from '#core/surface/mesh/packed';
import { usePreferences } from '../../frame/preferences';

/** A panel from the card's own tucks: what it was made from, and how rough that is. */
export function TapedFields({
  pattern,
  taped,
  busy,
}: {
  pattern: PatternDoc;
  taped: Taped | null;
  busy: boolean;
}) {
  const { show } = usePreferences();
  const count = pattern.tucks.length;
  return (
    <Stack spacing={0.8}>
      <Typography>
        {count > 0
          ? `The card’s ${count === 1 ? 'tuck or slit' : `${count} tucks and slits`} taped shut, bowed toward you, and smoothed.`
          : taped
            ? 'From the tucks that the card had when it was laid flat.'
            : 'This card has no tucks: under Card put them on where the paper lapped or stood open on the panel.'}
      </Typography>
      {busy && <Typography role="status">Taping the paper …</Typography>}
      {taped && (
        <Typography sx={{ borderLeft: '5px solid var(--layout)', pl: 1.5 }}>
          Right to about <b className="figure">± {show(Math.max(0.5, taped.offMm))}</b>: as far as
          paper and smooth surface are apart, where the tucks run out. It is the roughest way;
          strips from the panel prove it.
        </Typography>
      )}
    </Stack>
  );
}
