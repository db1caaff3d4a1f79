import type { EngineRow, NewEngine } from '@zero-lash/contract/engines';
import { z } from 'zod';
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
  readonly error: string | null;
}

const HEADS = ['name', 'serial', 'owner', 'duty', 'place', 'sheet', 'usage'] as const;
type Head = (typeof HEADS)[number];

/** Every way a heading may be written. */
const HEADINGS: Readonly<Record<string, Head>> = {
  ...(Object.fromEntries(HEADS.map((head) => [head, head])) as Record<Head, Head>),
  ...{ engine: 'name', 'serial number': 'serial', 'spec sheet': 'sheet', pattern: 'sheet' },
  ...{ hours: 'usage', km: 'usage', starts: 'usage', running: 'usage', 'running figure': 'usage' },
};

const row = z.object({
  name: z.string().min(1, 'has no name').max(60, 'its name is too long'),
  ...{ serial: z.string(), owner: z.string(), duty: z.string(), place: z.string(), sheet: z.string() },
  // as everywhere: 61,480 is sixty-one thousand, and 87,9 a decimal comma
  usage: z.string().transform((text, context) => {
    const typed = text.replace(/[\s’']/g, '');
    const usage = typed === '' ? 0 : runningTyped(typed);
    if (Number.isFinite(usage) && usage >= 0) return usage;
    context.addIssue(`“${text}” is no running figure`);
    return z.NEVER;
  }),
});

/**
 * Reads a list of engines from CSV, with commas, semicolons or tabs between: a heading, and a line an engine. What cannot be
 * understood is named by its line, and so is an engine that is here already or twice in the file.
 *
 * @param here names of the engines that the shop has, in small letters
 */
export function readEnginesCsv(
  text: string,
  sheets: readonly Named[],
  here: ReadonlySet<string>,
): readonly EngineLine[] {
  const read = readCsv(text, { headings: HEADINGS, needs: ['name', 'sheet'], row });
  if ('error' in read) return [{ line: 1, engine: null, error: read.error }];
  const seen = new Set<string>();
  const understood = read.rows.map(({ line, row: { sheet: asked, ...engine } }): EngineLine => {
    const bad = (error: string): EngineLine => ({ line, engine: null, error });
    const name = engine.name.toLowerCase();
    if (seen.has(name)) return bad(`“${engine.name}” is in the file twice`);
    seen.add(name);
    if (here.has(name)) return bad(`“${engine.name}” is here already`);
    const sheet =
      sheets.find((each) => `${each.maker} ${each.name}`.toLowerCase() === asked.toLowerCase()) ??
      sheets.find((each) => each.name.toLowerCase() === asked.toLowerCase());
    return sheet
      ? { line, error: null, engine: { ...engine, sheetId: sheet.id } }
      : bad(`there is no spec sheet “${asked}”`);
  });
  const misfits = read.bad.map(({ line, why }): EngineLine => ({ line, engine: null, error: why }));
  return [...understood, ...misfits].toSorted((a, b) => a.line - b.line);
}

/** Writes engines as they are read. */
export function writeEnginesCsv(engines: readonly EngineRow[]): string {
  return writeCsv(
    [...HEADS, 'unit'],
    engines.map(({ name, serial, owner, duty, place, sheetName, usage, usageUnit }) => [
      ...[name, serial, owner, duty, place, sheetName, usage, usageUnit],
    ]),
  );
}
