import { ORDER_WORDS, type PartsListLine } from '@zero-lash/core/parts';
import PDFDocument from 'pdfkit';

/** What a parts list is drawn from. */
export interface PartsListPaper {
  readonly engine: string;
  readonly build: number;
  readonly sheet: string;
  /** that the build is aimed outside the maker's band, and why; empty where it is not */
  readonly aimed: string;
  readonly on: string;
  readonly lines: readonly PartsListLine[];
}

const INK = '#2c2a26';
const FADED = '#625c50';
const HAIRLINE = '#aea48e';
const MARGIN = 42;
const BOTTOM = 770;
/** Where each column begins, and how wide it is. */
const COLUMNS = [
  ['Part', 0, 130],
  ['Place', 135, 70],
  ['Count', 210, 40],
  ['State', 255, 60],
  ['Why', 320, 191],
] as const;

/** Draws a build's parts list: what is replaced and to order, with why. A4, upright. */
export async function drawPartsList({
  engine,
  build,
  sheet,
  aimed,
  on,
  lines,
}: PartsListPaper): Promise<Buffer> {
  const pdf = new PDFDocument({
    size: 'A4',
    margin: MARGIN,
    info: { Title: `Parts for ${engine}, build ${build}` },
  });
  const chunks: Buffer[] = [];
  pdf.on('data', (chunk: Buffer) => chunks.push(chunk));
  const ended = new Promise<void>((resolve) => pdf.once('end', resolve));
  pdf.fillColor(INK).font('Helvetica-Bold').fontSize(18).text(`Parts for ${engine}`);
  pdf.font('Helvetica').fontSize(10).fillColor(FADED).text(`Build ${build} · ${sheet} · ${on}`);
  if (aimed !== '') pdf.fillColor(INK).text(aimed);
  pdf.moveDown();
  row(
    pdf,
    COLUMNS.map(([title]) => title),
    'Helvetica-Bold',
  );
  for (const line of lines) {
    const { name, place, count, state, reason } = line;
    if (pdf.y > BOTTOM - 30) pdf.addPage();
    row(pdf, [name, place, String(count), ORDER_WORDS[state], reason], 'Helvetica');
  }
  if (lines.length === 0)
    pdf
      .fillColor(INK)
      .fontSize(11)
      .text('Nothing is replaced, and nothing is wanted.', MARGIN, pdf.y + 6);
  pdf.end();
  await ended;
  return Buffer.concat(chunks);
}

function row(pdf: InstanceType<typeof PDFDocument>, cells: readonly string[], font: string): void {
  const top = pdf.y + 5;
  let bottom = top;
  pdf.font(font).fontSize(10).fillColor(INK);
  for (const [index, [, left, width]] of COLUMNS.entries()) {
    pdf.text(cells[index]!, MARGIN + left, top, { width });
    bottom = Math.max(bottom, pdf.y);
  }
  pdf
    .moveTo(MARGIN, bottom + 4)
    .lineTo(pdf.page.width - MARGIN, bottom + 4)
    .lineWidth(0.5)
    .strokeColor(HAIRLINE)
    .stroke();
  pdf.x = MARGIN;
  pdf.y = bottom + 5;
}
