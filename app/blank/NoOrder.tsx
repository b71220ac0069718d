import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { Development } from '#core/blank/fold/developed';
import type { Remedy } from '#core/blank/fold/order/remedies';
import { MAX_TRIED } from '#core/blank/fold/order/remedies';
import { shortenedFlange } from '#core/card/shortenFlange';
import { distance } from '#core/measure/vector';
import { Told } from '../frame/Told';
import { usePreferences } from '../frame/preferences';
import { usePiece } from '../piece/pieceContext';
import { hitSaid, remedyGroups } from './orderWords';
import { usePartAtFold } from './usePartAtFold';
import type { Ordered } from '../folding/useOrder';
import type { Ordering } from '../folding/useOrdering';

type Props = Pick<Ordering, 'saved'> & {
  ordered: Extract<Ordered, { state: 'none' }>;
  development: Development;
};

const number = (fold: number) => `fold ${fold + 1}`;
const numbers = (folds: readonly number[]) =>
  folds.length === 1
    ? number(folds[0]!)
    : `folds ${folds
        .map((fold) => fold + 1)
        .join(', ')
        .replace(/, (\d+)$/, ' and $1')}`;

/**
 * Why there is no order, or why one's own does not go; and what frees it, to be taken with a touch.
 */
export function NoOrder({ ordered, saved, development }: Props) {
  const { folds } = development;
  const { show } = usePreferences();
  const { problems, stuck, shown, remedies } = ordered;
  const is = (code: string) => problems.some((problem) => problem.code === code);
  const made = saved.draft.made.filter((id) => folds.some((fold) => fold.id === id));
  // Where one's own order is stuck and another goes, that is what frees it: then nothing else is
  // tried.
  const tried = is('no-order') || (stuck !== null && remedies !== null);
  return (
    <>
      <Told>
        {stuck
          ? `In this order ${number(stuck.fold)} cannot be made, as number ${stuck.at + 1}: ${hitSaid(stuck.hit, development)}, by ${show(stuck.hit.depthMm)}.`
          : is('no-order')
            ? `In no order can this machine make them all. Left over: ${(problems[0]?.about ?? []).map((id) => number(folds.findIndex((fold) => fold.id === id))).join(', ')}.`
            : is('order-unreadable')
              ? 'Name each fold once, by its number.'
              : is('order-not-found')
                ? 'No order was found among those that were followed; there may be one. Type one of your own to have it checked.'
                : 'No order could be looked for: the blank has to be there, and no more than 30 folds.'}
      </Told>
      {stuck && (
        <Button variant="contained" size="large" onClick={() => saved.set({ order: null })}>
          Find an order that goes
        </Button>
      )}
      {!stuck && shown && is('no-order') && (
        <Typography variant="body2">
          Drawn where the order that comes farthest ends
          {shown.made.length > 0 ? `, with ${numbers(shown.made)} made` : ''}:{' '}
          {number(shown.step.fold)} is nearest to being made, but{' '}
          {hitSaid(shown.hit ?? { of: 'bar', depthMm: 0 }, development)}.
        </Typography>
      )}
      {made.length > 0 && (
        <Button variant="outlined" onClick={() => saved.set({ made: made.slice(0, -1) })}>
          Take back that {number(folds.findIndex(({ id }) => id === made.at(-1)))} is made
        </Button>
      )}
      {tried && <Remedies saved={saved} development={development} remedies={remedies} />}
    </>
  );
}

/** What frees the piece, each said once and taken with a touch where the program can do it. */
function Remedies({
  saved,
  development,
  remedies,
}: Pick<Props, 'saved' | 'development'> & { remedies: Remedy[] | null }) {
  const { folds, edges } = development;
  const { show } = usePreferences();
  const { pattern, patternEditor } = usePiece();
  const parting = usePartAtFold();
  const { byHand, leftOpen, turnedAfter } = saved.draft;
  const letterOf = (id: string) => edges.find((edge) => edge.id === id)?.letter ?? '?';
  /** What a remedy does, with what its button says; null where it is done by other means. */
  const actOf = (remedy: Remedy): { label: string; run: () => void } | null => {
    switch (remedy.kind) {
      case 'leave-open': {
        const { id, centre } = folds[remedy.fold]!;
        const open = { fold: id, deg: remedy.deg };
        return {
          label: `Do so with fold ${remedy.fold + 1} · ${show(distance(...centre))} of bar`,
          run: () => saved.set({ leftOpen: [...leftOpen.filter(({ fold }) => fold !== id), open] }),
        };
      }
      case 'over-a-bar': {
        const both = [remedy.fold, ...(remedy.also === undefined ? [] : [remedy.also])];
        const long = show(distance(...folds[remedy.fold]!.centre));
        return {
          label:
            both.length === 1
              ? `Do so with fold ${remedy.fold + 1} · ${long} of bar`
              : `Do so with ${numbers(both)}`,
          run: () =>
            saved.set({ byHand: [...new Set([...byHand, ...both.map((i) => folds[i]!.id)])] }),
        };
      }
      case 'turn-after':
        return {
          label: `Turn ${remedy.edges.map(letterOf).join(', ')} after the folds`,
          run: () => saved.set({ turnedAfter: [...turnedAfter, ...remedy.edges] }),
        };
      case 'uncover':
        return {
          label: `Leave up to ${show(remedy.gapMm)} uncovered`,
          run: () => saved.set({ uncoveredMm: remedy.gapMm }),
        };
      case 'shorten': {
        const doc = shortenedFlange(pattern, folds[remedy.fold]!.id, remedy.byMm);
        return (
          doc && {
            label: `Cut fold ${remedy.fold + 1}’s flange ${show(remedy.byMm)} shorter on the card`,
            run: () => patternEditor.edit(doc),
          }
        );
      }
      case 'part': {
        const fold = folds[remedy.fold]!;
        return parting.can(fold)
          ? {
              label: `Part it at fold ${remedy.fold + 1}: what is beyond becomes a piece of its own`,
              run: () => void parting.part(fold),
            }
          : null;
      }
    }
  };
  return (
    <Box>
      <Typography variant="h3" sx={{ mb: 0.8 }}>
        What frees it
      </Typography>
      {remedies === null && <Typography role="status">Being tried …</Typography>}
      {remedies?.length === 0 && (
        <Typography>
          {folds.length > MAX_TRIED
            ? `Of more than ${MAX_TRIED} folds that is not tried: another machine, a fold over a bar, or parts that are welded.`
            : 'Nothing that one or two folds could do differently: another machine, or parts that are welded.'}
        </Typography>
      )}
      {parting.problem && <Told>{parting.problem}</Told>}
      <Box
        component="ul"
        aria-label="What frees it"
        sx={{ listStyle: 'none', p: 0, m: 0, display: 'grid', gap: 1.2 }}
      >
        {remedyGroups(remedies ?? [], show, letterOf).map(({ said, remedies: alike }) => (
          <Box component="li" key={said} sx={{ borderLeft: '5px solid var(--done)', pl: 1.2 }}>
            {said}
            <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.8, mt: 0.6 }}>
              {alike.map((remedy) => {
                const act = actOf(remedy);
                return (
                  act && (
                    <Button
                      key={act.label}
                      variant="outlined"
                      size="small"
                      disabled={parting.busy}
                      onClick={act.run}
                    >
                      {act.label}
                    </Button>
                  )
                );
              })}
            </Box>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
