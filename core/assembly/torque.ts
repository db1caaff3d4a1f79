import type { MeasureSystem } from '../length/index.ts';

/** What a torque is written in. */
export type TorqueUnit = 'N·m' | 'lbf·ft' | 'lbf·in' | 'kgf·m';

/** A pound-force in newtons, a foot in metres: both by definition. */
const LBF_FT = 4.4482216152605 * 0.3048;

/** N·m in one of each unit. */
const NEWTON_METRES: Readonly<Record<TorqueUnit, number>> = {
  'N·m': 1,
  'lbf·ft': LBF_FT,
  'lbf·in': LBF_FT / 12,
  'kgf·m': 9.80665,
};

/** Every unit a torque may be written in. */
export const TORQUE_UNITS = Object.keys(NEWTON_METRES) as [TorqueUnit, ...TorqueUnit[]];

/**
 * Says a torque, or its range, in the unit of a system.
 *
 * @param nm in N·m; the most, where there is a range, follows
 * @example torqueShown([35], 'inch') // '26 lbf·ft'
 */
export function torqueShown(nm: readonly number[], system: MeasureSystem): string {
  if (system === 'metric') return `${nm.join('–')} N·m`;
  const to = Math.max(...nm) < SMALL ? 'lbf·in' : 'lbf·ft';
  const figure = (each: number) => {
    const { value } = torque({ value: each, from: 'N·m', to });
    return value < WHOLE ? Math.round(value * 10) / 10 : Math.round(value);
  };
  return `${nm.map(figure).join('–')} ${to}`;
}

/** From here on nobody reads a part of a pound. */
const WHOLE = 10;

/** Under this inch manuals give pound-inches; N·m. */
const SMALL = 15;

/**
 * Turns a torque from one unit into another.
 *
 * @example torque({ value: 10, from: 'N·m', to: 'lbf·ft' }).value // 7.3756
 */
export function torque({
  value,
  from,
  to,
}: {
  readonly value: number;
  readonly from: TorqueUnit;
  readonly to: TorqueUnit;
}): { readonly value: number } {
  return { value: (value * NEWTON_METRES[from]) / NEWTON_METRES[to] };
}
