import Papa from 'papaparse';

/**
 * What a spreadsheet would work out instead of showing it: a text that begins as a formula does. A figure with its sign is none.
 */
const FORMULA = /^[=@\t\r\n＝＋－＠]|^[+-](?!\d+(?:[.,]\d+)?$)/;

/**
 * Writes lines as CSV, in standard quoting. Whatever a name or a note begins with, it opens as text: a formula in it gets an apostrophe
 * before it, which `readCsv` takes away again.
 *
 * @example writeCsv(['engine', 'note'], [['Frost fan 3', '=1+1']]) // 'engine,note\r\nFrost fan 3,"\'=1+1"'
 */
export const writeCsv = (
  fields: readonly string[],
  lines: readonly (readonly (string | number | null)[])[],
): string =>
  // eslint-disable-next-line no-restricted-syntax -- the one place where it is written
  Papa.unparse({ fields: [...fields], data: lines.map((line) => [...line]) }, { escapeFormulae: FORMULA });
