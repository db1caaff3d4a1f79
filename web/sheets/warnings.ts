import { torqueWarning } from '@zero-lash/core/assembly';
import { limitWarning, parseLimits, meansWarnings, type Pattern, type Role } from '@zero-lash/core/sheets';
import type { SheetValues } from './formValues.ts';

/** A question about what is typed; its key says which question was answered. */
export interface Warning {
  readonly key: string;
  readonly text: string;
  /** what was likely meant, as it would be typed */
  readonly suggestion: string | null;
}

const OPPOSITE: Partial<Readonly<Record<Role, Role>>> = { intake: 'exhaust', exhaust: 'intake' };

type Both = { readonly min: number; readonly max: number };

/** The question there is about a role's limits; only the two kinds of valve are held against each other. */
export function limitWarningOf(
  role: Role,
  { limits, unit, condition }: Pick<SheetValues, 'limits' | 'unit' | 'condition'>,
): Warning | null {
  const text = limits[role] ?? '';
  const read = parseLimits(text, unit);
  if ('error' in read || read.min === null || read.max === null) return null;
  const opposite = OPPOSITE[role];
  const other = parseLimits((opposite && limits[opposite]) ?? '', unit);
  const { min, max, nominal, tolerance } = read;
  const beside = 'error' in other || other.min === null || other.max === null ? [] : [other as Both];
  const warning = limitWarning({ min, max, nominal, tolerance }, condition, beside);
  if (!warning) return null;
  const suggestion = warning.suggestion && `${warning.suggestion.min}–${warning.suggestion.max} mm`;
  return { key: `${role} ${warning.code} ${text}`, text: warning.text, suggestion };
}

/** The question there is about how a fastening is tightened. */
export function torqueWarningOf({
  fastening,
  steps,
}: {
  readonly fastening: string;
  readonly steps: string;
}): Warning | null {
  const warning = torqueWarning(fastening, steps);
  return (
    warning && {
      key: `${fastening} ${steps}`,
      text: `${fastening || 'A fastening'}: ${warning.why}. Has its decimal point slipped?`,
      suggestion: warning.meantNm === null ? null : `${warning.meantNm} Nm`,
    }
  );
}

/** The questions there are about how a pattern is set. */
export function meansWarningsOf(pattern: Pattern | null): Warning[] {
  if (!pattern) return [];
  return [pattern.means, ...Object.values(pattern.roleMeans)].flatMap((means) =>
    means ? meansWarnings(means).map(({ text }) => ({ key: text, text, suggestion: null })) : [],
  );
}
