import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { BlankFold } from '#core/blank/fold/developed';
import type { Spring } from '#core/blank/fold/overbend';
import { nextTry, overbendFor, readingsFor } from '#core/blank/fold/overbend';
import { AngleField } from '../forms/AngleField';
import { useDraft } from '../forms/useDraft';
import { usePost } from '../forms/usePost';
import { Told } from '../frame/Told';
import { usePiece } from '../piece/pieceContext';
import { useRevalidator } from 'react-router';

/** A protractor reads to about half a degree. */
const PROTRACTOR_DEG = 0.5;
const deg = (angle: number) => `${angle.toFixed(1)}°`;

/**
 * To what angle a fold is taken so that it springs back to the one wanted (all of it, or what it is
 * left open at), and the tries made on it: one creeps up on it.
 */
export function FoldTo({
  fold,
  number,
  leftAtDeg,
}: {
  fold: BlankFold;
  number: number;
  leftAtDeg?: number;
}) {
  const { id, metal, facts, shop, folding } = usePiece();
  const { revalidate } = useRevalidator();
  const { draft, set, drop } = useDraft<{
    to: number | null;
    back: number | null;
    at: string | null;
  }>(`try ${id} ${fold.id}`, { to: null, back: null, at: null });
  const post = usePost<object>('/shop/readings', () => void revalidate());
  const { radiusMm } = fold.bend;
  const angleDeg = leftAtDeg ?? fold.bend.angleDeg;
  const tries = shop.springs.filter(({ on }) => on?.piece === id && on.fold === fold.id);
  const last = tries.at(-1);
  const found = overbendFor(
    { thicknessMm: facts.thicknessMm, radiusMm, angleDeg },
    metal,
    shop.springs,
  );
  const next = last ? nextTry(angleDeg, last) : null;
  const usual = usualTries(shop.springs, id, facts.thicknessMm, radiusMm, metal);
  const near = last && Math.abs(last.cameBackToDeg - angleDeg) <= last.uDeg;
  const keep = async () => {
    if (draft.to === null || draft.back === null) return;
    // Sent again it is the same try.
    const at = draft.at ?? new Date().toISOString();
    set({ at });
    const reading: Spring = {
      metal: metal.id,
      thicknessMm: facts.thicknessMm,
      radiusMm,
      foldedToDeg: draft.to,
      cameBackToDeg: draft.back,
      uDeg: PROTRACTOR_DEG,
      on: { piece: id, fold: fold.id, at },
      ...(folding.brake && { brake: folding.brake }),
    };
    if (await post.send({ intent: 'add', of: { list: 'springs', reading } })) drop();
  };
  const bad =
    draft.to !== null &&
    draft.back !== null &&
    nextTry(angleDeg, {
      foldedToDeg: draft.to,
      cameBackToDeg: draft.back,
      uDeg: PROTRACTOR_DEG,
    }) === null;
  return (
    <Box
      component="section"
      aria-label={`What to fold ${number} to`}
      sx={{ display: 'grid', gap: 1.2 }}
    >
      <Typography variant="h2">Fold {number}: to what angle</Typography>
      {near ? (
        <Typography role="status" sx={{ fontSize: '1.15rem' }}>
          <b>Done:</b> it came back to <span className="figure">{deg(last.cameBackToDeg)}</span>, as
          near to {deg(angleDeg)} as the protractor reads.
        </Typography>
      ) : next !== null && last ? (
        <Typography role="status" sx={{ fontSize: '1.15rem' }}>
          Folded to <span className="figure">{deg(last.foldedToDeg)}</span>, came back to{' '}
          <span className="figure">{deg(last.cameBackToDeg)}</span>:{' '}
          {last.cameBackToDeg > angleDeg ? (
            <b>
              it is {deg(last.cameBackToDeg - angleDeg)} too far. Open it by hand, a little at a
              time.
            </b>
          ) : (
            <b>
              now fold to <span className="figure">{deg(next)}</span>
            </b>
          )}
        </Typography>
      ) : found ? (
        <Typography sx={{ fontSize: '1.15rem' }}>
          <b>
            First to <span className="figure">{deg(found.fromDeg)}</span>
          </b>
          {found.toDeg - found.fromDeg < 0.1 ? (
            ': it hardly springs back.'
          ) : (
            <>
              , then creep up: it can want up to <span className="figure">{deg(found.toDeg)}</span>.
            </>
          )}
        </Typography>
      ) : (
        <Told>
          Round so large a radius the sheet comes back flat: roll it, or make the radius smaller.
        </Told>
      )}
      {found && (
        <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
          {found.by === 'readings'
            ? `From ${found.readings === 1 ? 'one bend' : `${found.readings} bends`} measured in this shop of about this sheet and radius: ${deg((found.fromDeg + found.toDeg) / 2)}, one standard deviation ± ${found.uDeg!.toFixed(1)}°.`
            : `By Kalpakjian & Schmid from the metal’s figures: yield ${Math.round(found.yieldMpa[0])} to ${Math.round(found.yieldMpa[1])} N/mm². No bend of about this sheet and radius was measured in this shop yet.`}
          {usual !== null &&
            ` Such a fold usually took ${usual === 1 ? 'one try' : `${usual} tries`}.`}
        </Typography>
      )}
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.2, alignItems: 'end' }}>
        <AngleField
          label="Folded to"
          angleDeg={draft.to}
          min={1}
          max={180}
          wrong="Degrees turned from flat, 1 to 180."
          onChange={(to) => set({ to, at: null })}
        />
        <AngleField
          label="Came back to"
          angleDeg={draft.back}
          min={0}
          max={180}
          wrong="Degrees turned from flat, 0 to 180."
          onChange={(back) => set({ back, at: null })}
        />
      </Box>
      {bad && (
        <Told>
          A bend comes back by something between nothing and a third. Read both angles as turned
          from flat.
        </Told>
      )}
      <Button
        variant="outlined"
        size="large"
        disabled={draft.to === null || draft.back === null || bad || post.state === 'busy'}
        onClick={() => void keep()}
      >
        Keep this try
      </Button>
      {post.problem && <Told>{post.problem}</Told>}
      {tries.length > 0 && (
        <Box component="ol" aria-label="Tries" sx={{ m: 0, pl: 3 }}>
          {tries.map((one, i) => (
            <li key={i}>
              to <span className="figure">{deg(one.foldedToDeg)}</span>, back to{' '}
              <span className="figure">{deg(one.cameBackToDeg)}</span>
            </li>
          ))}
        </Box>
      )}
    </Box>
  );
}

/**
 * How many tries such folds of other pieces took, the middle one of them; null where none was made.
 */
function usualTries(
  springs: readonly Spring[],
  piece: string,
  thicknessMm: number,
  radiusMm: number,
  metal: Parameters<typeof readingsFor>[1],
): number | null {
  const counts = new Map<string, number>();
  for (const { on } of readingsFor(springs, metal, thicknessMm, radiusMm))
    if (on && on.piece !== piece)
      counts.set(`${on.piece} ${on.fold}`, (counts.get(`${on.piece} ${on.fold}`) ?? 0) + 1);
  const sorted = [...counts.values()].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? null;
}
