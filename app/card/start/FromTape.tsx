import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useMemo } from 'react';
import { outlineByTape } from '#core/card/byTape';
import { emptyPattern } from '#core/card/emptyPattern';
import { outlineFromPoints } from '#core/card/legs';
import { patternParts } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import { boxOf } from '#core/measure/path';
import type { Problem } from '#core/measure/result';
import type { Vec } from '#core/measure/vector';
import { Drawing, useView } from '../../drawing/Drawing';
import { Choice } from '../../forms/Choice';
import { LengthField } from '../../forms/LengthField';
import { useDraft } from '../../forms/useDraft';
import { Told } from '../../frame/Told';
import { usePreferences } from '../../frame/preferences';
import { problemSentence } from '../../frame/sentences';
import { usePiece } from '../../piece/pieceContext';
import { newId } from '../../frame/newId';
import { WayInFoot } from './WayInFoot';

/** What was taped, by the corners it runs between (`1 2`); `uMm`: how good a tape is. */
type Taped = { count: number; uMm: number; mm: Record<string, number | null> };
const COUNTS = [3, 4, 5, 6, 7, 8, 9, 10, 11, 12] as const;
const keyOf = (i: number, j: number) => `${Math.min(i, j) + 1} ${Math.max(i, j) + 1}`;

/**
 * A card that can't be laid flat: measured corner to corner and across, its outline as surely as
 * the tapes say.
 */
export function FromTape({
  onDone,
  onBack,
}: {
  onDone: (card: PatternDoc) => void;
  onBack: () => void;
}) {
  const { id } = usePiece();
  const { show } = usePreferences();
  const { draft, set, drop } = useDraft<Taped>(`tape ${id}`, { count: 4, uMm: 0.5, mm: {} });
  const { count, uMm, mm } = draft;
  const pairs = useMemo(() => pairsOf(count), [count]);
  const spans = useMemo(
    () =>
      pairs.flatMap(([from, to]) => {
        const read = mm[keyOf(from, to)];
        return read ? [{ from, to, mm: read }] : [];
      }),
    [pairs, mm],
  );
  const found = useMemo(
    () => (spans.length > 0 ? outlineByTape(count, spans, uMm) : null),
    [count, spans, uMm],
  );
  const built = found?.ok ? outlineFromPoints(found.corners) : null;
  const most = found?.ok ? Math.max(...found.uMm) * Math.max(1, found.sigma0 ?? 1) : 0;
  const wrong = found?.ok && found.suspect !== null ? found.tapes[found.suspect]! : null;
  const disagree = found?.ok && wrong === null && (found.sigma0 ?? 0) > 3;
  const make = () => {
    if (!built?.ok) return;
    drop();
    onDone({
      ...emptyPattern(),
      ...patternParts(built.path, newId),
      measured: { by: 'tape', uMm: most },
    });
  };
  const corners = found?.ok ? found.corners : exampleOf(count);
  return (
    <Box
      sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: { xs: 'column', md: 'row' } }}
    >
      <Box sx={{ flex: 1, position: 'relative', minHeight: 260 }}>
        <Drawing bounds={boxOf(corners)} ground="card" label="The card as it is taped">
          <TapedPicture
            corners={corners}
            faint={!found?.ok}
            across={pairs.filter(([i, j]) => !isSide(i, j, count) && mm[keyOf(i, j)])}
            wrong={wrong ? ([Number(wrong.from) - 1, Number(wrong.to) - 1] as const) : null}
          />
        </Drawing>
      </Box>
      <Box
        component="aside"
        aria-label="Drawer"
        sx={{
          flex: { md: '0 0 440px' },
          bgcolor: 'var(--panel)',
          borderLeft: { md: '1.5px solid var(--rule)' },
          p: 2.5,
          overflowY: 'auto',
          display: 'grid',
          gap: 1.6,
          alignContent: 'start',
        }}
      >
        <Typography variant="h2">Corners by tape</Typography>
        <Typography>
          Number the corners round the card. Tape every side, then across: with every tape more than
          it takes, one that is misread shows.
        </Typography>
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.4 }}>
          <Choice
            label="Corners"
            value={String(count)}
            onChange={(next) => set({ count: Number(next) })}
            options={COUNTS.map((n) => [String(n), String(n)] as const)}
          />
          <LengthField
            label="A tape is good to ±"
            mm={uMm}
            min={0.05}
            max={50}
            digits={2}
            onChange={(next) => next && set({ uMm: next })}
          />
        </Box>
        {(['Sides', 'Across'] as const).map((part) => {
          const list = pairs.filter(([i, j]) => isSide(i, j, count) === (part === 'Sides'));
          return (
            list.length > 0 && (
              <Box key={part} component="section" aria-label={part}>
                <Typography variant="h3" gutterBottom>
                  {part}
                </Typography>
                <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.4 }}>
                  {list.map(([i, j]) => (
                    <LengthField
                      key={keyOf(i, j)}
                      label={`${i + 1} to ${j + 1}`}
                      mm={mm[keyOf(i, j)] ?? null}
                      min={0.1}
                      empty={part === 'Sides' ? 'tape it' : 'if taped'}
                      onChange={(read) => set({ mm: { ...mm, [keyOf(i, j)]: read } })}
                    />
                  ))}
                </Box>
              </Box>
            )
          );
        })}
        {found && !found.ok && (
          <Typography role="status">{looseSaid(found.problems[0]!, show)}</Typography>
        )}
        {wrong && (
          <Told>
            {wrong.from} to {wrong.to} does not go with the others: most likely it was read too{' '}
            {wrong.residualMm < 0 ? 'long' : 'short'}. Tape it again.
          </Told>
        )}
        {disagree && (
          <Told>
            The tapes do not go together, and it cannot be told which of them is off. Tape some more
            across, or those again that were hard to reach.
          </Told>
        )}
        {found?.ok && (
          <Typography role="status">
            A corner is sure to <span className="figure">± {show(most)}</span> at most.{' '}
            {found.redundancy === 0
              ? 'No tape checks another: one more across would.'
              : found.redundancy === 1
                ? 'One tape more than it takes.'
                : `${found.redundancy} tapes more than it takes.`}
          </Typography>
        )}
        {built && !built.ok && <Told>{problemSentence(built.problems[0]!, null, show)}</Told>}
        <WayInFoot onMake={built?.ok ? make : null} onBack={onBack} />
      </Box>
    </Box>
  );
}

/** What the tapes leave open, in corners. */
const looseSaid = (problem: Problem, show: (mm: number) => string) =>
  problem.code === 'undetermined'
    ? `Corner ${(problem.about ?? []).join(', ')}: too few tapes yet to say where. Tape on, and across.`
    : problemSentence(problem, null, show);

const isSide = (i: number, j: number, count: number) => j - i === 1 || (i === 0 && j === count - 1);

/**
 * Sides first in their order; then across: of few corners all there are, of many those from the
 * first and over one corner.
 */
function pairsOf(count: number): [number, number][] {
  const sides = Array.from({ length: count }, (_, i): [number, number] =>
    i < count - 1 ? [i, i + 1] : [0, i],
  );
  const across: [number, number][] = [];
  for (let i = 0; i < count; i++)
    for (let j = i + 2; j < count; j++)
      if (!isSide(i, j, count) && (count <= 6 || i === 0 || j - i === 2)) across.push([i, j]);
  return [...sides, ...across];
}

/** Something to look at until there is enough taped. */
const exampleOf = (count: number): Vec[] =>
  Array.from({ length: count }, (_, i) => {
    const turn = (2 * Math.PI * (i + 0.5)) / count - Math.PI / 2 - Math.PI / count;
    return [150 + 150 * Math.cos(turn), 100 + 100 * Math.sin(turn)];
  });

type TapedProps = {
  corners: readonly Vec[];
  faint: boolean;
  across: readonly (readonly [number, number])[];
  wrong: readonly [number, number] | null;
};

function TapedPicture({ corners, faint, across, wrong }: TapedProps) {
  const { px } = useView();
  const at = corners.map(px);
  const tape = ([i, j]: readonly [number, number], stroke: string, width: number) => (
    <line
      key={`${i} ${j}`}
      x1={at[i]![0]}
      y1={at[i]![1]}
      x2={at[j]![0]}
      y2={at[j]![1]}
      stroke={stroke}
      strokeWidth={width}
      strokeDasharray="10 5"
    />
  );
  return (
    <g opacity={faint ? 0.4 : 1}>
      <polygon
        points={at.map((p) => p.join(',')).join(' ')}
        fill="var(--manila)"
        stroke="var(--card-pencil)"
        strokeWidth={2}
      />
      {!faint && across.map((pair) => tape(pair, 'var(--layout)', 1.6))}
      {!faint && wrong && tape(wrong, 'var(--torch)', 4)}
      {at.map(([x, y], i) => (
        <g key={i}>
          <circle
            cx={x}
            cy={y}
            r={13}
            fill="var(--tag)"
            stroke="var(--tag-ink)"
            strokeWidth={1.4}
          />
          <text
            x={x}
            y={y + 6}
            textAnchor="middle"
            fontFamily="Barlow Condensed"
            fontWeight={600}
            fontSize={18}
            fill="var(--tag-ink)"
          >
            {i + 1}
          </text>
        </g>
      ))}
    </g>
  );
}
