import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Switch from '@mui/material/Switch';
import FormControlLabel from '@mui/material/FormControlLabel';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { Suspense, lazy, useMemo, useState } from 'react';
import { Navigate, Link, useNavigate } from 'react-router';
import { sheetMetal } from '#core/blank/fold/practice';
import { MAX_HELD } from '#core/card/crown';
import { crownCard } from '#core/card/crownCard';
import { mirrored } from '#core/card/mirror';
import { letterAt } from '#core/card/outline';
import { box } from '#core/measure/path';
import { metalById } from '#core/metal/metals';
import type { Described } from '#core/surface/panel/laidPanel';
import type { Figure } from '#core/surface/mesh/figures';
import type { Vec3 } from '#core/surface/mesh/mesh';
import type { Hold } from '#core/surface/flatten/held';
import type { Scan, Taped } from '#core/surface/mesh/packed';
import type { Part } from '#core/surface/flatten/part';
import { otherPart, partBy } from '#core/surface/flatten/part';
import { unpacked } from '#core/surface/mesh/packed';
import type { Strip } from '#core/surface/flatten/strips';
import { stripAt } from '#core/surface/flatten/strips';
import { Drawing } from '../../drawing/Drawing';
import { useDraft } from '../../forms/useDraft';
import { StopLayout } from '../../frame/StopLayout';
import { FoldAway } from '../../frame/FoldAway';
import { Told } from '../../frame/Told';
import { usePreferences } from '../../frame/preferences';
import { problemSentence } from '../../frame/sentences';
import { useStructure } from '../../joint/useStructure';
import { usePiece } from '../../piece/pieceContext';
import { newId } from '../../frame/newId';
import { Becomes } from './Becomes';
import { FigureFields } from './FigureFields';
import { HeldList } from './HeldList';
import { InParts } from './InParts';
import { MapPicture } from './MapPicture';
import { NO_STATIONS, StationFields, stationsOf, writtenStations } from './StationFields';
import type { WrittenStations } from './StationFields';
import { PanelCut } from './PanelCut';
import { ScanFields } from './ScanFields';
import { Balance } from './Balance';
import { TapedFields } from './TapedFields';
import { FIGURES_OF, lettersOf, percent, verdict } from './crownWords';
import { WorkList } from './WorkList';
import { useLaid } from './useLaid';
import type { OtherPart } from './useOtherPart';
import { useOtherPart } from './useOtherPart';
import { useScan } from './useScan';
import { useTaped } from './useTaped';

const PanelSpace = lazy(() => import('./PanelSpace'));

type Draft = {
  way: 'figure' | 'stations' | 'scan' | 'taped';
  figure: Figure;
  written: WrittenStations;
  scan: Scan | null;
  taped: Taped | null;
  balance: number;
  keep: number[];
  hold: Hold[];
  part: Part | null;
};

const STRIPS = 3;
const MAX_POINTS = 24;
/** Of another shape nothing is held, and it is not parted. */
const FREED = { keep: [], hold: [], part: null };

/**
 * A panel curved two ways: what it is, how it is to be worked, the blank that asks for, and where
 * the metal has to go.
 */
export default function CrownPage() {
  const { id, pattern } = usePiece();
  // Edges that were named by their lengths keep their names on a card that is drawn.
  return pattern.source === 'lengths' ? (
    <Navigate replace to={`/pieces/${id}/card`} />
  ) : (
    <CrownCard />
  );
}

function CrownCard() {
  const { id, pattern, patternEditor, joined, facts, shop } = usePiece();
  const { joinAll } = useStructure();
  const { unit, show, showArea, showThin } = usePreferences();
  const navigate = useNavigate();
  const first = useMemo((): Draft => {
    const made = pattern.crown?.made;
    return {
      way:
        made?.kind === 'stations' || made?.kind === 'scan' || made?.kind === 'taped'
          ? made.kind
          : made || pattern.tucks.length === 0
            ? 'figure'
            : 'taped',
      figure:
        made && made.kind !== 'stations' && made.kind !== 'scan' && made.kind !== 'taped'
          ? made
          : FIGURES_OF.barrel.figure,
      taped: made?.kind === 'taped' ? made : null,
      scan: made?.kind === 'scan' ? made : null,
      written: made?.kind === 'stations' ? writtenStations(made, unit) : NO_STATIONS,
      balance: pattern.crown?.balance ?? 0.5,
      keep: pattern.crown?.keep ?? [],
      hold: pattern.crown?.hold ?? [],
      part: pattern.crown?.part ?? null,
    };
  }, [pattern.crown, pattern.tucks.length, unit]);
  const { draft, set, drop } = useDraft<Draft>(`crown ${id}`, first);
  const [view, setView] = useState<'blank' | 'panel'>('blank');
  const [compare, setCompare] = useState(false);
  const [cutAt, setCutAt] = useState(0.5);
  const [cutRuns, setCutRuns] = useState<Strip['runs']>('across');
  // What is being tapped on the panel: points that are to stay where they are, or the ends of the
  // line it is parted by.
  const [tap, setTap] = useState<{ what: 'points' | 'line'; at: Vec3[] } | null>(null);
  const [tapped, setTapped] = useState<Vec3[]>([]);
  const scanning = useScan((scan) => {
    set({ scan, ...FREED });
    setView('panel');
  });
  const tape = useTaped(pattern, draft.way === 'taped');
  const read = useMemo(
    () => (draft.way === 'stations' ? stationsOf(draft.written, unit) : null),
    [draft, unit],
  );
  const made: Described | null =
    draft.way === 'figure'
      ? draft.figure
      : draft.way === 'scan'
        ? draft.scan
        : draft.way === 'taped'
          ? (tape.taped ?? (pattern.tucks.length > 0 ? null : draft.taped))
          : read?.ok
            ? read.made
            : null;
  const { found, problems, outlines, busy, stale } = useLaid({
    made,
    balance: draft.balance,
    keep: draft.keep,
    hold: draft.hold,
    part: draft.part,
    strips: STRIPS,
    compare,
  });
  const laid = found?.laid ?? null;
  // Of a card that was turned over: as it lay when it was laid flat, which is how its surface is
  // described.
  const standing = useMemo(() => (pattern.crown?.turned ? mirrored(pattern) : pattern), [pattern]);
  const letters = useMemo(
    () =>
      laid?.outline.edges.map(
        (_, i) => lettersOf(standing, laid.outline.edges.length)[i] ?? letterAt(i),
      ) ?? [],
    [laid, standing],
  );
  const cut = useMemo(
    () => laid && stripAt(laid.disc, laid.flat, cutRuns, cutAt),
    [laid, cutRuns, cutAt],
  );
  // Of a metal the limits are always known.
  const forming = sheetMetal(metalById(facts.metal), facts.thicknessMm, shop).forming!;
  const judged =
    laid &&
    verdict(laid, forming.stretch, { ...forming.shrink, strain: Math.abs(forming.shrink.strain) });
  const make = (other?: OtherPart) => {
    if (!found || !made || busy) return;
    const card = crownCard(
      standing,
      {
        made,
        balance: draft.balance,
        keep: draft.keep,
        hold: draft.hold,
        part: draft.part,
        seams: found.seams,
      },
      found.laid,
      found.strips,
      newId,
    );
    patternEditor.edit(pattern.crown?.turned ? mirrored(card) : card);
    if (other) {
      // Both go round the same way, so that along the seam they run against each other.
      const there = [...other.seams].reverse();
      const here = card.edges.filter((edge, i) => found.seams[i] && !joined.meetings.has(edge.id));
      const end = (piece: string, edge: string, turned: boolean) => ({
        ...{ piece, edge, turned },
        stretch: null,
      });
      const pairs = here.flatMap((edge, i) => {
        const seam = there[Math.min(i, there.length - 1)];
        if (seam === undefined) return [];
        const first = end(id, edge.id, pattern.turned);
        return [[first, end(other.piece, seam, other.turned)] as const];
      });
      if (pairs.length > 0) joinAll(pairs);
    }
    drop();
    void navigate(`/pieces/${id}/card`);
  };
  const rest = draft.part && otherPart(draft.part);
  const both = useOtherPart();
  const makeBoth = async () => {
    const other =
      made &&
      rest &&
      (await both.make({ made, balance: draft.balance, part: rest, strips: STRIPS }));
    if (other) make(other);
  };
  const tapped1 = (p: Vec3) => {
    if (!tap || !shown) return;
    const at = [...tap.at, p].slice(0, MAX_POINTS);
    if (tap.what === 'points' || at.length < 2) return setTap({ ...tap, at });
    setTap(null);
    const part = partBy(shown, at[0]!, at[1]!);
    if (part) set({ part, keep: [], hold: [] });
  };
  // What is laid flat; a scan that cannot be yet is shown all the same, so that it can be cut.
  const scanned = useMemo(
    () => (draft.way === 'scan' && draft.scan ? unpacked(draft.scan) : null),
    [draft.way, draft.scan],
  );
  const shown = laid?.disc.mesh ?? scanned;
  const bad = [...(read && !read.ok ? read.problems : []), ...tape.problems, ...problems];
  const size = laid && box(laid.outline.path);
  return (
    <StopLayout
      drawerWidth={430}
      tally={
        laid && size
          ? [
              {
                label: 'Blank',
                value: `${show(size.maxX - size.minX)} × ${show(size.maxY - size.minY)}`,
              },
              { label: 'Area of the blank', value: showArea(laid.blankMm2) },
              { label: 'Area of the panel', value: showArea(laid.panelMm2) },
              {
                label: 'Stretch, at most',
                value: percent(laid.stretch),
                alert: laid.stretch > forming.stretch.strain,
              },
              {
                label: 'Gather, at most',
                value: percent(laid.shrink),
                alert: laid.shrink > Math.abs(forming.shrink.strain),
              },
              {
                label: 'Thickness after',
                value: `${showThin(laid.thinnest * facts.thicknessMm)} to ${showThin(laid.thickest * facts.thicknessMm)}`,
              },
            ]
          : []
      }
      drawing={
        <>
          {view === 'blank' || !shown ? (
            <Drawing
              bounds={size ?? { minX: 0, minY: 0, maxX: 300, maxY: 200 }}
              ground="blank"
              label="The blank, and what has to be done to it"
              overlay={null}
            >
              {found && laid && (
                <MapPicture
                  laid={laid}
                  strips={found.strips}
                  outlines={outlines}
                  letters={letters}
                />
              )}
            </Drawing>
          ) : (
            <Box
              sx={{ position: 'absolute', inset: 0, bgcolor: 'var(--blank-ground, var(--paper))' }}
              role="img"
              aria-label="The panel in space"
            >
              <Suspense fallback={<Box sx={{ p: 8 }}>Setting the panel up …</Box>}>
                <PanelSpace
                  mesh={shown}
                  laid={laid}
                  cut={cut?.places ?? null}
                  tapped={tap?.at ?? (draft.way === 'scan' ? tapped : [])}
                  joined={tap?.what !== 'points'}
                  onTap={
                    tap
                      ? tapped1
                      : draft.way === 'scan' && scanning.here
                        ? (p) => setTapped([...tapped, p])
                        : undefined
                  }
                />
              </Suspense>
            </Box>
          )}
          <ToggleButtonGroup
            exclusive
            value={view}
            aria-label="How the panel is shown"
            onChange={(_, next: typeof view | null) => next && setView(next)}
            sx={{ position: 'absolute', left: 12, top: 12, bgcolor: 'var(--panel)' }}
          >
            <ToggleButton value="blank">Blank</ToggleButton>
            <ToggleButton value="panel">Panel</ToggleButton>
          </ToggleButtonGroup>
          {busy && (
            <Typography role="status" sx={{ position: 'absolute', left: 190, top: 22 }}>
              {found?.rough && !stale ? 'Getting finer …' : 'Laying it flat …'}
            </Typography>
          )}
        </>
      }
      drawer={
        <Stack spacing={2}>
          <Box>
            <Typography variant="h2">Curved two ways</Typography>
            <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
              Paper will not lie on it: it is made from its shape. Figures are of the outside of the
              metal.
              {pattern.crown?.turned && ' This piece is the mirror image of what is shown here.'}
            </Typography>
          </Box>
          <ToggleButtonGroup
            exclusive
            fullWidth
            value={draft.way}
            aria-label="How the shape is known"
            onChange={(_, way: Draft['way'] | null) => way && set({ way })}
          >
            <ToggleButton value="figure">By figures</ToggleButton>
            <ToggleButton value="stations">By stations</ToggleButton>
            <ToggleButton value="scan">By a scan</ToggleButton>
            <ToggleButton value="taped">By tucks</ToggleButton>
          </ToggleButtonGroup>
          {draft.way === 'figure' ? (
            <FigureFields
              figure={draft.figure}
              onChange={(figure) =>
                set({ figure, ...(figure.kind === draft.figure.kind ? {} : FREED) })
              }
            />
          ) : draft.way === 'scan' ? (
            <ScanFields
              scan={draft.scan}
              scanning={scanning}
              tapped={tapped}
              onTapped={setTapped}
            />
          ) : draft.way === 'taped' ? (
            <TapedFields pattern={pattern} taped={tape.taped ?? draft.taped} busy={tape.busy} />
          ) : (
            <StationFields
              written={draft.written}
              profiles={pattern.profiles}
              deviations={laid?.deviations?.each ?? null}
              onChange={(written) => set({ written })}
            />
          )}
          {bad.slice(0, 2).map((problem, i) => (
            <Told key={i}>
              {problemSentence(
                draft.way === 'taped' ? problem : { ...problem, about: [] },
                draft.way === 'taped' ? pattern : null,
                show,
              )}
            </Told>
          ))}
          <Balance balance={draft.balance} onChange={(balance) => set({ balance })} />
          {laid && (
            <>
              {judged && !judged.good && judged.said.map((said) => <Told key={said}>{said}</Told>)}
              {judged?.good && (
                <Typography>
                  In one piece: this metal takes {percent(forming.stretch.strain)} of stretch, and{' '}
                  {percent(Math.abs(forming.shrink.strain))} gathered.
                </Typography>
              )}
              <FormControlLabel
                control={<Switch checked={compare} onChange={(_, on) => setCompare(on)} />}
                label="Draw the blanks of all three schools together"
              />
              {outlines && compare && (
                <Typography className="figure">
                  {outlines
                    .map(
                      ({ balance, mm2 }) =>
                        `${balance === 0 ? 'raised' : balance === 1 ? 'gathered' : 'both'} ${showArea(mm2)}`,
                    )
                    .join(' · ')}
                </Typography>
              )}
              <WorkList
                laid={laid}
                letters={letters}
                keep={draft.keep}
                onKeep={(keep) => set({ keep })}
              />
              <FoldAway
                key={`held ${draft.hold.length > 0}`}
                title={draft.hold.length > 0 ? `Held · ${draft.hold.length}` : 'Held'}
                open={draft.hold.length > 0}
              >
                <HeldList
                  hold={draft.hold}
                  off={stale ? [] : laid.heldOff}
                  points={tap?.at.length ?? 0}
                  tapping={tap?.what === 'points'}
                  onTapping={(on) => {
                    if (on) setView('panel');
                    else if (tap && tap.at.length > 1)
                      set({
                        hold: [
                          ...draft.hold,
                          { kind: 'points', at: tap.at.map(([x, y, z]) => [x, y, z]) },
                        ],
                      });
                    setTap(on ? { what: 'points', at: [] } : null);
                  }}
                  onChange={(hold) => set({ hold })}
                />
              </FoldAway>
              {made && (
                <FoldAway title="Made of two" open={draft.part !== null}>
                  <InParts
                    made={made}
                    balance={draft.balance}
                    limits={{
                      stretch: forming.stretch.strain,
                      shrink: Math.abs(forming.shrink.strain),
                    }}
                    part={draft.part}
                    onPart={(part) => set({ part, keep: [], hold: [] })}
                    tapped={tap?.what === 'line' ? tap.at.length : null}
                    onTapping={(on) => {
                      if (on) setView('panel');
                      setTap(on ? { what: 'line', at: [] } : null);
                    }}
                  />
                </FoldAway>
              )}
              <PanelCut
                runs={cutRuns}
                at={cutAt}
                cut={cut}
                full={draft.hold.length >= MAX_HELD}
                onRuns={setCutRuns}
                onAt={setCutAt}
                onLook={() => setView('panel')}
                onHold={() =>
                  set({ hold: [...draft.hold, { kind: 'straight', runs: cutRuns, share: cutAt }] })
                }
              />
            </>
          )}
          <Becomes pattern={pattern} found={found} />
          <Stack
            direction="row"
            spacing={1}
            useFlexGap
            sx={{
              flexWrap: 'wrap',
              position: 'sticky',
              bottom: -16,
              zIndex: 2,
              mx: -2,
              px: 2,
              bgcolor: 'var(--panel)',
              pt: 1.5,
              pb: 3,
              borderTop: '1.5px solid var(--rule)',
            }}
          >
            <Button
              variant="contained"
              size="large"
              disabled={!found || busy || scanning.doing !== null || found.laid.overlaps.length > 0}
              onClick={() => make()}
            >
              {pattern.sides.length > 0 ? 'Make it the card’s outline' : 'Make the card'}
            </Button>
            {rest && (
              <Button
                variant="outlined"
                size="large"
                disabled={!found || busy || both.busy || found.laid.overlaps.length > 0}
                onClick={() => void makeBoth()}
              >
                {both.busy
                  ? 'Laying the other part flat …'
                  : 'Both parts, the other as a piece of its own'}
              </Button>
            )}
            <Button color="inherit" component={Link} to={`/pieces/${id}/card`}>
              Back to the card
            </Button>
          </Stack>
          {both.problem && <Told>{both.problem}</Told>}
        </Stack>
      }
    />
  );
}
