import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { setEdge } from '#core/card/edit';
import type { Edge } from '#core/card/pattern';
import type { Differs } from '#core/joint/differs';
import { differsAt } from '#core/joint/differs';
import type { Meeting } from '#core/joint/meetings';
import { leads } from '#core/joint/meetings';
import { Told } from '../frame/Told';
import { usePreferences } from '../frame/preferences';
import { JOINT_WORDS } from '../frame/words';
import { usePiece } from '../piece/pieceContext';

/** What does not go together at a joint, and what is done about it. */
export function DiffersTold({ edge, meeting }: { edge: Edge; meeting: Meeting }) {
  const { facts, pattern, patternEditor } = usePiece();
  const { show } = usePreferences();
  const told = differsAt(edge, meeting, facts.metal);
  if (told.length === 0) return null;
  const led = leads(edge, meeting) === 'other' && edge.joint.kind !== 'free';
  return (
    <Told>
      {told.map((one) => (
        <Box key={one.code} sx={{ '& + &': { mt: 0.6 } }}>
          {sentenceOf(one, meeting.name, show)}
        </Box>
      ))}
      {led && told.some(({ code }) => code === 'both-overlap' || code === 'kinds') && (
        <Button
          size="small"
          variant="outlined"
          color="inherit"
          sx={{ mt: 0.8 }}
          onClick={() =>
            patternEditor.edit(
              setEdge(pattern, edge.id, { joint: { kind: 'free', trimMm: 0 } }),
              '',
            )
          }
        >
          Cut this edge to its line: the joint is as {meeting.name} says
        </Button>
      )}
    </Told>
  );
}

function sentenceOf(told: Differs, name: string, show: (mm: number) => string): string {
  switch (told.code) {
    case 'metals':
      return 'These two metals are not fused with each other: bolt or rivet them, with something between that keeps water out.';
    case 'both-overlap':
      return `Both cards add an overlap, this one and that of ${name}. One is enough: leave it on the sheet that is easier to trim.`;
    case 'kinds':
      return `This card says ${JOINT_WORDS[told.here].toLowerCase()}, ${name} says ${JOINT_WORDS[told.there].toLowerCase()}.`;
    case 'lengths':
      return `They meet over ${show(told.hereMm)} here and ${show(told.thereMm)} there. Measure both again, or say which stretch meets.`;
    case 'over-unsaid':
      return 'Nobody has said which sheet lies over: plug holes are then taken to be in the one whose card adds the overlap.';
    case 'step-on-top':
      return 'The sheet that is stepped is the one that lies under: the other then runs on flush.';
    case 'water-into-lap':
      return 'Water runs into this lap: let the sheet it comes from lie over the other.';
    case 'narrow':
      return `The overlap is ${show(told.widthMm)}: below about ${show(told.leastMm)} plugs run out at the rim (common practice).`;
  }
}
