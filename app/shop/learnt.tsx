import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Suspense, lazy, useMemo, useRef, useState } from 'react';
import { Link, useRevalidator } from 'react-router';
import type { LearntGroup, ReadingList } from '#core/blank/fold/learnt';
import { READING_LISTS, changedPieces, learntGroups } from '#core/blank/fold/learnt';
import type { Shop } from '#core/blank/shopSchema';
import type { MetalId } from '#core/metal/metals';
import { metalById } from '#core/metal/metals';
import { Choice } from '../forms/Choice';
import { usePost } from '../forms/usePost';
import { Told } from '../frame/Told';
import { openPieces } from '../records/openPieces.server';
import { shopSettings } from '../records/shop.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/learnt';
import { Changes } from './Changes';
import { Group } from './Group';
import { TestBends } from './TestBends';
import { Tried } from './Tried';

const LearntChart = lazy(() => import('./LearntChart'));

/** Maximum number of pieces in hand for which the effect of readings is computed. */
const MAX_PIECES = 400;

export const loader = async ({ context }: Route.LoaderArgs) => {
  const viewer = context.get(viewerIn);
  const [shop, open] = await Promise.all([shopSettings(viewer), openPieces(viewer, MAX_PIECES)]);
  return { shop, open };
};

export const meta: Route.MetaFunction = () => [{ title: 'What this shop has measured · Patrone' }];

const LIST_WORDS: Record<ReadingList, { title: string; none: string }> = {
  strips: { title: 'K of test bends', none: 'No strip was folded and measured yet.' },
  springs: {
    title: 'How bends spring back',
    none: 'No bend was folded, let go and measured yet: tries on folds of pieces come here by themselves.',
  },
  radii: {
    title: 'Inside radii as they came out',
    none: 'No radius was read yet: what is read on folds of pieces comes here by itself.',
  },
};

/**
 * What the shop has measured of its own bends, flanges and beads: what it says, which readings
 * stand out, and what they do to the pieces in hand.
 */
export default function Learnt({ loaderData: { shop, open } }: Route.ComponentProps) {
  const { revalidate } = useRevalidator();
  const post = usePost<{ taken?: number }>('/shop/readings', () => void revalidate());
  const [brake, setBrake] = useState('');
  const groups = useMemo(
    () => READING_LISTS.map((list) => ({ list, groups: learntGroups(shop, list, brake || null) })),
    [shop, brake],
  );
  const measured = [...new Set(groups.flatMap(({ groups }) => groups.map(({ metal }) => metal)))];
  const [chosen, choose] = useState<MetalId | null>(null);
  const metal = chosen ?? measured[0] ?? 'dc01';
  const bare = useMemo((): Shop => ({ ...shop, strips: [], springs: [], radii: [] }), [shop]);
  const all = useMemo(() => changedPieces(bare, shop, open), [bare, shop, open]);
  const leaveOut = (list: ReadingList, index: number, why: string | null) =>
    post.send({ intent: 'leave-out', of: { list, reading: shop[list][index] }, why });
  return (
    <>
      <Typography variant="body2">
        <Box component={Link} to="/shop" sx={{ color: 'var(--link)' }}>
          How this shop works
        </Box>
      </Typography>
      <Typography variant="h1" sx={{ mb: 2 }}>
        What this shop has measured
      </Typography>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { md: '1fr 1fr' },
          gap: 3,
          alignItems: 'start',
        }}
      >
        <Box>
          <Box sx={{ display: 'grid', gridTemplateColumns: { sm: '1fr 1fr' }, gap: 1.5, mb: 1.5 }}>
            <Choice
              label="Metal in the chart"
              value={metal}
              onChange={choose}
              options={[...new Set([...measured, metal])].map(
                (id) => [id, metalById(id).name] as const,
              )}
            />
            <Choice
              label="Readings shown"
              value={brake}
              onChange={setBrake}
              options={[
                ['', 'Of every machine'] as const,
                ...shop.brakes.map(({ id, name }) => [id, `On “${name}”`] as const),
              ]}
            />
          </Box>
          <Suspense fallback={<Box sx={{ height: 330 }} />}>
            <LearntChart
              groups={groups.flatMap(({ groups }) => groups).filter((one) => one.metal === metal)}
              metal={metal}
            />
          </Suspense>
        </Box>
        <Box component="section" aria-label="What they do">
          <Typography variant="h2">What they do</Typography>
          <Typography sx={{ mb: 1 }}>
            Against the handbook’s figures, on the pieces in hand:
          </Typography>
          <Changes changes={all} none="No piece in hand is reckoned otherwise for them." />
          <Files post={post} />
        </Box>
      </Box>
      {post.problem && <Told>{post.problem}</Told>}
      {groups.map(({ list, groups }) => (
        <Box component="section" key={list} aria-label={LIST_WORDS[list].title} sx={{ mt: 4 }}>
          <Typography variant="h2">{LIST_WORDS[list].title}</Typography>
          {groups.length === 0 && (
            <Typography sx={{ color: 'var(--pencil)' }}>{LIST_WORDS[list].none}</Typography>
          )}
          {groups.map((group: LearntGroup) => (
            <Group
              key={`${group.metal} ${group.readings[0]!.index}`}
              group={group}
              shop={shop}
              open={open}
              leaveOut={leaveOut}
            />
          ))}
        </Box>
      ))}
      <Tried
        shop={shop}
        leaveOut={({ list, index }, why) =>
          post.send({ intent: 'leave-out', of: { list, reading: shop[list][index] }, why })
        }
      />
      <TestBends
        shop={shop}
        onAdd={(reading) => void post.send({ intent: 'add', of: { list: 'strips', reading } })}
      />
    </>
  );
}

/** The readings as a table, out and in. */
function Files({ post }: { post: ReturnType<typeof usePost<{ taken?: number }>> }) {
  const file = useRef<HTMLInputElement>(null);
  const [done, setDone] = useState(false);
  const take = async (given: File | undefined) => {
    setDone(false);
    if (given && (await post.send({ intent: 'take-in', csv: await given.text() }))) setDone(true);
    if (file.current) file.current.value = '';
  };
  return (
    <Box sx={{ mt: 2, display: 'flex', gap: 1, flexWrap: 'wrap', alignItems: 'center' }}>
      <Button component="a" href="/shop/readings.csv" variant="outlined" download>
        Take the table out (CSV)
      </Button>
      <Button variant="outlined" onClick={() => file.current?.click()}>
        Take a table in
      </Button>
      <input
        ref={file}
        type="file"
        accept=".csv,text/csv"
        hidden
        aria-label="A table of readings"
        onChange={(event) => void take(event.target.files?.[0])}
      />
      {done && <Box role="status">Taken in</Box>}
    </Box>
  );
}
