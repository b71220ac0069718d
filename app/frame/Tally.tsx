import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import Popover from '@mui/material/Popover';
import Typography from '@mui/material/Typography';
import { useState } from 'react';

export type Working = { title: string; lines: string[]; source: string };
export type TallyFigure = { label: string; value: string; working?: Working; alert?: boolean };

/** As many signs as stand beside each other in full size at 1280 wide. */
const ROOM = 86;

/** The few figures that one would chalk on the metal. Touch one to see how it was reckoned. */
export function Tally({ figures }: { figures: TallyFigure[] }) {
  // Many long figures are set smaller, so that they stay on one line.
  const small =
    figures.reduce((sum, f) => sum + Math.max(f.value.length, f.label.length * 0.7) + 3, 0) > ROOM;
  const [shown, setShown] = useState<{ anchor: HTMLElement; working: Working } | null>(null);
  return (
    <Box
      component="section"
      aria-label="Tally"
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        bgcolor: 'var(--panel)',
        borderTop: '1.5px solid var(--rule)',
      }}
    >
      {figures.map(({ label, value, working, alert }) => (
        <ButtonBase
          key={label}
          disabled={!working}
          aria-label={working ? `${label} ${value}. Show the working` : undefined}
          onClick={(event) => working && setShown({ anchor: event.currentTarget, working })}
          sx={{
            flex: '1 1 auto',
            flexDirection: 'column',
            alignItems: 'flex-start',
            px: 2,
            py: 0.8,
            minHeight: 62,
            borderRight: '1px solid var(--rule)',
            '&:hover': { bgcolor: 'var(--chalk)' },
          }}
        >
          <Box
            component="span"
            className="condensed"
            sx={{
              fontSize: '0.95rem',
              color: 'var(--pencil)',
              borderBottom: working ? '1.5px dotted var(--pencil)' : 'none',
            }}
          >
            {label}
          </Box>
          <Box
            component="span"
            className="figure"
            sx={{
              fontSize: { xs: '1.15rem', md: small ? '1.1rem' : '1.4rem' },
              fontWeight: 500,
              whiteSpace: 'nowrap',
              color: alert ? 'var(--torch)' : 'inherit',
            }}
          >
            {value}
          </Box>
        </ButtonBase>
      ))}
      <Popover
        open={shown !== null}
        anchorEl={shown?.anchor}
        onClose={() => setShown(null)}
        anchorOrigin={{ vertical: 'top', horizontal: 'left' }}
        transformOrigin={{ vertical: 'bottom', horizontal: 'left' }}
      >
        {shown && (
          <Box sx={{ p: 2, maxWidth: 460 }}>
            <Typography variant="h3" gutterBottom>
              {shown.working.title}
            </Typography>
            {shown.working.lines.map((line, i) => (
              <Box key={i} className="figure" sx={{ fontSize: '0.95rem', mb: 0.5 }}>
                {line}
              </Box>
            ))}
            <Typography variant="caption" sx={{ color: 'var(--pencil)' }}>
              {shown.working.source}
            </Typography>
          </Box>
        )}
      </Popover>
    </Box>
  );
}
