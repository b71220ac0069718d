import PDFDocument from 'pdfkit';
import { develop } from '#core/blank/fold/develop';
import type { Development } from '#core/blank/fold/developed';
import { overbendFor } from '#core/blank/fold/overbend';
import { planOf } from '#core/blank/fold/order/plan';
import { sliceOf } from '#core/blank/fold/order/slice';
import { checkedOrder, foldOrder } from '#core/blank/fold/order/solve';
import type { OrderStep } from '#core/blank/fold/order/solve';
import { foldLeftForGap } from '#core/shape/leaveFold';
import { sectionOf } from '#core/machine/brake';
import { formatLength } from '#core/measure/length';
import type { Vec } from '#core/measure/vector';
import { distance } from '#core/measure/vector';
import { metalById } from '#core/metal/metals';
import { PAPERS } from '#core/sheet/tiles';
import { shippedFont } from '../frame/paperFonts.server';
import { doing } from '../workers/task';
import type { BenchCard, BenchCardDrawn } from './benchCardFile';
import { drawBenchCard } from './benchCardFile';
import type { FoldRow } from '../folding/foldRows';
import { foldRows, ownOrder, settledBy } from '../folding/foldRows';
import { fingersSaid, heldSaid, lyingSaid, rowSaid } from './orderWords';

const MM = 72 / 25.4;
const [MARGIN, ROW, PICTURE_WIDE, PICTURE_HIGH] = [12 * MM, 50 * MM, 62 * MM, 46 * MM];
const PLAN = 32 * MM;
const [INK, PENCIL, RULE] = ['#000', '#5d574e', '#b9b2a4'];
type Pdf = InstanceType<typeof PDFDocument>;

const plain = () => shippedFont('barlow/files/barlow-latin-500-normal');
const condensed = () => shippedFont('barlow-condensed/files/barlow-condensed-latin-600-normal');

export const drawBenchCardNow = doing(drawBenchCard, async (given): Promise<BenchCardDrawn> => {
  const found = develop(given.pattern, given.sheet, given.practice);
  if (!found.ok) return found;
  const { development } = found;
  // On paper all of it stands, what is made as well.
  const left = foldLeftForGap(development, given.gaps, given.folding.order?.folds ?? []);
  const last = left?.fold ?? null;
  const settled = {
    ...settledBy(development, given.folding, given.longFirst, last),
    made: [],
  };
  const order = ownOrder(development, given.folding);
  const answer = order
    ? checkedOrder(development, given.brake, order, settled)
    : foldOrder(development, given.brake, settled);
  if (!answer.ok) return { ok: false, problems: answer.problems };
  const rows = foldRows(development, { ...given.folding, made: [], closed: [] }, answer);
  const { widthMm, heightMm } = PAPERS[given.paper];
  const [width, height] = [widthMm * MM, heightMm * MM];
  const pdf = new PDFDocument({
    size: [width, height],
    margin: 0,
    info: { Title: `${given.head.title}, card for the bench`, Creator: 'Patrone' },
  });
  const chunks: Uint8Array[] = [];
  const done = new Promise<BenchCardDrawn>((resolve, reject) => {
    pdf.on('data', (chunk: Uint8Array) => chunks.push(chunk));
    pdf.on('end', () => resolve({ ok: true, body: Buffer.concat(chunks) }));
    pdf.on('error', reject);
  });
  let y = pageHead(pdf, given, width);
  rows.forEach((row, i) => {
    if (y + ROW > height - MARGIN) {
      pdf.addPage();
      y = pageHead(pdf, given, width);
    }
    const before = rows[i - 1];
    drawRow(
      pdf,
      given,
      development,
      {
        row,
        before: stepOf(before),
        number: i + 1,
        made: madeBefore(rows, i),
        anglesDeg: settled.anglesDeg,
      },
      y,
      width,
    );
    y += ROW;
  });
  pdf.end();
  return done;
});

const stepOf = (row: FoldRow | undefined): OrderStep | null =>
  row?.by === 'machine' ? row.step : null;
const madeBefore = (rows: readonly FoldRow[], at: number): number[] =>
  rows.slice(0, at).flatMap(({ by, fold }) => (by === 'machine' ? [fold] : []));

function pageHead(pdf: Pdf, { head, brake }: BenchCard, width: number): number {
  pdf
    .fillColor(INK)
    .font(condensed())
    .fontSize(20)
    .text(head.title, MARGIN, MARGIN, {
      width: width - 2 * MARGIN,
      height: 8 * MM,
      ellipsis: true,
      lineBreak: false,
    });
  const said = `Order of folding · ${brake.name} · ${head.sheet} · card ${head.revision} · ${head.job} · ${head.shop} · ${head.date}`;
  pdf
    .font(plain())
    .fontSize(9)
    .fillColor(PENCIL)
    .text(said, MARGIN, MARGIN + 8.5 * MM, {
      width: width - 2 * MARGIN,
      height: 5 * MM,
      ellipsis: true,
      lineBreak: false,
    });
  return MARGIN + 15 * MM;
}

type Drawn = {
  row: FoldRow;
  before: OrderStep | null;
  number: number;
  made: number[];
  anglesDeg: readonly number[];
};

function drawRow(
  pdf: Pdf,
  given: BenchCard,
  development: Development,
  drawn: Drawn,
  y: number,
  width: number,
): void {
  const { row, before, number } = drawn;
  const show = (mm: number) => formatLength(mm, given.unit);
  const fold = development.folds[row.fold]!;
  const step = stepOf(row);
  pdf
    .lineWidth(0.8)
    .strokeColor(RULE)
    .moveTo(MARGIN, y)
    .lineTo(width - MARGIN, y)
    .stroke();
  const left = MARGIN + PICTURE_WIDE + 5 * MM;
  const room = width - MARGIN - left;
  const words = step ? room - PLAN - 3 * MM : room;
  if (step) plan(pdf, development, step, left + words + 3 * MM, y + 2 * MM);
  if (step) picture(pdf, given, development, drawn, step, MARGIN, y + 2 * MM);
  pdf
    .font(condensed())
    .fontSize(17)
    .fillColor(INK)
    .text(`${number}  ${rowSaid(row)}`, left, y + 2 * MM, { width: words, lineBreak: false });
  const first =
    row.by === 'machine'
      ? overbendFor({ ...fold.bend, angleDeg: row.toDeg }, metalById(given.metal), given.springs)
      : null;
  const lines = [
    first
      ? `First to ${first.fromDeg.toFixed(1)}°, then creep up, to ${first.toDeg.toFixed(1)}° at most.`
      : '',
    step
      ? `${lyingSaid(before, step)} ${heldSaid(step)}`
      : `Over a bar of at least ${show(distance(...fold.centre))}, a little at a time from end to end.`,
    step ? (fingersSaid(step, given.brake.fingerGapMm, show) ?? '') : '',
  ].filter(Boolean);
  pdf.font(plain()).fontSize(10).fillColor(INK);
  pdf.text(lines.join('\n'), left, y + 10.5 * MM, {
    width: words,
    height: 25 * MM,
    lineGap: 1.5,
    ellipsis: true,
  });
  pdf.fontSize(9).fillColor(PENCIL);
  const box = room / 3;
  ['Folded to', 'Came back to', 'Done'].forEach((label, i) => {
    pdf.text(label, left + i * box, y + 36.5 * MM, { lineBreak: false });
    pdf
      .lineWidth(0.8)
      .strokeColor(INK)
      .rect(left + i * box, y + 40.5 * MM, (i === 2 ? 8 : box / MM - 4) * MM, 7 * MM)
      .stroke();
  });
}

/** How the blank lies, from above, the one who folds below it. */
function plan(pdf: Pdf, development: Development, step: OrderStep, x: number, y: number): void {
  const { outline, line, folds } = planOf(development, step);
  const [xs, ys] = [outline.map((p) => p[0]), outline.map((p) => p[1])];
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const scale = (PLAN - 4 * MM) / Math.max(1, x1 - x0, y1 - y0);
  const at = ([px, py]: Vec): [number, number] => [
    x + PLAN / 2 + (px - (x0 + x1) / 2) * scale,
    y + PLAN / 2 - (py - (y0 + y1) / 2) * scale,
  ];
  outline.forEach((p, i) => (i === 0 ? pdf.moveTo(...at(p)) : pdf.lineTo(...at(p))));
  pdf
    .closePath()
    .lineWidth(0.8)
    .fillAndStroke(step.faceUp ? '#b9cde6' : '#e3e1da', INK);
  pdf
    .lineWidth(2.2)
    .strokeColor('#d2500a')
    .moveTo(...at(line[0]))
    .lineTo(...at(line[1]))
    .stroke();
  pdf.font(condensed()).fontSize(9);
  for (const { fold, at: p } of folds) {
    const [px, py] = at(p);
    const now = fold === step.fold;
    pdf
      .circle(px, py, 2.1 * MM)
      .lineWidth(0.5)
      .fillAndStroke(now ? '#d2500a' : '#fff', now ? '#d2500a' : PENCIL);
    pdf.fillColor(now ? '#fff' : INK).text(String(fold + 1), px - 3 * MM, py - 1.45 * MM, {
      width: 6 * MM,
      align: 'center',
      lineBreak: false,
    });
  }
}

/** Window of the machine's section drawn round the fold line, mm. */
const SEEN = { minX: -75, maxX: 75, minZ: -35, maxZ: 78 };

/** The fold in section: the machine, what is held, and what swings, at rest and folded. */
function picture(
  pdf: Pdf,
  given: BenchCard,
  development: Development,
  { made, anglesDeg }: Drawn,
  step: OrderStep,
  x: number,
  y: number,
): void {
  const { brake, sheet } = given;
  const scale = Math.min(
    PICTURE_WIDE / (SEEN.maxX - SEEN.minX),
    PICTURE_HIGH / (SEEN.maxZ - SEEN.minZ),
  );
  const held = (value: number) => Math.max(-500, Math.min(500, value));
  const at = ([px, pz]: Vec): [number, number] => [
    x + (held(px) - SEEN.minX) * scale,
    y + (SEEN.maxZ - held(pz)) * scale,
  ];
  pdf.save().rect(x, y, PICTURE_WIDE, PICTURE_HIGH).clip();
  const found = sectionOf(brake, sheet.thicknessMm);
  for (const { name, section } of found.ok ? found.parts : []) {
    section.forEach((p, i) => (i === 0 ? pdf.moveTo(...at(p)) : pdf.lineTo(...at(p))));
    pdf
      .closePath()
      .lineWidth(0.5)
      .fillAndStroke(
        name === 'apron' ? '#e3e1da' : name === 'beam' ? '#eceae5' : '#d2cfc6',
        PENCIL,
      );
  }
  const draw = (deg: number, faint: boolean) => {
    for (const { from, to, held: isHeld } of sliceOf(development, step, {
      made,
      anglesDeg,
      deg,
      turnedAfter: given.folding.turnedAfter,
    })) {
      if (faint && isHeld) continue;
      const colour = isHeld ? '#2a5f9e' : '#d2500a';
      pdf
        .lineWidth(Math.max(1.6, sheet.thicknessMm * scale))
        .lineCap('round')
        .strokeColor(colour)
        .strokeOpacity(faint ? 0.25 : 1);
      pdf
        .moveTo(...at(from))
        .lineTo(...at(to))
        .stroke();
    }
  };
  draw(0, true);
  draw(step.angleDeg, false);
  pdf.strokeOpacity(1).restore();
  pdf.lineWidth(0.8).strokeColor(RULE).rect(x, y, PICTURE_WIDE, PICTURE_HIGH).stroke();
}
