import { numberTyped } from '@zero-lash/core/length';
import type { EngineRow } from '@zero-lash/contract/engines';
import type { UsageLine } from '@zero-lash/contract/usage';
import { hasMeter, runningWarning, USAGE_UNITS } from '@zero-lash/core/rechecks';
import { z } from 'zod';
import { dayInFile } from '../app/dayInFile.ts';
import { runningTyped } from '../app/figures.ts';
import { readCsv } from '../app/readCsv.ts';
import { writeCsv } from '../app/writeCsv.ts';

/** A line of a file of meters: understood, warned, or with what is wrong with it. */
export interface MeterLine {
  /** counted from 1, the heading with it */
  readonly line: number;
  readonly engine: string;
  readonly body: UsageLine | null;
  readonly error: string | null;
  /** understood, and hardly to be believed */
  readonly warning: string | null;
}

type Known = Pick<EngineRow, 'id' | 'name' | 'serial' | 'usage' | 'usageUnit' | 'usageOn'>;

const HEADS: Readonly<Record<string, 'engine' | 'serial' | 'usage' | 'unit' | 'day' | 'cycles'>> = {
  ...{ engine: 'engine', name: 'engine', serial: 'serial', usage: 'usage', meter: 'usage', reading: 'usage' },
  ...{ hours: 'usage', km: 'usage', starts: 'usage', events: 'usage', unit: 'unit', date: 'day', day: 'day' },
  ...{ 'heat cycles': 'cycles', cycles: 'cycles' },
};
const UNITS: readonly string[] = USAGE_UNITS;

const row = z.object({
  ...{ engine: z.string(), serial: z.string(), unit: z.string().toLowerCase() },
  usage: z.string().transform((text, context) => {
    const usage = runningTyped(text);
    if (!Number.isNaN(usage) && usage >= 0) return usage;
    context.addIssue(`“${text}” is no running figure`);
    return z.NEVER;
  }),
  day: z.string().transform((text, context) => {
    const day = text === '' ? null : dayInFile(text);
    if (text === '' || day !== null) return day;
    context.addIssue(`“${text}” is no day`);
    return z.NEVER;
  }),
  cycles: z
    .string()
    .regex(/^\d*$/, { error: ({ input }) => `“${String(input)}” is no count` })
    .transform((text) => (text === '' ? null : numberTyped(text))),
});

/**
 * Reads a list of meters from CSV, with commas, semicolons or tabs between: a heading, and a line a reading. An engine is named by
 * its name or its serial. A line of no engine here, twice in the file, of a day that is none or in another unit is named; one that
 * can hardly be is asked about.
 *
 * @param today the day it is in the shop
 */
export function readUsageCsv(text: string, engines: readonly Known[], today: string): readonly MeterLine[] {
  const named = (line: number, engine: string, error: string): MeterLine => ({
    ...{ line, engine, error, body: null, warning: null },
  });
  const read = readCsv(text, { headings: HEADS, needs: ['usage'], row });
  if ('error' in read) return [named(1, '', read.error)];
  if (!read.heads.some((head) => ['engine', 'serial'].includes(HEADS[head] ?? '')))
    return [named(1, '', 'The first line names the columns: it has no engine.')];
  const unitOfHead = read.heads.find((head) => UNITS.includes(head)) ?? '';
  const seen = new Set<string>();
  const understood = read.rows.map(
    ({ line, row: { engine: name, serial, usage, day, cycles, unit: said } }): MeterLine => {
      const asked = name || serial;
      const bad = (error: string) => named(line, asked, error);
      const called = engines.filter(
        ({ name, serial }) =>
          name.toLowerCase() === asked.toLowerCase() ||
          (serial !== '' && serial.toLowerCase() === asked.toLowerCase()),
      );
      const [engine] = called;
      if (!engine) return bad(`there is no engine “${asked}”`);
      if (called.length > 1) return bad(`more than one engine is called “${asked}”, or has it for a serial`);
      const unit = said || unitOfHead;
      if (!hasMeter(engine.usageUnit) && usage > 0)
        return bad(`${engine.name} has no meter: its running is not counted`);
      if (unit !== '' && unit !== engine.usageUnit)
        return bad(`${engine.name} is counted in ${engine.usageUnit}, and not in ${unit}`);
      if (day !== null && day > today) return bad(`${day} has not come yet`);
      const key = `${engine.id} ${day ?? today} ${usage}`;
      if (seen.has(key)) return bad('is in the file twice');
      seen.add(key);
      const last = { usage: engine.usage, on: engine.usageOn };
      const warning = runningWarning(usage, last, day ?? today, engine.usageUnit);
      return {
        ...{ line, engine: asked, error: null },
        warning: warning
          ? `${usage} is far from ${engine.usage}${warning.meant === null ? '' : `: is ${warning.meant} meant?`}`
          : null,
        body: { engineId: engine.id, usage, day, heatCycles: cycles },
      };
    },
  );
  return [...understood, ...read.bad.map(({ line, why }) => named(line, '', why))].toSorted(
    (a, b) => a.line - b.line,
  );
}

/** Writes the meters of engines as they are read. */
export function writeUsageCsv(engines: readonly EngineRow[]): string {
  return writeCsv(
    ['engine', 'serial', 'usage', 'unit', 'date', 'heat cycles'],
    engines.map(({ name, serial, usage, usageUnit, usageOn, heatCycles }) => [
      ...[name, serial, usage, usageUnit, usageOn, heatCycles],
    ]),
  );
}
