import QRCode from 'qrcode';
import { FADED, INK, Paper, write } from './paper.ts';

/** What an engine's label says. */
export interface LabelPaper {
  readonly engine: string;
  readonly lines: readonly string[];
  /** what whoever works on it has to know; empty where there is nothing */
  readonly caution: string;
  /** where its record is read; null where nobody could follow it */
  readonly address: string | null;
}

const MM = 72 / 25.4;
const SIZE = { width: 100 * MM, height: 50 * MM };
const EDGE = 4 * MM;
const CODE = 40 * MM;

const NO_ADDRESS =
  'No code: this was printed at an address that only the server’s own machine knows. Give the shop’s address on the page Shop, and print it again.';

/** Draws a label of 100 × 50 mm to be stuck on an engine, with the way to its record. */
export async function drawLabel({ engine, lines, caution, address }: LabelPaper): Promise<Buffer> {
  const paper = new Paper(`Label of ${engine}`, { size: [SIZE.width, SIZE.height], margin: 0 });
  const { pdf } = paper;
  const width = SIZE.width - CODE - 3 * EDGE;
  const missing = { size: 5.5, width, at: { x: EDGE, y: SIZE.height - EDGE - 42 } };
  paper.part('H1', () => write(pdf, engine, { size: 14, weight: 'bold', width, at: { x: EDGE, y: EDGE } }));
  for (const line of lines)
    paper.part('P', () => write(pdf, line, { size: 9.5, width, at: { x: EDGE, y: pdf.y + 2 } }));
  if (caution !== '')
    paper.part('P', () =>
      write(pdf, caution, { size: 8, weight: 'bold', width, at: { x: EDGE, y: pdf.y + 4 } }),
    );
  if (address === null) {
    paper.part('P', () =>
      write(pdf, NO_ADDRESS, { size: 8, colour: FADED, width, at: { x: EDGE, y: pdf.y + 8 } }),
    );
    return paper.done(missing);
  }
  paper.part('P', () =>
    write(pdf, address, { size: 6.5, colour: FADED, width, at: { x: EDGE, y: SIZE.height - EDGE - 20 } }),
  );
  const { modules } = QRCode.create(address, { errorCorrectionLevel: 'M' });
  const side = CODE / modules.size;
  const [left, top] = [SIZE.width - CODE - EDGE, (SIZE.height - CODE) / 2];
  paper.figure(`A code that leads to ${address}`, () => {
    for (let row = 0; row < modules.size; row += 1)
      for (let column = 0; column < modules.size; column += 1)
        if (modules.get(row, column)) pdf.rect(left + column * side, top + row * side, side, side);
    pdf.fill(INK);
  });
  return paper.done(missing);
}
