import { parseTorqueSteps, torque, type TorqueUnit } from '@zero-lash/core/assembly';
import type { Instrument } from '@zero-lash/contract/instruments';

/** What torques of a wrench are written in: what it is marked in. */
export const TORQUE_UNIT = { mm: 'N·m', in: 'lbf·ft' } as const satisfies Record<
  Instrument['unit'],
  TorqueUnit
>;

/** A torque as it is typed, in N·m; null where it is none. A bare figure is in the unit that is given, any other says its own. */
export function torqueTyped(text: string, unit: TorqueUnit): number | null {
  const read = parseTorqueSteps(/[a-z]/i.test(text) ? text : `${text} ${unit}`);
  if ('error' in read || read.steps.length !== 1) return null;
  const [step] = read.steps;
  return step!.kind === 'torque' ? Math.round(step!.nm * 100) / 100 : null;
}

/** A torque as it would be typed again; from N·m. */
export const torqueText = (nm: number, unit: TorqueUnit): string =>
  String(Math.round(torque({ value: nm, from: 'N·m', to: unit }).value * 100) / 100);
