import { holePath, holeReach } from '#core/card/holeForm';
import PDFDocument from 'pdfkit';
import { svgPath } from '#core/format/svg';
import { line } from '#core/measure/segment';
import type { Segment } from '#core/measure/segment';
import type { Vec } from '#core/measure/vector';
import type { Box } from '#core/measure/path';
import { distance } from '#core/measure/vector';
import type { DrawnMap } from '#core/surface/panel/drawnMap';
import { runsInWindow } from '#core/sheet/clip';
import type { EdgeLabel, FoldLabel, Layers, NoteLabel, PaperLabel } from '#core/sheet/layers';
import { layersBox } from '#core/sheet/layers';
import type { Paper, Tile, Tiling } from '#core/sheet/tiles';
import { registerMarks, tilePages } from '#core/sheet/tiles';
import { shippedFont } from '../frame/paperFonts.server';
import type { MarkingSheet } from './markingTables';
import type { PatternDrawn } from './patternFiles';

const POINTS_PER_MM = 72 / 25.4;
// By its file and not by a name of ours: a registered font would be read anew for every cell of a
// table.
const plainFont = () => shippedFont('barlow/files/barlow-latin-500-normal');
const condensedFont = () => shippedFont('barlow-condensed/files/barlow-condensed-latin-600-normal');

/**
 * What each page says it is; `sheet` is the metal and its thickness, `date` the day of printing.
 */
export type Head = {
  title: string;
  /** On which side of the vehicle it sits, and which of its faces is up on the sheet. */
  lies: string;
  what: string;
  revision: number;
  shop: string;
  job: string;
  sheet: string;
  date: string;
  /** The unit of the lengths that are told, in words. */
  lengths: string;
  paper: Paper;
};
type Pdf = InstanceType<typeof PDFDocument>;

/**
 * The drawing full size on overlapping pages: each with register crosses, its name, the piece and
 * revision, a key of all pages, and bars of 100 mm and 4 in both ways to check the printer with.
 * After them, where there is one, the table to mark the blank out by.
 */
export function tiledPdf(
  layers: Layers,
  labels: readonly PaperLabel[],
  head: Head,
  marking: MarkingSheet | null,
  work: DrawnMap | null = null,
): Promise<PatternDrawn> {
  const tiles = tilePages(layersBox(layers), head.paper);
  if (!tiles.ok) return Promise.resolve(tiles);
  const { tiling } = tiles;
  const pdf = new PDFDocument({
    autoFirstPage: false,
    info: { Title: `${head.title}, ${head.what}, revision ${head.revision}`, Creator: 'Patrone' },
  });
  const chunks: Uint8Array[] = [];
  const done = new Promise<PatternDrawn>((resolve, reject) => {
    pdf.on('data', (chunk: Uint8Array) => chunks.push(chunk));
    pdf.on('end', () => resolve({ ok: true, body: Buffer.concat(chunks) }));
    pdf.on('error', reject);
  });
  for (const tile of tiling.tiles) {
    pdf.addPage({
      size: [tiling.pageWidthMm * POINTS_PER_MM, tiling.pageHeightMm * POINTS_PER_MM],
      margin: 0,
    });
    pdf.save().scale(POINTS_PER_MM);
    drawTile(pdf, layers, labels, work, tiling, tile);
    drawMargin(pdf, tiling, tile, head);
    pdf.restore();
  }
  if (marking) markingPages(pdf, marking, head, tiling);
  pdf.end();
  return done;
}

/** The window of the drawing that a page shows, in millimetres from the page's top left corner. */
function drawTile(
  pdf: Pdf,
  layers: Layers,
  labels: readonly PaperLabel[],
  work: DrawnMap | null,
  tiling: Tiling,
  tile: Tile,
): void {
  const { marginMm: m, windowWidthMm: w, windowHeightMm: h } = tiling;
  const on = ([x, y]: Vec): Vec => [m + x - tile.x, m + h - (y - tile.y)];
  const stroke = (path: readonly Segment[], closed: boolean) =>
    pdf.path(svgPath(path, on, closed)).stroke();
  // Only what can be seen on this page, with room for the width of a line and a hole's cross.
  const window = { minX: tile.x - 3, minY: tile.y - 3, maxX: tile.x + w + 3, maxY: tile.y + h + 3 };
  const seen = (s: Segment) => runsInWindow([s], window).length > 0;
  pdf.save().rect(m, m, w, h).clip();
  if (work) drawWork(pdf, work, on, window);
  pdf.lineWidth(0.3).strokeColor('#000');
  for (const { segments, closed } of runsInWindow(layers.cut, window)) stroke(segments, closed);
  for (const hole of layers.holes) {
    const reach = holeReach(hole) + 3;
    const [hx, hy] = hole.centre;
    if (
      hx + reach < window.minX ||
      hx - reach > window.maxX ||
      hy + reach < window.minY ||
      hy - reach > window.maxY
    )
      continue;
    const [x, y] = on(hole.centre);
    const path = holePath(hole.centre, hole);
    if (path) stroke(path, true);
    else pdf.circle(x, y, hole.diameterMm / 2).stroke();
    pdf
      .moveTo(x - 2, y)
      .lineTo(x + 2, y)
      .moveTo(x, y - 2)
      .lineTo(x, y + 2)
      .lineWidth(0.15)
      .stroke()
      .lineWidth(0.3);
  }
  pdf.lineWidth(0.2).strokeColor('#1f4d85');
  for (const [a, b] of layers.fold) if (seen(line(a, b))) stroke([line(a, b)], false);
  pdf.strokeColor('#b8430a').dash(5, { space: 2 });
  for (const [a, b] of layers.brake) if (seen(line(a, b))) stroke([line(a, b)], false);
  pdf.strokeColor('#5d574e').dash(1.5, { space: 1.5 });
  for (const s of layers.scribe) if (seen(s)) stroke([s], false);
  pdf.undash();
  for (const label of labels) {
    // What is written reaches some way to either side of its place.
    const reach =
      label.kind === 'fold'
        ? label.lengthMm
        : label.kind === 'note'
          ? Math.max(20, label.text.length * label.sizeMm)
          : 20;
    const [lx, ly] = label.at;
    if (
      lx + reach < window.minX ||
      lx - reach > window.maxX ||
      ly + reach < window.minY ||
      ly - reach > window.maxY
    )
      continue;
    if (label.kind === 'edge') drawTag(pdf, on(label.at), label);
    else if (label.kind === 'note') drawNote(pdf, on(label.at), label);
    else drawFold(pdf, on(label.at), label);
  }
  pdf.restore();
  pdf.lineWidth(0.1).strokeColor('#888').rect(m, m, w, h).stroke();
  pdf.lineWidth(0.15).strokeColor('#000');
  for (const mark of registerMarks(tiling, tile)) {
    const [x, y] = on([mark.x, mark.y]);
    pdf
      .moveTo(x - 4, y)
      .lineTo(x + 4, y)
      .moveTo(x, y - 4)
      .lineTo(x, y + 4)
      .stroke();
    pdf.circle(x, y, 1.6).stroke();
  }
}

/**
 * Colours of what is stretched and what is gathered, dark enough to be told apart on any printer by
 * their dashes too.
 */
const WORK = { stretch: '#8a1f0a', shrink: '#0f3f70' };
/** Minimum length of a line that carries a figure, and minimum distance between figures, mm. */
const FIGURE_MM = 24;

/**
 * What is to be done where, lightly: lines of equal stretch and shrink with their figures, and the
 * marks.
 */
function drawWork(pdf: Pdf, { lines, marks }: DrawnMap, on: (p: Vec) => Vec, window: Box): void {
  const within = ([x, y]: Vec) =>
    x > window.minX && x < window.maxX && y > window.minY && y < window.maxY;
  const figured: Vec[] = [];
  for (const { way, value, closed, places } of lines) {
    pdf.lineWidth(0.15).strokeColor(WORK[way]);
    if (way === 'shrink') pdf.dash(2.5, { space: 1.5 });
    places.forEach((p, i) => (i === 0 ? pdf.moveTo(...on(p)) : pdf.lineTo(...on(p))));
    if (closed) pdf.closePath();
    pdf.stroke().undash();
    const long = places.slice(1).reduce((sum, p, i) => sum + distance(p, places[i]!), 0);
    const at = places[Math.floor(places.length * 0.4)];
    if (!at || long < FIGURE_MM || figured.some((p) => distance(p, at) < FIGURE_MM)) continue;
    figured.push(at);
    if (!within(at)) continue;
    const text = `${(value * 100).toFixed(1)} %`;
    const [x, y] = on(at);
    pdf.font(plainFont()).fontSize(2.8);
    const half = pdf.widthOfString(text) / 2 + 0.6;
    pdf
      .fillColor('#fff')
      .rect(x - half, y - 1.7, 2 * half, 3.4)
      .fill();
    pdf.fillColor(WORK[way]).text(text, x - half + 0.6, y - 1.6, { lineBreak: false });
  }
  for (const { at, way, turn } of marks) {
    if (!within(at)) continue;
    const [x, y] = on(at);
    pdf
      .save()
      .translate(x, y)
      .rotate((-turn * 180) / Math.PI)
      .lineWidth(0.35)
      .strokeColor(WORK[way]);
    pdf
      .path(
        way === 'shrink'
          ? 'M-2 -1.2L-0.6 0L-2 1.2M2 -1.2L0.6 0L2 1.2'
          : 'M-0.6 -1.2L-2 0L-0.6 1.2M0.6 -1.2L2 0L0.6 1.2',
      )
      .stroke();
    pdf.restore();
  }
}

/** An edge's letter on its tag. */
function drawTag(pdf: Pdf, [x, y]: Vec, { text }: EdgeLabel): void {
  pdf.font(condensedFont()).fontSize(5);
  const half = pdf.widthOfString(text) / 2 + 1.2;
  const high = 3.2;
  const shape = [
    [-half, -high],
    [half + 1, -high],
    [half + 2.6, -high / 2],
    [half + 2.6, high / 2],
    [half + 1, high],
    [-half, high],
  ];
  pdf.lineWidth(0.2).strokeColor('#000').fillColor('#fff');
  pdf.polygon(...shape.map(([dx, dy]): [number, number] => [x + dx!, y + dy!])).fillAndStroke();
  pdf.circle(x + half + 1, y, 0.5).stroke();
  pdf.fillColor('#000').text(text, x - half + 1.2, y - 2.9, { lineBreak: false });
}

/** Something written upright about a place. */
function drawNote(pdf: Pdf, [x, y]: Vec, { text, sizeMm }: NoteLabel): void {
  pdf.font(plainFont()).fontSize(sizeMm);
  const half = pdf.widthOfString(text) / 2 + 0.8;
  pdf
    .fillColor('#fff')
    .rect(x - half, y - 0.65 * sizeMm, 2 * half, 1.3 * sizeMm)
    .fill()
    .fillColor('#000');
  pdf.text(text, x - pdf.widthOfString(text) / 2, y - 0.6 * sizeMm, { lineBreak: false });
}

/**
 * What is said of a fold, written along it on a clear ground, and its hinge on the side that moves.
 */
function drawFold(
  pdf: Pdf,
  [x, y]: Vec,
  { way, across, lengthMm, toward, text, more }: FoldLabel,
): void {
  pdf.font(plainFont()).fontSize(3.2);
  const full =
    more && pdf.widthOfString(`${text} · ${more}`) < 0.5 * lengthMm ? `${text} · ${more}` : text;
  const half = pdf.widthOfString(full) / 2 + 1.2;
  let turn = (-Math.atan2(way[1], way[0]) * 180) / Math.PI;
  if (turn >= 90 || turn < -90) turn -= Math.sign(turn) * 180;
  pdf.save().rotate(turn, { origin: [x, y] });
  pdf
    .fillColor('#fff')
    .rect(x - half, y - 2.2, 2 * half, 4.4)
    .fill();
  pdf.fillColor('#000').text(full, x - half + 1.2, y - 1.9, { lineBreak: false });
  pdf.restore();

  // A fifth of the way along, as on the screen: filled when it comes toward you, hollow when it
  // goes away.
  const off = 0.28 * lengthMm;
  const [hx, hy] = [x - way[0] * off, y + way[1] * off];
  pdf
    .save()
    .translate(hx, hy)
    .rotate((Math.atan2(-across[1], across[0]) * 180) / Math.PI);
  pdf
    .lineWidth(0.35)
    .strokeColor('#000')
    .fillColor(toward === 'face' ? '#000' : '#fff');
  pdf.path('M0 -2H1.3a2 2 0 0 1 0 4H0Z').fillAndStroke();
  pdf
    .fillColor(toward === 'face' ? '#fff' : '#000')
    .circle(1.1, 0, 0.5)
    .fill();
  pdf.restore();
}

/** The table to mark out by, on pages of its own after the drawing, in points. */
function markingPages(
  pdf: Pdf,
  { begin, tables, prove }: MarkingSheet,
  head: Head,
  tiling: Tiling,
): void {
  const [short, long] = [tiling.pageWidthMm, tiling.pageHeightMm].sort((a, b) => a - b);
  const page = {
    size: [short! * POINTS_PER_MM, long! * POINTS_PER_MM] as [number, number],
    margin: 15 * POINTS_PER_MM,
  };
  // Pages that a table runs on to are of the same size as the one it began on.
  pdf.options = { ...pdf.options, ...page };
  pdf.addPage(page);
  pdf
    .fillColor('#000')
    .strokeColor('#000')
    .font(condensedFont())
    .fontSize(17)
    .text(`Marking out ${head.title}`);
  pdf
    .font(plainFont())
    .fontSize(9)
    .text(
      `${head.lies} · revision ${head.revision} · ${head.job} · ${head.sheet} · ${head.date} · ${head.shop}`,
    );
  pdf.moveDown(0.6).fontSize(10.5).text(`${begin} Lengths in ${head.lengths}.`);
  const line = 0.5;
  for (const { title, head: columns, rows, wide } of tables) {
    // A heading never stands alone at the foot of a page.
    if (pdf.y > pdf.page.maxY() - 70) pdf.addPage(page);
    pdf
      .moveDown(0.9)
      .font(condensedFont())
      .fontSize(13)
      .text(title)
      .moveDown(0.25)
      .font(plainFont())
      .fontSize(10);
    pdf.table({
      columnStyles: columns.map((_, i) => (i === wide ? '*' : i === 0 ? 62 : 105)),
      defaultStyle: {
        border: { bottom: line, top: 0, left: 0, right: 0 },
        borderColor: '#999',
        padding: { top: 3, bottom: 3, left: 2, right: 8 },
      },
      data: [
        columns.map((text) => ({
          text,
          font: { src: condensedFont(), size: 10 },
          type: 'TH' as const,
        })),
        ...rows,
      ],
    });
  }
  if (prove) pdf.moveDown(0.9).font(plainFont()).fontSize(10.5).text(prove);
}

/** Kept free at the top right for the key of the pages, mm. */
const KEY_MM = 42;

/** What stands in the clear margin: name and revision, page name, key of the pages, check bars. */
function drawMargin(pdf: Pdf, tiling: Tiling, tile: Tile, head: Head): void {
  const { marginMm: m, pageWidthMm: pw, pageHeightMm: ph } = tiling;
  pdf.fillColor('#000').font(condensedFont()).fontSize(6);
  pdf.text(tile.name, m, 5.4, { lineBreak: false });
  pdf
    .fontSize(4.4)
    .text(`${head.title} · ${head.lies} · ${head.what} · revision ${head.revision}`, m + 14, 6.4, {
      lineBreak: false,
    });
  pdf
    .font(plainFont())
    .fontSize(2.8)
    .text(`${head.job} · ${head.sheet} · ${head.date} · ${head.shop}`, m + 14, 11, {
      lineBreak: false,
      ellipsis: true,
      width: pw - 2 * m - 14 - KEY_MM,
    });
  pdf.text('Print at 100 %, then check the bars with a rule.', m + 122, ph - 6.6, {
    lineBreak: false,
  });

  const cell = Math.min(5, 9 / tiling.rows, 40 / tiling.columns);
  const left = pw - m - cell * tiling.columns;
  for (const other of tiling.tiles) {
    const x = left + other.column * cell;
    const y = 4 + other.row * cell;
    pdf.lineWidth(0.15).strokeColor('#000').rect(x, y, cell, cell);
    if (other === tile) pdf.fillAndStroke('#000', '#000');
    else pdf.stroke();
  }

  bar(pdf, m, ph - 9, 'across', 100, '100 mm');
  bar(pdf, m, ph - 5, 'across', 101.6, '4 in');
  bar(pdf, 6, ph - m, 'up', 100, '100 mm');
  bar(pdf, 10, ph - m, 'up', 101.6, '4 in');
}

/** A bar of exactly `mm` with end ticks, from its left or lower end. */
function bar(
  pdf: Pdf,
  x: number,
  y: number,
  way: 'across' | 'up',
  mm: number,
  label: string,
): void {
  pdf.save().lineWidth(0.25).strokeColor('#000').fillColor('#000');
  if (way === 'up') pdf.rotate(-90, { origin: [x, y] });
  pdf
    .moveTo(x, y)
    .lineTo(x + mm, y)
    .moveTo(x, y - 1.3)
    .lineTo(x, y + 1.3)
    .moveTo(x + mm, y - 1.3)
    .lineTo(x + mm, y + 1.3)
    .stroke();
  pdf
    .font(plainFont())
    .fontSize(2.8)
    .text(label, x + mm + 1.5, y - 1.6, { lineBreak: false });
  pdf.restore();
}
