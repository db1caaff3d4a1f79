import { torqueWarning } from '@zero-lash/core/assembly';
import type { LengthUnit } from '@zero-lash/core/length';
import {
  limitWarning,
  meansWarnings,
  parseLimits,
  printedFrom,
  resolveBand,
  type Pattern,
  type Role,
  type SingleRule,
} from '@zero-lash/core/sheets';
import type { SheetValues } from './formValues.ts';

/** A question about what is typed; its key says which question was answered. */
export interface Warning {
  readonly key: string;
  readonly text: string;
  /** what may have been meant, as it would be typed */
  readonly suggestions: readonly string[];
}

const OPPOSITE: Partial<Readonly<Record<Role, Role>>> = { intake: 'exhaust', exhaust: 'intake' };

/** What of a form limits are understood by. */
type Typed = Pick<SheetValues, 'limits' | 'also' | 'unit' | 'condition'>;

/** The questions there are about a role's limits; only the two kinds of valve are held against each other. */
export function limitWarningsOf(
  role: Role,
  { limits, also, unit, condition }: Typed,
  rule: SingleRule | null,
): LimitQuestion[] {
  const band = (text: string) => {
    const read = printedFrom(text, unit);
    return 'error' in read ? null : resolveBand(read, rule);
  };
  const opposite = OPPOSITE[role];
  const text = limits[role] ?? '';
  const other = opposite ? band(limits[opposite] ?? '') : null;
  const main = band(text);
  const asked = questionsOf(text, unit, main, condition, other ? [other] : []).map((each) => ({
    ...each,
    field: `limits.${role}` as const,
    typed: text,
  }));
  const besides = also.flatMap(({ role: of, kind, text: printed }, index) => {
    if (of !== role) return [];
    const read = band(printed);
    const field = `also.${index}.text` as const;
    const outside =
      kind === 'leave' && main && read && (main.min < read.min || main.max > read.max)
        ? [{ text: 'What it is set to reaches outside what is left alone. Are they the right way round?' }]
        : [];
    return [...questionsOf(printed, unit, read, condition, []), ...outside].map((each) => ({
      suggestions: [],
      ...each,
      field,
      typed: printed,
    }));
  });
  return [...asked, ...besides].map(({ typed, ...each }) => ({
    ...each,
    key: `${role} ${each.text} ${typed}`,
  }));
}

/** A question about limits, and the field that it stands at. */
export interface LimitQuestion extends Warning {
  readonly field: `limits.${Role}` | `also.${number}.text`;
}

/** What is asked of one printed clearance: in which unit it is, which of two figures it is, and whether it is a slip. */
function questionsOf(
  text: string,
  unit: LengthUnit,
  band: { readonly min: number; readonly max: number } | null,
  condition: SheetValues['condition'],
  others: Parameters<typeof limitWarning>[2],
): Omit<Warning, 'key'>[] {
  const read = parseLimits(text, unit);
  if ('error' in read || band === null) return [];
  const { nominal, tolerance, doubt, agrees } = read;
  const [, figures = '', bracketed = ''] = /^(.*?)\s*[([]([^()[\]]*)[)\]]$/s.exec(text.trim()) ?? [];
  const disagrees =
    agrees === false
      ? [
          {
            text: `${figures} and ${bracketed} are not the same. Which does the source print?`,
            suggestions: [figures, bracketed],
          },
        ]
      : [];
  const warning = limitWarning({ ...band, nominal, tolerance }, condition, others);
  const meant = warning?.suggestion ? [`${warning.suggestion.min}–${warning.suggestion.max} mm`] : [];
  if (doubt)
    return [
      ...disagrees,
      {
        text: `In ${unit === 'in' ? 'inches' : unit} that is hardly a clearance. Which does the source print?`,
        suggestions: [...doubt.map((each) => `${text.trim()} ${each}`), ...meant],
      },
    ];
  return [...disagrees, ...(warning ? [{ text: warning.text, suggestions: meant }] : [])];
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
      suggestions: warning.meantNm === null ? [] : [`${warning.meantNm} N·m`],
    }
  );
}

/** The questions there are about how a pattern is set. */
export function meansWarningsOf(pattern: Pattern | null): Warning[] {
  if (!pattern) return [];
  return [pattern.means, ...Object.values(pattern.roleMeans)].flatMap((means) =>
    means ? meansWarnings(means).map(({ text }) => ({ key: text, text, suggestions: [] })) : [],
  );
}
