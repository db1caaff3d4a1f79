import { createRequire } from 'node:module';
import { readFileSync } from 'node:fs';
import { create, type Font } from 'fontkit';
import PDFDocument from 'pdfkit';
import { decompress } from 'wawoff2';

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

const require = createRequire(import.meta.url);
type Weight = 'plain' | 'bold';

/** The two files a weight's letters are in: the usual ones, and those with other languages' marks. */
const FILES: Readonly<Record<Weight, readonly string[]>> = {
  plain: [
    require.resolve('@fontsource/sofia-sans-semi-condensed/files/sofia-sans-semi-condensed-latin-400-normal.woff2'),
    require.resolve('@fontsource/sofia-sans-semi-condensed/files/sofia-sans-semi-condensed-latin-ext-400-normal.woff2'),
  ],
  bold: [
    require.resolve('@fontsource/sofia-sans-semi-condensed/files/sofia-sans-semi-condensed-latin-700-normal.woff2'),
    require.resolve('@fontsource/sofia-sans-semi-condensed/files/sofia-sans-semi-condensed-latin-ext-700-normal.woff2'),
  ],
};
/** Each file unpacked once: unpacking takes longer than drawing a page. */
const FACES = new Map<string, { readonly bytes: Buffer; readonly font: Font }>();

/** Has the faces at hand; whatever is drawn waits for it. */
export async function loadFaces(): Promise<void> {
  for (const file of Object.values(FILES).flat()) {
    if (FACES.has(file)) continue;
    const bytes = Buffer.from(await decompress(readFileSync(file)));
    FACES.set(file, { bytes, font: create(bytes) as Font });
  }
}

/** Letters that no shipped face has, said another way. */
const SAID_OTHERWISE: Readonly<Record<string, string>> = {
  ...{ '→': '›', '≥': 'at least ', '≤': 'at most ', '⅛': '1/8', '⅜': '3/8', '⅝': '5/8', '⅞': '7/8' },
  ...{ '✓': 'x', '\u202f': '\u00a0', '\u2009': '\u00a0', '◂': '‹' },
};

/** A text in pieces, each of letters that one file has. */
function runsOf(text: string, weight: Weight): { readonly file: string; readonly text: string }[] {
  const files = FILES[weight];
  const runs: { file: string; text: string }[] = [];
  const letters = [...text].flatMap((letter) => [...(SAID_OTHERWISE[letter] ?? letter)]);
  for (const letter of letters) {
    const file = files.find((each) => FACES.get(each)!.font.hasGlyphForCodePoint(letter.codePointAt(0)!));
    const shown = file || letter === '\n' ? letter : '?';
    const last = runs.at(-1);
    const into = file ?? last?.file ?? files[0]!;
    if (last && last.file === into) last.text += shown;
    else runs.push({ file: into, text: shown });
  }
  return runs;
}

/** How a text is set. */
export interface Set {
  readonly weight?: Weight;
  readonly size?: number;
  readonly colour?: string;
  readonly at?: { readonly x: number; readonly y: number };
  readonly width?: number;
  readonly align?: 'left' | 'right' | 'center';
}

/** Writes a text in the house's own face, whichever letters it has. */
export function write(
  pdf: Pdf,
  text: string,
  { weight = 'plain', size = 11, colour = INK, at, width, align }: Set = {},
): void {
  const runs = text === '' ? [{ file: FILES[weight][0]!, text: ' ' }] : runsOf(text, weight);
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

  constructor(title: string, options: PDFKit.PDFDocumentOptions = {}) {
    this.pdf = new PDFDocument({
      ...{ size: 'A4', margin: MARGIN, pdfVersion: '1.7', tagged: true, lang: 'en-GB', displayTitle: true },
      ...options,
      info: { Title: title },
    });
    for (const [file, { bytes }] of FACES) this.pdf.registerFont(file, bytes as never);
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

  /** @returns the PDF's bytes */
  async done(): Promise<Buffer> {
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
