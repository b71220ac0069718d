import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { setFold, without } from '#core/card/edit';
import { endsOfFold } from '#core/card/foldPlace';
import type { CardConvention } from '#core/card/kinds';
import { CONVENTIONS } from '#core/card/kinds';
import type { CardMark, Fold } from '#core/card/pattern';
import { distance } from '#core/measure/vector';
import { usualRadius } from '#core/metal/metals';
import { AngleField } from '../../forms/AngleField';
import { LengthField } from '../../forms/LengthField';
import { usePreferences } from '../../frame/preferences';
import { MADE_WORDS } from '../../frame/words';
import { usePick, usePiece } from '../../piece/pieceContext';
import { ArcFold } from './ArcFold';
import { FoldCorners } from './FoldCorners';
import { FoldPlace } from './FoldPlace';
import { facing } from '../hand/newFold';
import { newId } from '../../frame/newId';

/** A fold at the card stage: how far, which way, how round, and how the card was made there. */
export function FoldPanel({ fold }: { fold: Fold }) {
  const { patternEditor, pattern, metal, facts } = usePiece();
  const { setPick } = usePick();
  const { show } = usePreferences();
  const change = (next: Partial<Fold>) => patternEditor.edit(setFold(pattern, fold.id, next));
  const [a, b] = endsOfFold(pattern, fold) ?? [null, null];
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1 }}>
        <Typography variant="h2">Fold {pattern.folds.indexOf(fold) + 1}</Typography>
        {a && b && <Typography className="figure">{show(distance(a, b))} long</Typography>}
      </Box>
      <AngleField
        label="Turned through (0 flat, 90 square)"
        angleDeg={fold.angleDeg}
        min={0.1}
        max={180}
        wrong="An angle over 0 and up to 180: 90 is square, 180 closed."
        onChange={(angleDeg) => change({ angleDeg })}
      />
      <ToggleButtonGroup
        exclusive
        fullWidth
        value={fold.toward}
        aria-label="Which way it folds"
        onChange={(_, toward: Fold['toward'] | null) =>
          toward && change({ toward, convention: facing(fold, toward) })
        }
      >
        <ToggleButton value="face">Toward you</ToggleButton>
        <ToggleButton value="back">Away from you</ToggleButton>
      </ToggleButtonGroup>
      <Box>
        <Typography className="condensed" sx={{ color: 'var(--pencil)', fontWeight: 500 }}>
          How was the card made here?
        </Typography>
        <Box
          role="radiogroup"
          aria-label="How the card was made at this fold"
          sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}
        >
          {CONVENTIONS.map((made) => (
            <MadeChoice
              key={made}
              made={made}
              chosen={fold.convention === made}
              onChoose={() => change({ convention: made })}
            />
          ))}
        </Box>
      </Box>
      <FoldPlace key={fold.id} fold={fold} />
      <FoldCorners key={`corners ${fold.id}`} fold={fold} />
      <ArcFold key={`arc ${fold.id}`} fold={fold} />
      <LengthField
        label="Inside radius"
        mm={fold.radiusMm}
        min={0}
        digits={2}
        empty={`by the metal: ${show(usualRadius(metal, facts.thicknessMm), 2)}`}
        onChange={(radiusMm) => change({ radiusMm })}
      />
      {a && b && (
        <Button
          variant="outlined"
          onClick={() => {
            setPick(null);
            const marks = [
              ...pattern.marks,
              { id: newId(), name: '', from: [...a], to: [...b] } satisfies CardMark,
            ];
            patternEditor.edit({ ...without(pattern, fold.id), marks });
          }}
        >
          Only scribe it, do not fold
        </Button>
      )}
      <Button
        variant="outlined"
        onClick={() => {
          setPick(null);
          patternEditor.edit(without(pattern, fold.id));
        }}
      >
        Take this fold off
      </Button>
    </>
  );
}

/**
 * One of the four ways of making a card, drawn in section: the metal's bend and where the card lay.
 */
function MadeChoice({
  made,
  chosen,
  onChoose,
}: {
  made: CardConvention;
  chosen: boolean;
  onChoose: () => void;
}) {
  const outside = made.startsWith('outside');
  const sharp = made.endsWith('sharp');
  const card = outside
    ? sharp
      ? 'M8 50V8H52'
      : 'M8 50V24Q8 8 24 8H52'
    : sharp
      ? 'M24 50V24H52'
      : 'M24 50V32Q24 24 32 24H52';
  return (
    <Box
      component="button"
      type="button"
      role="radio"
      aria-checked={chosen}
      aria-label={MADE_WORDS[made].long}
      onClick={onChoose}
      sx={{
        font: 'inherit',
        color: 'inherit',
        cursor: 'pointer',
        p: 1,
        bgcolor: chosen ? 'var(--torch-ground)' : 'var(--chalk)',
        border: chosen ? '2.5px solid var(--torch)' : '1.5px solid var(--rule)',
        display: 'flex',
        flexDirection: 'column',
        alignItems: 'center',
        gap: 0.3,
      }}
    >
      <svg width="60" height="54" viewBox="0 0 60 54" aria-hidden>
        <path d="M16 50V28Q16 16 28 16H52" fill="none" stroke="var(--zinc-deep)" strokeWidth="10" />
        <path d={card} fill="none" stroke="var(--manila-edge)" strokeWidth="3.4" />
      </svg>
      <span className="condensed" style={{ fontSize: '1rem', lineHeight: 1.1 }}>
        {MADE_WORDS[made].short}
      </span>
    </Box>
  );
}
