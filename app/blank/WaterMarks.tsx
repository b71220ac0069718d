import { useMemo } from 'react';
import type { Development } from '#core/blank/fold/developed';
import { placed } from '#core/blank/fold/refold';
import type { Water } from '#core/blank/fold/water/water';
import type { Vec } from '#core/measure/vector';
import { along, turned } from '#core/measure/vector';
import { geometryOf, useDisposed } from '../drawing/Space';

/** The way down on every face, and where water stands: over the side that rain falls on. */
export function WaterMarks({
  development,
  water,
  reach,
}: {
  development: Development;
  water: Water;
  reach: number;
}) {
  const { lying, runs } = water;
  const t = development.folds[0]?.bend.thicknessMm ?? 1;
  const over = (face: number) =>
    lying.slopes[face]!.rain === 'face' ? reach * 0.006 : -t - reach * 0.006;
  const arrows = useMemo(() => {
    const lines: number[] = [];
    lying.slopes.forEach(({ outline, down }, face) => {
      if (!down) return;
      const at = (p: Vec) =>
        placed(
          lying.frames[face]!,
          p,
          lying.slopes[face]!.rain === 'face' ? reach * 0.006 : -t - reach * 0.006,
        );
      const middle: Vec = [
        outline.reduce((sum, p) => sum + p[0], 0) / outline.length,
        outline.reduce((sum, p) => sum + p[1], 0) / outline.length,
      ];
      const long = reach * 0.045;
      const tip = along(middle, down, long);
      const put = (a: Vec, b: Vec) => lines.push(...at(a), ...at(b));
      put(along(middle, down, -long), tip);
      for (const side of [1, -1])
        put(tip, along(tip, turned(down, (side * 5 * Math.PI) / 6), long * 0.7));
    });
    return geometryOf(lines, false);
  }, [lying, reach, t]);
  useDisposed(arrows);
  return (
    <>
      <lineSegments geometry={arrows}>
        <lineBasicMaterial color="#ffffff" />
      </lineSegments>
      {runs.map(({ end }, i) => {
        if (end.kind !== 'stands') return null;
        const [x, y, z] = placed(lying.frames[end.face]!, end.at, over(end.face));
        return (
          <mesh key={i} position={[x, y, z]}>
            <sphereGeometry args={[reach * 0.018, 20, 14]} />
            <meshStandardMaterial color="#d2500a" roughness={0.4} />
          </mesh>
        );
      })}
    </>
  );
}
