import Box from '@mui/material/Box';
import { useContext } from 'react';
import { Outlet, isRouteErrorResponse } from 'react-router';
import { DrawnHere } from '../frame/drawnHere';
import { Failure } from '../frame/Failure';
import { Lost } from '../frame/Lost';
import type { Route } from './+types/stop';

/** Round every stop of a piece: what goes wrong at one leaves the bar and the rail as they are. */
export default function Stop() {
  return useContext(DrawnHere) ? <Outlet /> : null;
}

export const ErrorBoundary = ({ error }: Route.ErrorBoundaryProps) => (
  <Box sx={{ p: { xs: 2, md: 3 } }}>
    {isRouteErrorResponse(error) && error.status === 404 ? (
      <Lost title="Not here" text="There is no such page, or what it showed was moved." />
    ) : (
      <Failure error={error} />
    )}
  </Box>
);
