import type { EngineRow } from '@zero-lash/contract/engines';
import type { UsageLine } from '@zero-lash/contract/usage';
import { runningDoubt } from '@zero-lash/core/rechecks';
import Papa from 'papaparse';
import { runningTyped } from '../app/figures.ts';

/** A line of a file of meters: understood, doubted, or with what is wrong with it. */
export interface MeterLine {
  /** counted from 1, the heading with it */
  readonly line: number;
  readonly engine: string;
  readonly body: UsageLine | null;
  readonly error: string | null;
  /** understood, and hardly to be believed */
  readonly doubt: string | null;
}

type Known = Pick<EngineRow, 'id' | 'name' | 'serial' | 'usage' | 'usageUnit' | 'usageOn'>;

const HEADS: Readonly<Record<string, 'engine' | 'usage' | 'unit' | 'day' | 'cycles'>> = {
  ...{ engine: 'engine', name: 'engine', serial: 'engine', usage: 'usage', meter: 'usage', reading: 'usage' },
  ...{ hours: 'usage', km: 'usage', starts: 'usage', events: 'usage', unit: 'unit', date: 'day', day: 'day' },
  ...{ 'heat cycles': 'cycles', cycles: 'cycles' },
};
const UNITS: readonly string[] = ['hours', 'km', 'starts', 'events'];

/** A day as a file has it: `2031-03-12` or `12.03.2031`; null where it is none. */
function dayOf(text: string): string | null {
  const [, day, month, year] = /^(\d{1,2})[./](\d{1,2})[./](\d{4})$/.exec(text) ?? [];
  const written = day ? `${year}-${month!.padStart(2, '0')}-${day.padStart(2, '0')}` : text;
  const read = new Date(`${written}T00:00:00Z`);
  return Number.isNaN(read.getTime()) || read.toISOString().slice(0, 10) !== written ? null : written;
}

/**
 * Reads a list of meters from CSV, with commas, semicolons or tabs between: a heading, and a line a reading. An engine is named by
 * its name or its serial. A line of no engine here, twice in the file, of a day that is none or in another unit is named; one that
 * can hardly be is asked about.
 *
 * @param today the day it is in the shop
 */
export function readUsageCsv(text: string, engines: readonly Known[], today: string): readonly MeterLine[] {
  const { data } = Papa.parse<string[]>(text.trim(), { skipEmptyLines: true });
  const [heads = [], ...rows] = data;
  const named = heads.map((head) => head.trim().toLowerCase());
  const columns = named.map((head) => HEADS[head] ?? null);
  if (!columns.includes('engine') || !columns.includes('usage'))
    return [
      {
        ...{ line: 1, engine: '', body: null, doubt: null },
        error: 'The first line names the columns: engine and usage at least.',
      },
    ];
  const unitOfHead = named.find((head) => UNITS.includes(head)) ?? '';
  const seen = new Set<string>();
  return rows.map((cells, index): MeterLine => {
    const of = (head: (typeof columns)[number]) => (cells[columns.indexOf(head)] ?? '').trim();
    const asked = of('engine');
    const line = { line: index + 2, engine: asked };
    const bad = (error: string): MeterLine => ({ ...line, body: null, error, doubt: null });
    const named = engines.filter(
      ({ name, serial }) =>
        name.toLowerCase() === asked.toLowerCase() ||
        (serial !== '' && serial.toLowerCase() === asked.toLowerCase()),
    );
    const [engine] = named;
    if (!engine) return bad(`there is no engine “${asked}”`);
    if (named.length > 1) return bad(`more than one engine is called “${asked}”, or has it for a serial`);
    const unit = of('unit').toLowerCase() || unitOfHead;
    if (unit !== '' && unit !== engine.usageUnit)
      return bad(`${engine.name} is counted in ${engine.usageUnit}, and not in ${unit}`);
    const usage = runningTyped(of('usage'));
    if (Number.isNaN(usage) || usage < 0) return bad(`“${of('usage')}” is no running figure`);
    const typedDay = of('day');
    const day = typedDay === '' ? null : dayOf(typedDay);
    if (typedDay !== '' && day === null) return bad(`“${typedDay}” is no day`);
    if (day !== null && day > today) return bad(`${day} has not come yet`);
    const cycles = of('cycles') === '' ? null : Number(of('cycles'));
    if (cycles !== null && (!Number.isInteger(cycles) || cycles < 0))
      return bad(`“${of('cycles')}” is no count`);
    const key = `${engine.id} ${day ?? today} ${usage}`;
    if (seen.has(key)) return bad('is in the file twice');
    seen.add(key);
    const last = { usage: engine.usage, on: engine.usageOn };
    const doubt = runningDoubt(usage, last, day ?? today, engine.usageUnit);
    return {
      ...line,
      error: null,
      doubt: doubt
        ? `${usage} is far from ${engine.usage}${doubt.meant === null ? '' : `: is ${doubt.meant} meant?`}`
        : null,
      body: { engineId: engine.id, usage, day, heatCycles: cycles },
    };
  });
}

/** Writes the meters of engines as they are read. */
export function writeUsageCsv(engines: readonly EngineRow[]): string {
  return Papa.unparse({
    fields: ['engine', 'serial', 'usage', 'unit', 'date', 'heat cycles'],
    data: engines.map(({ name, serial, usage, usageUnit, usageOn, heatCycles }) => [
      ...[name, serial, usage, usageUnit, usageOn, heatCycles],
    ]),
  });
}
