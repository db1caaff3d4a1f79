import { doubtTorque } from '@zero-lash/core/assembly';
import { doubtLimits, parseLimits, doubtMeans, type Pattern, type Role } from '@zero-lash/core/sheets';
import type { SheetValues } from './formValues.ts';

/** A question about what is typed; its key says which question was answered. */
export interface Doubt {
  readonly key: string;
  readonly text: string;
  /** what was likely meant, as it would be typed */
  readonly suggestion: string | null;
}

const OPPOSITE: Partial<Readonly<Record<Role, Role>>> = { intake: 'exhaust', exhaust: 'intake' };

type Both = { readonly min: number; readonly max: number };

/** The question there is about a role's limits; only the two kinds of valve are held against each other. */
export function limitDoubt(
  role: Role,
  { limits, unit, condition }: Pick<SheetValues, 'limits' | 'unit' | 'condition'>,
): Doubt | null {
  const text = limits[role] ?? '';
  const read = parseLimits(text, unit);
  if ('error' in read || read.min === null || read.max === null) return null;
  const opposite = OPPOSITE[role];
  const other = parseLimits((opposite && limits[opposite]) ?? '', unit);
  const { min, max, nominal, tolerance } = read;
  const beside = 'error' in other || other.min === null || other.max === null ? [] : [other as Both];
  const doubt = doubtLimits({ min, max, nominal, tolerance }, condition, beside);
  if (!doubt) return null;
  const suggestion = doubt.suggestion && `${doubt.suggestion.min}–${doubt.suggestion.max} mm`;
  return { key: `${role} ${doubt.code} ${text}`, text: doubt.text, suggestion };
}

/** The question there is about how a fastening is tightened. */
export function torqueDoubt({
  fastening,
  steps,
}: {
  readonly fastening: string;
  readonly steps: string;
}): Doubt | null {
  const doubt = doubtTorque(fastening, steps);
  return (
    doubt && {
      key: `${fastening} ${steps}`,
      text: `${fastening || 'A fastening'}: ${doubt.why}. Has its decimal point slipped?`,
      suggestion: doubt.meantNm === null ? null : `${doubt.meantNm} Nm`,
    }
  );
}

/** The questions there are about how a pattern is set. */
export function meansDoubts(pattern: Pattern | null): Doubt[] {
  if (!pattern) return [];
  return [pattern.means, ...Object.values(pattern.roleMeans)].flatMap((means) =>
    means ? doubtMeans(means).map(({ text }) => ({ key: text, text, suggestion: null })) : [],
  );
}
