import type { PatternDoc } from '#core/card/pattern';
import { partsOf } from '#core/card/rule/dependents';
import { directionAt, pointAt } from '#core/measure/segment';
import type { Vec } from '#core/measure/vector';
import { useView } from '../../drawing/Drawing';
import { usePreferences } from '../../frame/preferences';
import { rulePencilled, straightOf } from './ruleWords';

/** How far along its side a rule is pencilled, as a share: clear of the tag in the middle. */
const AT = 0.24;
/** A pencil stroke across a side leans by this and is this long either side of it, px. */
const [LEAN, REACH, APART] = [3, 8, 4.5];
/** From the side to the middle of the word, toward the inside of the card, px; and its size. */
const [INWARD, SIZE] = [16, 13];
/** From one rule of a side to the next along it, px. */
const NEXT = 92;

/**
 * Rules on the drawing, as one pencils them on a card: slanting strokes across each side that is
 * ruled, as many as tell the rules apart, and beside them a word for what it is meant to be; at a
 * corner or a hole the same beside it. Parts being gathered glow.
 */
export function RuleMarks({
  pattern,
  gathered,
}: {
  pattern: PatternDoc;
  gathered: readonly string[];
}) {
  const { px } = useView();
  const { bare } = usePreferences();
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
          const word = rulePencilled(rule, bare);
          const side = straightOf(pattern, id);
          if (!side) {
            const at = placeOf(pattern, id);
            if (!at) return null;
            const [x, y] = px(at);
            return (
              <g
                key={`${rule.id} ${id}`}
                transform={`translate(${x + 12} ${y + 20 + 16 * before})`}
              >
                <Pencilled strokes={strokes} word={word} beside />
              </g>
            );
          }
          const [x, y] = px(pointAt(side, AT));
          const [dx, dy] = directionAt(side, AT);
          const turn = (Math.atan2(-dy, dx) * 180) / Math.PI;
          const [atX, atY] = [x + before * NEXT * dx, y - before * NEXT * dy];
          return (
            <g key={`${rule.id} ${id}`} transform={`translate(${atX} ${atY}) rotate(${turn})`}>
              <Pencilled strokes={strokes} word={word} upright={Math.abs(turn) <= 90} />
            </g>
          );
        }),
      )}
    </g>
  );
}

/**
 * Strokes of a pencil and a word, along a side whose inside lies upward, or `beside` a place; the
 * word the right way up.
 */
function Pencilled({
  strokes,
  word,
  beside = false,
  upright = true,
}: {
  strokes: number;
  word: string;
  beside?: boolean;
  upright?: boolean;
}) {
  const reach = beside ? REACH * 0.6 : REACH;
  const wide = (strokes - 1) * APART;
  return (
    <g stroke="var(--card-pencil)" strokeLinecap="round" opacity={0.85}>
      {Array.from({ length: strokes }, (_, i) => {
        const x = i * APART - wide / 2;
        return (
          <line
            key={i}
            x1={x - LEAN}
            y1={reach - (i % 2)}
            x2={x + LEAN}
            y2={-reach - ((i + 1) % 2)}
            strokeWidth={1.4}
          />
        );
      })}
      <text
        className="condensed"
        transform={beside ? undefined : `translate(0 ${-INWARD}) rotate(${upright ? 0 : 180})`}
        x={beside ? wide / 2 + 8 : 0}
        y={beside ? 0 : upright ? 0 : 2}
        textAnchor={beside ? 'start' : 'middle'}
        dominantBaseline="middle"
        fontSize={SIZE}
        fontStyle="italic"
        fill="var(--card-pencil)"
        stroke="var(--manila)"
        strokeWidth={3}
        paintOrder="stroke"
      >
        {word}
      </text>
    </g>
  );
}

const placeOf = (pattern: PatternDoc, id: string): Vec | null => {
  const found = pattern.corners.find((c) => c.id === id) ?? pattern.holes.find((h) => h.id === id);
  return found ? [found.x, found.y] : null;
};

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
