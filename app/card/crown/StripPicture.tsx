import { usePreferences } from '../../frame/preferences';

const [WIDE, MARGIN] = [380, 14];

/**
 * A cut as a strip reads it: the straight edge, and the drop from it to the metal at a few
 * stations.
 */
export function StripPicture({ ordinates }: { ordinates: readonly (readonly [number, number])[] }) {
  const { brief, show } = usePreferences();
  const whole = ordinates[ordinates.length - 1]![0];
  const deepest = Math.max(...ordinates.map(([, drop]) => drop));
  const scale = (WIDE - 2 * MARGIN) / Math.max(1, whole);
  const high = Math.max(54, deepest * scale + 44);
  const at = ([s, drop]: readonly [number, number]): [number, number] => [
    MARGIN + s * scale,
    22 + drop * scale,
  ];
  const every = Math.max(1, Math.round((ordinates.length - 1) / 6));
  return (
    <svg
      viewBox={`0 0 ${WIDE} ${high}`}
      width="100%"
      role="img"
      aria-label={`Drops along the cut, ${show(deepest)} at the most over ${show(whole)}`}
    >
      <rect
        x={MARGIN - 8}
        y={10}
        width={WIDE - 2 * MARGIN + 16}
        height={12}
        fill="var(--panel)"
        stroke="var(--ink)"
        strokeWidth={1.4}
      />
      <polyline
        points={ordinates.map((p) => at(p).join(',')).join(' ')}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={3}
        strokeLinejoin="round"
      />
      {ordinates
        .filter((_, i) => i % every === 0)
        .map(([s, drop]) => {
          const [x, y] = at([s, drop]);
          return (
            <g key={s}>
              <line x1={x} y1={22} x2={x} y2={y} stroke="var(--layout)" strokeWidth={1.2} />
              <text
                x={x}
                y={y + 17}
                textAnchor="middle"
                fontSize={14}
                className="figure"
                fill="var(--ink)"
              >
                {brief(drop)}
              </text>
            </g>
          );
        })}
    </svg>
  );
}
