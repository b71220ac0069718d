import DarkModeOutlined from '@mui/icons-material/DarkModeOutlined';
import KeyboardOutlined from '@mui/icons-material/KeyboardOutlined';
import LightModeOutlined from '@mui/icons-material/LightModeOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { useKeyCard } from './keyCard';
import { useKeys } from './keys';
import { usePreferences } from './preferences';
import { useWho } from './recordedBy';

/** The line across the top of every page: where one is, the units, the light, the key card. */
export function TopBar({ children, right }: { children: ReactNode; right?: ReactNode }) {
  const { unit, bench, toggleUnit, toggleBench } = usePreferences();
  const openKeyCard = useKeyCard();
  useKeys({ u: toggleUnit, '?': openKeyCard });
  const looks = useWho()?.role === 'looks';
  return (
    <>
      {looks && (
        <Box
          role="note"
          sx={{ bgcolor: 'var(--link)', color: '#fff', px: 2, py: 0.6, fontSize: '1.02rem' }}
        >
          You look at this job: what was done, and how far it is. Nothing here is to be filled in.
        </Box>
      )}
      <Box
        component="header"
        sx={{
          display: 'flex',
          alignItems: 'center',
          gap: { xs: 0.2, sm: 1 },
          px: { xs: 0.8, sm: 2 },
          minHeight: 50,
          bgcolor: 'var(--panel)',
          borderBottom: '1.5px solid var(--rule)',
          '@media print': { '& button, & a': { display: 'none' } },
        }}
      >
        {/* On a phone a page with a way back of its own has no room for the sign. */}
        <Box sx={{ display: { xs: children ? 'none' : 'flex', sm: 'flex' } }}>
          <Link
            to="/"
            aria-label="Patrone: all jobs"
            style={{
              display: 'flex',
              color: 'inherit',
              textDecoration: 'none',
              alignItems: 'center',
              gap: 8,
            }}
          >
            <img src="/icon.svg" alt="" width={28} height={28} />
            <Box
              component="span"
              className="condensed"
              sx={{
                fontSize: '1.3rem',
                fontWeight: 600,
                letterSpacing: '0.04em',
                display: { xs: 'none', sm: 'inline' },
              }}
            >
              Patrone
            </Box>
          </Link>
        </Box>
        <Box
          sx={{
            flex: 1,
            minWidth: 0,
            display: 'flex',
            alignItems: 'center',
            gap: 1,
            overflow: 'hidden',
          }}
        >
          {children}
        </Box>
        {right}
        <Tooltip title="Millimetres or inches (U)">
          <Button
            size="small"
            variant="outlined"
            onClick={toggleUnit}
            sx={{ minWidth: 56, px: 1 }}
            aria-label={`Units: ${unit === 'mm' ? 'millimetres' : 'inches'}. Change`}
          >
            <span className="figure">{unit === 'mm' ? 'mm' : 'in'}</span>
          </Button>
        </Tooltip>
        <Tooltip title={bench === 'light' ? 'Night bench' : 'Day bench'}>
          <IconButton
            onClick={toggleBench}
            aria-label={bench === 'light' ? 'Night bench' : 'Day bench'}
          >
            {bench === 'light' ? <DarkModeOutlined /> : <LightModeOutlined />}
          </IconButton>
        </Tooltip>
        <Tooltip title="Keys and marks (?)">
          <IconButton onClick={openKeyCard} aria-label="Keys and marks">
            <KeyboardOutlined />
          </IconButton>
        </Tooltip>
      </Box>
    </>
  );
}
