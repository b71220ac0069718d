import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import { cut } from '#core/card/cut';
import { edgeOfRecord } from '#core/card/recordPlace';
import { Withdraw } from '../forms/Withdraw';
import { useDraft } from '../forms/useDraft';
import type { Post } from '../forms/usePost';
import { Moment } from '../frame/Moment';
import { usePreferences } from '../frame/preferences';
import { PROCESS_WORDS } from '../frame/words';
import { WaitsForServer } from '../piece/WaitsForServer';
import { PiecePictures } from '../piece/PiecePictures';
import { usePiece } from '../piece/pieceContext';
import type { Inspection, Weld } from '../records/records.server';
import { INSPECTION_WORDS, settingsSaid, workSaid } from '../frame/recordWords';

/** The record: welds and inspections of one edge, or of the whole piece, newest first. */
export function WeldRecords({
  edge,
  post,
  onAnew,
}: {
  edge: string | null;
  post: Post;
  /** Begins a weld entry with what one that was taken back said. */
  onAnew: (weld: Weld) => void;
}) {
  const { id, welds, inspections, pattern, waits } = usePiece();
  const found = (id: string) => edgeOfRecord(pattern, { edge: id, turned: pattern.turned });
  // An edge that was made one with another keeps its letter in the record.
  const letter = (id: string) => found(id)?.letter ?? '–';
  const entries = [
    ...welds.map((weld) => ({ at: weld.at, weld })),
    ...inspections.map((inspection) => ({ at: inspection.at, inspection })),
  ]
    .filter((entry) => {
      const of = 'weld' in entry ? entry.weld.edge : entry.inspection.edge;
      return edge === null || (found(of)?.edge.id ?? of) === edge;
    })
    .sort((a, b) => b.at.localeCompare(a.at));
  return (
    <Box component="section" aria-label="The record">
      <Box sx={{ display: 'flex', alignItems: 'center', mb: 0.5 }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          The record{edge ? ` of edge ${letter(edge)}` : ''}
        </Typography>
        <Button component={Link} to={`/pieces/${id}/record`} color="inherit" size="small">
          All that was done
        </Button>
      </Box>
      {entries.length === 0 && (
        <Typography sx={{ color: 'var(--pencil)' }}>
          Nothing written down yet. It is the owner’s proof and the shop’s memory.
        </Typography>
      )}
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0, display: 'grid', gap: 1 }}>
        {entries.map((entry) => (
          <Box
            component="li"
            key={('weld' in entry ? entry.weld : entry.inspection).id}
            sx={{ p: 1.2, bgcolor: 'var(--chalk)', border: '1px solid var(--rule)' }}
          >
            {'weld' in entry ? (
              <WeldLine weld={entry.weld} letter={letter(entry.weld.edge)} />
            ) : (
              <InspectionLine
                inspection={entry.inspection}
                letter={letter(entry.inspection.edge)}
                post={post}
              />
            )}
            {waits.has(('weld' in entry ? entry.weld : entry.inspection).id) ? (
              <WaitsForServer what="It" />
            ) : (
              <Box
                sx={{
                  display: 'flex',
                  flexWrap: 'wrap',
                  alignItems: 'center',
                  columnGap: 1,
                  ml: -1,
                }}
              >
                <PiecePictures
                  owner={'weld' in entry ? 'weld' : 'inspection'}
                  of={('weld' in entry ? entry.weld : entry.inspection).id}
                  title={`Pictures of this ${'weld' in entry ? 'weld' : 'inspection'}`}
                  small
                />
                <Withdraw
                  what={'weld' in entry ? 'weld' : 'inspection'}
                  id={('weld' in entry ? entry.weld : entry.inspection).id}
                  withdrawn={('weld' in entry ? entry.weld : entry.inspection).withdrawn}
                  post={post}
                  onAnew={
                    'weld' in entry && found(entry.weld.edge) ? () => onAnew(entry.weld) : undefined
                  }
                />
              </Box>
            )}
          </Box>
        ))}
      </Box>
    </Box>
  );
}

function Line({
  letter,
  title,
  at,
  who,
}: {
  letter: string;
  title: string;
  at: string;
  who: string;
}) {
  return (
    <Box sx={{ display: 'flex', gap: 1, alignItems: 'baseline', flexWrap: 'wrap' }}>
      <b className="condensed" style={{ fontSize: '1.15rem' }}>
        {letter}
      </b>
      <b>{title}</b>
      <Box component="span" sx={{ color: 'var(--pencil)', fontSize: '0.85rem', ml: 'auto' }}>
        {who && `${who}, `}
        <Moment at={at} />
      </Box>
    </Box>
  );
}

function WeldLine({ weld, letter }: { weld: Weld; letter: string }) {
  const { showThin } = usePreferences();
  const said = settingsSaid(weld.settings, showThin);
  return (
    <>
      <Line
        letter={letter}
        title={`${PROCESS_WORDS[weld.process]}: ${workSaid(weld)}`}
        at={weld.at}
        who={weld.who}
      />
      {said && (
        <Box className="figure" sx={{ fontSize: '0.88rem' }}>
          {said}
        </Box>
      )}
      {weld.note && <div>{weld.note}</div>}
    </>
  );
}

function InspectionLine({
  inspection,
  letter,
  post,
}: {
  inspection: Inspection;
  letter: string;
  post: Post;
}) {
  const { waits } = usePiece();
  const { showThin } = usePreferences();
  const { draft, set, drop } = useDraft(`remedy ${inspection.id}`, { remedy: '' });
  const { remedy } = draft;
  // As it stood when the page was last shown it.
  const since = inspection.remedy;
  // Open too while something typed waits: another page may have said meanwhile what was done.
  const open =
    !inspection.sound &&
    !inspection.withdrawn &&
    !waits.has(inspection.id) &&
    (inspection.remedy.trim() === '' || remedy !== '');
  return (
    <>
      <Line
        letter={letter}
        title={`${inspection.sound ? '✓' : '✗'} ${INSPECTION_WORDS[inspection.kind]}`}
        at={inspection.at}
        who={inspection.who}
      />
      <div>
        {inspection.sound ? 'Sound. ' : 'Not sound. '}
        {inspection.readingMm !== null && (
          <span className="figure">{showThin(inspection.readingMm)}. </span>
        )}
        {inspection.finding}
      </div>
      {inspection.remedy && <div>Then: {inspection.remedy}</div>}
      {open && (
        <Box sx={{ display: 'flex', gap: 1, alignItems: 'flex-end', mt: 1 }}>
          <TextField
            label="What was done about it"
            value={remedy}
            onChange={(event) => set({ remedy: cut(event.target.value, 2000) })}
          />
          <Button
            variant="contained"
            disabled={remedy.trim() === '' || post.state === 'busy'}
            onClick={() =>
              void post
                .send({ intent: 'remedy', id: inspection.id, remedy: remedy.trim(), since })
                .then((taken) => taken && drop())
            }
          >
            Keep
          </Button>
        </Box>
      )}
    </>
  );
}
