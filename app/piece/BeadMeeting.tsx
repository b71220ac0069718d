import Box from '@mui/material/Box';
import type { BeadsApart } from '#core/card/beadsApart';
import { beadsApart } from '#core/card/beadsApart';
import type { Bead } from '#core/card/pattern';
import { Told } from '../frame/Told';
import { usePreferences } from '../frame/preferences';
import { usePiece } from './pieceContext';
import { useBeadsBeside } from './useBeadsBeside';

/** Where a bead carries on one of another piece, or is carried on by one: whether they meet, told at both. */
export function BeadMeeting({ bead }: { bead: Bead }) {
  const { id } = usePiece();
  const beside = useBeadsBeside(id);
  // A job that was taken in has pieces by other ids: the bead's own then says which is meant.
  const known = (piece: string) => piece === id || beside.some((one) => one.piece === piece);
  const means = (meets: Bead['meets'], piece: string, other: string) => meets?.bead === other && (meets.piece === piece || !known(meets.piece));
  const tied = beside.filter(({ piece, bead: other }) => means(bead.meets, piece, other.id) || means(other.meets, id, bead.id));
  return (
    <>
      {tied.map(({ piece, name, number, bead: other }) => {
        const apart = beadsApart(bead, other);
        return apart ? (
          <Told key={`${piece} ${other.id}`}>
            It does not carry on bead {number} of “{name}”: <Apart apart={apart} />.
          </Told>
        ) : (
          <Box key={`${piece} ${other.id}`} role="status" sx={{ borderLeft: '5px solid var(--good)', pl: 1.5 }}>
            It carries on bead {number} of “{name}”: the same section, the same way up, as far in.
          </Box>
        );
      })}
    </>
  );
} // prettier-ignore

function Apart({ apart }: { apart: BeadsApart }) {
  const { show } = usePreferences();
  const by = (mm: number, more: string, less: string) => (Math.abs(mm) < 0.05 ? [] : [`${show(Math.abs(mm))} ${mm > 0 ? more : less} here`]); // prettier-ignore
  const said = [
    ...(apart.kind ? ['another section'] : []),
    ...(apart.toward ? ['the other way up'] : []),
    ...by(apart.widthMm, 'wider', 'narrower'),
    ...by(apart.heightMm, 'higher', 'lower'),
    ...(apart.inMm === null ? [] : by(apart.inMm, 'farther in', 'nearer the edge')),
  ];
  return <>{said.join(', ')}</>;
}
