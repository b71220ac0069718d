import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import type { CardProfile } from '#core/card/pattern';
import type { StepWork } from '#core/shape/shaping';
import type { StillToDo } from '#core/surface/mesh/progress';
import { stillToDo } from '#core/surface/mesh/progress';
import { ChevronSign } from '../drawing/shapeMarks';
import { LengthField } from '../forms/LengthField';
import { usePreferences } from '../frame/preferences';

/** Number of stations at which gaps are read, the ends among them. */
const STATIONS = 7;
/** A change of length below this share cannot be told from how a gap is read. */
const TELLS = 0.0005;

/**
 * The panel against its checking strip: gaps typed in station by station, and what is still to be
 * done between them.
 */
export function StripGaps({
  profile,
  work,
  setWork,
}: {
  profile: CardProfile;
  work: StepWork;
  setWork: (change: Partial<StepWork>) => void;
}) {
  const { show } = usePreferences();
  const ordinates = [...profile.ordinates].sort((a, b) => a[0] - b[0]);
  const [first, last] = [ordinates[0]![0], ordinates[ordinates.length - 1]![0]];
  const stations = Array.from(
    { length: STATIONS },
    (_, i) => first + ((last - first) * i) / (STATIONS - 1),
  );
  const gaps = work.gaps ?? [];
  const at = (station: number) => gaps.find((gap) => Math.abs(gap.at - station) < 1e-6);
  const put = (station: number, lowMm: number | null) => {
    const others = gaps.filter((gap) => Math.abs(gap.at - station) >= 1e-6);
    setWork({
      gaps:
        lowMm === null ? others : [...others, { at: station, lowMm }].sort((a, b) => a.at - b.at),
    });
  };
  const known = gaps.filter(({ at: where }) => where >= first - 1e-6 && where <= last + 1e-6);
  const found = known.length > 1 ? stillToDo(ordinates, known) : null;
  return (
    <Box component="section" aria-label="Gaps under the strip" sx={{ display: 'grid', gap: 1.2 }}>
      <Typography variant="h3">Gaps under the strip</Typography>
      <Typography variant="body2">
        How far the metal lies under it at each station; below 0 where it stands proud. Leave out
        what you did not read.
      </Typography>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fill, minmax(150px, 1fr))',
          gap: 1.2,
        }}
      >
        {stations.map((station) => (
          <LengthField
            key={station}
            label={`Low at ${show(station, 0)}`}
            mm={at(station)?.lowMm ?? null}
            empty="not read"
            signed
            max={200}
            digits={2}
            onChange={(mm) => put(station, mm)}
          />
        ))}
      </Box>
      {found?.ok && (
        <Stack spacing={0.6} role="status" aria-label="What is still to do">
          {found.spans.map((span) => (
            <Span key={span.from} {...span} show={show} />
          ))}
          <Typography sx={{ fontWeight: 600 }}>{inAll(found.changeMm, show)}</Typography>
        </Stack>
      )}
    </Box>
  );
}

function Span({
  from,
  to,
  changeMm,
  share,
  show,
}: StillToDo & { show: (mm: number, digits?: number) => string }) {
  const still = Math.abs(share) >= TELLS;
  return (
    <Stack direction="row" spacing={1} sx={{ alignItems: 'center' }}>
      {still ? <ChevronSign shrink={share < 0} /> : <Box sx={{ width: 22 }} />}
      <Typography component="span">
        <span className="figure">
          {show(from, 0)} to {show(to, 0)}
        </span>
        :{' '}
        {still
          ? `${share > 0 ? 'raise' : 'gather'}, about ${Math.abs(share * 100).toFixed(1)} % (${show(Math.abs(changeMm), 2)})`
          : 'its length is right'}
      </Typography>
    </Stack>
  );
}

const inAll = (changeMm: number, show: (mm: number, digits?: number) => string): string => {
  if (Math.abs(changeMm) < 0.05) return 'Along this strip the metal is as long as it should be.';
  return changeMm > 0
    ? `Along this strip ${show(changeMm, 2)} is still missing: raise where it says so, smooth, and hold the strip on again.`
    : `Along this strip there is ${show(-changeMm, 2)} too much: gather where it says so, and hold the strip on again.`;
};
