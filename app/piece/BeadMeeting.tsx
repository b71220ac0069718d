import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { Fragment } from 'react';
import type { AtGap } from '#core/card/beadExits';
import { atGap, exitsOf } from '#core/card/beadExits';
import type { BeadsApart } from '#core/card/beadsApart';
import { beadsApart } from '#core/card/beadsApart';
import type { Bead } from '#core/card/pattern';
import { Told } from '../frame/Told';
import { usePreferences } from '../frame/preferences';
import { usePiece } from './pieceContext';
import { useBeadsBeside } from './useBeadsBeside';

/**
 * Where a bead carries on one of another piece, or is carried on by one: whether they meet, told at
 * both.
 */
export function BeadMeeting({ bead }: { bead: Bead }) {
  const { id, pattern } = usePiece();
  const beside = useBeadsBeside(id);
  // A job that was taken in has pieces by other ids: the bead's own then says which is meant.
  const known = (piece: string) => piece === id || beside.some((one) => one.piece === piece);
  const means = (meets: Bead['meets'], piece: string, other: string) =>
    meets?.bead === other && (meets.piece === piece || !known(meets.piece));
  const tied = beside.filter(
    ({ piece, bead: other }) =>
      means(bead.meets, piece, other.id) || means(other.meets, id, bead.id),
  );
  return (
    <>
      {tied.map(({ piece, name, number, bead: other, exits }) => {
        const apart = beadsApart(bead, other);
        const gap = atGap(exitsOf(pattern, bead), exits);
        return (
          <Fragment key={`${piece} ${other.id}`}>
            {apart ? (
              <Told>
                It does not carry on bead {number} of “{name}”: <Apart apart={apart} />.
              </Told>
            ) : (
              <Box role="status" sx={{ borderLeft: '5px solid var(--good)', pl: 1.5 }}>
                It carries on bead {number} of “{name}”: the same section, the same way up, as far
                in.
              </Box>
            )}
            {gap && <AtTheGap gap={gap} name={name} />}
          </Fragment>
        );
      })}
    </>
  );
}

/** Where the two come to the gap between them, and how far they are apart there. */
function AtTheGap({
  gap: { here, there, fromStartMm, fromEndMm },
  name,
}: {
  gap: AtGap;
  name: string;
}) {
  const { show } = usePreferences();
  const [start, end] = [show(Math.abs(fromStartMm)), show(Math.abs(fromEndMm))];
  return (
    <Typography variant="body2">
      At the gap it leaves edge {here.letter} {show(here.startMm)} from its start,{' '}
      {show(here.endMm)} from its end; that of “{name}” leaves edge {there.letter}{' '}
      {show(there.endMm)} from its end, {show(there.startMm)} from its start. Laid along each other
      they are{' '}
      {start === end ? (
        <>{start} apart.</>
      ) : (
        <>
          {start} apart from the one corner, {end} from the other.
        </>
      )}
    </Typography>
  );
}

function Apart({ apart }: { apart: BeadsApart }) {
  const { show } = usePreferences();
  const by = (mm: number, more: string, less: string) =>
    Math.abs(mm) < 0.05 ? [] : [`${show(Math.abs(mm))} ${mm > 0 ? more : less} here`];
  const said = [
    ...(apart.kind ? ['another section'] : []),
    ...(apart.toward ? ['the other way up'] : []),
    ...by(apart.widthMm, 'wider', 'narrower'),
    ...by(apart.heightMm, 'higher', 'lower'),
    ...(apart.inMm === null ? [] : by(apart.inMm, 'farther in', 'nearer the edge')),
  ];
  return <>{said.join(', ')}</>;
}
