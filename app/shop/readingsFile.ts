import { readingsCsv } from '#core/format/readings';
import { shopSettings } from '../records/shop.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/readingsFile';

/** All that the shop has measured, as a table. */
export async function loader({ context }: Route.LoaderArgs) {
  const { strips, springs, radii } = await shopSettings(context.get(viewerIn));
  return new Response(readingsCsv({ strips, springs, radii }), {
    headers: {
      'Content-Type': 'text/csv; charset=utf-8',
      'Content-Disposition': 'attachment; filename="readings.csv"',
      'Cache-Control': 'no-store',
    },
  });
}
