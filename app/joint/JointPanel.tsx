import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link } from 'react-router';
import { cut } from '#core/card/cut';
import { edgeLength } from '#core/card/outline';
import type { Edge } from '#core/card/pattern';
import { FASTENED, REACHES, SIGHTS, otherEnd } from '#core/joint/kinds';
import type { Meeting } from '#core/joint/meetings';
import type { Stretch } from '#core/joint/structure';
import { canBePlugged, isJoined } from '#core/weld/start';
import { Choice } from '../forms/Choice';
import { OrUnsaid } from './OrUnsaid';
import { LengthField } from '../forms/LengthField';
import { FoldAway } from '../frame/FoldAway';
import { Told } from '../frame/Told';
import { usePreferences } from '../frame/preferences';
import { usePiece } from '../piece/pieceContext';
import { DiffersTold } from './DiffersTold';
import { MeetsField } from './MeetsField';
import { PartFields } from './PartFields';
import { FASTENED_WORDS, REACH_WORDS, SIGHT_WORDS } from './jointWords';
import { useStructure } from './useStructure';

/** Each part or edge that an edge meets, with the facts of the joint, the same from either side. */
export default function Meets({ edge }: { edge: Edge }) {
  const { joined } = usePiece();
  const [more, setMore] = useState(false);
  const met = joined.meetings.get(edge.id) ?? [];
  const [only] = met;
  return (
    <Stack spacing={1.5}>
      {met.length === 0 && <MeetsField key="first" edge={edge} meeting={null} label="Meets" />}
      {met.map((meeting, i) => (
        <Stack key={i} spacing={1.2}>
          <MeetsField edge={edge} meeting={meeting} label={i === 0 ? 'Meets' : 'Also meets'} />
          <DiffersTold edge={edge} meeting={meeting} />
          <KnownOfJoint edge={edge} meeting={meeting} />
        </Stack>
      ))}
      {more && <MeetsField key={met.length} edge={edge} meeting={null} label="Also meets" />}
      {only && !more && (
        <Button color="inherit" sx={{ alignSelf: 'start' }} onClick={() => setMore(true)}>
          It meets something else too
        </Button>
      )}
    </Stack>
  );
}

/** The facts of a joint: which sheet lies over, where water comes from, the sides one can reach. */
function KnownOfJoint({ edge, meeting }: { edge: Edge; meeting: Meeting }) {
  const { pattern, joined, structure } = usePiece();
  const { change, post } = useStructure();
  const { show } = usePreferences();
  const { id, joint, end, name, part } = meeting;
  const made = joined.pattern.edges.find((one) => one.id === edge.id) ?? edge;
  const laps = canBePlugged(made.joint);
  const lengthMm = edgeLength(pattern, edge);
  const whose = (label: string, key: 'over' | 'stepped' | 'waterFrom', unsaid?: string) => (
    <OrUnsaid<'this' | 'other'>
      label={label}
      value={meeting[key]}
      unsaid={unsaid}
      options={[
        ['this', 'This piece'],
        ['other', name === '' ? 'The other' : name],
      ]}
      onChange={(to) => change(id, { [key]: to && (to === 'this' ? end : otherEnd(end)) })}
    />
  );
  const mine = joint[end];
  const stretch = 'stretch' in mine ? mine.stretch : null;
  const setStretch = (to: Stretch | null) =>
    'piece' in mine && change(id, { [end]: { ...mine, turned: pattern.turned, stretch: to } });
  const now = structure.find((one) => one.id === id);
  if (now?.kind !== 'joint') return null;
  return (
    <FoldAway title={titleOf(meeting, laps)} open={false}>
      <Stack spacing={1.5} role="group" aria-label={`The joint with ${name}`}>
        {meeting.edge && (
          <Typography variant="body2">
            The same joint is on the page of{' '}
            <Link to={`/pieces/${meeting.edge.piece.id}/card`}>{meeting.edge.piece.name}</Link>,
            edge {meeting.edge.edge.letter}: what is said or read at one is known at both.
          </Typography>
        )}
        {laps && whose('Lies over', 'over')}
        {laps && whose('Is stepped down', 'stepped', 'Neither')}
        {laps && whose('Water comes from', 'waterFrom')}
        <OrUnsaid
          label="Can be reached now"
          value={joint.reach}
          options={REACHES.map((one) => [one, REACH_WORDS[one]] as const)}
          onChange={(reach) => change(id, { reach })}
        />
        <OrUnsaid
          label="When it is done"
          value={joint.sight}
          options={SIGHTS.map((one) => [one, SIGHT_WORDS[one]] as const)}
          onChange={(sight) => change(id, { sight })}
        />
        <OrUnsaid
          label="Held for good by"
          value={joint.fastened}
          unsaid={isJoined(made.joint) ? 'Weld, as the card says' : 'Nothing yet'}
          options={FASTENED.map((one) => [one, FASTENED_WORDS[one]] as const)}
          onChange={(fastened) => change(id, { fastened })}
        />
        <FormControlLabel
          control={
            <Checkbox
              checked={joint.structural}
              onChange={(_, structural) => change(id, { structural })}
            />
          }
          label="This joint holds the vehicle up"
        />
        {meeting.edge && (
          <Choice
            label="Their edges run"
            value={joint.sameWay ? 'same' : 'against'}
            options={[
              ['against', 'Against each other, as of panels laid side by side'],
              ['same', 'The same way, as of panels laid on each other'],
            ]}
            onChange={(to) => change(id, { sameWay: to === 'same' })}
          />
        )}
        <FormControlLabel
          control={
            <Checkbox
              checked={stretch !== null}
              onChange={(_, only) => setStretch(only ? { fromMm: 0, toMm: lengthMm } : null)}
            />
          }
          label={`Only along a stretch of the ${show(lengthMm)}`}
        />
        {stretch && (
          <Stack direction="row" spacing={1}>
            <LengthField
              label="From"
              mm={stretch.fromMm}
              min={0}
              max={stretch.toMm - 1}
              onChange={(mm) => mm !== null && setStretch({ ...stretch, fromMm: mm })}
            />
            <LengthField
              label="To"
              mm={stretch.toMm}
              min={stretch.fromMm + 1}
              onChange={(mm) => mm !== null && setStretch({ ...stretch, toMm: mm })}
            />
          </Stack>
        )}
        <Notes key={id} notes={joint.notes} onKeep={(notes) => change(id, { notes })} />
        {part && <PartFields part={part} onChange={(to) => change(part.id, to)} />}
        {post.problem && <Told>{post.problem}</Told>}
      </Stack>
    </FoldAway>
  );
}

/** A note that is kept when the field is left. */
function Notes({ notes, onKeep }: { notes: string; onKeep: (notes: string) => void }) {
  const [typed, setTyped] = useState(notes);
  return (
    <TextField
      label="Notes on the joint"
      multiline
      value={typed}
      onChange={(event) => setTyped(cut(event.target.value, 2000))}
      onBlur={() => typed !== notes && onKeep(typed)}
    />
  );
}

/** A joint in a line. */
function titleOf({ joint, over, name }: Meeting, laps: boolean): string {
  const said = [
    joint.fastened && FASTENED_WORDS[joint.fastened].toLowerCase(),
    laps && over === 'this' && 'this piece lies over',
    laps && over === 'other' && `${name} lies over`,
    joint.reach && `reached ${REACH_WORDS[joint.reach].toLowerCase()}`,
    joint.structural && 'structural',
  ].filter((one): one is string => typeof one === 'string');
  return said.length > 0 ? `The joint: ${said.join(', ')}` : 'What is known of the joint';
}
