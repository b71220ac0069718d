import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import { INSPECTION_WORDS, workSaid } from '../frame/recordWords';
import { Moment } from '../frame/Moment';
import { usePreferences } from '../frame/preferences';
import { PROCESS_WORDS } from '../frame/words';
import { usePiece } from '../piece/pieceContext';

/** What was read and done of an edge on the page of the piece that it meets. */
export function AcrossRecords({ edge }: { edge: string }) {
  const { joined } = usePiece();
  const { showThin } = usePreferences();
  const across = joined.across.get(edge) ?? [];
  return across.map(({ meeting, fit, welds, inspections }) => {
    const met = meeting.edge!;
    const gaps = (fit?.edge.stations ?? []).flatMap(({ gapMm }) => gapMm ?? []);
    return (
      <Box
        key={meeting.id}
        component="section"
        aria-label={`Written down at ${meeting.name}`}
        sx={{ p: 1.2, bgcolor: 'var(--chalk)', border: '1px dashed var(--rule)' }}
      >
        <Typography sx={{ fontWeight: 600 }}>
          Written down at{' '}
          <Link to={`/pieces/${met.piece.id}/weld`}>
            {met.piece.name}, {met.edge.letter}
          </Link>
        </Typography>
        {fit && gaps.length > 0 && (
          <div>
            Gaps from this edge’s start:{' '}
            <span className="figure">{gaps.map((mm) => showThin(mm)).join(', ')}</span>,{' '}
            <Moment at={fit.trial.at} />
          </div>
        )}
        {welds.map((weld) => (
          <div key={weld.id}>
            {PROCESS_WORDS[weld.process]}: {workSaid(weld)}
            {weld.made &&
              weld.made.placesMm.length > 0 &&
              ` at ${weld.made.placesMm.length} places`}
            {weld.who && `, ${weld.who}`}, <Moment at={weld.at} />
          </div>
        ))}
        {inspections.map((one) => (
          <div key={one.id}>
            {one.sound ? '✓' : '✗'} {INSPECTION_WORDS[one.kind]}
            {one.finding && `: ${one.finding}`}
            {one.remedy && `. Then: ${one.remedy}`}
          </div>
        ))}
      </Box>
    );
  });
}
