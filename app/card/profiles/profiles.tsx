import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { contourSide } from '#core/card/contourSide';
import { cut } from '#core/card/cut';
import { parsePoints } from '#core/card/legs';
import type { CardProfile, PatternDoc } from '#core/card/pattern';
import type { Ordinate } from '#core/card/profile';
import { profileOf } from '#core/card/profile';
import type { Unit } from '#core/measure/length';
import { formatField } from '#core/measure/length';
import { box } from '#core/measure/path';
import type { Result } from '#core/measure/result';
import type { Segment } from '#core/measure/segment';
import { isStraight, segmentLength } from '#core/measure/segment';
import { outlineOf } from '#core/card/outline';
import { Drawing, useView } from '../../drawing/Drawing';
import { usePathData } from '../../drawing/marks';
import { Choice } from '../../forms/Choice';
import { LengthField } from '../../forms/LengthField';
import { useDraft } from '../../forms/useDraft';
import { FoldAway } from '../../frame/FoldAway';
import { StopLayout } from '../../frame/StopLayout';
import { Told } from '../../frame/Told';
import { usePreferences } from '../../frame/preferences';
import { problemSentence } from '../../frame/sentences';
import { FIGURES } from '../../frame/theme';
import { usePiece } from '../../piece/pieceContext';
import { newId } from '../../frame/newId';
import { sideName } from '../rules/ruleWords';

/**
 * As a profile is read: its name, its readings as they were written, how closely the contour
 * follows them.
 */
type Written = { name: string; text: string; toleranceMm: number };
const NEW: Written = { name: '', text: '', toleranceMm: 0.3 };
const MAX_READINGS = 400;

const writtenOf = ({ name, ordinates, toleranceMm }: CardProfile, unit: Unit): Written => ({
  name,
  text: ordinates.map((pair) => pair.map((mm) => formatField(mm, unit, 2)).join('\t')).join('\n'),
  toleranceMm,
});

/**
 * Contours of the real surface, by stations along a straight edge and the drops from it: read,
 * drawn, printed as strips.
 */
export default function ProfilesPage() {
  const { pattern } = usePiece();
  const [open, setOpen] = useState<string | null>(pattern.profiles[0]?.id ?? null);
  const profile = pattern.profiles.find(({ id }) => id === open) ?? null;
  return <OneProfile key={profile?.id ?? 'new'} profile={profile} onOpen={setOpen} />;
}

type Contour = Result<{ ordinates: Ordinate[]; arcs: Segment[]; worstMm: number }>;

/** The contour through readings as they are written. */
function contourOf({ text, toleranceMm }: Written, unit: Unit): Contour | null {
  if (text.trim() === '') return null;
  const read = parsePoints(text, unit);
  if (!read.ok) return read;
  const found = profileOf(read.points, toleranceMm);
  return found.ok ? { ...found, ordinates: [...read.points] } : found;
}

function OneProfile({
  profile,
  onOpen,
}: {
  profile: CardProfile | null;
  onOpen: (id: string | null) => void;
}) {
  const { id, pattern, patternEditor } = usePiece();
  const { unit, show } = usePreferences();
  const first = useMemo(() => (profile ? writtenOf(profile, unit) : NEW), [profile, unit]);
  const { draft, set, drop, kept } = useDraft<Written>(
    `profile ${id} ${profile?.id ?? 'new'} ${unit}`,
    first,
  );
  const [wanting, setWanting] = useState(false);
  const contour = useMemo(() => contourOf(draft, unit), [draft, unit]);
  const good = contour?.ok ? contour : null;
  const tooMany = good !== null && good.ordinates.length > MAX_READINGS;
  const keep = () => {
    const name = draft.name.trim();
    setWanting(name === '');
    if (name === '' || !good || tooMany) return;
    const one: CardProfile = {
      id: profile?.id ?? newId(),
      name,
      ordinates: good.ordinates.map(([s, d]) => [s, d]),
      toleranceMm: draft.toleranceMm,
    };
    const profiles = profile
      ? pattern.profiles.map((p) => (p.id === profile.id ? one : p))
      : [...pattern.profiles, one];
    patternEditor.edit({ ...pattern, profiles });
    drop();
    onOpen(one.id);
  };
  const bounds = good ? around(good) : { minX: 0, maxX: 300, minY: -60, maxY: 20 };
  return (
    <StopLayout
      tally={[]}
      drawerWidth={400}
      drawing={
        <Drawing bounds={bounds} ground="blank" label="The profile">
          {good ? (
            <ContourPicture ordinates={good.ordinates} arcs={good.arcs} />
          ) : (
            <ContourPicture faint {...EXAMPLE} />
          )}
        </Drawing>
      }
      drawer={
        <Stack spacing={2}>
          <Box>
            <Typography variant="h2">Profiles</Typography>
            <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
              Hold a straight edge to the metal. At each station along it read how far the metal
              lies below it.
            </Typography>
          </Box>
          {pattern.profiles.length > 0 && (
            <ToggleButtonGroup
              exclusive
              orientation="vertical"
              value={profile?.id ?? 'new'}
              aria-label="Which profile"
              onChange={(_, next: string | null) => next && onOpen(next === 'new' ? null : next)}
            >
              {pattern.profiles.map((one) => (
                <ToggleButton key={one.id} value={one.id} sx={{ justifyContent: 'flex-start' }}>
                  {one.name}
                </ToggleButton>
              ))}
              <ToggleButton value="new" sx={{ justifyContent: 'flex-start' }}>
                Another profile
              </ToggleButton>
            </ToggleButtonGroup>
          )}
          <TextField
            label="Name of the profile"
            value={draft.name}
            error={wanting && draft.name.trim() === ''}
            helperText={
              wanting && draft.name.trim() === ''
                ? 'Give it a name that says where it was taken.'
                : undefined
            }
            placeholder="Where it was taken"
            onChange={(event) => set({ name: cut(event.target.value, 40) })}
          />
          <TextField
            label={`Readings: station and drop, ${unit === 'mm' ? 'mm' : 'inches'}`}
            multiline
            minRows={6}
            maxRows={16}
            value={draft.text}
            onChange={(event) => set({ text: event.target.value })}
            placeholder={
              unit === 'mm' ? '0\t12\n50\t6.5\n100\t4\n150\t6' : '0\t1/2\n2\t1/4\n4\t5/32\n6\t1/4'
            }
            helperText="One station a line, in any order; or paste two columns."
            slotProps={{ htmlInput: { style: { fontFamily: FIGURES, fontSize: '1.1rem' } } }}
          />
          <LengthField
            label="Lines and arcs pass no farther off than"
            mm={draft.toleranceMm}
            min={0.01}
            max={50}
            digits={2}
            onChange={(mm) => mm && set({ toleranceMm: mm })}
          />
          {contour && !contour.ok && (
            <Told>{problemSentence(contour.problems[0]!, null, show)}</Told>
          )}
          {tooMany && (
            <Told>
              No more than {MAX_READINGS} readings make a profile: leave every other one out.
            </Told>
          )}
          {good && <Said {...good} />}
          <Stack direction="row" spacing={1} useFlexGap sx={{ flexWrap: 'wrap' }}>
            <Button
              variant="contained"
              disabled={!good || tooMany || (profile !== null && !kept)}
              onClick={keep}
            >
              {profile ? 'Keep the change' : 'Keep the profile'}
            </Button>
            {profile && (
              <Button
                color="inherit"
                onClick={() => {
                  patternEditor.edit({
                    ...pattern,
                    profiles: pattern.profiles.filter((one) => one.id !== profile.id),
                  });
                  drop();
                  onOpen(null);
                }}
              >
                Take it off
              </Button>
            )}
          </Stack>
          {profile && kept && (
            <Typography variant="body2">
              Typed, not kept yet: strips are printed as it was kept.
            </Typography>
          )}
          {profile && (
            <Strips piece={id} profile={profile.id} saved={patternEditor.status === 'saved'} />
          )}
          {profile && good && !kept && <AsSide arcs={good.arcs} />}
          <Button
            color="inherit"
            component={Link}
            to={`/pieces/${id}/card`}
            sx={{ alignSelf: 'start' }}
          >
            Back to the card
          </Button>
        </Stack>
      }
    />
  );
}

const EXAMPLE = {
  ordinates: [
    [0, 40],
    [75, 12],
    [150, 4],
    [225, 12],
    [300, 40],
  ] as Ordinate[],
  arcs: [{ a: [0, -40], b: [300, -40], bulge: -0.24 }] as Segment[],
};

function around({ ordinates, arcs }: { ordinates: readonly Ordinate[]; arcs: readonly Segment[] }) {
  const b = box(arcs);
  const drops = ordinates.map(([, drop]) => -drop);
  return { ...b, minY: Math.min(b.minY, ...drops, 0), maxY: Math.max(b.maxY, ...drops, 0) };
}

/** What the contour is, in figures. */
function Said({
  ordinates,
  arcs,
  worstMm,
}: {
  ordinates: readonly Ordinate[];
  arcs: readonly Segment[];
  worstMm: number;
}) {
  const { show } = usePreferences();
  const straight = arcs.filter(isStraight).length;
  const round = arcs.length - straight;
  const drops = ordinates.map(([, drop]) => drop);
  return (
    <Typography role="status">
      {[
        straight > 0 && `${straight} straight`,
        round > 0 && (round === 1 ? '1 arc' : `${round} arcs`),
      ]
        .filter(Boolean)
        .join(' and ')}
      , <span className="figure">{show(arcs.reduce((sum, s) => sum + segmentLength(s), 0))}</span>{' '}
      along the metal; no reading lies farther off than{' '}
      <span className="figure">{show(worstMm, 2)}</span>. Drops from {show(Math.min(...drops))} to{' '}
      {show(Math.max(...drops))}.
    </Typography>
  );
}

function Strips({ piece, profile, saved }: { piece: string; profile: string; saved: boolean }) {
  const { unit } = usePreferences();
  const link = (lie: string, as: string) =>
    `/pieces/${piece}/strip/${profile}?lie=${lie}&as=${as}&paper=${unit === 'mm' ? 'a4' : 'letter'}`;
  return (
    <Box component="section" aria-label="Checking strips" sx={{ display: 'grid', gap: 1 }}>
      <Typography variant="h3">Checking strips, full size</Typography>
      {(['hollow', 'full'] as const).map((lie) => (
        <Stack key={lie} direction="row" spacing={1} sx={{ alignItems: 'center' }}>
          <Button
            variant="outlined"
            component="a"
            href={link(lie, 'pdf')}
            download
            disabled={!saved}
          >
            Print it {lie}
          </Button>
          <Button
            color="inherit"
            size="small"
            component="a"
            href={link(lie, 'dxf')}
            download
            disabled={!saved}
          >
            DXF
          </Button>
          <Button
            color="inherit"
            size="small"
            component="a"
            href={link(lie, 'svg')}
            download
            disabled={!saved}
          >
            SVG
          </Button>
        </Stack>
      ))}
      <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
        Hollow is laid over the metal, full is the body under it. Each station has its mark and
        number.
      </Typography>
    </Box>
  );
}

/** The contour as a side of the card. */
function AsSide({ arcs }: { arcs: readonly Segment[] }) {
  const { pattern, patternEditor } = usePiece();
  const { show } = usePreferences();
  const sides = straightSides(pattern);
  const [chosen, setChosen] = useState('');
  const [drops, setDrops] = useState<'out' | 'in'>('out');
  const [said, setSaid] = useState<string | null>(null);
  const side = sides.some(({ id }) => id === chosen) ? chosen : (sides[0]?.id ?? '');
  if (sides.length === 0) return null;
  const make = () => {
    const found = contourSide(pattern, side, arcs, drops, newId);
    if (!found.ok) return setSaid(problemSentence(found.problems[0]!, pattern, show));
    patternEditor.edit(found.doc);
    setSaid(`Side ${sideName(pattern, side)} runs along the contour now.`);
  };
  return (
    <FoldAway title="Make it a side of the card">
      <Stack spacing={1.2}>
        <Choice
          label="Straight side"
          value={side}
          onChange={setChosen}
          options={sides.map(
            ({ id, mm }) => [id, `${sideName(pattern, id)}, ${show(mm)}`] as const,
          )}
        />
        <Choice
          label="Its drops go"
          value={drops}
          onChange={setDrops}
          options={[
            ['out', 'Out of the card'],
            ['in', 'Into the card'],
          ]}
        />
        <Button variant="outlined" onClick={make}>
          Run the side along it
        </Button>
        {said && <Typography role="status">{said}</Typography>}
      </Stack>
    </FoldAway>
  );
}

function straightSides(pattern: PatternDoc) {
  const { path, sideIds } = outlineOf(pattern);
  return path
    .flatMap((s, i) => (isStraight(s) ? [{ id: sideIds[i]!, mm: segmentLength(s) }] : []))
    .slice(0, 200);
}

type ContourProps = { ordinates: readonly Ordinate[]; arcs: readonly Segment[]; faint?: boolean };

/** The straight edge laid across, the drops hanging from it, the metal under them. */
function ContourPicture({ ordinates, arcs, faint = false }: ContourProps) {
  const { px } = useView();
  const { brief } = usePreferences();
  const data = usePathData();
  const stations = ordinates.map(([s]) => s);
  const [from, to] = [px([Math.min(...stations), 0]), px([Math.max(...stations), 0])];
  const few = ordinates.length <= 24;
  return (
    <g opacity={faint ? 0.35 : 1}>
      <rect
        x={from[0] - 18}
        y={from[1] - 20}
        width={to[0] - from[0] + 36}
        height={20}
        fill="var(--panel)"
        stroke="var(--ink)"
        strokeWidth={1.5}
      />
      {ordinates.map(([s, drop], i) => {
        const [[x1, y1], [x2, y2]] = [px([s, 0]), px([s, -drop])];
        return (
          <g key={i}>
            <line x1={x1} y1={y1} x2={x2} y2={y2} stroke="var(--layout)" strokeWidth={1.4} />
            <circle
              cx={x2}
              cy={y2}
              r={4}
              fill="var(--panel)"
              stroke="var(--layout)"
              strokeWidth={1.8}
            />
            {few && (
              <text
                x={x1}
                y={y1 - 5}
                textAnchor="middle"
                fontSize={13}
                className="figure"
                fill="var(--ink)"
              >
                {i + 1}
              </text>
            )}
            {few && !faint && (
              <text x={x2 + 7} y={y2 + 18} fontSize={13} className="figure" fill="var(--ink)">
                {brief(drop)}
              </text>
            )}
          </g>
        );
      })}
      <path
        d={data(arcs, false)}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={3}
        strokeLinecap="round"
      />
    </g>
  );
}
