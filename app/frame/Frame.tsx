import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { Link, Outlet } from 'react-router';
import { TopBar } from './TopBar';

/** The frame of the pages that are not stages. */
export default function Frame() {
  return (
    <Box sx={{ minHeight: '100dvh', display: 'flex', flexDirection: 'column' }}>
      <TopBar
        right={
          <Button component={Link} to="/shop" size="small" variant="text" color="inherit">
            Shop settings
          </Button>
        }
      >
        {null}
      </TopBar>
      <Box component="main" sx={{ flex: 1, width: '100%', maxWidth: 1180, mx: 'auto', p: { xs: 2, md: 3 } }}>
        <Outlet />
      </Box>
    </Box>
  );
}
