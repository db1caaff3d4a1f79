/** Letters that no accent is taken off, by what is typed for them. */
const TYPED_FOR: Readonly<Record<string, string>> = {
  ...{ ł: 'l', ø: 'o', đ: 'd', ı: 'i', ß: 'ss', æ: 'ae', œ: 'oe', ς: 'σ' },
};

/** What stands above, below or across a letter. */
const MARKS = /[\u0300-\u036f]/g;
const SPELT = new RegExp(`[${Object.keys(TYPED_FOR).join('')}]`, 'g');

/**
 * A text as it is looked for: without accents, capitals or the width of its letters, in every script. The database folds the same way.
 *
 * @example folded('Žofia ŁĄKA') // 'zofia laka'
 */
export const folded = (text: string): string =>
  text
    .normalize('NFKD')
    .toLowerCase()
    .replaceAll(MARKS, '')
    .replaceAll(SPELT, (letter) => TYPED_FOR[letter]!);
