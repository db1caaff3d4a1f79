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
