import Typography from '@mui/material/Typography';
import type { PatternDoc } from '#core/card/pattern';
import type { Laid } from './useLaid';

/** What becomes of what is on the card, said before it does. */
export function Becomes({ pattern, found }: { pattern: PatternDoc; found: Laid | null }) {
  if (pattern.sides.length === 0 || !found) return null;
  const gone = [
    pattern.folds.length > 0 &&
      (pattern.folds.length === 1 ? 'its fold' : `its ${pattern.folds.length} folds`),
    pattern.beads.length > 0 &&
      (pattern.beads.length === 1 ? 'its bead' : `its ${pattern.beads.length} beads`),
    pattern.tucks.length > 0 && 'its tucks',
    pattern.rules.length > 0 && 'its rules',
  ].filter((word) => word !== false);
  const kept = pattern.crown !== null && pattern.edges.length === found.laid.outline.edges.length;
  return (
    <Typography variant="body2">
      {kept
        ? 'Edges keep their letters and joints.'
        : 'The card’s edges are lettered anew, and their joints are free.'}
      {gone.length > 0 &&
        ` ${gone.join(', ')} ${gone.length === 1 && !/s$/.test(gone[0]!) ? 'goes' : 'go'} with the old outline.`}
    </Typography>
  );
}
