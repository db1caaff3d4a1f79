import { saysSomething } from '@zero-lash/core/bounds';
import { counted, numberTyped } from '@zero-lash/core/length';
import { hasMeter, runningWarning } from '@zero-lash/core/rechecks';
import type { EngineRow, NewUsage } from '@zero-lash/contract/engines';
import { grouped, runningTyped } from '../app/figures.ts';
import type { Sent } from '../app/useOutbox.ts';
import { METER_FIGURE } from './endpoints.ts';

/** What was typed for one engine, before it is written down. */
export interface Typed {
  readonly figure: string;
  readonly cycles: string;
  /** why a lower figure is right */
  readonly reason: string;
  /** what the old meter stopped at, where this is the first of a new one */
  readonly oldMeter: string | null;
  /** the figure that somebody said is right, though it is more than can have been run */
  readonly sure?: string;
}

export const NOTHING: Typed = { figure: '', cycles: '', reason: '', oldMeter: null };

/** What is wrong with what was typed; `meant` where it is more than can have been run, and what may have been meant. */
export interface NoFigure {
  readonly error: string;
  readonly meant?: number | null;
}

/**
 * What is written down of an engine: nothing, a figure, or what is wrong with what was typed.
 *
 * @param day the day it was read on; null for today
 * @param today the day it is in the shop
 */
export function figureOf(
  engine: Pick<EngineRow, 'usage' | 'usageOn' | 'usageUnit'>,
  { figure, cycles, reason, oldMeter, sure }: Typed,
  day: string | null,
  today: string,
): NewUsage | NoFigure | null {
  if (figure.trim() === '' && cycles.trim() === '') return null;
  const usage = figure.trim() === '' ? engine.usage : runningTyped(figure);
  if (Number.isNaN(usage) || usage < 0) return { error: 'A number, as the meter shows it.' };
  const heatCycles = cycles.trim() === '' ? null : numberTyped(cycles);
  if (heatCycles !== null && (!Number.isInteger(heatCycles) || heatCycles < 0))
    return { error: 'A whole number of heat cycles.' };
  const lastOfOld = oldMeter === null ? null : runningTyped(oldMeter);
  if (lastOfOld !== null && !(lastOfOld >= engine.usage))
    return { error: `The old meter stopped at ${engine.usage} or above.` };
  if (day === null && usage < engine.usage && lastOfOld === null && !saysSomething(reason))
    return { error: 'Lower than it was: is it a new meter, or was there a slip?' };
  const last = { usage: engine.usage, on: engine.usageOn };
  const warning = sure === figure ? null : runningWarning(usage, last, day ?? today, engine.usageUnit);
  if (warning)
    return {
      error: `More than can have been run since ${grouped(engine.usage)} was logged: is it right?`,
      meant: warning.meant,
    };
  return {
    ...{ usage, day, heatCycles, reason: reason.trim(), sure: sure === figure },
    newMeter: lastOfOld === null ? null : { lastOfOld, startedAt: Math.min(0, usage) },
  };
}

/** How a figure off an engine's meter is sent, and what it is called while it waits. */
export function sentAs({ id, name, usageUnit }: EngineRow, body: NewUsage): Sent {
  return {
    ...{ kind: METER_FIGURE, buildId: '', within: id, method: 'POST', path: `engines/${id}/usages` },
    about: name,
    said: hasMeter(usageUnit)
      ? `${body.usage} ${usageUnit} of ${name}`
      : `${counted(body.heatCycles ?? 0, 'heat cycle')} of ${name}`,
    body,
  };
}
