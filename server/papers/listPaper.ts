import { Paper, FADED, type Column } from './paper.ts';

/** Columns, and what stands in each of them line by line. */
export interface ListTable {
  readonly columns: readonly Column[];
  readonly rows: readonly (readonly string[])[];
}

/** What a plain list is printed from: parts, an order, a chart. */
export interface ListPaper {
  readonly title: string;
  /** whose it is, and of which day */
  readonly under: string;
  /** what has to be known before the list is gone by */
  readonly notes: readonly string[];
  /** one, or parts of a table too wide for a page, each on its own */
  readonly tables: readonly ListTable[];
  /** what stands there where the list is empty */
  readonly empty: string;
  /** wide lists lie on their side, in smaller letters */
  readonly wide?: boolean;
}

/** Draws a list as a table, or as many as it is in. A4. */
export async function drawList(list: ListPaper): Promise<Buffer> {
  const { title, under, notes, tables, empty, wide = false } = list;
  const paper = new Paper(title, wide ? { layout: 'landscape' } : {});
  paper.heading(title);
  paper.line(under, { size: 10, colour: FADED });
  for (const note of notes) paper.line(note, { size: 10.5 });
  paper.pdf.moveDown();
  const filled = tables.filter(({ rows }) => rows.length > 0);
  filled.forEach(({ columns, rows }, index) => {
    if (index > 0) paper.pdf.addPage();
    paper.table(columns, rows, wide ? 7.5 : 10);
  });
  if (filled.length === 0) paper.line(empty);
  return paper.done();
}
