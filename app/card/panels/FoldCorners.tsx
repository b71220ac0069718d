import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { Corner } from '#core/blank/fold/corners';
import { setEdge } from '#core/card/edit';
import type { Edge, Fold, FoldMeeting, PatternDoc } from '#core/card/pattern';
import { outlineOf } from '#core/card/outline';
import { Choice } from '../../forms/Choice';
import { LengthField } from '../../forms/LengthField';
import { FoldAway } from '../../frame/FoldAway';
import { usePreferences } from '../../frame/preferences';
import { usePiece } from '../../piece/pieceContext';

/** A tab to begin with: as wide as two rows of spots need, mm (common practice). */
const TAB_MM = 15;

const KIND_SAID: Record<FoldMeeting['kind'], string> = {
  touch: 'inner corners touch',
  mitred: 'mitred',
  overlap: 'one over the other',
  'as-drawn': 'as drawn',
};

const sameFolds = (a: FoldMeeting, folds: readonly string[]) =>
  folds.every((fold) => a.folds.includes(fold));

/** A card on which two folds meet otherwise. */
const withMeeting = (pattern: PatternDoc, next: FoldMeeting): PatternDoc => ({
  ...pattern,
  meetings: [...(pattern.meetings ?? []).filter((one) => !sameFolds(one, next.folds)), next],
});

/** The corners at which the wall of a fold meets another: how they are joined, and what each loses. */
export function FoldCorners({ fold }: { fold: Fold }) {
  const { pattern, development } = usePiece();
  const index = pattern.folds.indexOf(fold);
  if (!development.ok || index < 0) return null;
  const corners = development.development.corners.filter(({ folds }) => folds.includes(index));
  if (corners.length === 0) return null;
  return (
    <>
      {corners.map((corner) => (
        <OneCorner key={corner.folds.join(' ')} corner={corner} fold={fold} index={index} />
      ))}
    </>
  );
}

function OneCorner({ corner, fold, index }: { corner: Corner; fold: Fold; index: number }) {
  const { pattern, patternEditor } = usePiece();
  const { show, showThin } = usePreferences();
  const own = corner.folds[0] === index ? 0 : 1;
  const other = corner.folds[1 - own]!;
  const otherFold = pattern.folds[other]!;
  const { meeting } = corner;
  const [cut, otherCut] = [corner.cutMm[own]!, corner.cutMm[1 - own]!];
  const put = (change: Partial<FoldMeeting>) =>
    patternEditor.edit(
      withMeeting(pattern, { ...meeting, folds: [fold.id, otherFold.id], ...change }),
      `corner ${fold.id} ${otherFold.id}`,
    );
  const under = meeting.over === fold.id ? 1 - own : own;
  const tabEdge = edgeOfSide(pattern, corner.sides[under as 0 | 1]);
  const tabbed = tabEdge?.joint.kind === 'plug-flange' && tabEdge.joint.turnDeg > 0;
  return (
    <FoldAway title={`Corner with fold ${other + 1}: ${KIND_SAID[meeting.kind]}`}>
      <Box sx={{ display: 'grid', gap: 1.2 }}>
        <Choice
          label="The two walls"
          value={
            meeting.kind === 'overlap'
              ? meeting.over === fold.id
                ? 'over'
                : 'under'
              : meeting.kind
          }
          onChange={(kind) =>
            put(
              kind === 'over' || kind === 'under'
                ? { kind: 'overlap', over: kind === 'over' ? fold.id : otherFold.id }
                : { kind, over: null },
            )
          }
          options={[
            ['touch', 'Inner corners touch; weld closes the V outside'],
            ['mitred', 'Mitred edge to edge: bevel both'],
            ['over', 'This one over the other'],
            ['under', 'The other over this one'],
            ['as-drawn', 'As they are drawn: fitted by hand'],
          ]}
        />
        <LengthField
          label="Left open for the weld"
          mm={meeting.gapMm}
          min={0}
          max={100}
          thin
          onChange={(gapMm) => gapMm !== null && put({ gapMm })}
        />
        <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
          {cut < 0.005 && otherCut < 0.005
            ? 'Neither is cut back: as the card was made there they have room.'
            : `This wall is cut back ${showThin(cut)} there, that of fold ${other + 1} ${showThin(otherCut)}.`}{' '}
          TIG and gas want nothing left open, MIG about half the sheet (common practice).
        </Typography>
        {meeting.kind === 'overlap' && tabEdge && !tabbed && (
          <Button
            variant="outlined"
            onClick={() =>
              patternEditor.edit(
                setEdge(pattern, tabEdge.id, {
                  joint: { kind: 'plug-flange', widthMm: TAB_MM, turnDeg: 90 },
                }),
              )
            }
          >
            A tab behind it, {show(TAB_MM)} wide, on edge {tabEdge.letter}
          </Button>
        )}
      </Box>
    </FoldAway>
  );
}

function edgeOfSide(pattern: PatternDoc, side: number | null): Edge | undefined {
  if (side === null) return undefined;
  const id = outlineOf(pattern).sideIds[side];
  return pattern.edges.find(({ sides }) => id !== undefined && sides.includes(id));
}
