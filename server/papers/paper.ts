import PDFDocument from 'pdfkit';
import { facesAtHand, missingInWords, runsOf, type Weight } from './faces.ts';

/** A PDF being drawn. */
export type Pdf = InstanceType<typeof PDFDocument>;

/** The colours of everything that is printed: ink on paper. */
export const INK = '#2c2a26';
export const FADED = '#625c50';
export const HAIRLINE = '#aea48e';
export const BRASS = '#7c5c12';
export const TIGHT = '#8f1d1d';

export const MARGIN = 42;
/** Below this a page has no room for another line; points. */
const bottomOf = (pdf: Pdf) => pdf.page.height - MARGIN - 20;

/** How a text is set. */
export interface Set {
  readonly weight?: Weight;
  readonly size?: number;
  readonly colour?: string;
  readonly at?: { readonly x: number; readonly y: number };
  readonly width?: number;
  readonly align?: 'left' | 'right' | 'center';
}

/** The letters of each paper that no face has. */
const MISSING = new WeakMap<Pdf, string[]>();

/** Writes a text in the house's own face, whichever letters it has. */
export function write(
  pdf: Pdf,
  text: string,
  { weight = 'plain', size = 11, colour = INK, at, width, align }: Set = {},
): void {
  const runs = runsOf(text, weight, (letter) => {
    const missing = MISSING.get(pdf);
    if (missing?.includes(letter) === false) missing.push(letter);
  });
  const options = { ...(width === undefined ? {} : { width }), ...(align ? { align } : {}) };
  runs.forEach((run, index) => {
    pdf.font(run.file).fontSize(size).fillColor(colour);
    const more = { ...options, continued: index < runs.length - 1 };
    if (index === 0 && at) pdf.text(run.text, at.x, at.y, more);
    else pdf.text(run.text, more);
  });
}

/** A paper whose parts are told to a reader program in the order they are read. */
export class Paper {
  readonly pdf: Pdf;
  readonly #chunks: Buffer[] = [];
  readonly #ended: Promise<void>;
  readonly #document: PDFKit.PDFStructureElement;
  readonly #missing: string[] = [];

  constructor(title: string, options: PDFKit.PDFDocumentOptions = {}) {
    this.pdf = new PDFDocument({
      ...{ size: 'A4', margin: MARGIN, pdfVersion: '1.7', tagged: true, lang: 'en-GB', displayTitle: true },
      ...options,
      info: { Title: title },
    });
    MISSING.set(this.pdf, this.#missing);
    for (const [file, bytes] of facesAtHand()) this.pdf.registerFont(file, bytes as never);
    this.pdf.on('data', (chunk: Buffer) => this.#chunks.push(chunk));
    this.#ended = new Promise((done) => this.pdf.once('end', done));
    this.#document = this.pdf.struct('Document');
    this.pdf.addStructure(this.#document);
  }

  /** Draws something, and says what it is. */
  part(kind: string, draw: () => void): void {
    this.#document.add(this.pdf.struct(kind, {}, draw));
  }

  /** Draws a figure, with the words that stand for it where it is not seen. */
  figure(alt: string, draw: () => void): void {
    this.#document.add(this.pdf.struct('Figure', { alt }, draw));
  }

  heading(text: string, level: 1 | 2 = 1): void {
    this.part(level === 1 ? 'H1' : 'H2', () =>
      write(this.pdf, text, { weight: 'bold', size: level === 1 ? 18 : 12.5 }),
    );
  }

  line(text: string, set: Set = {}): void {
    this.part('P', () => write(this.pdf, text, set));
  }

  /** Begins a new page where less than `room` points are left on this one. */
  room(room: number): void {
    if (this.pdf.y > bottomOf(this.pdf) - room) this.pdf.addPage();
  }

  /** A table with its heading; a row that does not fit begins a new page. */
  table(
    columns: readonly Column[],
    rows: readonly (readonly string[])[],
    size = 10,
    /** draws beside a row, which its words say already */
    beside?: (row: number, top: number) => void,
  ): void {
    const table = this.pdf.struct('Table');
    this.#document.add(table);
    const draw = (cells: readonly string[], kind: 'TH' | 'TD', index = -1) => {
      if (this.pdf.y > bottomOf(this.pdf) - 24) this.pdf.addPage();
      const top = this.pdf.y + 4;
      let bottom = top;
      const row = this.pdf.struct('TR');
      table.add(row);
      columns.forEach(({ left, width, align }, column) => {
        row.add(
          this.pdf.struct(kind, {}, () => {
            write(this.pdf, cells[column] ?? '', {
              ...{ size, width, at: { x: MARGIN + left, y: top } },
              ...(align ? { align } : {}),
              weight: kind === 'TH' ? 'bold' : 'plain',
            });
            bottom = Math.max(bottom, this.pdf.y);
          }),
        );
      });
      row.end();
      this.pdf.markContent('Artifact', { type: 'Layout' });
      if (kind === 'TD') beside?.(index, top);
      this.pdf
        .moveTo(MARGIN, bottom + 3)
        .lineTo(this.pdf.page.width - MARGIN, bottom + 3)
        .lineWidth(0.5)
        .stroke(HAIRLINE);
      this.pdf.endMarkedContent();
      this.pdf.x = MARGIN;
      this.pdf.y = bottom + 4;
    };
    draw(
      columns.map(({ title }) => title),
      'TH',
    );
    rows.forEach((row, index) => draw(row, 'TD', index));
    table.end();
  }

  /**
   * @param missing how it is set which letters it could not have
   * @returns the PDF's bytes
   */
  async done(missing: Set = { size: 9 }): Promise<Buffer> {
    if (this.#missing.length > 0) {
      if (!missing.at) this.room(30);
      this.line(missingInWords(this.#missing), { colour: TIGHT, ...missing });
    }
    this.#document.end();
    this.pdf.end();
    await this.#ended;
    return Buffer.concat(this.#chunks);
  }
}

/** A column of a table: where it begins within the margins, and how wide it is; points. */
export interface Column {
  readonly title: string;
  readonly left: number;
  readonly width: number;
  readonly align?: 'left' | 'right';
}
