import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import type { CardTuck, PatternDoc } from '#core/card/pattern';
import { curveOfCard } from '#core/card/tucksOnCard';
import { wedgeDeg } from '#core/card/tucks';
import { Choice } from '../../forms/Choice';
import { LengthField } from '../../forms/LengthField';
import { usePreferences } from '../../frame/preferences';
import { problemSentence } from '../../frame/sentences';
import { usePiece } from '../../piece/pieceContext';

/**
 * The tucks and slits of the card, each to be made as wide and deep as it is, and how the surface
 * under it curves.
 */
export function TuckList({ pattern }: { pattern: PatternDoc }) {
  const { id, patternEditor } = usePiece();
  const { show } = usePreferences();
  const found = curveOfCard(pattern);
  const change = (tuckId: string, next: Partial<CardTuck>) =>
    patternEditor.edit(
      {
        ...pattern,
        tucks: pattern.tucks.map((one) => (one.id === tuckId ? { ...one, ...next } : one)),
      },
      tuckId,
    );
  return (
    <Box>
      <Typography variant="h3">Tucks and slits</Typography>
      {found.ok ? (
        <Box role="status" sx={{ borderLeft: '5px solid var(--layout)', pl: 1.5, my: 1 }}>
          <Typography>
            {found.shape === 'flat' ? (
              'Tucks and slits even out: on the whole the surface is flat.'
            ) : (
              <>
                The surface is a <b>{found.shape}</b>:{' '}
                <span className="figure">{Math.abs(found.totalDeg).toFixed(1)}°</span> in all, as on
                a mean crown radius of <span className="figure">{show(found.meanRadiusMm!)}</span>.
              </>
            )}
          </Typography>
          <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
            {workingOf(pattern)} = {found.totalDeg.toFixed(2)}°.
            {found.meanRadiusMm !== null && ' Radius: √(area of the card ÷ that, in radians).'}
            {found.shape === 'bowl' &&
              ' The metal must shrink at the tucks, or stretch in the middle.'}
            {found.shape === 'saddle' && ' The metal must stretch at the slits.'}
          </Typography>
          <Button
            variant="outlined"
            component={Link}
            to={`/pieces/${id}/card/crown`}
            sx={{ mt: 1 }}
          >
            Its surface, and the blank for it
          </Button>
        </Box>
      ) : (
        <Typography role="alert" sx={{ color: 'var(--torch)' }}>
          {problemSentence(found.problems[0]!, pattern, show)}
        </Typography>
      )}
      <Stack
        component="ol"
        aria-label="Tucks and slits"
        spacing={1.5}
        sx={{ listStyle: 'none', p: 0, m: 0 }}
      >
        {pattern.tucks.map((tuck, i) => (
          <Box
            component="li"
            key={tuck.id}
            aria-label={`${tuck.kind} ${i + 1}`}
            sx={{ display: 'grid', gap: 1 }}
          >
            <Choice
              label={`${i + 1} · ${wedgeDeg(tuck.widthMm, tuck.depthMm).toFixed(1)}°`}
              value={tuck.kind}
              onChange={(kind) => change(tuck.id, { kind })}
              options={[
                ['tuck', 'Tuck: lapped over itself'],
                ['slit', 'Slit: stands open'],
              ]}
            />
            <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
              <LengthField
                label={tuck.kind === 'tuck' ? 'Laps at the edge by' : 'Open at the edge by'}
                mm={tuck.widthMm}
                min={0.1}
                onChange={(mm) => mm && change(tuck.id, { widthMm: mm })}
              />
              <LengthField
                label="Runs in by"
                mm={tuck.depthMm}
                min={1}
                onChange={(mm) => mm && change(tuck.id, { depthMm: mm })}
              />
            </Box>
            <Button
              variant="outlined"
              size="small"
              sx={{ justifySelf: 'start' }}
              onClick={() =>
                patternEditor.edit({
                  ...pattern,
                  tucks: pattern.tucks.filter(({ id }) => id !== tuck.id),
                })
              }
            >
              Take {tuck.kind} {i + 1} off
            </Button>
          </Box>
        ))}
      </Stack>
    </Box>
  );
}

/** Each wedge's angle, tucks added and slits taken off, as it is reckoned. */
const workingOf = ({ tucks }: PatternDoc) =>
  tucks
    .map(({ kind, widthMm, depthMm }, i) => {
      const sign = kind === 'slit' ? (i > 0 ? ' − ' : '−') : i > 0 ? ' + ' : '';
      return `${sign}${wedgeDeg(widthMm, depthMm).toFixed(2)}°`;
    })
    .join('');
