import { useView } from '../../drawing/Drawing';
import type { Shown } from './underlay';

/** The straightened picture, as large as life under the drawing. */
export function UnderlayPicture({ shown, opacity }: { shown: Shown; opacity: number }) {
  const { px, scale } = useView();
  const [x, y] = px([shown.leftMm, shown.topMm]);
  return (
    <image
      href={shown.url}
      x={x}
      y={y}
      width={shown.wideMm * scale}
      height={shown.highMm * scale}
      preserveAspectRatio="none"
      opacity={opacity}
      pointerEvents="none"
    />
  );
}
