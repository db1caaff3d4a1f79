import type { EngineRow, NewEngine, NewLastCheck } from '@zero-lash/contract/engines';
import { z } from 'zod';
import { parseEntry } from '@zero-lash/core/measuring';
import { dayInFile } from '../app/dayInFile.ts';
import { runningTyped } from '../app/figures.ts';
import { readCsv } from '../app/readCsv.ts';
import { writeCsv } from '../app/writeCsv.ts';

/** A sheet as far as a line of the file may name it. */
interface Named {
  readonly id: string;
  readonly maker: string;
  readonly name: string;
}

/** A line of a list of engines, understood or with what is wrong with it. */
export interface EngineLine {
  /** counted from 1, the heading with it */
  readonly line: number;
  readonly engine: NewEngine | null;
  /** an engine that is here already, of which only its last check is taken */
  readonly known: { readonly id: string; readonly name: string } | null;
  readonly lastCheck: NewLastCheck | null;
  readonly error: string | null;
}

const HEADS = ['name', 'serial', 'owner', 'duty', 'place', 'sheet', 'usage'] as const;
/** When an engine in service was last checked, at what, by whom, and what was read then, as `1I 0.20 0.22; 1E 0.30`. */
const CHECK_HEADS = ['last checked', 'checked at', 'checked by', 'gaps'] as const;
type Head = (typeof HEADS)[number] | (typeof CHECK_HEADS)[number];

/** Every way a heading may be written. */
const HEADINGS: Readonly<Record<string, Head>> = {
  ...(Object.fromEntries([...HEADS, ...CHECK_HEADS].map((head) => [head, head])) as Record<Head, Head>),
  ...{ engine: 'name', 'serial number': 'serial', 'spec sheet': 'sheet', pattern: 'sheet' },
  ...{ hours: 'usage', km: 'usage', starts: 'usage', running: 'usage', 'running figure': 'usage' },
};

/** What a gap may be in a file: whether it is one of this engine is seen as it is judged; mm. */
const ANY = { min: 0, max: 10 };

// as everywhere: 61,480 is sixty-one thousand, and 87,9 a decimal comma
const figure = z.string().transform((text, context) => {
  const typed = text.replace(/[\s’']/g, '');
  if (typed === '') return null;
  const read = runningTyped(typed);
  if (Number.isFinite(read) && read >= 0) return read;
  context.addIssue(`“${text}” is no running figure`);
  return z.NEVER;
});

const row = z.object({
  name: z.string().min(1, 'has no name').max(60, 'its name is too long'),
  ...{ serial: z.string(), owner: z.string(), duty: z.string(), place: z.string(), sheet: z.string() },
  usage: figure.transform((typed) => typed ?? 0),
  'last checked': z.string().transform((text, context) => {
    const day = text === '' ? null : dayInFile(text);
    if (text === '' || day !== null) return day;
    context.addIssue(`“${text}” is no day`);
    return z.NEVER;
  }),
  ...{ 'checked at': figure, 'checked by': z.string().max(80, 'who checked it is too long') },
  gaps: z.string().transform((text, context) => {
    const each = text.split(';').filter((part) => part.trim() !== '');
    return each.map((part) => {
      const [, point = '', typed = ''] = /^\s*(\S+)\s+(.+?)\s*$/.exec(part) ?? [];
      const read = parseEntry(typed, 'mm', ANY);
      if (!('error' in read)) return { point, reading: read.reading as never, asTyped: typed };
      context.addIssue(`“${part.trim()}” is no point with its gap, such as 1I 0.20 0.22`);
      return z.NEVER;
    });
  }),
});

/**
 * Reads a list of engines from CSV, with commas, semicolons or tabs between: a heading, and a line an engine. What cannot be
 * understood is named by its line, and so is an engine that is twice in the file, or is here already: but of that one its last check
 * is taken, where the file has one.
 *
 * @param here the ids of the engines that the shop has, by their names in small letters
 */
export function readEnginesCsv(
  text: string,
  sheets: readonly Named[],
  here: ReadonlyMap<string, string>,
): readonly EngineLine[] {
  // a file of when engines that are here were checked need not say what they are built on
  const needs: Head[] = /^[^\n]*last checked/i.test(text) ? ['name'] : ['name', 'sheet'];
  const read = readCsv(text, { headings: HEADINGS, needs, row });
  if ('error' in read) return [{ line: 1, ...NOTHING, error: read.error }];
  const seen = new Set<string>();
  const understood = read.rows.map(({ line, row: each }): EngineLine => {
    const { sheet: asked, 'last checked': on, 'checked at': at, 'checked by': by, gaps, ...engine } = each;
    const bad = (error: string): EngineLine => ({ line, ...NOTHING, error });
    const name = engine.name.toLowerCase();
    if (seen.has(name)) return bad(`“${engine.name}” is in the file twice`);
    seen.add(name);
    if (on === null && (at !== null || by !== '' || gaps.length > 0))
      return bad(`“${engine.name}” was checked, but the file does not say on which day`);
    if (on !== null && by.trim() === '') return bad(`the file does not say who checked “${engine.name}”`);
    const lastCheck = on === null ? null : { on, usage: at ?? engine.usage, by: by.trim(), gaps };
    if (here.has(name))
      return lastCheck
        ? { line, error: null, engine: null, known: { id: here.get(name)!, name: engine.name }, lastCheck }
        : bad(`“${engine.name}” is here already`);
    const sheet =
      sheets.find((each) => `${each.maker} ${each.name}`.toLowerCase() === asked.toLowerCase()) ??
      sheets.find((each) => each.name.toLowerCase() === asked.toLowerCase());
    return sheet
      ? { line, error: null, engine: { ...engine, sheetId: sheet.id }, known: null, lastCheck }
      : bad(`there is no spec sheet “${asked}”`);
  });
  const misfits = read.bad.map(({ line, why }): EngineLine => ({ line, ...NOTHING, error: why }));
  return [...understood, ...misfits].toSorted((a, b) => a.line - b.line);
}

const NOTHING = { engine: null, known: null, lastCheck: null } as const;

/** Writes engines as they are read. */
export function writeEnginesCsv(engines: readonly EngineRow[]): string {
  return writeCsv(
    [...HEADS, 'unit'],
    engines.map(({ name, serial, owner, duty, place, sheetName, usage, usageUnit }) => [
      ...[name, serial, owner, duty, place, sheetName, usage, usageUnit],
    ]),
  );
}
