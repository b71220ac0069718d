import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useRevalidator } from 'react-router';
import type { BlankFold } from '#core/blank/fold/developed';
import { legsOutBy, radiusFromLegs } from '#core/blank/fold/achievedRadius';
import { sheetMetal } from '#core/blank/fold/practice';
import { Choice } from '../forms/Choice';
import { FoldAway } from '../frame/FoldAway';
import { LengthField } from '../forms/LengthField';
import { useDraft } from '../forms/useDraft';
import { usePost } from '../forms/usePost';
import { Told } from '../frame/Told';
import { usePreferences } from '../frame/preferences';
import { usePiece } from '../piece/pieceContext';

type Draft = {
  by: 'gauge' | 'legs';
  gotMm: number | null;
  flatMm: number | null;
  legAMm: number | null;
  legBMm: number | null;
  readingMm: number;
  at: string | null;
};
const NOTHING: Draft = {
  by: 'gauge',
  gotMm: null,
  flatMm: null,
  legAMm: null,
  legBMm: null,
  readingMm: 0.1,
  at: null,
};
/** A radius gauge goes by quarters of a millimetre: it is sure to about an eighth. */
const GAUGE_MM = 0.125;

/**
 * The inside radius that a fold really got: by how much this piece is out for it; the next one is
 * reckoned with it.
 */
export function AchievedRadiusReading({ fold, number }: { fold: BlankFold; number: number }) {
  const { id, metal, facts, shop, pattern, ownRadii, folding } = usePiece();
  const { show, showThin } = usePreferences();
  const { revalidate } = useRevalidator();
  const { draft, set, drop } = useDraft<Draft>(`radius ${id} ${fold.id}`, NOTHING);
  const post = usePost<object>('/shop/readings', () => void revalidate());
  const { bend, allowance } = fold;
  const wantedMm =
    pattern.folds.find((one) => one.id === fold.id)?.radiusMm ??
    sheetMetal(metal, facts.thicknessMm, shop).usualRadiusMm;
  const { flatMm, legAMm, legBMm, readingMm } = draft;
  const legs =
    flatMm !== null && legAMm !== null && legBMm !== null
      ? radiusFromLegs(
          {
            thicknessMm: bend.thicknessMm,
            angleDeg: bend.angleDeg,
            flatMm,
            legAMm,
            legBMm,
            readingMm,
          },
          allowance.k,
        )
      : null;
  const read =
    draft.by === 'gauge'
      ? draft.gotMm === null
        ? null
        : { radiusMm: draft.gotMm, uMm: GAUGE_MM }
      : legs?.ok
        ? legs
        : null;
  const mine = ownRadii.filter(({ on, leftOut }) => on?.fold === fold.id && !leftOut);
  const last = mine.at(-1);
  const out = (gotMm: number) =>
    legsOutBy(bend, sheetMetal(metal, facts.thicknessMm, shop).rule, gotMm);
  const keep = async () => {
    if (!read) return;
    const at = draft.at ?? new Date().toISOString();
    set({ at });
    const reading = {
      metal: metal.id,
      thicknessMm: facts.thicknessMm,
      wantedMm,
      gotMm: read.radiusMm,
      uMm: read.uMm,
      on: { piece: id, fold: fold.id, at },
      ...(folding.brake && { brake: folding.brake }),
    };
    if (await post.send({ intent: 'add', of: { list: 'radii', reading } })) drop();
  };
  const said = (gotMm: number) => {
    const by = out(gotMm);
    if (by === null) return 'What that does to this piece cannot be reckoned.';
    if (Math.abs(by) < 0.005) return 'This piece is right for it.';
    return `On this piece, cut for ${show(bend.radiusMm, 2)}, both legs together come out ${showThin(Math.abs(by))} ${by > 0 ? 'longer' : 'shorter'}; the next one is cut for what came out.`;
  };
  const length = (key: 'flatMm' | 'legAMm' | 'legBMm', label: string) => (
    <LengthField
      label={label}
      mm={draft[key]}
      min={0}
      digits={2}
      onChange={(mm) => set({ [key]: mm, at: null })}
    />
  );
  return (
    <FoldAway
      title={`Inside radius that fold ${number} got${last ? `: ${show(last.gotMm, 2)}` : ''}`}
    >
      <Box
        component="section"
        aria-label={`Radius of fold ${number}`}
        sx={{ display: 'grid', gap: 1.2 }}
      >
        {last && <Typography role="status">{said(last.gotMm)}</Typography>}
        <Choice
          label="Read"
          value={draft.by}
          onChange={(by) => set({ by, at: null })}
          options={[
            ['gauge', 'With a radius gauge'],
            ['legs', 'From a strip of the same fold, by its legs'],
          ]}
        />
        {draft.by === 'gauge' ? (
          <LengthField
            label="Inside radius"
            mm={draft.gotMm}
            min={0}
            digits={2}
            onChange={(gotMm) => set({ gotMm, at: null })}
          />
        ) : (
          <Box
            sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.2, alignItems: 'end' }}
          >
            {length('flatMm', 'Flat before')}
            {length('legAMm', 'First leg, outside')}
            {length('legBMm', 'Second leg, outside')}
            <LengthField
              label="Each good to ±"
              mm={readingMm}
              min={0.01}
              digits={2}
              onChange={(mm) => mm !== null && set({ readingMm: mm, at: null })}
            />
          </Box>
        )}
        {draft.by === 'legs' && bend.angleDeg > 90 && (
          <Told>Past square the legs cannot be measured to the sharp: use a gauge.</Told>
        )}
        {legs && !legs.ok && bend.angleDeg <= 90 && (
          <Told>
            These lengths do not belong together at K {allowance.k.toFixed(2)}: measure them again.
          </Told>
        )}
        {read && (
          <Typography>
            {draft.by === 'legs' ? `Radius ${show(read.radiusMm, 2)} ± ${show(read.uMm, 2)}. ` : ''}
            {said(read.radiusMm)}
          </Typography>
        )}
        <Button
          variant="outlined"
          disabled={!read || post.state === 'busy'}
          onClick={() => void keep()}
        >
          Keep this radius
        </Button>
        {post.problem && <Told>{post.problem}</Told>}
      </Box>
    </FoldAway>
  );
}
