import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import useMediaQuery from '@mui/material/useMediaQuery';
import type { Process } from '#core/card/kinds';
import { PROCESSES } from '#core/card/kinds';
import type { Edge } from '#core/card/pattern';
import { setPlan, weldOf } from '#core/weld/planned';
import { canBePlugged, isJoined, usualWeldPlan } from '#core/weld/start';
import type { WeldPlan } from '#core/weld/weldPlan';
import { LengthField } from '../forms/LengthField';
import { FoldAway } from '../frame/FoldAway';
import { usePreferences } from '../frame/preferences';
import { PROCESS_WORDS } from '../frame/words';
import { usePiece } from '../piece/pieceContext';
import type { Seam } from '#core/weld/seams';

/**
 * How an edge is to be welded: process, tacks or plugs and their pitch. In the plan of the piece,
 * whose plugs the blank and print show.
 */
export function PlanPanel({ edge, seam }: { edge: Edge; seam: Seam | undefined }) {
  const { joined, plan: own, planEditor, facts } = usePiece();
  const { plan } = joined;
  const { unit, show } = usePreferences();
  // On a phone what was planned is opened when it is wanted: the weld in hand comes first.
  const narrow = useMediaQuery('(max-width: 899px)', { noSsr: true });
  const begun = (seam?.plugsDone.size ?? 0) + (seam?.tacksDone.size ?? 0) > 0;
  const weld = weldOf(plan, edge, facts.thicknessMm);
  if (!isJoined(edge.joint)) return null;
  const set = (next: WeldPlan | null) =>
    planEditor.edit(setPlan(own, edge.id, { weld: next }), `weld ${edge.id}`);
  if (!weld) {
    return (
      <Button
        variant="contained"
        onClick={() => set(usualWeldPlan(edge.joint, facts.thicknessMm, undefined, unit))}
      >
        Plan its weld
      </Button>
    );
  }
  const { plugs } = weld;
  const usual = usualWeldPlan(edge.joint, facts.thicknessMm, weld.process, unit);
  const spots = seam ? seam.plugs.length + seam.tacks.length : 0;
  const title = `${PROCESS_WORDS[weld.process]}, ${
    plugs
      ? `${spots} ${spots === 1 ? 'plug' : 'plugs'}, holes ${show(plugs.holeMm)}`
      : `${spots} ${spots === 1 ? 'tack' : 'tacks'}, at most ${show(weld.tackPitchMm)} apart`
  }`;
  return (
    <Stack spacing={1.5} component="section" aria-label="How it is to be welded">
      {seam && <NextSpots seam={seam} />}
      <FoldAway title={title} open={!narrow && !begun}>
        <Stack spacing={1.5}>
          <ToggleButtonGroup
            exclusive
            fullWidth
            value={weld.process}
            aria-label="Process"
            onChange={(_, process: Process | null) => process && set({ ...weld, process })}
          >
            {PROCESSES.map((process) => (
              <ToggleButton key={process} value={process}>
                {PROCESS_WORDS[process]}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
          {canBePlugged(edge.joint) && (
            <ToggleButtonGroup
              exclusive
              fullWidth
              value={plugs ? 'plugs' : 'tacks'}
              aria-label="Plugs or tacks"
              onChange={(_, way: string | null) =>
                way && set({ ...weld, plugs: way === 'plugs' ? (usual?.plugs ?? null) : null })
              }
            >
              <ToggleButton value="plugs">Plugs through it</ToggleButton>
              <ToggleButton value="tacks">Tacks along it</ToggleButton>
            </ToggleButtonGroup>
          )}
          {plugs ? (
            <Stack
              direction="row"
              spacing={1}
              useFlexGap
              sx={{
                flexWrap: 'wrap',
                '& > *': { flex: '1 1 0', minWidth: unit === 'mm' ? 100 : 150 },
              }}
            >
              <LengthField
                label="Hole"
                mm={plugs.holeMm}
                min={1}
                max={30}
                onChange={(mm) => mm && set({ ...weld, plugs: { ...plugs, holeMm: mm } })}
              />
              <LengthField
                label="Pitch"
                mm={plugs.pitchMm}
                min={5}
                max={1000}
                onChange={(mm) => mm && set({ ...weld, plugs: { ...plugs, pitchMm: mm } })}
              />
              <LengthField
                label="From ends"
                mm={plugs.endMm}
                min={0}
                onChange={(mm) => mm !== null && set({ ...weld, plugs: { ...plugs, endMm: mm } })}
              />
            </Stack>
          ) : (
            <LengthField
              label="Tacks no farther apart than"
              mm={weld.tackPitchMm}
              min={5}
              max={1000}
              onChange={(mm) => mm && set({ ...weld, tackPitchMm: mm })}
            />
          )}
          {seam && <Order seam={seam} show={show} />}
        </Stack>
      </FoldAway>
    </Stack>
  );
}

/** The spots that are still to be made, in the order to make them; none when all are made. */
function NextSpots({ seam }: { seam: Seam }) {
  const plugged = seam.plugs.length > 0;
  const order = plugged ? seam.plugOrder : seam.tacks.map((_, i) => i + 1);
  const done = plugged ? seam.plugsDone : seam.tacksDone;
  const left = order.filter((number) => !done.has(number));
  const [next, ...after] = left;
  if (next === undefined) return null;
  return (
    <Typography>
      {done.size === 0 ? 'First' : 'Next'} {plugged ? 'plug' : 'tack'}{' '}
      <b className="figure">{next}</b>
      {after.length > 0 && (
        <>
          , then <span className="figure">{after.slice(0, SOON).join(', ')}</span>
          {after.length > SOON && ' …'}: spread, so that no place gets hot
        </>
      )}
      .
    </Typography>
  );
}

/** The spots that are named beyond the next. */
const SOON = 5;

function Order({ seam, show }: { seam: Seam; show: (mm: number) => string }) {
  const plugged = seam.plugs.length > 0;
  const spots = plugged ? seam.plugs : seam.tacks;
  const done = plugged ? seam.plugsDone : seam.tacksDone;
  return (
    <Box>
      <Typography>
        <b className="figure">{spots.length}</b> {plugged ? 'plugs' : 'tacks'} over{' '}
        <span className="figure">{show(seam.lengthMm)}</span>
        {seam.closed ? ', all the way round' : ''}. {plugged ? 'Along the edge' : 'In order'}, from
        its first corner:
      </Typography>
      <Box
        component="ol"
        aria-label={plugged ? 'Plug centres' : 'Tacks in order'}
        sx={{
          listStyle: 'none',
          m: 0,
          mt: 0.8,
          p: 0,
          display: 'flex',
          flexWrap: 'wrap',
          gap: 0.6,
          maxHeight: 118,
          overflowY: 'auto',
        }}
      >
        {spots.map((mm, i) => (
          <Box
            key={i}
            component="li"
            className="figure"
            sx={{
              px: 0.8,
              py: 0.3,
              fontSize: '0.88rem',
              border: '1.5px solid var(--rule)',
              bgcolor: done.has(i + 1) ? 'var(--zinc)' : 'var(--chalk)',
              color: done.has(i + 1) ? 'var(--zinc-line)' : 'inherit',
            }}
          >
            <span style={{ color: done.has(i + 1) ? 'inherit' : 'var(--pencil)' }}>{i + 1}:</span>{' '}
            {show(mm).replace(/ (mm|in)$/, '')}
            {done.has(i + 1) && <span className="visually-hidden"> made</span>}
          </Box>
        ))}
      </Box>
      {seam.elsewhere.length > 0 && (
        <Typography sx={{ mt: 0.8 }}>
          {seam.elsewhere.length} made elsewhere, before the edge or the pitch was changed, at{' '}
          <span className="figure">{seam.elsewhere.map((mm) => show(mm)).join(', ')}</span>.
        </Typography>
      )}
    </Box>
  );
}
