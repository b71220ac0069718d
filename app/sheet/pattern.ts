import { z } from 'zod';
import { datumOf } from '#core/blank/datum';
import { scribeTable } from '#core/blank/scribe';
import { foldCsv } from '#core/format/csv';
import { toDxf } from '#core/format/dxf';
import { toSvg } from '#core/format/svg';
import { formatLength, formatThin } from '#core/measure/length';
import { metalById } from '#core/metal/metals';
import { labelsOfBlank, labelsOfCard, layersOfBlank, layersOfCard } from '#core/sheet/layers';
import { PAPERS } from '#core/sheet/tiles';
import type { Paper } from '#core/sheet/tiles';
import { plugHoles, plugsOnBlank } from '#core/weld/plugs';
import { formatDay } from '../frame/dates';
import { plain, scribeSaid } from '../frame/markingWords';
import { preferencesFrom } from '../frame/preferences';
import { printDigest } from '../piece/printDigest';
import { reckoned } from '../piece/reckoned';
import { documentState } from '../records/documents.server';
import { jobById } from '../records/jobs.server';
import { notePrint, pieceById } from '../records/pieces.server';
import { shopSettings } from '../records/shop.server';
import type { Viewer } from '../records/viewer.server';
import { viewerIn } from '../records/viewer.server';
import type { Route } from './+types/pattern';
import { markingSheet } from './markingTables';
import { tiledPdf } from './pdf.server';

const FILES = ['blank.pdf', 'blank.svg', 'blank.dxf', 'card.pdf', 'card.svg', 'card.dxf', 'folds.csv'] as const;
const TYPES: Record<string, string> = {
  pdf: 'application/pdf',
  svg: 'image/svg+xml',
  dxf: 'image/vnd.dxf',
  csv: 'text/csv; charset=utf-8',
};

/** What a file of a piece is made from: the documents in use, and the blank they give. */
async function leaving(viewer: Viewer, params: Route.LoaderArgs['params']) {
  const id = z.uuid().safeParse(params.pieceId);
  const file = z.enum(FILES).safeParse(params.file);
  const piece = id.success ? await pieceById(viewer, id.data) : null;
  if (!piece || !file.success) throw new Response(null, { status: 404 });
  const [job, card, plan, shop] = await Promise.all([
    jobById(viewer, piece.job),
    documentState(viewer, piece.id, 'card'),
    documentState(viewer, piece.id, 'plan'),
    shopSettings(viewer),
  ]);
  const metal = metalById(piece.metal);
  const found = reckoned(card.doc, metal, piece.thicknessMm, shop).development;
  if (!found.ok) throw new Response('There is no blank yet: mend the card first.', { status: 422 });
  const { development } = found;
  const plugs = plugHoles(plugsOnBlank(card.doc, plan.doc, piece.thicknessMm, development));
  return { piece, file: file.data, job, card, shop, metal, development, plugs };
}

/** Notes that a pattern leaves the house, with what it is made from. Asked for by the page; reading a file notes nothing. */
export async function action({ params, context }: Route.ActionArgs) {
  const viewer = context.get(viewerIn);
  const { piece, file, card, shop, metal, development, plugs } = await leaving(viewer, params);
  await notePrint(
    viewer,
    piece.id,
    file,
    card.number,
    printDigest(development, plugs, metal, piece.thicknessMm, shop),
  );
  return Response.json({ noted: true });
}

/** A pattern leaving the house: the card in use, drawn as asked. */
export async function loader({ params, request, context }: Route.LoaderArgs) {
  const viewer = context.get(viewerIn);
  const paper = z
    .enum(Object.keys(PAPERS) as [Paper, ...Paper[]])
    .safeParse(new URL(request.url).searchParams.get('paper') ?? 'a4');
  if (!paper.success) throw new Response(null, { status: 404 });
  const { piece, file, job, card, shop, metal, development, plugs } = await leaving(viewer, params);
  const [what, ending] = file.split('.') as [string, string];
  // On paper as on the screen it was asked from.
  const { unit } = preferencesFrom(request.headers.get('cookie') ?? '', shop);
  const bare = (mm: number, digits = 1) => formatLength(mm, unit, digits, false);
  const brakes = scribeTable(development).lines.filter((line) => line.line === 'brake');
  const brakeFrom = (fold: string) => {
    const line = brakes.find((l) => l.fold === fold);
    return line?.from.kind === 'parallel' ? `brake line ${plain(scribeSaid(line, datumOf(development), bare))}` : '';
  };
  const layers = what === 'card' ? layersOfCard(card.doc) : layersOfBlank(development, plugs);
  const title = `${piece.name}, ${what}, revision ${card.number}`;
  const body =
    ending === 'pdf'
      ? await tiledPdf(
          layers,
          what === 'card' ? labelsOfCard(card.doc) : labelsOfBlank(development, brakeFrom),
          {
            title: piece.name,
            what,
            revision: card.number,
            shop: shop.name,
            job: job?.name ?? '',
            sheet: `${metal.name} ${formatThin(piece.thicknessMm, unit)}`,
            date: formatDay(new Date().toISOString(), shop.dates),
            lengths: unit === 'mm' ? 'millimetres' : 'inches',
            paper: paper.data,
          },
          what === 'card' ? null : markingSheet(development, plugs, shop, bare),
        )
      : ending === 'svg'
        ? toSvg(layers, title)
        : ending === 'dxf'
          ? toDxf(layers)
          : foldCsv(development);
  const name = `${piece.name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase()}-${what}-r${card.number}.${ending}`;
  return new Response(body as BodyInit, {
    headers: {
      'Content-Type': TYPES[ending]!,
      'Content-Disposition': `attachment; filename="${name.replace(/[^\x20-\x7e]/g, '')}"; filename*=UTF-8''${encodeURIComponent(name)}`,
      'Cache-Control': 'no-store',
    },
  });
}
