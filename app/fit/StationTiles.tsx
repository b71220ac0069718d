import Box from '@mui/material/Box';
import type { Target } from '#core/fit/target';
import type { FitRecord } from '#core/format/job';
import type { GapState } from '../drawing/marks';
import { GapSign } from '../drawing/marks';
import { usePreferences } from '../frame/preferences';

export type What = 'gap' | 'flush';
type Wanted = Omit<Target, 'why'>;

const SAID: Record<GapState, string> = {
  right: 'right',
  wide: 'too wide',
  tight: 'too tight',
  proud: 'proud',
  low: 'low',
  unread: 'not read',
};

/** How one reading lies to what is wanted. */
function stateOfReading(what: What, value: number | null, wanted: Wanted): GapState {
  if (value === null) return 'unread';
  const over = what === 'gap' ? value - wanted.gapMm : value;
  const within = what === 'gap' ? wanted.toleranceMm : wanted.flushMm;
  if (Math.abs(over) <= within + 1e-9) return 'right';
  if (what === 'gap') return over > 0 ? 'wide' : 'tight';
  return over > 0 ? 'proud' : 'low';
}

type Props = {
  record: FitRecord['edges'][number];
  what: What;
  wanted: Wanted;
  /** The station in hand. */
  at: number;
  onTouch: (station: number) => void;
};

/** The stations of an edge: where each is, what was read there, and how that lies. */
export function StationTiles({ record, what, wanted, at, onTouch }: Props) {
  const { brief, showThin, thin } = usePreferences();
  return (
    <Box
      role="list"
      aria-label="Stations"
      sx={{
        display: 'grid',
        gridTemplateColumns: 'repeat(auto-fill, minmax(74px, 1fr))',
        gap: 0.7,
      }}
    >
      {record.stations.map((s, i) => {
        const value = what === 'gap' ? s.gapMm : s.flushMm;
        const state = stateOfReading(what, value, wanted);
        const off = state !== 'right' && state !== 'unread';
        return (
          <Box role="listitem" key={i}>
            <Box
              component="button"
              type="button"
              aria-label={`Station ${i + 1}: ${value === null ? SAID.unread : `${showThin(value)}, ${SAID[state]}`}`}
              aria-current={i === at ? 'step' : undefined}
              onClick={() => onTouch(i)}
              sx={{
                font: 'inherit',
                color: 'inherit',
                cursor: 'pointer',
                width: '100%',
                minHeight: 48,
                p: 0.4,
                bgcolor: i === at ? 'var(--torch-ground)' : 'var(--chalk)',
                border: '1.5px solid',
                borderColor: i === at ? 'var(--torch)' : 'var(--rule)',
              }}
            >
              <Box sx={{ fontSize: '0.78rem', color: 'var(--pencil)' }} className="figure">
                {brief(s.atMm, 0)}
              </Box>
              <Box
                className="figure"
                sx={{
                  fontSize: '1.05rem',
                  fontWeight: 500,
                  color: off ? 'var(--torch)' : 'inherit',
                  display: 'flex',
                  gap: 0.5,
                  alignItems: 'center',
                  justifyContent: 'center',
                }}
              >
                {value !== null && <GapSign state={state} />}
                {value === null ? '·' : thin(value)}
              </Box>
            </Box>
          </Box>
        );
      })}
    </Box>
  );
}
