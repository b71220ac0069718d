import type { PatternDoc } from '#core/card/pattern';
import { partsOf } from '#core/card/rule/hangsOn';
import { directionAt, pointAt } from '#core/measure/segment';
import type { Vec } from '#core/measure/vector';
import { useView } from '../drawing/Drawing';
import { straightOf } from './ruleWords';

/** How far outside a side its straight-edge lies, px, and half its size. */
const OFF = 13;
const LONG = 15;
/** How far along its side it lies, as a share: clear of the tag in the middle. */
const AT = 0.24;
const WIDE = 3.5;

/**
 * Rules on the drawing: a short straight-edge lies along each side that is ruled, with as many
 * strokes across it as tell the rules apart; a ring with as many ticks about a corner or a hole.
 * Parts being gathered glow.
 */
export function RuleMarks({
  pattern,
  gathered,
}: {
  pattern: PatternDoc;
  gathered: readonly string[];
}) {
  const { px } = useView();
  const laid = new Map<string, number>();
  return (
    <g pointerEvents="none">
      {gathered.map((id) => (
        <Gathered key={id} pattern={pattern} id={id} />
      ))}
      {pattern.rules.flatMap((rule, number) =>
        partsOf(rule).map((id) => {
          const before = laid.get(id) ?? 0;
          laid.set(id, before + 1);
          const strokes = (number % 5) + 1;
          const side = straightOf(pattern, id);
          if (!side) {
            const at = placeOf(pattern, id);
            return (
              at && (
                <Ring
                  key={`${rule.id} ${id}`}
                  at={px(at)}
                  strokes={strokes}
                  radius={13 + 5 * before}
                />
              )
            );
          }
          const [a, b] = [px(pointAt(side, AT - 0.005)), px(pointAt(side, AT + 0.005))];
          const [dx, dy] = directionAt(side, AT);
          const turn = (Math.atan2(-dy, dx) * 180) / Math.PI;
          const middle: Vec = [
            (a[0] + b[0]) / 2 - before * 2.4 * LONG * dx,
            (a[1] + b[1]) / 2 + before * 2.4 * LONG * dy,
          ];
          return (
            <g
              key={`${rule.id} ${id}`}
              transform={`translate(${middle.join(' ')}) rotate(${turn}) translate(0 ${OFF})`}
            >
              <rect
                x={-LONG}
                y={-WIDE}
                width={2 * LONG}
                height={2 * WIDE}
                rx={2}
                fill="var(--panel)"
                stroke="var(--layout)"
                strokeWidth={1.6}
              />
              {Array.from({ length: strokes }, (_, i) => {
                const x = (i - (strokes - 1) / 2) * 5;
                return (
                  <line
                    key={i}
                    x1={x}
                    y1={-WIDE}
                    x2={x}
                    y2={WIDE}
                    stroke="var(--layout)"
                    strokeWidth={1.6}
                  />
                );
              })}
            </g>
          );
        }),
      )}
    </g>
  );
}

const placeOf = (pattern: PatternDoc, id: string): Vec | null => {
  const found = pattern.corners.find((c) => c.id === id) ?? pattern.holes.find((h) => h.id === id);
  return found ? [found.x, found.y] : null;
};

function Ring({ at: [x, y], strokes, radius }: { at: Vec; strokes: number; radius: number }) {
  return (
    <g stroke="var(--layout)" strokeWidth={1.6} fill="none">
      <circle cx={x} cy={y} r={radius} strokeDasharray="3 3" />
      {Array.from({ length: strokes }, (_, i) => {
        const turn = -Math.PI / 2 + (i - (strokes - 1) / 2) * 0.35;
        const [c, s] = [Math.cos(turn), Math.sin(turn)];
        return (
          <line
            key={i}
            x1={x + (radius - 3) * c}
            y1={y + (radius - 3) * s}
            x2={x + (radius + 4) * c}
            y2={y + (radius + 4) * s}
          />
        );
      })}
    </g>
  );
}

function Gathered({ pattern, id }: { pattern: PatternDoc; id: string }) {
  const { px } = useView();
  const side = straightOf(pattern, id);
  const at = placeOf(pattern, id);
  if (side) {
    const [a, b] = [px(side.a), px(side.b)];
    return (
      <line
        x1={a[0]}
        y1={a[1]}
        x2={b[0]}
        y2={b[1]}
        stroke="var(--torch)"
        strokeWidth={8}
        strokeLinecap="round"
        opacity={0.55}
      />
    );
  }
  return (
    at && (
      <circle
        cx={px(at)[0]}
        cy={px(at)[1]}
        r={12}
        fill="none"
        stroke="var(--torch)"
        strokeWidth={4}
      />
    )
  );
}
