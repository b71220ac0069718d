import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { Suspense, lazy, useMemo, useState } from 'react';
import { beyondMachine } from '#core/blank/fold/onMachine';
import type { Development } from '#core/blank/fold/developed';
import { box } from '#core/measure/path';
import { plugHoles } from '#core/weld/plugs';
import { BlankPicture } from '../drawing/BlankPicture';
import { Drawing } from '../drawing/Drawing';
import { StopLayout } from '../frame/StopLayout';
import type { TallyFigure } from '../frame/Tally';
import { usePreferences } from '../frame/preferences';
import { EdgeStory } from '../piece/EdgeStory';
import { NoBlank } from '../piece/NoBlank';
import { Notices } from '../piece/Notices';
import { usePick, usePiece } from '../piece/pieceContext';
import { BeadWorking } from './BeadWorking';
import { FlangePanel } from './FlangePanel';
import { FoldTo } from './FoldTo';
import { HoleWorking } from './HoleWorking';
import { AchievedRadiusReading } from './AchievedRadius';
import { FoldWorking } from './FoldWorking';
import { OrderPanel } from './OrderPanel';
import { MachineView } from './MachineView';
import { useOrdering } from '../folding/useOrdering';
import { WaterPanel } from './WaterPanel';
import { useWater } from './useWater';
import { CrownLink } from '../piece/CrownLink';
import { MarkingOut } from './MarkingOut';
import { ScribeTables } from './ScribeTables';
import { beadFigure, foldWorking, sizeWorkings } from './workings';

// three.js is large and only wanted when someone turns the piece in space.
const Folded = lazy(() => import('./Folded'));

/** The strip along the bottom has room for the figures of this number of folds. */
const MAX_FOLD_FIGURES = 4;

/** The blank stage: the flat outline to cut and every line to scribe on it. */
export default function BlankStage() {
  const { development } = usePiece();
  return development.ok ? <Blank development={development.development} /> : <NoBlank />;
}

function Blank({ development }: { development: Development }) {
  const { pattern, joined, facts, metal } = usePiece();
  const { pick, setPick } = usePick();
  const shown = usePreferences();
  const { show, showThin, showArea, showWeight } = shown;
  const [view, setView] = useState<'flat' | 'folded' | 'order'>('flat');
  const [table, setTable] = useState<'outline' | 'folds'>('folds');
  const { size, folds, warnings } = development;
  const plugs = useMemo(() => joined.plugsOn(development), [joined, development]);
  const workings = sizeWorkings(development, metal, facts.thicknessMm, shown);
  const ordering = useOrdering(development, view !== 'flat' && folds.length > 0);
  const watered = useWater(development, ordering.saved, view === 'folded');
  // All of them or none: a part of them would pass for the whole.
  const few = folds.length <= MAX_FOLD_FIGURES ? folds : [];
  const tally: TallyFigure[] = [
    {
      label: 'Blank',
      value: `${show(size.widthMm)} × ${show(size.heightMm)}`,
      working: workings.size,
    },
    { label: 'Area', value: showArea(size.areaMm2), working: workings.area },
    { label: 'Weight', value: showWeight(size.massKg), working: workings.mass },
    ...development.beads.slice(0, 2).map((bead, i) => beadFigure(bead, i + 1, shown)),
    ...few.map((fold, i) => ({
      // What it does to this card, as it was made there.
      label: `Fold ${i + 1} ${fold.shiftMm > 0 ? 'adds' : 'takes'}`,
      value: showThin(Math.abs(fold.shiftMm)),
      working: foldWorking(fold, shown),
    })),
    {
      label: 'Off from the card',
      value: showThin(size.differenceMm),
      working: workings.difference,
    },
  ];
  const edge = pick?.kind === 'edge' ? pattern.edges.find((e) => e.id === pick.id) : undefined;
  const bead = pick?.kind === 'bead' ? pattern.beads.find((b) => b.id === pick.id) : undefined;
  const beadHere = development.beads.find(({ id }) => id === bead?.id);
  const hole = pick?.kind === 'hole' ? development.holes.find((h) => h.id === pick.id) : undefined;
  const fold = pick?.kind === 'fold' ? folds.find((f) => f.id === pick.id) : undefined;
  return (
    <StopLayout
      drawerWidth={400}
      tally={tally}
      drawing={
        <>
          {view === 'order' ? (
            <MachineView development={development} {...ordering} />
          ) : view === 'flat' ? (
            <Drawing
              bounds={box(development.outline.map((p) => p.segment))}
              ground="blank"
              label="The blank"
              // The choice of views lies over it.
              overlay={null}
              onGround={() => setPick(null)}
            >
              <BlankPicture
                development={development}
                pattern={pattern}
                plugs={plugs}
                pick={pick}
                onPick={setPick}
                numbered={table === 'outline'}
              />
            </Drawing>
          ) : (
            <Suspense fallback={<Box sx={{ p: 4 }}>Setting the piece up …</Box>}>
              <Folded
                development={development}
                rows={ordering.rows}
                water={watered.water?.ok ? watered.water.water : null}
              />
            </Suspense>
          )}
          <ToggleButtonGroup
            exclusive
            value={view}
            aria-label="How the piece is shown"
            onChange={(_, next: typeof view | null) => next && setView(next)}
            sx={{ position: 'absolute', left: 12, top: 12, bgcolor: 'var(--panel)' }}
          >
            <ToggleButton value="flat">Flat</ToggleButton>
            <ToggleButton value="folded">Folded</ToggleButton>
            {folds.length > 0 && <ToggleButton value="order">Machine</ToggleButton>}
          </ToggleButtonGroup>
        </>
      }
      drawer={
        <Stack spacing={2}>
          <Notices problems={warnings} />
          {edge && (
            <>
              <Typography variant="h2">Edge {edge.letter}</Typography>
              <EdgeStory edgeId={edge.id} />
              <FlangePanel
                key={edge.id}
                edge={edge}
                blank={development.edges.find(({ id }) => id === edge.id)!}
              />
            </>
          )}
          {bead && beadHere && view !== 'order' && (
            <BeadWorking
              key={bead.id}
              bead={bead}
              blank={beadHere}
              number={pattern.beads.indexOf(bead) + 1}
              development={development}
            />
          )}
          {hole && view !== 'order' && (
            <HoleWorking hole={hole} number={development.holes.indexOf(hole) + 1} />
          )}
          {fold && view !== 'order' && ordering.brake && (
            <Notices
              problems={beyondMachine(development, ordering.brake).filter(({ about }) =>
                about?.includes(fold.id),
              )}
            />
          )}
          {fold && view !== 'order' && (
            <FoldTo key={fold.id} fold={fold} number={folds.indexOf(fold) + 1} />
          )}
          {fold && view !== 'order' && (
            <AchievedRadiusReading
              key={`radius ${fold.id}`}
              fold={fold}
              number={folds.indexOf(fold) + 1}
            />
          )}
          {fold && <FoldWorking fold={fold} number={folds.indexOf(fold) + 1} />}
          {view !== 'order' && <CrownLink />}
          {view === 'order' && <OrderPanel {...ordering} development={development} />}
          {view === 'folded' && <WaterPanel development={development} {...watered} />}
          {view !== 'order' && (
            <ToggleButtonGroup
              exclusive
              fullWidth
              value={table}
              aria-label="What to mark on the sheet"
              onChange={(_, next: typeof table | null) => next && setTable(next)}
            >
              <ToggleButton value="outline">Outline to mark</ToggleButton>
              <ToggleButton value="folds">Folds and holes</ToggleButton>
            </ToggleButtonGroup>
          )}
          {view === 'order' ? null : table === 'folds' ? (
            <ScribeTables development={development} />
          ) : (
            <MarkingOut blank={development} plugs={plugHoles(plugs)} />
          )}
        </Stack>
      }
    />
  );
}
