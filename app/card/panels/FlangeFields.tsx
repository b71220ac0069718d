import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { setEdge } from '#core/card/edit';
import { segmentsOfEdge } from '#core/card/outline';
import type { Edge, Flange } from '#core/card/pattern';
import { widthsOf } from '#core/card/flangeWidths';
import { isStraight } from '#core/measure/segment';
import type { Unit } from '#core/measure/length';
import { usualLength } from '#core/measure/length';
import { AngleField } from '../../forms/AngleField';
import { Choice } from '../../forms/Choice';
import { LengthField } from '../../forms/LengthField';
import { usePreferences } from '../../frame/preferences';
import { widthsSaid } from '../../frame/widthsSaid';
import { FLANGE_WORDS } from '../../frame/words';
import { usePiece } from '../../piece/pieceContext';
import { FlangeEnds } from './FlangeEnds';

/** A flange to begin with: square, toward you, as wide as lips usually are. */
const newFlange = (unit: Unit): Flange => ({
  card: 'fold',
  widthMm: usualLength(15, unit),
  endWidthMm: null,
  turnDeg: 90,
  toward: 'face',
  radiusMm: null,
  how: 'tipped',
  landMm: usualLength(15, unit),
});

/** What is turned over along an edge, straight or curved. */
export function FlangeFields({ edge }: { edge: Edge }) {
  const { patternEditor, pattern } = usePiece();
  const { show, unit } = usePreferences();
  const { flange } = edge;
  const put = (next: Flange | undefined, about = '') =>
    patternEditor.edit(setEdge(pattern, edge.id, { flange: next }), about);
  if (!flange)
    return (
      <Button variant="outlined" onClick={() => put(newFlange(unit))}>
        A flange along it
      </Button>
    );
  const set = (change: Partial<Flange>) => put({ ...flange, ...change }, `flange ${edge.id}`);
  const curved = segmentsOfEdge(pattern, edge).some((s) => !isStraight(s));
  const apart = flange.how === 'pulled' || flange.how === 'lip';
  return (
    <Box
      component="section"
      aria-label={`Flange of edge ${edge.letter}`}
      sx={{ display: 'grid', gap: 1.5, borderLeft: '5px solid var(--layout)', pl: 1.5 }}
    >
      <Typography variant="h3">Flange</Typography>
      <Choice
        label="The card ends"
        value={flange.card}
        onChange={(card) => set({ card })}
        options={[
          ['fold', 'At the turn; the flange is beyond'],
          ['free', 'At the rim; it turns farther in'],
        ]}
      />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
        <LengthField
          label={
            flange.endWidthMm === null && !flange.between ? 'Finished width' : 'Width at its start'
          }
          mm={flange.widthMm}
          min={1}
          onChange={(mm) => mm && set({ widthMm: mm })}
        />
        {flange.endWidthMm === null && !flange.between ? (
          <Button color="inherit" onClick={() => set({ endWidthMm: flange.widthMm })}>
            Wider at one end
          </Button>
        ) : (
          <LengthField
            label="Width at its end"
            mm={flange.endWidthMm ?? flange.widthMm}
            min={1}
            onChange={(mm) => mm && set({ endWidthMm: mm })}
          />
        )}
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
        <AngleField
          label="Turned through"
          angleDeg={flange.turnDeg}
          min={0.1}
          max={180}
          wrong="Degrees turned from flat, over 0 and up to 180."
          onChange={(turnDeg) => set({ turnDeg })}
        />
        <Choice
          label="It goes"
          value={flange.toward}
          onChange={(toward) => set({ toward })}
          options={[
            ['face', 'Toward you'],
            ['back', 'Away'],
          ]}
        />
      </Box>
      <LengthField
        label="Inside radius (empty: the usual one)"
        mm={flange.radiusMm}
        min={0}
        thin
        empty="usual"
        onChange={(radiusMm) => set({ radiusMm })}
      />
      <Choice
        label="Made by"
        value={flange.how}
        onChange={(how) => set({ how })}
        options={Object.entries(FLANGE_WORDS).map(
          ([how, { title }]) => [how as Flange['how'], title] as const,
        )}
      />
      {!apart && flange.card === 'fold' && (
        <FlangeEnds edge={edge.id} flange={flange} onChange={(ends) => set({ ends })} />
      )}
      <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
        {FLANGE_WORDS[flange.how].about}
        {!curved && !apart && ' Along a straight edge nothing is strained: it is a fold.'}
      </Typography>
      {flange.how === 'pulled' && (
        <LengthField
          label="Width of the leg that lies on the panel"
          mm={flange.landMm}
          min={1}
          onChange={(mm) => mm && set({ landMm: mm })}
        />
      )}
      {flange.between && (
        <>
          <Typography variant="body2">
            Between its ends as wide as the card was: {widthsSaid(widthsOf(flange), show)}, kept at{' '}
            {flange.between.length + 2} places.
          </Typography>
          <Button color="inherit" onClick={() => put({ ...flange, between: undefined })}>
            Evenly from its start to its end
          </Button>
        </>
      )}
      {flange.endWidthMm !== null && !flange.between && (
        <Button color="inherit" onClick={() => set({ endWidthMm: null })}>
          The same width all along
        </Button>
      )}
      <Button variant="outlined" onClick={() => put(undefined)}>
        Take this flange off
      </Button>
    </Box>
  );
}
