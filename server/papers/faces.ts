import { createRequire } from 'node:module';
import { readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { create, type Font } from 'fontkit';
import { decompress } from 'wawoff2';

export type Weight = 'plain' | 'bold';

const require = createRequire(import.meta.url);

/** Where the files of the house's own face lie. */
const HOUSE = dirname(
  require.resolve('@fontsource/sofia-sans-semi-condensed/files/sofia-sans-semi-condensed-latin-400-normal.woff2'),
);

/** Scripts of the house's own face, in the order they are looked in; the first two are always there. */
const OWN = ['latin', 'latin-ext', 'greek', 'cyrillic', 'cyrillic-ext'] as const;
const ALWAYS = 2;

const fileOf = (script: (typeof OWN)[number], weight: 400 | 700) =>
  join(HOUSE, `sofia-sans-semi-condensed-${script}-${weight}-normal.woff2`);

/** Kana and kanji, which the house's own face does not have; one weight. */
const JAPANESE = require.resolve('@fontsource/kosugi/files/kosugi-japanese-400-normal.woff2');

/** The files a weight's letters are in. */
const FILES: Readonly<Record<Weight, readonly string[]>> = {
  plain: [...OWN.map((script) => fileOf(script, 400)), JAPANESE],
  bold: [...OWN.map((script) => fileOf(script, 700)), JAPANESE],
};

/** Each file unpacked once: unpacking takes longer than drawing a page. */
const FACES = new Map<string, { readonly bytes: Buffer; readonly font: Font }>();

/** Stands for a letter that no face has. */
export const NO_LETTER = '*';

/** Signs that no face has, said another way. */
const SAID_OTHERWISE: Readonly<Record<string, string>> = {
  ...{ '→': '›', '≥': 'at least ', '≤': 'at most ', '⅛': '1/8', '⅜': '3/8', '⅝': '5/8', '⅞': '7/8' },
  ...{ '✓': 'x', '\u202f': '\u00a0', '\u2009': '\u00a0', '◂': '‹' },
};

/** What is in a text without being a letter: how the sign before it is drawn, and what joins two. */
const UNSEEN = /\p{Default_Ignorable_Code_Point}/gu;

/** The letters of a text as they are drawn: accents with their letters, and signs said another way. */
const lettersOf = (text: string): string[] =>
  [...text.normalize('NFC').replaceAll(UNSEEN, '')].flatMap((letter) => [
    ...(SAID_OTHERWISE[letter] ?? letter),
  ]);

async function load(file: string): Promise<void> {
  if (FACES.has(file)) return;
  const bytes = Buffer.from(await decompress(readFileSync(file)));
  FACES.set(file, { bytes, font: create(bytes) as Font });
}

/** The file among those at hand that has a letter. */
const fileWith = (letter: string, weight: Weight) =>
  FILES[weight].find((file) => FACES.get(file)?.font.hasGlyphForCodePoint(letter.codePointAt(0)!));

/**
 * Has the faces at hand that what is drawn needs; whatever is drawn waits for it. A script that nobody writes in is never read.
 *
 * @param texts everything that may stand on the paper
 */
export async function loadFaces(texts = ''): Promise<void> {
  for (const weight of ['plain', 'bold'] as const) {
    for (const file of FILES[weight].slice(0, ALWAYS)) await load(file);
    const letters = [...new Set(lettersOf(texts))].filter((letter) => letter >= ' ');
    for (const file of FILES[weight].slice(ALWAYS))
      if (letters.some((letter) => !fileWith(letter, weight))) await load(file);
  }
}

/** Every face at hand, by the file that names it. */
export const facesAtHand = (): readonly (readonly [string, Buffer])[] =>
  [...FACES].map(([file, { bytes }]) => [file, bytes]);

/** A piece of a text whose letters one file has. */
export interface Run {
  readonly file: string;
  readonly text: string;
}

/**
 * A text in pieces, each of letters that one file has.
 *
 * @param missing is told each letter that no face has: `NO_LETTER` stands for it
 */
export function runsOf(text: string, weight: Weight, missing: (letter: string) => void): Run[] {
  const runs: { file: string; text: string }[] = [];
  for (const letter of lettersOf(text)) {
    const known = letter === '\n' || fileWith(letter, weight) !== undefined;
    if (!known) missing(letter);
    const shown = known ? letter : NO_LETTER;
    const last = runs.at(-1);
    const into = fileWith(shown, weight) ?? last?.file ?? FILES[weight][0]!;
    if (last?.file === into) last.text += shown;
    else runs.push({ file: into, text: shown });
  }
  return runs.length > 0 ? runs : [{ file: FILES[weight][0]!, text: ' ' }];
}

/**
 * Says which letters a paper could not have, and what stands for them.
 *
 * @example missingInWords(['😀']) // 'No letter here for U+1F600: * stands for it. Write it another way before this is handed out.'
 */
export function missingInWords(letters: readonly string[]): string {
  const named = letters.map(
    (letter) => `U+${letter.codePointAt(0)!.toString(16).toUpperCase().padStart(4, '0')}`,
  );
  return `No letter here for ${named.join(', ')}: ${NO_LETTER} stands for ${named.length === 1 ? 'it' : 'them'}. Write it another way before this is handed out.`;
}
