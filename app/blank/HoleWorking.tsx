import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { BlankHole } from '#core/blank/blank';
import { edgeThickness } from '#core/metal/forming';
import { Told } from '../frame/Told';
import { usePreferences } from '../frame/preferences';
import { usePiece } from '../piece/pieceContext';

/** A hole on the blank; of a flared one what to make first, and what its rim stands. */
export function HoleWorking({ hole, number }: { hole: BlankHole; number: number }) {
  const { facts } = usePiece();
  const { show, showThin } = usePreferences();
  const { flare } = hole;
  if (!flare) return null;
  const { edgeStrain, cracking, thinning } = flare;
  const share = (strain: number) => `${(strain * 100).toFixed(0)} %`;
  const said = (
    <>
      The rim stretches by <b className="figure">{share(edgeStrain)}</b>; it cracks from about{' '}
      <span className="figure">{share(cracking.strain)}</span> on (Romanovsky, from memory).
      {thinning && !thinning.within && (
        <>
          {' '}
          From <span className="figure">{share(thinning.strain)}</span> on it thins unevenly: draw
          it over a die in one stroke, not by hand.
        </>
      )}
    </>
  );
  return (
    <Box component="section" aria-label={`Flared hole ${number}`} sx={{ display: 'grid', gap: 1 }}>
      <Typography variant="h2">Hole {number}: flared</Typography>
      <Typography sx={{ fontSize: '1.15rem' }}>
        <b>
          First hole Ø <span className="figure">{show(hole.diameterMm)}</span>
        </b>
        , then turn its rim up {flare.toward === 'face' ? 'toward you' : 'away'}: Ø{' '}
        <span className="figure">{show(flare.insideMm)}</span> inside,{' '}
        <span className="figure">{show(flare.heightMm)}</span> high over all.
      </Typography>
      {cracking.within ? (
        <Typography>{said}</Typography>
      ) : (
        <Told>{said} Make the rim lower, or drill the first hole and take its burr off.</Told>
      )}
      <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
        Thin at the rim: {showThin(edgeThickness(facts.thicknessMm, flare.edgeStrain))} of{' '}
        {showThin(facts.thicknessMm)}. First hole = mean diameter − 2·(height − 0.43·radius −
        0.72·sheet).
      </Typography>
    </Box>
  );
}
