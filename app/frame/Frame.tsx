import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { Link, Outlet } from 'react-router';
import { TopBar } from './TopBar';
import { useWho } from './recordedBy';

/** The frame of the pages that are not stages. */
export default function Frame() {
  const who = useWho();
  return (
    <Box sx={{ minHeight: '100dvh', display: 'flex', flexDirection: 'column' }}>
      <TopBar
        right={
          <>
            {who?.role === 'runs' && (
              <Button component={Link} to="/people" size="small" variant="text" color="inherit">
                People
              </Button>
            )}
            {who?.role !== 'looks' && (
              <Button component={Link} to="/shop" size="small" variant="text" color="inherit">
                <Box component="span" sx={{ display: { xs: 'none', sm: 'inline' } }}>
                  Shop settings
                </Box>
                <Box component="span" sx={{ display: { sm: 'none' } }}>
                  Shop
                </Box>
              </Button>
            )}
            {who?.name && !who.names && (
              <Button
                component={Link}
                to="/you"
                size="small"
                variant="text"
                color="inherit"
                aria-label={`You: ${who.name}`}
              >
                {who.name}
              </Button>
            )}
          </>
        }
      >
        {null}
      </TopBar>
      <Box
        component="main"
        sx={{ flex: 1, width: '100%', maxWidth: 1180, mx: 'auto', p: { xs: 2, md: 3 } }}
      >
        <Outlet />
      </Box>
    </Box>
  );
}
