import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useEffect, useRef } from 'react';
import { Link, data } from 'react-router';
import { SHOP_MERGE } from '#core/format/mergeRules';
import type { Shop } from '#core/blank/shopSchema';
import { ShopSchema } from '#core/blank/shopSchema';
import { cut } from '#core/card/cut';
import { Choice } from '../forms/Choice';
import { FigureField } from '../forms/FigureField';
import { LengthField } from '../forms/LengthField';
import { orSay } from '../forms/orSay';
import { useAnswers } from '../forms/useAnswers';
import { useDraft } from '../forms/useDraft';
import { FoldAway } from '../frame/FoldAway';
import { usePreferences } from '../frame/preferences';
import { lastBackup } from '../records/backups.server';
import { answerOf, changedOf } from '../records/changed.server';
import type { Answered } from '../records/changed.server';
import { sentence } from '../records/parse.server';
import { changeShop, shopSettings } from '../records/shop.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/shop';
import { Backups } from './Backups';
import { Brakes } from './Brakes';
import { ShapeTools } from './ShapeTools';
import { Sheets } from './Sheets';

export const loader = async ({ context }: Route.LoaderArgs) => ({
  shop: await shopSettings(context.get(viewerIn)),
  backup: await lastBackup(),
});

export async function action({ request, context }: Route.ActionArgs) {
  const viewer = context.get(viewerIn);
  if (viewer.known?.role !== 'runs')
    return data(
      { message: 'Only who runs the shop changes its settings. Nothing was changed.' },
      { status: 403 },
    );
  const parsed = changedOf(ShopSchema).safeParse(await request.json().catch(() => null));
  if (!parsed.success) return data({ message: sentence(parsed.error) }, { status: 400 });
  const { since, mine } = parsed.data;
  return answerOf(await changeShop(viewer, since, mine), SHOP_WORDS, (_, value) => String(value));
}

/** What the settings are called, where two pages differ about one. */
const SHOP_WORDS = {
  name: 'Name of the shop',
  units: 'Lengths are shown in',
  dates: 'Days are written',
  rule: 'Bends are reckoned by',
  plainK: 'K',
  brakeLine: 'The edge of the clamping bar',
  relief: 'Reliefs',
  shortestFlangeMm: 'Shortest flat beyond a bend, mm',
  hourRate: 'An hour costs',
  currency: 'Sign of the money',
  layersApartMm: 'Cuts of neighbouring layers apart, mm',
  sheets: 'Sheet we can get',
  brakes: 'Folders and brakes',
  springs: 'Bends measured',
  radii: 'Radii measured',
  strips: 'Test bends',
  longFolds: 'Long folds',
  edgeTools: 'Shrinkers and stretchers',
  beadTools: 'Dies for beads',
  bites: 'Test strips',
  beadTests: 'Test pieces of beads',
  limitsSeen: 'Where edges tore or folded over',
  paces: 'Hours taken',
};

const RELIEF_WORDS: Record<Shop['relief'], string> = {
  round: 'Drilled reliefs',
  square: 'Sawn reliefs',
  none: 'No reliefs',
};

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => orSay(serverAction);

export const meta: Route.MetaFunction = () => [{ title: 'Shop settings · Patrone' }];

/** How the shop works: the rule its bends are reckoned by, its brake, its own test bends. */
export default function ShopPage({ loaderData }: Route.ComponentProps) {
  const { show } = usePreferences();
  const fetcher = useAnswers<Answered<Shop>>();
  // What another page wrote is shown; kept again, one's own stands.
  const {
    draft: shop,
    since,
    kept,
    set: change,
    drop,
  } = useDraft<Shop>('shop', loaderData.shop, fetcher.data?.now, SHOP_MERGE);
  const taken = fetcher.state === 'idle' && fetcher.data?.saved === true ? fetcher.data : null;
  // Once the server has it, the draft has done its work.
  const sent = useRef<Shop | null>(null);
  useEffect(() => {
    if (taken) drop(sent.current ?? undefined);
  }, [taken, drop]);
  return (
    <>
      <Typography variant="h1" sx={{ mb: 2.5 }}>
        How this shop works
      </Typography>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { md: '1fr 1fr' },
          gap: 3,
          alignItems: 'start',
        }}
      >
        <Stack spacing={1.8}>
          <TextField
            label="Name of the shop"
            value={shop.name}
            onChange={(event) => change({ name: cut(event.target.value, 80) })}
          />
          <Choice
            label="Lengths are shown in, until someone presses U"
            value={shop.units}
            onChange={(units) => change({ units })}
            options={[
              ['mm', 'Millimetres'],
              ['in', 'Inches and fractions, to 1/64'],
              ['in32', 'Inches and fractions, to 1/32'],
              ['inDecimal', 'Decimal inches'],
            ]}
          />
          <Choice
            label="Days are written"
            value={shop.dates}
            onChange={(dates) => change({ dates })}
            options={[
              ['day', '5 Nov 2026, 14:30'],
              ['month', 'Nov 5, 2026, 2:30 PM'],
              ['year', '2026-11-05, 14:30'],
            ]}
          />
          <Choice
            label="Bends are reckoned by"
            value={shop.rule}
            onChange={(rule) => change({ rule })}
            options={[
              ['din6935', 'DIN 6935'],
              ['machinery', 'Machinery’s Handbook'],
              ['faa', 'FAA AC 43.13-1B'],
              ['k', 'A K of our own'],
            ]}
            help="Test bends of the same metal and thickness always come first."
          />
          {shop.rule === 'k' && (
            <TextField
              label="K (neutral line, share of the thickness)"
              type="number"
              value={shop.plainK}
              onChange={(event) => change({ plainK: Number(event.target.value) })}
              slotProps={{ htmlInput: { min: 0, max: 0.6, step: 0.01 } }}
            />
          )}
        </Stack>
        <Stack spacing={1.8}>
          <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
            <FigureField
              label="An hour of work costs"
              value={shop.hourRate}
              min={0}
              max={10_000}
              unit={shop.currency}
              wrong="Money, from 0 to 10 000."
              onChange={(hourRate) => change({ hourRate })}
            />
            <TextField
              label="Money is written with"
              value={shop.currency}
              onChange={(event) => change({ currency: cut(event.target.value, 4) })}
            />
          </Box>
          <LengthField
            label="Shortest flat the brake can hold beyond a bend"
            mm={shop.shortestFlangeMm}
            min={0}
            max={100}
            onChange={(mm) => mm !== null && change({ shortestFlangeMm: mm })}
          />
          <FoldAway
            title={`${RELIEF_WORDS[shop.relief]}, long folds ${shop.longFolds}, cuts ${show(shop.layersApartMm)} apart`}
          >
            <Stack spacing={1.8}>
              <Choice
                label="The edge of the clamping bar goes"
                value={shop.brakeLine}
                onChange={(brakeLine) => change({ brakeLine })}
                options={[
                  ['tangent', 'On the tangent of the bend'],
                  ['centre', 'On the middle of the bend'],
                  ['radius-in', 'One radius in from the tangent'],
                ]}
              />
              <Choice
                label="Reliefs where bends meet"
                value={shop.relief}
                onChange={(relief) => change({ relief })}
                options={[
                  ['round', 'Round: drilled'],
                  ['square', 'Square: sawn'],
                  ['none', 'None'],
                ]}
              />
              <Choice
                label="Where nothing else tells two orders apart, long folds are made"
                value={shop.longFolds}
                onChange={(longFolds) => change({ longFolds })}
                options={[
                  ['late', 'Late'],
                  ['early', 'Early'],
                ]}
              />
              <LengthField
                label="Cuts of neighbouring layers are apart at least"
                mm={shop.layersApartMm}
                min={0}
                max={1000}
                onChange={(mm) => mm !== null && change({ layersApartMm: mm })}
              />
            </Stack>
          </FoldAway>
        </Stack>
      </Box>
      <Sheets sheets={shop.sheets} onChange={(sheets) => change({ sheets })} />
      <Brakes brakes={shop.brakes} onChange={(brakes) => change({ brakes })} />
      <ShapeTools edgeTools={shop.edgeTools} beadTools={shop.beadTools} onChange={change} />
      <Box
        component="section"
        aria-label="Measured"
        sx={{ mt: 4, p: 2.5, bgcolor: 'var(--panel)', border: '1.5px solid var(--rule)' }}
      >
        <Typography variant="h2">What this shop has measured</Typography>
        <Typography sx={{ mb: 1.5, maxWidth: 720 }}>
          Test bends, how bends sprang back, radii as they came out: what they say, which stand out,
          and what they do to the pieces in hand.
        </Typography>
        <Button component={Link} to="/shop/learnt" variant="outlined">
          To the readings
        </Button>
      </Box>
      <Stack direction="row" spacing={1.5} sx={{ mt: 3, alignItems: 'center' }}>
        <Button
          variant="contained"
          size="large"
          disabled={!kept || fetcher.state !== 'idle'}
          onClick={() => {
            sent.current = shop;
            void fetcher.submit(
              { mine: shop, since },
              { method: 'post', encType: 'application/json' },
            );
          }}
        >
          Keep these settings
        </Button>
        {taken && !kept && <Box role="status">Saved</Box>}
        {fetcher.data?.message && <Box role="alert">{fetcher.data.message}</Box>}
      </Stack>
      <Backups found={loaderData.backup} />
    </>
  );
}
