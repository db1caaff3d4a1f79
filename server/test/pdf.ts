import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

/** What a PDF says and how it is made, as far as tests look. */
export interface ReadPdf {
  readonly text: string;
  readonly pages: number;
  readonly title: string;
  /** every face in it comes with its letters */
  readonly embedded: boolean;
  /** a reader program is told in which order it is read */
  readonly tagged: boolean;
  readonly language: string | null;
  /** the kinds of part it is made of, in the order they are read */
  readonly parts: readonly string[];
}

interface Node {
  readonly role?: string;
  readonly children?: readonly Node[];
}

const kinds = (node: Node | null): string[] =>
  node ? [...(node.role ? [node.role] : []), ...(node.children ?? []).flatMap(kinds)] : [];

/** Reads a PDF back by a program of its own. */
export async function readPdf(bytes: Uint8Array): Promise<ReadPdf> {
  const raw = Buffer.from(bytes).toString('latin1');
  const pdf = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
  const texts: string[] = [];
  const parts: string[] = [];
  for (let number = 1; number <= pdf.numPages; number += 1) {
    const page = await pdf.getPage(number);
    const { items } = await page.getTextContent();
    texts.push(items.map((item) => ('str' in item ? item.str + (item.hasEOL ? '\n' : '') : '')).join(''));
    parts.push(...kinds((await page.getStructTree()) as Node | null));
  }
  const { info } = (await pdf.getMetadata()) as { info: { Title?: string; Language?: string } };
  const fonts = raw.match(/\/Type \/Font\b/g)?.length ?? 0;
  // each face is a composite font, of two font objects, with one file
  const files = raw.match(/\/FontFile[23]? /g)?.length ?? 0;
  await pdf.destroy();
  return {
    text: texts.join('\n'),
    pages: texts.length,
    title: info.Title ?? '',
    embedded: fonts > 0 && files * 2 === fonts,
    tagged: /\/MarkInfo <<\s*\/Marked true/.test(raw) || raw.includes('/Marked true'),
    language: info.Language ?? null,
    parts,
  };
}
