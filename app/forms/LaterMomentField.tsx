import TextField from '@mui/material/TextField';
import type { ComponentProps } from 'react';
import { Suspense, lazy } from 'react';
import type Field from './MomentField';

// The picker is large and wanted only where somebody says when something was.
const MomentField = lazy(() => import('./MomentField'));

/**
 * A field for a date and time that comes when it is wanted; until then its place is held, so that no
 * button moves away from under a finger.
 */
export const LaterMomentField = (given: ComponentProps<typeof Field>) => (
  <Suspense fallback={<TextField label={given.label} fullWidth disabled value="" />}>
    <MomentField {...given} />
  </Suspense>
);
