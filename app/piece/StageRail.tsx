import Box from '@mui/material/Box';
import { memo, useEffect, useRef } from 'react';
import { NavLink, useLocation } from 'react-router';
import { StopMark } from '../frame/StopMark';
import { useWho } from '../frame/who';
import type { Road } from './stages';
import { STAGES, stopSaid } from './stages';

/**
 * The road of a piece across the top: each stop with how it stands, and for whoever works at it a
 * way there.
 */
export const StageRail = memo(function StageRail({ piece, road }: { piece: string; road: Road }) {
  const looks = useWho()?.role === 'looks';
  const rail = useRef<HTMLElement>(null);
  const { pathname } = useLocation();
  // On a phone the rail is longer than the screen: bring the stop one is at into view.
  useEffect(() => {
    rail.current
      ?.querySelector('[aria-current="page"]')
      ?.scrollIntoView({ inline: 'center', block: 'nearest' });
  }, [pathname]);
  return (
    <Box
      component="nav"
      ref={rail}
      aria-label="The road of the piece"
      sx={{
        display: 'flex',
        bgcolor: 'var(--panel)',
        borderBottom: '1.5px solid var(--rule)',
        overflowX: 'auto',
        scrollbarWidth: 'none',
        '@media print': { display: 'none' },
      }}
    >
      {STAGES.map(({ id, key, label }) => {
        const stop = road[id];
        return (
          <Box
            key={id}
            {...(looks
              ? { component: 'span', role: 'img' }
              : { component: NavLink, to: `/pieces/${piece}/${id}` })}
            aria-label={stopSaid(label, stop)}
            sx={{
              flex: '1 0 auto',
              display: 'flex',
              alignItems: 'center',
              gap: 1,
              px: { xs: 1.2, md: 2 },
              minHeight: 50,
              color: 'inherit',
              textDecoration: 'none',
              borderBottom: '4px solid transparent',
              '&.active': { borderBottomColor: 'var(--torch)', bgcolor: 'var(--chalk)' },
              '&:focus-visible': { outlineOffset: -3 },
            }}
          >
            <StopMark state={stop.state} />
            <Box sx={{ lineHeight: 1.1 }}>
              <Box className="condensed" sx={{ fontSize: '1.12rem', fontWeight: 600 }}>
                <Box
                  component="span"
                  className="figure"
                  sx={{
                    color: 'var(--pencil)',
                    fontSize: '0.8rem',
                    mr: 0.6,
                    display: { xs: 'none', md: 'inline' },
                  }}
                >
                  {key}
                </Box>
                {label}
              </Box>
              <Box
                sx={{
                  fontSize: '0.8rem',
                  color: stop.state === 'attention' ? 'var(--torch)' : 'var(--pencil)',
                  display: { xs: 'none', sm: 'block' },
                }}
              >
                {stop.note || '\u00a0'}
              </Box>
            </Box>
          </Box>
        );
      })}
    </Box>
  );
}, sameRail);

/**
 * The rail rests while a corner is dragged: the road is reckoned anew, and mostly comes out the
 * same.
 */
function sameRail(a: { piece: string; road: Road }, b: { piece: string; road: Road }): boolean {
  return (
    a.piece === b.piece &&
    STAGES.every(
      ({ id }) => a.road[id].state === b.road[id].state && a.road[id].note === b.road[id].note,
    )
  );
}
