import Box from '@mui/material/Box';
import { Link } from 'react-router';
import { StopMark } from '../../frame/StopMark';
import { useWho } from '../../frame/recordedBy';
import { STOPS } from '../../frame/stops';
import type { Road } from './road';
import { stopSaid } from './road';

/** A piece's road in small: one mark a stop, each a way there for whoever works at it. */
export function RoadLine({ piece, road }: { piece: string; road: Road }) {
  const looks = useWho()?.role === 'looks';
  return (
    <Box sx={{ display: 'flex', px: 1, pb: 0.5 }}>
      {STOPS.map(({ id, label }) => (
        <Box
          key={id}
          {...(looks
            ? { component: 'span', role: 'img' }
            : { component: Link, to: `/pieces/${piece}/${id}` })}
          title={[road[id].note || label, ...road[id].why].join('. ')}
          aria-label={stopSaid(label, road[id])}
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
          <StopMark state={road[id].state} />
          <Box className="condensed" sx={{ fontSize: '0.92rem' }}>
            {label}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
