import { runningTyped } from '../app/figures.ts';
import type { EngineRow, NewEngine } from '@zero-lash/contract/engines';
import Papa from 'papaparse';

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

/** How a heading may be written besides. */
const ALSO: Readonly<Record<string, Head>> = {
  ...{ engine: 'name', 'serial number': 'serial', 'spec sheet': 'sheet', pattern: 'sheet' },
  ...{ hours: 'usage', km: 'usage', starts: 'usage', running: 'usage', 'running figure': 'usage' },
};

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
  const { data } = Papa.parse<string[]>(text.trim(), { skipEmptyLines: true });
  const [heads = [], ...rows] = data;
  const columns = heads.map((head) => {
    const said = head.trim().toLowerCase();
    return ALSO[said] ?? HEADS.find((known) => known === said) ?? null;
  });
  if (!columns.includes('name') || !columns.includes('sheet'))
    return [{ line: 1, engine: null, error: 'The first line names the columns: name and sheet at least.' }];
  const seen = new Set<string>();
  return rows.map((cells, index): EngineLine => {
    const line = index + 2;
    const bad = (error: string): EngineLine => ({ line, engine: null, error });
    const of = (head: Head) => (cells[columns.indexOf(head)] ?? '').trim();
    const name = of('name');
    if (name === '') return bad('has no name');
    if (name.length > 60) return bad('its name is too long');
    if (seen.has(name.toLowerCase())) return bad(`“${name}” is in the file twice`);
    seen.add(name.toLowerCase());
    if (here.has(name.toLowerCase())) return bad(`“${name}” is here already`);
    const asked = of('sheet').toLowerCase();
    const sheet =
      sheets.find((each) => `${each.maker} ${each.name}`.toLowerCase() === asked) ??
      sheets.find((each) => each.name.toLowerCase() === asked);
    if (!sheet) return bad(`there is no spec sheet “${of('sheet')}”`);
    // as everywhere: 61,480 is sixty-one thousand, and 87,9 a decimal comma
    const typed = of('usage').replace(/[\s’']/g, '');
    const usage = typed === '' ? 0 : runningTyped(typed);
    if (!Number.isFinite(usage) || usage < 0) return bad(`“${of('usage')}” is no running figure`);
    return {
      line,
      error: null,
      engine: {
        ...{ name, serial: of('serial'), owner: of('owner'), duty: of('duty'), place: of('place') },
        ...{ sheetId: sheet.id, usage },
      },
    };
  });
}

/** Writes engines as they are read. */
export function writeEnginesCsv(engines: readonly EngineRow[]): string {
  return Papa.unparse({
    fields: [...HEADS, 'unit'],
    data: engines.map(({ name, serial, owner, duty, place, sheetName, usage, usageUnit }) => [
      ...[name, serial, owner, duty, place, sheetName, usage, usageUnit],
    ]),
  });
}
