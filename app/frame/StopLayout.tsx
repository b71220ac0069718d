import Box from '@mui/material/Box';
import { useEffect, useRef } from 'react';
import type { ReactNode } from 'react';
import { Guarded } from './Guarded';
import type { TallyFigure } from './Tally';
import { Tally } from './Tally';
import { BUTTONS, firstControl, lostWith } from './focus';
import { useKeys } from './keys';

/** How long a key is still meant that found the drawer empty, ms. */
const MEANT_MS = 1000;

/**
 * The layout of every stop: drawing, drawer at its side (under it on an upright tablet or a phone),
 * tally along the bottom.
 */
export function StopLayout({
  drawing,
  drawer,
  tally,
  drawerWidth = 360,
}: {
  drawing: ReactNode;
  drawer: ReactNode;
  tally: TallyFigure[];
  drawerWidth?: number;
}) {
  const side = useRef<HTMLElement>(null);
  const sheet = useRef<HTMLDivElement>(null);
  // From the drawing to what the picked thing says, and back to it, are one key each: between them
  // lie all the marks.
  const drawnTo = useRef<HTMLElement | undefined>(undefined);
  /** Until when a key that found nothing in the drawer is still meant, ms of `performance.now`. */
  const meantUntil = useRef(0);
  const toDrawer = () => {
    drawnTo.current = side.current ? firstControl(side.current) : undefined;
    meantUntil.current = drawnTo.current ? 0 : performance.now() + MEANT_MS;
    drawnTo.current?.focus();
  };
  useKeys({
    d: toDrawer,
    'Shift+D': () =>
      (
        sheet.current?.querySelector<SVGElement>('[aria-pressed="true"]') ??
        sheet.current?.querySelector<SVGElement>('[role="button"]')
      )?.focus(),
  });
  // What stands in the drawer changes by itself too (a panel that is fetched, a part that opens): the
  // focus that a key brought there is not lost with it.
  useEffect(() => {
    if (!side.current) return;
    const changes = new MutationObserver(() => {
      const gone = lostWith();
      if ((gone && gone === drawnTo.current) || performance.now() < meantUntil.current) toDrawer();
    });
    changes.observe(side.current, { childList: true, subtree: true });
    return () => changes.disconnect();
  }, []);
  // A button that makes something often goes away with it: the focus goes on to what was made.
  // Never into a field: there single keys would be typed.
  const opened = useRef(true);
  useEffect(() => {
    const fresh = opened.current;
    opened.current = false;
    const gone = lostWith();
    if (!gone) return;
    // The drawer was about to say something else when the key brought the focus there.
    if (gone === drawnTo.current) return toDrawer();
    const mark = (which: string) => sheet.current?.querySelector<SVGElement>(which);
    const made =
      mark('[aria-pressed="true"]') ??
      (fresh ? mark('[role="button"]') : null) ??
      (side.current && firstControl(side.current, BUTTONS));
    made?.focus({ preventScroll: true });
  });
  return (
    <Box sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: 'column' }}>
      <Box
        sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: { xs: 'column', md: 'row' } }}
      >
        <Box
          ref={sheet}
          sx={{
            flex: { xs: '0 0 auto', md: 1 },
            height: { xs: '44dvh', md: 'auto' },
            minWidth: 0,
            minHeight: 0,
            position: 'relative',
          }}
        >
          <Guarded what="The drawing">{drawing}</Guarded>
        </Box>
        <Box
          component="aside"
          ref={side}
          aria-label="Drawer"
          sx={{
            flex: { xs: '1 0 auto', md: `0 0 ${drawerWidth}px` },
            overflowY: { md: 'auto' },
            bgcolor: 'var(--panel)',
            borderLeft: { md: '1.5px solid var(--rule)' },
            borderTop: { xs: '1.5px solid var(--rule)', md: 0 },
            p: 2,
            // What is scrolled to comes clear of the button that sticks to the bottom.
            '& input, & textarea': { scrollMarginBottom: 110 },
          }}
        >
          <Guarded what="What stands here">{drawer}</Guarded>
        </Box>
      </Box>
      {tally.length > 0 && <Tally figures={tally} />}
    </Box>
  );
}
