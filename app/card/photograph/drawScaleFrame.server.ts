import PDFDocument from 'pdfkit';
import type { Vec } from '#core/measure/vector';
import { PAPERS, RIM, cornerCards, scaleFrame } from '#core/picture/scaleFrame';
import { shippedFont } from '../../frame/paperFonts.server';
import { doing } from '../../workers/task';
import type { ScaleFrameGiven } from './scaleFrameFile';
import { drawScaleFrame } from './scaleFrameFile';

const MM = 72 / 25.4;
type Pdf = InstanceType<typeof PDFDocument>;
/** What is written is not black: all that is black is measured to. */
const WRITTEN = '#7f8fa3';

export const drawScaleFrameNow = doing(drawScaleFrame, async (given): Promise<Uint8Array> => {
  const [widthMm, heightMm] = PAPERS[given.paper];
  const pdf = new PDFDocument({
    size: [widthMm * MM, heightMm * MM],
    margin: 0,
    info: { Title: 'Scale frame', Creator: 'Patrone' },
  });
  const chunks: Uint8Array[] = [];
  const done = new Promise<Uint8Array>((resolve, reject) => {
    pdf.on('data', (chunk: Uint8Array) => chunks.push(chunk));
    pdf.on('end', () => resolve(Buffer.concat(chunks)));
    pdf.on('error', reject);
  });
  // y up and in mm, as the frame is; text is set back upright where it is written.
  pdf.transform(MM, 0, 0, -MM, 0, heightMm * MM);
  if (given.kind === 'frame') frame(pdf, given);
  else cards(pdf, widthMm, heightMm);
  pdf.end();
  return done;
});

function black(pdf: Pdf, polygons: readonly (readonly Vec[])[]): void {
  for (const polygon of polygons) pdf.polygon(...polygon.map(([x, y]): [number, number] => [x, y]));
  pdf.fill('#000');
}

function write(pdf: Pdf, text: string, x: number, y: number, sizeMm = 3): void {
  pdf.save().translate(x, y).scale(1, -1);
  pdf.font(shippedFont('barlow/files/barlow-latin-500-normal')).fontSize(sizeMm).fillColor(WRITTEN);
  pdf.text(text, 0, 0, { lineBreak: false });
  pdf.restore();
}

function frame(pdf: Pdf, { paper, middle }: Extract<ScaleFrameGiven, { kind: 'frame' }>): void {
  const { widthMm, heightMm, black: areas, inside } = scaleFrame(paper, middle);
  black(pdf, areas);
  const [low] = inside;
  const over = `Print at 100 %. Marks over all: ${(widthMm - 2 * RIM).toFixed(1)} × ${(heightMm - 2 * RIM).toFixed(1)} mm`;
  if (middle === 'white')
    write(
      pdf,
      `${over}. Lay the card in here, flat, and photograph it from above.`,
      low![0] + 4,
      low![1] + 6,
    );
  write(pdf, over, widthMm / 2 - 30, 4.4, 2.2);
}

/** The four cards two by two, with lines to cut along. */
function cards(pdf: Pdf, widthMm: number, heightMm: number): void {
  const all = cornerCards();
  const size = all[0]!.widthMm;
  const [left, low] = [(widthMm - 2 * size) / 2, (heightMm - 2 * size) / 2];
  all.forEach(({ name, black: areas }, i) => {
    const [x, y] = [left + (i % 2) * size, low + Math.floor(i / 2) * size];
    black(
      pdf,
      areas.map((polygon) => polygon.map(([px, py]): Vec => [px + x, py + y])),
    );
    pdf.lineWidth(0.2).rect(x, y, size, size).stroke(WRITTEN);
    write(pdf, name, x + 52, y + 62, 9);
    write(pdf, 'Tape from the outer corner of the angle', x + 36, y + 48, 2.6);
  });
  write(
    pdf,
    'Print at 100 %: each square measures 100 mm. Cut apart along the lines.',
    left,
    low - 4,
    3,
  );
}
