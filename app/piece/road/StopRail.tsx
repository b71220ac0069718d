import Box from '@mui/material/Box';
import type { MouseEvent } from 'react';
import { memo, useEffect, useRef, useState } from 'react';
import { NavLink, useLocation, useNavigation } from 'react-router';
import { StopMark } from '../../frame/StopMark';
import { useWho } from '../../frame/recordedBy';
import { stopAt } from '../../frame/stops';
import type { Road } from './road';
import { stopSaid, stopsOn } from './road';

/**
 * The road of a piece across the top: each stop with how it stands, and for whoever works at it a
 * way there.
 */
export const StopRail = memo(function StopRail({ piece, road }: { piece: string; road: Road }) {
  const looks = useWho()?.role === 'looks';
  const [told, setTold] = useState<string | null>(null);
  const rail = useRef<HTMLElement>(null);
  const { pathname } = useLocation();
  const under = useNavigation().state !== 'idle';
  // On a phone the rail is longer than the screen: bring the stop one is at into view.
  useEffect(() => {
    rail.current
      ?.querySelector('[aria-current="page"]')
      ?.scrollIntoView({ inline: 'center', block: 'nearest' });
  }, [pathname]);
  const here = stopAt(pathname);
  const why = here && told === pathname ? (road[here.id]?.why ?? []) : [];
  return (
    <>
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
        {stopsOn(road).map(([{ id, key, label }, stop]) => {
          return (
            <Box
              key={id}
              {...(looks
                ? { component: 'span', role: 'img' }
                : { component: NavLink, to: `/pieces/${piece}/${id}` })}
              title={stop.why.join(' ')}
              onClick={(event: MouseEvent) => {
                // Where one is already, a touch tells why it stands as it does. While the way to
                // another stop is under way it is the way back: the address is ahead of what is seen.
                const staying = !under && window.location.pathname === pathname;
                if (here?.id !== id || !staying || stop.why.length === 0) return;
                event.preventDefault();
                setTold((last) => (last === pathname ? null : pathname));
              }}
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
      {why.length > 0 && (
        <Box
          role="status"
          sx={{
            bgcolor: 'var(--chalk)',
            borderBottom: '1.5px solid var(--rule)',
            px: 2,
            py: 0.8,
            '@media print': { display: 'none' },
          }}
        >
          {why.map((reason) => (
            <div key={reason}>{reason}</div>
          ))}
        </Box>
      )}
    </>
  );
}, sameRail);

/**
 * The rail rests while a corner is dragged: the road is reckoned anew, and mostly comes out the
 * same.
 */
function sameRail(a: { piece: string; road: Road }, b: { piece: string; road: Road }): boolean {
  const [one, other] = [stopsOn(a.road), stopsOn(b.road)];
  return (
    a.piece === b.piece &&
    one.length === other.length &&
    one.every(([entry, stop], i) => {
      const [there, now] = other[i]!;
      return (
        entry === there &&
        stop.state === now.state &&
        stop.note === now.note &&
        stop.why.join() === now.why.join()
      );
    })
  );
}
