import { data } from 'react-router';
import { z } from 'zod';
import { ShopSchema } from '#core/blank/shopSchema';
import { addSpring } from '../records/shop.server';
import { parsedJson } from '../records/parse.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/springs';

const Body = z.object({ reading: ShopSchema.shape.springs.element });

/** A bend that was folded, let go and measured goes to the shop's readings. */
export async function action({ request, context }: Route.ActionArgs) {
  const { reading } = await parsedJson(request, Body);
  const kept = await addSpring(context.get(viewerIn), reading);
  if (kept) return { saved: true as const };
  return data({ message: 'The shop keeps no more readings than these: take old ones off in its settings.' }, { status: 409 }); // prettier-ignore
}
