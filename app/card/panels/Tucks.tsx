import type { PatternDoc } from '#core/card/pattern';
import { wedgesOn } from '#core/card/tucksOnCard';
import { useView } from '../../drawing/Drawing';
import { Figure } from '../../drawing/marks';

/** Tucks as paper lapped over itself, slits as paper that stands open, each with its number. */
export function Tucks({ pattern }: { pattern: PatternDoc }) {
  const { px } = useView();
  return (
    <g pointerEvents="none">
      {wedgesOn(pattern).map(({ tuck, mouth, point }, i) => {
        const [a, b, c] = [px(mouth[0]), px(mouth[1]), px(point)];
        const slit = tuck.kind === 'slit';
        return (
          <g key={tuck.id}>
            <polygon
              points={[a, b, c].map((p) => p.join(',')).join(' ')}
              fill={slit ? 'var(--bench-top)' : 'var(--manila-edge)'}
              opacity={slit ? 1 : 0.75}
              stroke="var(--card-pencil)"
              strokeWidth={1.4}
            />
            {!slit && (
              <line
                x1={a[0]}
                y1={a[1]}
                x2={c[0]}
                y2={c[1]}
                stroke="var(--card-pencil)"
                strokeWidth={2.6}
              />
            )}
            <Figure
              at={point}
              text={`${slit ? 'slit' : 'tuck'} ${i + 1}`}
              colour="var(--card-pencil)"
              ground="var(--manila)"
              dy={0}
            />
          </g>
        );
      })}
    </g>
  );
}
