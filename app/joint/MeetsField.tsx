import Autocomplete from '@mui/material/Autocomplete';
import TextField from '@mui/material/TextField';
import { useEffect, useState } from 'react';
import { useFetcher } from 'react-router';
import { cut } from '#core/card/cut';
import type { Edge } from '#core/card/pattern';
import type { Meeting } from '#core/joint/meetings';
import type { Joint } from '#core/joint/structure';
import { usePiece } from '../piece/pieceContext';
import type { PieceEdges } from '../records/edgesOfJob.server';
import { useStructure } from './useStructure';

/** What an edge can be said to meet: a part of the vehicle, or an edge of another piece. */
type Choice = { group: string; label: string; second: Joint['second'] };

/**
 * What an edge meets: chosen from the parts and the pieces of the job, or a new part by its name.
 * `meeting` is the one that is changed; null for one more.
 */
export function MeetsField({
  edge,
  meeting,
  label,
}: {
  edge: Edge;
  meeting: Meeting | null;
  label: string;
}) {
  const { id, job, pattern } = usePiece();
  const { parts, all, joinAll, joinToParts, change } = useStructure();
  const pieces = useFetcher<{ pieces: PieceEdges[] }>();
  const said = meeting?.name ?? '';
  const [typed, setTyped] = useState(said);
  // Another page, or the choice just made, has said something else.
  const [shown, setShown] = useState(said);
  if (shown !== said) {
    setShown(said);
    setTyped(said);
  }
  const choices: Choice[] = [
    ...parts.map(({ id: part, name }) => ({
      group: 'Parts of the vehicle',
      label: name,
      second: { part },
    })),
    ...(pieces.data?.pieces ?? []).flatMap((piece) =>
      piece.edges.flatMap((one): Choice[] =>
        piece.id === id && one.id === edge.id
          ? []
          : [
              {
                group: piece.id === id ? 'This piece' : piece.name,
                label: `${piece.name}, ${one.letter}`,
                second: { piece: piece.id, edge: one.id, turned: piece.turned, stretch: null },
              },
            ],
      ),
    ),
  ];
  const here: Joint['first'] = { piece: id, edge: edge.id, turned: pattern.turned, stretch: null };
  /** A part that was only a word for this joint goes with it. */
  const leave = (joint: Joint) => {
    const { second } = joint;
    if (!('part' in second)) return;
    const part = parts.find((one) => one.id === second.part);
    const used = all.some(
      (one) =>
        one.kind === 'joint' &&
        !one.putAway &&
        one.id !== meeting?.id &&
        'part' in one.second &&
        one.second.part === second.part,
    );
    const only =
      part && part.thicknessMm === null && part.readingsMm.length === 0 && part.notes === '';
    if (only && !used && part.condition === 'unknown' && part.metal === null)
      change(part.id, { putAway: true });
  };
  const say = (choice: Choice | string | null) => {
    const word = typeof choice === 'string' ? cut(choice.trim(), 120) : choice;
    if (word === said || (typeof word === 'object' && word?.label === said)) return;
    if (word === null || word === '') {
      if (!meeting) return;
      change(meeting.id, { putAway: true });
      leave(meeting.joint);
      return;
    }
    const known = typeof word === 'string' ? choices.find(({ label: of }) => of === word) : word;
    const rest = meeting && meeting.end === 'first' ? meeting : null;
    if (known && rest) {
      change(rest.id, { second: known.second });
      return leave(rest.joint);
    }
    // From the other end the joint is not pointed elsewhere: it is put away, and another made.
    if (meeting) {
      change(meeting.id, { putAway: true });
      leave(meeting.joint);
    }
    if (known) joinAll([[here, known.second]]);
    else if (typeof word === 'string') joinToParts([[here, word]]);
  };
  const { load, state, data } = pieces;
  const [open, setOpen] = useState(false);
  useEffect(() => {
    if (open && !data && state === 'idle') void load(`/jobs/${job}/edges`);
  }, [open, data, state, load, job]);
  return (
    <Autocomplete<Choice, false, false, true>
      freeSolo
      forcePopupIcon
      fullWidth
      sx={{ '& .MuiOutlinedInput-root': { py: '0 !important' } }}
      options={choices}
      groupBy={({ group }) => group}
      getOptionLabel={(one) => (typeof one === 'string' ? one : one.label)}
      isOptionEqualToValue={(one, other) =>
        one.label === (typeof other === 'string' ? other : (other as Choice).label)
      }
      value={said === '' ? null : said}
      inputValue={typed}
      onInputChange={(_, text) => setTyped(cut(text, 120))}
      onOpen={() => setOpen(true)}
      onClose={() => setOpen(false)}
      onChange={(_, choice) => say(choice)}
      onBlur={() => say(typed)}
      renderInput={(given) => (
        <TextField {...given} label={label} placeholder="Floor edge, old sill, another piece …" />
      )}
    />
  );
}
