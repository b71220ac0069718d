import Box from '@mui/material/Box';
import useMediaQuery from '@mui/material/useMediaQuery';
import { useMemo } from 'react';
import type { Ellipse } from '#core/measure/ellipse';
import type { Adjustment } from '#core/measure/network/network';
import { SUSPECT_ABOVE } from '#core/measure/network/network';
import { GoneMark } from '../drawing/marks';
import { usePreferences } from '../frame/preferences';
import { namesAt } from './netNames';
import { useSurvey } from './useSurvey';

/**
 * Enlargement of error ellipses: true to scale a millimetre on a shell of three metres would not be
 * seen.
 */
const ELLIPSES = 20;

export type View = { turns: number; mirrored: boolean };

/** Where a place is drawn: turned by quarters, y down. */
function seen(x: number, y: number, turns: number, mirrored: boolean): readonly [number, number] {
  let [u, v] = [mirrored ? -x : x, y];
  for (let i = 0; i < turns % 4; i++) [u, v] = [-v, u];
  return [u, -v];
}

export function usualView({ points }: Adjustment): View {
  const span = (k: number) =>
    Math.max(...points.map(({ at }) => at[k] ?? 0)) -
    Math.min(...points.map(({ at }) => at[k] ?? 0));
  return { turns: span(1) > span(0) ? 3 : 0, mirrored: false };
}

/**
 * The points of a round as its tapes place them, true to scale, with how sure each is and by how
 * much each tape is out. In space it is looked at from the +z side.
 */
export function NetworkPicture({
  found,
  view,
  picked,
  onPick,
  taken,
  wanted = [],
}: {
  found: Adjustment;
  /**
   * Quarter turns to the left, and whether it is seen from behind; null: so that it lies on its
   * long side.
   */
  view: View | null;
  picked: string | null;
  onPick: (id: string | null) => void;
  /**
   * Points that are taken away, with how well each can be put back; the ± of the others is then
   * left out.
   */
  taken?: ReadonlyMap<string, { good: boolean; ellipse: Ellipse | null }>;
  /** Measures to take next, by their ends. */
  wanted?: readonly { from: string; to: string }[];
}) {
  const { points } = useSurvey();
  const { show } = usePreferences();
  const names = new Map(points.map(({ id, name }) => [id, name]));
  const places = useMemo(() => {
    const { turns, mirrored } = view ?? usualView(found);
    return new Map(
      found.points.map(
        ({ name, at }) => [name, seen(at[0]!, at[1] ?? 0, turns, mirrored)] as const,
      ),
    );
  }, [found, view]);
  const { turns, mirrored: behind } = view ?? usualView(found);
  const xs = [...places.values()].map(([x]) => x);
  const ys = [...places.values()].map(([, y]) => y);
  const size = Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys), 1);
  const margin = size * 0.16;
  const box = [
    Math.min(...xs) - margin,
    Math.min(...ys) - margin,
    Math.max(...xs) - Math.min(...xs) + 2 * margin,
    Math.max(...ys) - Math.min(...ys) + 2 * margin,
  ];
  // As wide on the screen as a line is meant to be: on a phone the picture is half as wide.
  const narrow = useMediaQuery('(max-width: 899px)');
  const unit = Math.max(box[2]! / 700, box[3]! / 430) * (narrow ? 1.7 : 1);
  const written = namesAt(
    found.points.map(({ name: id, elsewhere }) => ({
      at: places.get(id)!,
      name: `${names.get(id) ?? id}${elsewhere ? ' ?' : ''}`,
    })),
    { left: box[0]!, right: box[0]! + box[2]!, top: box[1]!, bottom: box[1]! + box[3]! },
    16 * unit,
    unit,
  );
  const suspect = found.suspect;
  return (
    <svg
      viewBox={box.join(' ')}
      width="100%"
      height="100%"
      role="group"
      aria-label="The points, as the tapes place them"
      onClick={() => onPick(null)}
    >
      {found.tapes.map(({ from, to, residualMm, normalised }, i) => {
        const [a, b] = [places.get(from)!, places.get(to)!];
        const wrong = suspect?.from === from && suspect.to === to;
        const doubtful = (normalised ?? 0) > SUSPECT_ABOVE;
        const [x, y] = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
        return (
          <g key={i}>
            <line
              x1={a[0]}
              y1={a[1]}
              x2={b[0]}
              y2={b[1]}
              stroke={wrong ? 'var(--torch)' : 'var(--layout)'}
              strokeWidth={(wrong ? 4 : 1.8) * unit}
              strokeDasharray={normalised === null ? `${9 * unit} ${6 * unit}` : undefined}
            />
            {(wrong || doubtful || from === picked || to === picked) && (
              <text
                x={x}
                y={y}
                fontSize={(wrong ? 15 : 12) * unit}
                fontWeight={wrong ? 700 : 500}
                textAnchor="middle"
                dominantBaseline="middle"
                fill={wrong ? 'var(--torch)' : 'var(--ink)'}
                stroke="var(--halo)"
                strokeWidth={4 * unit}
                paintOrder="stroke"
                className="figure"
              >
                {residualMm > 0 ? '+' : ''}
                {show(residualMm)}
              </text>
            )}
          </g>
        );
      })}
      {wanted.map(({ from, to }) => {
        const [a, b] = [places.get(from), places.get(to)];
        return (
          a &&
          b && (
            <line
              key={`${from} ${to}`}
              x1={a[0]}
              y1={a[1]}
              x2={b[0]}
              y2={b[1]}
              stroke="var(--torch)"
              strokeWidth={4 * unit}
              strokeDasharray={`${14 * unit} ${8 * unit}`}
            />
          )
        );
      })}
      {found.points.map(({ name: id, at, uMm, ellipse: own, elsewhere }, i) => {
        const gone = taken?.get(id);
        const ellipse = taken ? (gone?.ellipse ?? null) : own;
        const ink = gone && !gone.good ? 'var(--torch)' : 'var(--layout)';
        const [x, y] = places.get(id)!;
        const on = id === picked;
        const name = names.get(id) ?? id;
        const worst = Math.max(...uMm);
        return (
          <g
            key={id}
            role="button"
            tabIndex={0}
            className="pickable"
            style={{ cursor: 'pointer' }}
            aria-pressed={on}
            aria-label={`${name}: at ${at.map((v) => show(v)).join(', ')}, give or take ${show(worst)}${gone ? '; it is cut away' : ''}${elsewhere ? '; it could as well stand on the other side' : ''}`}
            onClick={(event) => {
              event.stopPropagation();
              onPick(on ? null : id);
            }}
            onKeyDown={(event) => {
              if (event.key === 'Enter' || event.key === ' ') {
                event.preventDefault();
                onPick(on ? null : id);
              }
            }}
          >
            {ellipse && ellipse.aMm > 0 && (
              <ellipse
                cx={x}
                cy={y}
                rx={ellipse.aMm * ELLIPSES}
                ry={Math.max(ellipse.bMm * ELLIPSES, unit)}
                transform={`rotate(${-((behind ? 180 - ellipse.angleDeg : ellipse.angleDeg) + 90 * turns)} ${x} ${y})`}
                fill={`color-mix(in srgb, ${ink} 18%, transparent)`}
                stroke={ink}
                strokeWidth={unit}
              />
            )}
            {gone ? (
              <GoneMark at={[x, y]} unit={unit} good={gone.good} />
            ) : (
              <circle
                cx={x}
                cy={y}
                r={(on ? 9 : 6.5) * unit}
                fill={on ? 'var(--torch)' : 'var(--ink)'}
                stroke="var(--halo)"
                strokeWidth={2 * unit}
              />
            )}
            <rect
              className="hit-tag"
              x={x - 23 * unit}
              y={y - 23 * unit}
              width={46 * unit}
              height={46 * unit}
            />
            <text
              x={written[i]!.x}
              y={written[i]!.y}
              fontSize={16 * unit}
              fontWeight={600}
              textAnchor={written[i]!.anchor}
              fill="var(--ink)"
              stroke="var(--halo)"
              strokeWidth={5 * unit}
              paintOrder="stroke"
            >
              {name}
              {elsewhere ? ' ?' : ''}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

/** What the tapes say of themselves, in a sentence or two. */
export function networkSentence(found: Adjustment, nameOf: (id: string) => string): string {
  const { redundancy, sigma0, suspect, tapes, points } = found;
  const count = `${tapes.length} ${tapes.length === 1 ? 'tape' : 'tapes'} for ${points.length} points`;
  if (suspect)
    return `${count}: the tape from ${nameOf(suspect.from)} to ${nameOf(suspect.to)} is most likely misread. Take it again.`;
  if (redundancy === 0)
    return `${count}, not one to spare: if one is wrong, nothing here would show it. Measure one more.`;
  const odd = tapes.some(({ normalised }) => (normalised ?? 0) > SUSPECT_ABOVE);
  if (odd)
    return `${count}: they do not agree. One can be wrong, and we could not tell which: take them again, or measure one more.`;
  const said =
    sigma0! > 2
      ? 'They agree less well than they are said to be good'
      : 'They agree as well as they are said to be good';
  return `${count}. ${said}.`;
}

export const PictureFrame = ({ children, low }: { children: React.ReactNode; low?: boolean }) => (
  <Box
    sx={{
      height: { xs: 320, md: low ? 400 : 470 },
      bgcolor: 'var(--bench-top)',
      border: '1.5px solid var(--rule)',
    }}
  >
    {children}
  </Box>
);
