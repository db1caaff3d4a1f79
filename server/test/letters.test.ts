import type { EngineList, EngineRow } from '@zero-lash/contract/engines';
import { folded } from '@zero-lash/core/fleet';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import draw from '../paperThread.ts';
import { readPdf } from './pdf.ts';
import { BENCH, TestShop, VIEWER } from './shop.ts';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open();
});
afterAll(() => shop.close());

/** How people and places are called, in scripts that are written here and there. */
const NAMES = [
  'Zoë Łasky',
  'Ålesund',
  'Αθηνά Παπαδάκη',
  'Олеся Щербак',
  'Ґалина',
  'まつもと 花子',
  '渡辺ポンプ',
];

describe('papers', () => {
  const list = (texts: readonly string[]) =>
    draw({
      name: 'list',
      from: {
        title: `Order: ${texts[0]}`,
        empty: '',
        under: '',
        notes: [],
        tables: [{ columns: [{ title: 'Name', left: 0, width: 300 }], rows: texts.map((text) => [text]) }],
      },
    });

  it('print what people are called, in every script, with the letters in the file', async () => {
    const { text, embedded } = await readPdf(await list(NAMES));
    for (const name of NAMES) expect(text.normalize('NFC')).toContain(name.normalize('NFC'));
    // and an accent that came apart from its letter
    expect((await readPdf(await list(['Zoe\u0308']))).text).toContain('Zoë');
    expect(embedded).toBe(true);
    expect(text).not.toMatch(/\?|No letter here/);
  });

  it('are small: of a script only the letters that are used come with them', async () => {
    expect((await list(NAMES)).length).toBeLessThan(80_000);
  });

  it('say which letters they could not have, and what stands for them', async () => {
    const { text } = await readPdf(await list(['Pump 😀', 'भट्टी']));
    expect(text).toContain('Pump *');
    expect(text).toMatch(/No letter here for U\+1F600, U\+092D[^.]*: \* stands for them/);
    expect(text).not.toContain('?');
    const label = await draw({
      name: 'label',
      from: { engine: 'Pump 😀', lines: [], caution: '', address: 'https://shop.example/engines/1' },
    });
    const read = await readPdf(label);
    expect(read.text).toContain('U+1F600');
    expect(read.pages).toBe(1);
  });
});

describe('what is looked for', () => {
  it.each([
    ['Žofia Łąka', 'zofia laka'],
    ['ΑΘΗΝΆ Παπαδάκης', 'αθηνα παπαδακησ'],
    ['Ёлка Й', 'елка и'],
    ['Straße Æ Œ Ø', 'strasse ae oe o'],
    ['ｶﾞｿﾘﾝ İzmir', 'カ\u3099ソリン izmir'],
  ])('is folded: %s', (said, as) => {
    expect(folded(said)).toBe(as);
  });

  it('is folded by the database as by the core, whatever was written', async () => {
    // the scripts that names here are written in; of newer ones the database may know fewer letters than the core
    const letter = fc
      .constantFrom([0x20, 0x52f], [0x1e00, 0x1fff], [0x3040, 0x30ff], [0xff01, 0xff9f])
      .chain(([min, max]) => fc.integer({ min: min!, max: max! }))
      .map((point) => String.fromCodePoint(point));
    const text = fc.string({ unit: fc.oneof(fc.constantFrom(...'łØđıßÆœΣς'), letter), maxLength: 12 });
    await fc.assert(
      fc.asyncProperty(fc.array(text, { minLength: 20, maxLength: 20 }), async (said) => {
        const { rows } = await shop.db.raw('select folded(said) as folded from unnest(?::text[]) said', [
          said,
        ]);
        expect(rows.map((row: { folded: string }) => row.folded)).toEqual(said.map(folded));
      }),
      { numRuns: 40 },
    );
  });

  it('is found without its accents and capitals, or with others', async () => {
    const { body: found } = await shop.call<EngineList>(BENCH, 'GET', 'engines?limit=1');
    const name = 'Pumpe Żółw, Αθηνά';
    await shop.call<EngineRow>(BENCH, 'POST', 'engines', {
      ...{ name, serial: '', owner: '', duty: '', usage: 1, sheetId: found.engines[0]!.sheetId },
    });
    for (const search of ['zolw', 'ŻÓŁW', 'αθηνα', 'pumpe ΑΘΗΝΑ'])
      expect(
        (await shop.call<EngineList>(VIEWER, 'GET', `engines?search=${encodeURIComponent(search)}`)).body
          .engines,
        search,
      ).toMatchObject([{ name }]);
  });
});
