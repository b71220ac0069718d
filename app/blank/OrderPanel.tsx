import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import type { BlankFold } from '#core/blank/fold/developed';
import type { Development } from '#core/blank/fold/developed';
import { beyondMachine } from '#core/blank/fold/onMachine';
import { Choice } from '../forms/Choice';
import { SelfSavedWord } from '../forms/SelfSavedWord';
import { Notices } from '../piece/Notices';
import { usePiece } from '../piece/pieceContext';
import { FoldTo } from './FoldTo';
import { NoOrder } from './NoOrder';
import { OwnOrder } from './OwnOrder';
import { AchievedRadiusReading } from './AchievedRadius';
import { SettledByHand } from './SettledByHand';
import { Done, Now, Steps } from './Steps';
import { handlingSaid } from './orderWords';
import type { Ordering } from '../folding/useOrdering';

type Props = Ordering & { development: Development };

/**
 * The order in which the folds are made on a machine: what is next, step by step; or what stands in
 * the way and what frees it.
 */
export function OrderPanel({ development, ...ordering }: Props) {
  const { id, shop } = usePiece();
  const { saved, ordered, brake, rows, next, looked } = ordering;
  const folds: readonly BlankFold[] = development.folds;
  const row = rows[looked];
  return (
    <Stack spacing={1.6} component="section" aria-label="Order of folding">
      <SelfSavedWord {...saved} />
      <Choice
        label="Folded on"
        value={brake?.id ?? ''}
        onChange={(brake) => saved.set({ brake })}
        options={shop.brakes.map(({ id, name }) => [id, name] as const)}
      />
      {brake && <Notices problems={beyondMachine(development, brake)} />}
      <SettledByHand saved={saved} development={development} />
      {ordered.state === 'looking' && <Typography role="status">Looking for an order …</Typography>}
      {ordered.state === 'none' && (
        <NoOrder {...ordering} ordered={ordered} development={development} />
      )}
      {ordered.state === 'found' && (
        <>
          <Now {...ordering} development={development} />
          {row && row.by === 'machine' && looked === next && (
            <FoldTo
              key={folds[row.fold]!.id}
              fold={folds[row.fold]!}
              number={row.fold + 1}
              leftAtDeg={row.toDeg}
            />
          )}
          {row && row.done && (
            <AchievedRadiusReading
              key={`radius ${folds[row.fold]!.id}`}
              fold={folds[row.fold]!}
              number={row.fold + 1}
            />
          )}
          <Done {...ordering} folds={folds} />
          <Typography variant="h3">All of it</Typography>
          <Typography variant="body2">
            {ordered.order.steps.length > 0 && handlingSaid(ordered.order)}
            {!ordered.order.exact &&
              ' With this many folds it is the best that was found; there may be a better one.'}
          </Typography>
          <Steps {...ordering} />
          <Button component="a" href={`/pieces/${id}/bench-card.pdf`} variant="outlined" download>
            Card for the bench (PDF)
          </Button>
        </>
      )}
      <OwnOrder saved={saved} folds={folds} />
      <Typography variant="body2">
        <Box component={Link} to="/shop#machines" sx={{ color: 'var(--link)' }}>
          The machines and their figures
        </Box>
        . Laps lie in their face’s plane; turned edges stand as they are made.
      </Typography>
    </Stack>
  );
}
