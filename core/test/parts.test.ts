import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { currentLines } from '../builds/index.ts';
import {
  expectedParts,
  imbalances,
  layOutTray,
  ledgerKey,
  ledgerOf,
  partsList,
  partsListOf,
  partsListRow,
  wantedParts,
  type LedgerLine,
} from '../parts/index.ts';
import { valvesOf, type Pattern } from '../sheets/index.ts';
import type { PartDisposition } from '../wear/index.ts';
import { inlineFour, inlineSix, vTwelve } from './patterns.ts';

const counted = (line: LedgerLine, more: Partial<LedgerLine>) => ({ ...line, ...more });
const fresh = (pattern: Pattern) => ledgerOf(expectedParts(pattern), new Map());

describe('a count-out', () => {
  it('names every part once, each with its place', () => {
    for (const pattern of [inlineFour, inlineSix, vTwelve]) {
      const keys = expectedParts(pattern).map(({ key }) => key);
      expect(new Set(keys).size).toBe(keys.length);
      expect(expectedParts(pattern).filter(({ name }) => name === 'Collets')).toHaveLength(
        valvesOf(pattern).length,
      );
    }
    const names = (pattern: Pattern) => new Set(expectedParts(pattern).map(({ name }) => name));
    expect(names(inlineFour)).toContain('Bucket');
    expect(names(inlineFour)).not.toContain('Rocker');
    expect(names({ ...inlineFour, camDrive: 'gears' })).not.toContain('Chain guide');
  });

  it('starts from the list, and keeps what was counted, added and struck', () => {
    const [bolt, washer] = fresh(inlineFour);
    const added: LedgerLine = { ...bolt!, key: 'breather clip', name: 'Breather clip', out: 1 };
    const entries = [
      { id: '1', by: 'a', at: '2026-01-01T00:00:00.000Z', lines: [counted(bolt!, { out: 1 }), added] },
      { id: '2', by: 'b', at: '2026-01-01T00:01:00.000Z', lines: [counted(washer!, { dropped: true })] },
    ];
    const ledger = ledgerOf(expectedParts(inlineFour), currentLines(entries, ledgerKey));
    expect(ledger.find(({ key }) => key === bolt!.key)?.out).toBe(1);
    expect(ledger.some(({ key }) => key === washer!.key)).toBe(false);
    expect(ledger.at(-1)).toEqual(added);
  });

  it('balances only where everything that went out came in', () => {
    const lines = fc.array(
      fc.record({ out: fc.option(fc.nat(9), { nil: null }), in: fc.option(fc.nat(9), { nil: null }) }),
      { maxLength: 12 },
    );
    fc.assert(
      fc.property(lines, (counts) => {
        const ledger = counts.map((count, index) => ({
          ...fresh(inlineSix)[0]!,
          key: String(index),
          ...count,
        }));
        const off = imbalances(ledger);
        const same = counts.every(({ out, in: back }) => out === null || out === (back ?? 0));
        expect(off.length === 0).toBe(same);
        for (const { off: by, line } of off) expect(line.out! + by).toBe(line.in ?? 0);
      }),
    );
    const [line] = fresh(inlineSix);
    // what was never counted in is missing as a whole, and spares are no part of it
    expect(imbalances([counted(line!, { out: 4 })])).toMatchObject([{ off: -4 }]);
    expect(imbalances([counted(line!, { group: 'wanted', out: 4 })])).toEqual([]);
  });

  it('is laid in numbered places, none of them twice', () => {
    const ledger = fresh(vTwelve);
    const tray = layOutTray(ledger, 'caps');
    expect(tray.places.map(({ number }) => number)).toEqual(tray.places.map((_, index) => index + 1));
    expect(new Set(tray.places.map(({ column, row }) => `${column} ${row}`)).size).toBe(tray.places.length);
    expect(tray.places.every(({ column, row }) => column < tray.columns && row < tray.rows)).toBe(true);
    expect(layOutTray([], 'caps')).toMatchObject({ columns: 1, rows: 1, places: [] });
  });
});

describe('a parts list', () => {
  const worn: PartDisposition = {
    ...{ part: 'valve', place: '1E', verdict: 'replace', decided: null, used: 1.4, measureNew: [] },
    reasons: ['Margin 1E: 140 % of its allowance', 'Cracked'],
  };

  it('has what is replaced, with why, and nothing that is kept', () => {
    const low: PartDisposition = { ...worn, part: 'cylinder', place: '3' };
    expect(partsList([worn, { ...worn, place: '2E', verdict: 'watch' }, low], [])).toEqual([
      {
        ...{ name: 'Valve', place: '1E', count: 1, state: 'none' },
        reason: 'Margin 1E: 140 % of its allowance; Cracked',
      },
    ]);
  });

  it('has what is wanted, as far as it is not there', () => {
    const [gasket] = wantedParts({ pattern: inlineSix, wanted: [] });
    const line = {
      ...gasket!,
      way: 'unsaid' as const,
      out: null,
      in: null,
      note: '',
      dropped: false,
      expected: 3,
    };
    expect(partsList([], [line])).toEqual([]);
    expect(partsList([], [{ ...line, out: 1 }]).map(({ count, state }) => [count, state])).toEqual([
      [1, 'in-hand'],
      [2, 'to-order'],
    ]);
    expect(partsList([], [{ ...line, out: 5 }]).map(({ count, state }) => [count, state])).toEqual([
      [3, 'in-hand'],
    ]);
    const holds: Pattern = {
      ...inlineSix,
      means: {
        ...{ kind: 'shim', seat: 'on-bucket', sizes: { from: 2, to: 3, step: 0.05 } },
        ...{ diameter: 25, marking: '', seatOffset: null },
      },
    };
    expect(wantedParts({ pattern: holds, wanted: [] }).length).toBe(
      wantedParts({ pattern: inlineSix, wanted: [] }).length + 1,
    );
  });

  it('of a build has what was counted of its spares, in words, and nothing that came off it', () => {
    const sheet = { pattern: inlineSix, wanted: [{ name: 'Plug', count: 2, kind: 'spare' as const }] };
    const off = fresh(inlineSix).map((line) => counted(line, { out: 1 }));
    const [plug] = ledgerOf(wantedParts(sheet), new Map());
    const lines = [counted(plug!, { out: 1 }), ...off].map((line) => [line.key, { line }] as const);
    expect(partsListOf(sheet, [], new Map(lines)).map(partsListRow)).toEqual([
      ['Plug', '', '1', 'in hand', ''],
      ['Plug', '', '1', 'to order', ''],
    ]);
  });

  it('goes by what a sheet lists, where it lists anything', () => {
    const wanted = [{ name: 'Half-moon plug', count: 2, kind: 'seal' as const }];
    expect(wantedParts({ pattern: inlineSix, wanted })).toEqual([
      { key: 'wanted half-moon plug', group: 'wanted', name: 'Half-moon plug', place: '', expected: 2 },
    ]);
  });

  it('has a seal once, by its own name, and none that is used again', () => {
    const [line] = ledgerOf(
      wantedParts({ pattern: inlineSix, wanted: [{ name: 'Head gasket', count: 1, kind: 'seal' }] }),
      new Map(),
    );
    const seal: PartDisposition = { ...worn, part: 'seal', place: 'Head gasket', reasons: ['Torn'] };
    expect(partsList([seal], [])).toMatchObject([{ name: 'Head gasket', place: '', reason: 'Torn' }]);
    expect(partsList([seal], [{ ...line!, out: 0 }])).toEqual([
      { name: 'Head gasket', place: '', count: 1, state: 'to-order', reason: 'Torn' },
    ]);
    expect(partsList([{ ...seal, verdict: 'keep' }], [{ ...line!, out: 0 }])).toEqual([]);
  });
});
