import type { RoadGiven, Stop } from './stop';
import { stop } from './stop';

export function blankStop({ pattern, development }: RoadGiven): Stop {
  if (pattern.sides.length === 0) return stop('ahead', '');
  if (!development.ok) return stop('attention', 'No blank yet');
  const { warnings } = development.development;
  return warnings.length > 0
    ? stop(
        'attention',
        warnings.length === 1 ? '1 warning' : `${warnings.length} warnings`,
        'It can be cut; what wants care stands beside it.',
      )
    : stop('done', 'Reckoned');
}
