import Box from '@mui/material/Box';
import type { Look } from '#core/survey/references';
import { inTime } from '#core/survey/growth';
import { usePreferences } from '../frame/preferences';

const [WIDTH, HEIGHT, ROOM] = [300, 150, 12];

/** How a finding grew: its looks one round the other, to scale, the latest outermost. */
export function Growth({ looks }: { looks: readonly Look[] }) {
  const { brief } = usePreferences();
  const measured = inTime(looks).flatMap(({ lengthMm, widthMm }) =>
    lengthMm && widthMm ? [{ lengthMm, widthMm }] : [],
  );
  const last = measured[measured.length - 1];
  if (!last)
    return (
      <Box sx={{ height: 56, display: 'grid', placeItems: 'center', color: 'var(--ink)' }}>
        Not measured yet.
      </Box>
    );
  const most = (of: 'lengthMm' | 'widthMm') => Math.max(...measured.map((one) => one[of]));
  const scale = Math.min(
    (WIDTH - 2 * ROOM) / most('lengthMm'),
    (HEIGHT - 2 * ROOM - 18) / most('widthMm'),
  );
  const [cx, cy] = [WIDTH / 2, (HEIGHT - 18) / 2];
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      width="100%"
      style={{ display: 'block', maxHeight: 190 }}
      role="img"
      aria-label={`How it grew: ${measured.map((one) => `${brief(one.lengthMm, 0)} by ${brief(one.widthMm, 0)}`).join(', then ')}`}
    >
      {[...measured].reverse().map(({ lengthMm, widthMm }, i) => {
        const [w, h] = [Math.max(lengthMm * scale, 3), Math.max(widthMm * scale, 3)];
        return (
          <rect
            key={i}
            x={cx - w / 2}
            y={cy - h / 2}
            width={w}
            height={h}
            rx={Math.min(w, h) * 0.28}
            fill={`color-mix(in srgb, var(--torch) ${Math.min(70, 12 + 58 * ((i + 1) / measured.length))}%, transparent)`}
            stroke="var(--torch)"
            strokeWidth={i === 0 ? 2 : 1.2}
            strokeDasharray={i === 0 ? undefined : '5 3'}
          />
        );
      })}
      <text
        x={cx}
        y={HEIGHT - 5}
        textAnchor="middle"
        fontSize="16"
        fill="var(--ink)"
        className="figure"
      >
        {measured.length > 1 &&
          `${brief(measured[0]!.lengthMm, 0)} × ${brief(measured[0]!.widthMm, 0)} → `}
        {brief(last.lengthMm, 0)} × {brief(last.widthMm, 0)}
      </text>
    </svg>
  );
}
