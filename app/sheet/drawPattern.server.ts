import { crownStands, mapOf } from '#core/card/crownStands';
import { datumOf } from '#core/blank/datum';
import { scribeTable } from '#core/blank/scribe';
import { edgeLength } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import { foldCsv } from '#core/format/csv';
import { toDxf } from '#core/format/dxf';
import { toSvg } from '#core/format/svg';
import { formatLength, formatThin } from '#core/measure/length';
import { metalById } from '#core/metal/metals';
import { labelsOfBlank, labelsOfCard, layersOfBlank, layersOfCard } from '#core/sheet/layers';
import { plugHoles, plugsOnBlank } from '#core/weld/plugs';
import { formatDay } from '../frame/dates';
import { plain, scribeSaid } from '../frame/markingWords';
import { SIDE_WORDS } from '../piece/sideWords';
import { reckoned } from '../piece/loaded/reckoned';
import { doing } from '../workers/task';
import type { EdgeToWork } from './markingTables';
import { markingSheet } from './markingTables';
import type { PatternDrawn } from './patternFiles';
import { drawPattern } from './patternFiles';
import { tiledPdf } from './pdf.server';

export const drawPatternNow = doing(drawPattern, async (given): Promise<PatternDrawn> => {
  const { file, unit, facts, card, revision, joined, shop } = given;
  const metal = metalById(facts.metal);
  const found = reckoned(card, metal, facts.thicknessMm, shop).development;
  if (!found.ok) return found;
  const { development } = found;
  const plugs = plugHoles(
    plugsOnBlank(
      joined.pattern,
      joined.plan,
      facts.thicknessMm,
      development,
      (edge) => joined.holes[edge] ?? 'here',
    ),
  );
  const [what, ending] = file.split('.') as [string, string];
  const layers = what === 'card' ? layersOfCard(card) : layersOfBlank(development, plugs);
  switch (ending) {
    case 'svg':
      return { ok: true, body: toSvg(layers, `${facts.name}, ${what}, revision ${revision}`) };
    case 'dxf':
      return { ok: true, body: toDxf(layers) };
    case 'csv':
      return { ok: true, body: foldCsv(development) };
  }
  const bare = (mm: number, digits = 1) => formatLength(mm, unit, digits, false);
  const datum = datumOf(development);
  const brakes = new Map(
    scribeTable(development).lines.flatMap((line) =>
      line.line === 'brake' ? [[line.fold, line] as const] : [],
    ),
  );
  const brakeFrom = (fold: string) => {
    const line = brakes.get(fold);
    return line?.from.kind === 'parallel'
      ? `brake line ${plain(scribeSaid(line, datum, bare))}`
      : '';
  };
  const meets = (edge: string) => joined.meets[edge] ?? '';
  return tiledPdf(
    layers,
    what === 'card' ? labelsOfCard(card, meets) : labelsOfBlank(development, brakeFrom, meets),
    {
      title: facts.name,
      lies: `${SIDE_WORDS[facts.side].toUpperCase()}, drawn side up`,
      what,
      revision,
      shop: shop.name,
      job: given.job,
      sheet: `${metal.name} ${formatThin(facts.thicknessMm, unit)}`,
      date: formatDay(given.at, given.dates),
      lengths: unit === 'mm' ? 'millimetres' : 'inches',
      paper: given.paper,
    },
    what === 'card' ? null : markingSheet(development, plugs, shop, bare, edgesToWork(card)),
    what === 'blank' && card.folds.length + card.beads.length === 0 ? mapOf(card) : null,
  );
});

/**
 * Of a card laid flat from a panel: by how much each edge is to be gathered or stretched, while
 * that stands.
 */
function edgesToWork(card: PatternDoc): EdgeToWork[] {
  if (!crownStands(card)) return [];
  return card.edges.flatMap((edge) => {
    const changeMm = card.crown!.edges.find((one) => one.edge === edge.id)?.changeMm;
    return changeMm === undefined
      ? []
      : [{ letter: edge.letter, changeMm, lengthMm: edgeLength(card, edge) }];
  });
}
