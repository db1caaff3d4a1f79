import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { readCsv } from '../app/readCsv.ts';
import { writeCsv } from '../app/writeCsv.ts';

/** Texts that a spreadsheet would work out, by their first character, and some that it would not. */
const FORMULAS = [
  '=1+1',
  '+1+cmd',
  '-2+3',
  '@sum(a1)',
  '\t=1',
  '=HYPERLINK("http://x.example")',
  '-a',
  '＝1',
];
const TEXTS = ['-0.05', '+12,5', 'Frost fan 3', 'a=b', "'quoted", '“=”', '', '1,2', 'two\nlines', '"'];

describe('a CSV', () => {
  it('leaves no formula alive', () => {
    const file = writeCsv(
      ['text'],
      FORMULAS.map((text) => [text]),
    );
    const cells = file.split('\r\n').slice(1);
    expect(cells).toHaveLength(FORMULAS.length);
    for (const cell of cells) expect(cell).toMatch(/^"?'/);
  });

  it('leaves figures and other texts as they are', () => {
    expect(writeCsv(['a', 'b'], [[-0.05, '-0.05']])).toBe('a,b\r\n-0.05,-0.05');
  });

  it('is read back as it was written', () => {
    const texts = [...FORMULAS, ...TEXTS].filter((text) => text.trim() === text && text !== '');
    const file = writeCsv(
      ['text', 'n'],
      texts.map((text, index) => [text, index]),
    );
    const read = readCsv(file, {
      ...{ headings: { text: 'text', n: 'n' }, needs: ['text'] },
      row: z.object({ text: z.string(), n: z.string() }),
    });
    expect('rows' in read && read.rows.map(({ row }) => row.text)).toEqual(texts);
  });
});
