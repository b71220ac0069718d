import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { Development } from '#core/blank/fold/developed';
import type { Remedy } from '#core/blank/fold/order/remedies';
import { MOST_TRIED } from '#core/blank/fold/order/remedies';
import { distance } from '#core/measure/vector';
import { Told } from '../frame/Told';
import { faceSaid } from './waterWords';
import { usePreferences } from '../frame/preferences';
import { hitSaid, remedyGroups } from './orderWords';
import type { Ordered } from './useOrder';
import type { Ordering } from './useOrdering';

type Props = Pick<Ordering, 'saved'> & {
  ordered: Extract<Ordered, { state: 'none' }>;
  development: Development;
};

/**
 * Why there is no order, or why one's own does not go; and what frees it, to be taken with a touch.
 */
export function NoOrder({ ordered, saved, development }: Props) {
  const { folds } = development;
  const face = (index: number) => faceSaid(development, index);
  const { show } = usePreferences();
  const { problems, stuck, shown, remedies } = ordered;
  const number = (fold: number) => `fold ${fold + 1}`;
  const is = (code: string) => problems.some((problem) => problem.code === code);
  const { byHand, leftOpen } = saved.draft;
  const made = saved.draft.made.filter((id) => folds.some((fold) => fold.id === id));
  const take = (remedy: Remedy) => {
    const id = folds[remedy.fold]!.id;
    if (remedy.kind === 'leave-open')
      saved.set({
        leftOpen: [...leftOpen.filter(({ fold }) => fold !== id), { fold: id, deg: remedy.deg }],
      });
    if (remedy.kind === 'over-a-bar')
      saved.set({
        byHand: [
          ...new Set([
            ...byHand,
            id,
            ...(remedy.also === undefined ? [] : [folds[remedy.also]!.id]),
          ]),
        ],
      });
  };
  const groups = remedyGroups(remedies ?? [], show);
  // Where one's own order is stuck and another goes, that is what frees it: then nothing else is
  // tried.
  const tried = is('no-order') || (stuck !== null && remedies !== null);
  return (
    <>
      <Told>
        {stuck
          ? `In this order ${number(stuck.fold)} cannot be made, as number ${stuck.at + 1}: ${hitSaid(stuck.hit, face)}, by ${show(stuck.hit.depthMm)}.`
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
          Drawn: made as they are numbered, {number(shown.step.fold)} is the first that hits:{' '}
          {hitSaid(shown.hit ?? { of: 'bar', depthMm: 0 }, face)}.
        </Typography>
      )}
      {made.length > 0 && (
        <Button variant="outlined" onClick={() => saved.set({ made: made.slice(0, -1) })}>
          Take back that {number(folds.findIndex(({ id }) => id === made.at(-1)))} is made
        </Button>
      )}
      {tried && (
        <Box>
          <Typography variant="h3" sx={{ mb: 0.8 }}>
            What frees it
          </Typography>
          {remedies === null && <Typography role="status">Being tried …</Typography>}
          {remedies?.length === 0 && (
            <Typography>
              {folds.length > MOST_TRIED
                ? `Of more than ${MOST_TRIED} folds that is not tried: another machine, a fold over a bar, or parts that are welded.`
                : 'Nothing that one or two folds could do differently: another machine, or parts that are welded.'}
            </Typography>
          )}
          <Box
            component="ul"
            aria-label="What frees it"
            sx={{ listStyle: 'none', p: 0, m: 0, display: 'grid', gap: 1.2 }}
          >
            {groups.map(({ said, remedies: alike }) => (
              <Box component="li" key={said} sx={{ borderLeft: '5px solid var(--done)', pl: 1.2 }}>
                {said}
                {alike.some(({ kind }) => kind === 'leave-open' || kind === 'over-a-bar') && (
                  <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.8, mt: 0.6 }}>
                    {alike.map((remedy) => {
                      const both = remedy.kind === 'over-a-bar' && remedy.also !== undefined;
                      const long = distance(...folds[remedy.fold]!.centre);
                      const what = both
                        ? `Do so with folds ${remedy.fold + 1} and ${remedy.also! + 1}`
                        : `Do so with fold ${remedy.fold + 1}`;
                      return (
                        <Button
                          key={what}
                          variant="outlined"
                          size="small"
                          onClick={() => take(remedy)}
                        >
                          {what}
                          {both ? '' : ` · ${show(long)} of bar`}
                        </Button>
                      );
                    })}
                  </Box>
                )}
              </Box>
            ))}
          </Box>
        </Box>
      )}
    </>
  );
}
