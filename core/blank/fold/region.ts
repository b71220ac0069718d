import type { Segment } from '../../measure/segment';
import { line } from '../../measure/segment';
import type { BlankFold } from './developed';

/** The bend of a fold on the flat blank, between its tangents: a closed outline. */
export function bendRegion({ tangents: [near, far] }: BlankFold): Segment[] {
  const corners = [near[0], near[1], far[1], far[0]];
  return corners.map((p, i) => line(p, corners[(i + 1) % 4]!));
}
