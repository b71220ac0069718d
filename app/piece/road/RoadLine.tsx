import Box from '@mui/material/Box';
import { Link } from 'react-router';
import { StopMark } from '../../frame/StopMark';
import { useWho } from '../../frame/recordedBy';
import type { Road } from './road';
import { stopSaid, stopsOn } from './road';

/** A piece's road in small: one mark a stop, each a way there for whoever works at it. */
export function RoadLine({ piece, road }: { piece: string; road: Road }) {
  const looks = useWho()?.role === 'looks';
  return (
    <Box sx={{ display: 'flex', px: 1, pb: 0.5 }}>
      {stopsOn(road).map(([{ id, label }, stop]) => (
        <Box
          key={id}
          {...(looks
            ? { component: 'span', role: 'img' }
            : { component: Link, to: `/pieces/${piece}/${id}` })}
          title={[stop.note || label, ...stop.why].join('. ')}
          aria-label={stopSaid(label, stop)}
          sx={{
            flex: 1,
            minHeight: 48,
            display: 'flex',
            flexDirection: 'column',
            alignItems: 'center',
            justifyContent: 'center',
            gap: 0.2,
            color: 'inherit',
            textDecoration: 'none',
            '&:hover': { bgcolor: 'var(--chalk)' },
          }}
        >
          <StopMark state={stop.state} />
          <Box className="condensed" sx={{ fontSize: '0.92rem' }}>
            {label}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
