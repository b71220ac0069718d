import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { Moment } from '../frame/Moment';
import { Told } from '../frame/Told';
import type { LastBackup } from '../records/backups.server';

const size = (bytes: number): string =>
  bytes < 1e6 ? `${Math.max(1, Math.round(bytes / 1e3))} kB` : `${(bytes / 1e6).toFixed(1)} MB`;

/** When the shop's records were last backed up, where to, and whether that is too long ago. */
export function Backups({ found }: { found: LastBackup | null }) {
  return (
    <Box component="section" aria-label="Backups" sx={{ mt: 4 }}>
      <Typography variant="h2" gutterBottom>
        Backups
      </Typography>
      {found?.last ? (
        <>
          <div>
            Last backed up <Moment at={found.last.at} />,{' '}
            <span className="figure">{size(found.last.bytes)}</span>, into{' '}
            <Box component="code" sx={{ overflowWrap: 'anywhere' }}>
              {found.folder}
            </Box>
          </div>
          {found.late && (
            <Box sx={{ mt: 1 }}>
              <Told>
                That is more than two days ago. Leave Patrone running overnight, or see where it was
                started why the last one could not be written.
              </Told>
            </Box>
          )}
        </>
      ) : (
        <Told>
          {found
            ? 'Nothing has been backed up yet: the first is made within a minute of the start. See where it was started if it is not.'
            : 'Patrone was started without its backups. Start it with ./patrone start.'}
        </Told>
      )}
      <Typography sx={{ mt: 1, color: 'var(--pencil)', maxWidth: 720 }}>
        One is made each day that Patrone runs; of the last 7 days, 4 weeks and 12 months one each
        is kept. Copy that folder to another machine now and then: a backup on the same disk dies
        with it.
      </Typography>
    </Box>
  );
}
