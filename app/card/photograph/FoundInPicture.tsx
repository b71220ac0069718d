import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { holePath, holeReach } from '#core/card/holeForm';
import { box, perimeter } from '#core/measure/path';
import type { Vec } from '#core/measure/vector';
import { distance } from '#core/measure/vector';
import { useView } from '../../drawing/Drawing';
import { usePathData } from '../../drawing/marks';
import { Choice } from '../../forms/Choice';
import { holeSize } from '../../frame/markingWords';
import { usePreferences } from '../../frame/preferences';
import type { TraceFound } from './traced';

/** What becomes of a line that was found. */
export type LineTaken = 'fold' | 'mark' | 'leave';
/** Holes that are left, and what was said of lines, by their numbers. */
export type Left = { holes: number[]; lines: Record<number, LineTaken> };
/** A line that runs from side to side is a fold, another one to be scribed, until it is said. */
export const lineTaken = (left: Left, foldable: readonly boolean[], i: number): LineTaken =>
  left.lines[i] ?? (foldable[i] ? 'fold' : 'mark');
const LINE_WORDS: Record<LineTaken, string> = {
  fold: 'Folded along',
  mark: 'Only scribed',
  leave: 'Left out',
};
const TOLERANCES = [0.3, 0.5, 1] as const;

/** What was found: the outline and how sure it is, and each hole and line to be taken or left. */
export function FoundInPicture({
  found,
  foldable,
  left,
  setLeft,
  toleranceMm,
  onTolerance,
}: {
  found: TraceFound;
  foldable: readonly boolean[];
  left: Left;
  setLeft: (left: Left) => void;
  toleranceMm: number;
  onTolerance: (mm: number) => void;
}) {
  const { show } = usePreferences();
  const { minX, maxX, minY, maxY } = box(found.outline);
  const arcs = found.outline.filter(({ bulge }) => bulge !== 0).length;
  const flip = (i: number) =>
    setLeft({
      ...left,
      holes: left.holes.includes(i) ? left.holes.filter((k) => k !== i) : [...left.holes, i],
    });
  return (
    <Box>
      <Typography variant="h3">Found</Typography>
      <Typography>
        {sidesAndArcs(found.outline.length - arcs, arcs)},{' '}
        <span className="figure">{show(maxX - minX)}</span> by{' '}
        <span className="figure">{show(maxY - minY)}</span>. A place on it where the edge was seen
        is sure to <span className="figure">± {show(found.uMm, 2)}</span>; no place seen on the edge
        lies farther off than {show(found.worstMm, 2)}.
      </Typography>
      {found.cutOff && (
        <Typography role="alert" sx={{ color: 'var(--torch)', mt: 1 }}>
          The card reaches to the marks: some of it may be cut off. Lay it farther in, or use the
          corner cards.
        </Typography>
      )}
      {found.doubtful.length > 0 && <Doubtful {...found} />}
      {found.openings > 0 && (
        <Typography sx={{ mt: 1 }}>
          {found.openings === 1 ? 'A cut-out is' : `${found.openings} cut-outs are`} neither round
          nor a slot nor square and cannot be taken into the card: mark what is to be cut out on the
          print.
        </Typography>
      )}
      <Typography variant="body2" sx={{ color: 'var(--pencil)', mt: 1.5 }}>
        Few lines and arcs that follow the edge to about
      </Typography>
      <ToggleButtonGroup
        exclusive
        size="small"
        value={toleranceMm}
        aria-label="How closely the outline follows the edge"
        onChange={(_, mm: number | null) => mm && onTolerance(mm)}
      >
        {TOLERANCES.map((mm) => (
          <ToggleButton key={mm} value={mm}>
            {show(mm)}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <Box sx={{ mt: 1, display: 'grid', gap: 1.2 }}>
        {found.holes.map((hole, i) => (
          <FormControlLabel
            key={i}
            control={<Checkbox checked={!left.holes.includes(i)} onChange={() => flip(i)} />}
            label={`Hole ${i + 1}: ${holeSize(hole, show)}${hole.form ? '' : ' across'}${hole.seen === 'ring' ? ', rubbed or drawn' : ''}`}
          />
        ))}
        {found.lines.map(([a, b], i) => (
          <Choice
            key={i}
            label={`Line ${i + 1}, ${show(Math.hypot(a[0] - b[0], a[1] - b[1]))} long`}
            value={lineTaken(left, foldable, i)}
            options={(foldable[i]
              ? (['fold', 'mark', 'leave'] as const)
              : (['mark', 'leave'] as const)
            ).map((one) => [one, LINE_WORDS[one]] as const)}
            onChange={(taken) => setLeft({ ...left, lines: { ...left.lines, [i]: taken } })}
          />
        ))}
      </Box>
    </Box>
  );
}

const sidesAndArcs = (sides: number, arcs: number) =>
  [
    ...(sides > 0 ? [sides === 1 ? '1 straight side' : `${sides} straight sides`] : []),
    ...(arcs > 0 ? [arcs === 1 ? '1 arc' : `${arcs} arcs`] : []),
  ].join(' and ');

/** Of an outline that is in doubt nearly all round there is no stretch to be shown. */
const NEARLY_ALL = 0.9;

function Doubtful({ outline, doubtful }: TraceFound) {
  const { show } = usePreferences();
  const long = doubtful.reduce((sum, run) => sum + lengthOf(run), 0);
  const all = long > NEARLY_ALL * perimeter(outline);
  return (
    <Typography role="alert" sx={{ color: 'var(--torch)', mt: 1 }}>
      {all ? (
        'Card and bench look nearly alike all round. '
      ) : (
        <>
          Along{' '}
          {doubtful.length === 1
            ? 'the hatched stretch'
            : `the ${doubtful.length} hatched stretches`}
          , <span className="figure">{show(long)}</span> in all, the card’s own edge was not seen
          for sure: a shadow lies there, or what is under it looks like it.{' '}
        </>
      )}
      Compare it with the picture. If it is wrong, take the picture again in even light or on
      something of another colour, or point at the card’s corners.
    </Typography>
  );
}

const lengthOf = (run: readonly Vec[]) =>
  run.reduce((sum, p, i) => (i > 0 ? sum + distance(p, run[i - 1]!) : 0), 0);

/** What was found laid over the picture: what is taken in full, what is left faint. */
export function TracedOverlay({
  found,
  left,
  foldable,
}: {
  found: TraceFound;
  left: Left;
  foldable: readonly boolean[];
}) {
  const { px, scale } = useView();
  const data = usePathData();
  return (
    <g fill="none" stroke="var(--torch)">
      {found.doubtful.map((run, i) => (
        <polyline
          key={i}
          points={run.map((p) => px(p).join(',')).join(' ')}
          strokeWidth={14}
          strokeDasharray="2 5"
          opacity={0.75}
        />
      ))}
      <path d={data(found.outline)} strokeWidth={2.6} />
      {found.outline.map(({ a }, i) => {
        const [x, y] = px(a);
        return (
          <rect
            key={i}
            x={x - 4}
            y={y - 4}
            width={8}
            height={8}
            fill="var(--panel)"
            strokeWidth={2}
            transform={`rotate(45 ${x} ${y})`}
          />
        );
      })}
      {found.holes.map((hole, i) => {
        const [cx, cy] = px([hole.x, hole.y]);
        const path = holePath([hole.x, hole.y], hole);
        return (
          <g key={i} opacity={left.holes.includes(i) ? 0.3 : 1}>
            {path ? (
              <path d={data(path)} strokeWidth={2.4} />
            ) : (
              <circle cx={cx} cy={cy} r={(hole.diameterMm / 2) * scale} strokeWidth={2.4} />
            )}
            <text
              x={cx + holeReach(hole) * scale + 5}
              y={cy - 5}
              stroke="none"
              fill="var(--torch)"
              fontSize={15}
              className="figure"
            >
              {i + 1}
            </text>
          </g>
        );
      })}
      {found.lines.map(([a, b], i) => {
        const [[x1, y1], [x2, y2]] = [px(a), px(b)];
        return (
          <line
            key={i}
            x1={x1}
            y1={y1}
            x2={x2}
            y2={y2}
            strokeWidth={2.2}
            strokeDasharray={lineTaken(left, foldable, i) === 'fold' ? '11 4' : '1 3'}
            opacity={lineTaken(left, foldable, i) === 'leave' ? 0.35 : 1}
          />
        );
      })}
    </g>
  );
}
