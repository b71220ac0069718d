import type { RoadGiven, Stop } from './stop';
import { stop } from './stop';

export function cardStop({ pattern, problems, changedThere = 0 }: RoadGiven): Stop {
  if (pattern.sides.length === 0) return stop('ahead', 'No outline yet');
  const stops = problems.filter((p) => p.severity === 'stop').length;
  if (stops > 0)
    return stop(
      'attention',
      `${stops} to mend`,
      'A fault of the card stands in the way of a blank.',
    );
  if (changedThere > 0)
    return stop(
      'attention',
      'The first has changed',
      'The card it was made from has changed since.',
    );
  const folds = pattern.folds.length;
  const flat = pattern.crown ? 'Curved two ways' : 'Flat';
  return stop('done', folds === 0 ? flat : folds === 1 ? '1 fold' : `${folds} folds`);
}
