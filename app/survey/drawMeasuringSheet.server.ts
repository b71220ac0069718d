import PDFDocument from 'pdfkit';
import { PAPERS } from '#core/sheet/tiles';
import { shippedFont } from '../frame/paperFonts.server';
import { isThere } from '../pictures/pictureFiles.server';
import { doing } from '../workers/task';
import type { MeasuringSheet } from './measuringSheetFile';
import { drawMeasuringSheet } from './measuringSheetFile';

const MM = 72 / 25.4;
const [MARGIN, ROW, FOOT] = [14 * MM, 13 * MM, 8 * MM];
type Pdf = InstanceType<typeof PDFDocument>;
type Row = MeasuringSheet['rows'][number];
type Printed = MeasuringSheet['pictures'][number];

const plain = () => shippedFont('barlow/files/barlow-latin-500-normal');
const condensed = () => shippedFont('barlow-condensed/files/barlow-condensed-latin-600-normal');

export const drawMeasuringSheetNow = doing(
  drawMeasuringSheet,
  async (given): Promise<Uint8Array> => {
    const { job, rows, more } = given;
    const { widthMm, heightMm } = PAPERS[given.paper];
    const [width, height] = [widthMm * MM, heightMm * MM];
    const pdf = new PDFDocument({
      size: [width, height],
      margin: 0,
      info: { Title: `${job}, measuring sheet`, Creator: 'Patrone' },
    });
    const chunks: Uint8Array[] = [];
    const done = new Promise<Uint8Array>((resolve, reject) => {
      pdf.on('data', (chunk: Uint8Array) => chunks.push(chunk));
      pdf.on('end', () => resolve(Buffer.concat(chunks)));
      pdf.on('error', reject);
    });
    const bottom = height - MARGIN - FOOT;
    let pages = 0;
    const begin = (): number => {
      if (pages++ > 0) pdf.addPage();
      return pageHead(pdf, given, width, height, pages);
    };
    let y = begin();
    y = columnHeads(pdf, given, y, width);
    rows.forEach((row, i) => {
      if (y + ROW > bottom) y = columnHeads(pdf, given, begin(), width);
      drawRow(pdf, row, i + 1, y, width);
      y += ROW;
    });
    const pictures: Printed[] = [];
    for (const picture of given.pictures) if (await isThere(picture.path)) pictures.push(picture);
    const wide = (width - 2 * MARGIN - 6 * MM) / 2;
    const high = wide * 0.75 + 9 * MM;
    pictures.forEach((picture, i) => {
      const left = i % 2 === 0;
      if (left && i > 0) y += high;
      if (left && (i === 0 || y + high > bottom))
        y = y + 4 * MM + high > bottom ? begin() : i === 0 ? y + 4 * MM : y;
      drawPicture(pdf, picture, left ? MARGIN : MARGIN + wide + 6 * MM, y, wide);
    });
    if (more > 0)
      pdf
        .font(plain())
        .fontSize(9)
        .fillColor('#5d574e')
        .text(`${more} more pictures are not printed.`, MARGIN, bottom + 1.5 * MM, {
          lineBreak: false,
        });
    pdf.end();
    return done;
  },
);

/** What a page says it is, with room for who read it and when; where what follows begins. */
function pageHead(
  pdf: Pdf,
  given: MeasuringSheet,
  width: number,
  height: number,
  page: number,
): number {
  const { job, shop, date } = given;
  pdf
    .fillColor('#000')
    .font(condensed())
    .fontSize(19)
    .text(job, MARGIN, MARGIN, { lineBreak: false });
  const right = { width: width - 2 * MARGIN, align: 'right', lineBreak: false } as const;
  pdf.font(plain()).fontSize(9).fillColor('#5d574e');
  pdf.text(
    `Measuring sheet · ${shop} · ${date} · page ${page}`,
    MARGIN,
    height - MARGIN - 3 * MM,
    right,
  );
  if (page > 1) return MARGIN + 11 * MM;
  pdf.fontSize(11).fillColor('#000');
  const y = MARGIN + 12 * MM;
  const third = (width - 2 * MARGIN) / 3;
  ['Round', 'Read by', 'Day and time'].forEach((label, i) => {
    const x = MARGIN + i * third;
    pdf.text(label, x, y, { lineBreak: false });
    pdf
      .lineWidth(0.6)
      .moveTo(x + 24 * MM, y + 4.5 * MM)
      .lineTo(x + third - 4 * MM, y + 4.5 * MM)
      .stroke();
  });
  return y + 10 * MM;
}

/**
 * Where the columns begin: the number, what is measured, the box for the figure and the one for a
 * note.
 */
const columns = (width: number) => ({
  what: MARGIN + 9 * MM,
  box: width - MARGIN - 82 * MM,
  note: width - MARGIN - 40 * MM,
});

function columnHeads(pdf: Pdf, { unit }: MeasuringSheet, y: number, width: number): number {
  const { what, box, note } = columns(width);
  pdf.font(condensed()).fontSize(11).fillColor('#000');
  pdf.text('What is measured', what, y, { lineBreak: false });
  pdf.text(`Reads, ${unit === 'mm' ? 'mm' : 'inches'}`, box, y, { lineBreak: false });
  pdf.text('Note', note, y, { lineBreak: false });
  pdf
    .lineWidth(1)
    .moveTo(MARGIN, y + 6 * MM)
    .lineTo(width - MARGIN, y + 6 * MM)
    .stroke();
  return y + 7 * MM;
}

function drawRow(pdf: Pdf, row: Row, number: number, y: number, width: number): void {
  const { what, box, note } = columns(width);
  const room = {
    width: box - what - 3 * MM,
    height: 5 * MM,
    ellipsis: true,
    lineBreak: false,
  } as const;
  pdf
    .font(condensed())
    .fontSize(12)
    .fillColor('#000')
    .text(String(number), MARGIN, y + 2 * MM, { lineBreak: false });
  pdf.text(row.name, what, y + 1.2 * MM, room);
  const from = row.from && row.to ? `${row.from} to ${row.to}` : '';
  pdf
    .font(plain())
    .fontSize(8.5)
    .fillColor('#5d574e')
    .text([from, row.where].filter(Boolean).join(' · '), what, y + 6.6 * MM, room);
  pdf
    .lineWidth(0.8)
    .strokeColor('#000')
    .rect(box, y + 1 * MM, 38 * MM, ROW - 2.4 * MM)
    .stroke();
  if (row.degrees) pdf.fontSize(11).text('°', box + 34 * MM, y + 3 * MM, { lineBreak: false });
  pdf
    .lineWidth(0.4)
    .strokeColor('#999')
    .moveTo(note, y + ROW - 1.4 * MM)
    .lineTo(width - MARGIN, y + ROW - 1.4 * MM)
    .stroke()
    .strokeColor('#000');
}

/** A picture of a point, as large as its place allows, with what is marked on it. */
function drawPicture(pdf: Pdf, picture: Printed, x: number, y: number, wide: number): void {
  const { path, width, height, of, caption, marks } = picture;
  const high = wide * 0.75;
  const scale = Math.min(wide / width, high / height);
  const on = ([u, v]: readonly [number, number]): [number, number] => [
    x + u * scale,
    y + v * scale,
  ];
  pdf.image(path, x, y, { width: width * scale, height: height * scale });
  pdf.lineWidth(1.6).strokeColor('#e05a10');
  for (const mark of marks) {
    const at = mark.kind === 'arrow' ? mark.to : mark.kind === 'line' ? mark.points[0]! : mark.at;
    const [px, py] = on(at);
    if (mark.kind === 'pin')
      pdf
        .circle(px, py, 2.4 * MM)
        .moveTo(px - 4 * MM, py)
        .lineTo(px + 4 * MM, py)
        .moveTo(px, py - 4 * MM)
        .lineTo(px, py + 4 * MM)
        .stroke();
    else if (mark.kind === 'ring') pdf.circle(px, py, mark.radius * scale).stroke();
    else if (mark.kind === 'arrow')
      pdf
        .moveTo(...on(mark.from))
        .lineTo(px, py)
        .stroke()
        .circle(px, py, 1 * MM)
        .stroke();
    else {
      pdf.moveTo(px, py);
      for (const place of mark.points.slice(1)) pdf.lineTo(...on(place));
      pdf.stroke();
    }
    if (mark.name) {
      pdf.font(condensed()).fontSize(10);
      const room = pdf.widthOfString(mark.name);
      const left = Math.min(px + 2 * MM, x + width * scale - room - 3);
      pdf
        .rect(left - 2, py + 2 * MM, room + 4, 4.6 * MM)
        .fillOpacity(0.85)
        .fill('#fff')
        .fillOpacity(1);
      pdf.fillColor('#000').text(mark.name, left, py + 2.6 * MM, { lineBreak: false });
    }
  }
  pdf.strokeColor('#000').fillColor('#000').font(condensed()).fontSize(11);
  pdf.text([of, caption].filter(Boolean).join(': '), x, y + height * scale + 1.2 * MM, {
    width: wide,
    height: 6 * MM,
    ellipsis: true,
    lineBreak: false,
  });
}
