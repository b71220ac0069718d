import Box from '@mui/material/Box';
import type { Development } from '#core/blank/fold/developed';
import { planOf } from '#core/blank/fold/order/plan';
import type { OrderStep } from '#core/blank/fold/order/solve';

const WIDE = 150;
const HIGH = 118;
const ROOM = 16;

/**
 * How the blank lies before the one who folds, from above: the line across, you below it; the side
 * you drew on in blue.
 */
export function PlanPicture({ development, step }: { development: Development; step: OrderStep }) {
  const { outline, line, folds } = planOf(development, step);
  const [xs, ys] = [outline.map(([x]) => x), outline.map(([, y]) => y)];
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const scale = Math.min(
    (WIDE - 2 * ROOM) / Math.max(1, x1 - x0),
    (HIGH - 2 * ROOM) / Math.max(1, y1 - y0),
  );
  const at = ([x, y]: readonly [number, number]) =>
    [WIDE / 2 + (x - (x0 + x1) / 2) * scale, HIGH / 2 - (y - (y0 + y1) / 2) * scale] as const;
  const [a, b] = line.map(at) as [readonly [number, number], readonly [number, number]];
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      role="img"
      aria-label="How it lies, from above; you stand below"
      sx={{
        width: WIDE,
        height: HIGH,
        flex: 'none',
        bgcolor: 'var(--bench-top)',
        border: '1.5px solid var(--rule)',
      }}
    >
      <path
        d={`M${outline
          .map((p) =>
            at(p)
              .map((v) => v.toFixed(1))
              .join(' '),
          )
          .join('L')}Z`}
        fill={step.faceUp ? 'var(--layout)' : 'var(--zinc)'}
        stroke="var(--ink)"
        strokeWidth={1.4}
        fillOpacity={step.faceUp ? 0.75 : 1}
      />
      <line x1={a[0] - 9} y1={a[1]} x2={b[0] + 9} y2={b[1]} stroke="var(--torch)" strokeWidth={4} />
      {folds.map(({ fold, at: p }) => {
        const [x, y] = at(p);
        const now = fold === step.fold;
        return (
          <g key={fold}>
            <circle
              cx={x}
              cy={y}
              r={now ? 10 : 8}
              fill={now ? 'var(--torch)' : 'var(--panel)'}
              stroke="var(--ink)"
              strokeWidth={now ? 0 : 1}
            />
            <text
              x={x}
              y={y + 4.5}
              textAnchor="middle"
              fontSize={now ? 14 : 12}
              fontWeight={600}
              fill={now ? 'var(--panel)' : 'var(--ink)'}
              className="condensed"
            >
              {fold + 1}
            </text>
          </g>
        );
      })}
    </Box>
  );
}
