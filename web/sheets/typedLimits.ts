import { type SheetBody } from '@zero-lash/contract/sheets';
import {
  printedFrom,
  ROLE_WORDS,
  singleBandComplaint,
  type LimitsError,
  type Role,
  type SingleRule,
  parseLimits,
  type PrintedLimits,
} from '@zero-lash/core/sheets';
import { parseLength, type LengthUnit } from '@zero-lash/core/length';
import { sentence } from '../app/sentence.ts';
import { type SheetValues } from './formValues.ts';

/** What is wrong with limits as they were typed, in a sentence. */
export const LIMITS_ERRORS: Readonly<Record<LimitsError, string>> = {
  'not a pair of limits': 'This is not a pair of limits. Type 0.20–0.30, or 0.25 ± 0.05.',
  'say the unit of what stands in brackets':
    'Say the unit of what stands in brackets, such as 12 thou (0.30 mm).',
  'the least is below nothing': 'The tolerance is wider than its figure: the least would be below nothing.',
  'the least comes first': 'The least clearance comes first, and the greatest is above it.',
};

/** What is taken over the greatest in one role, and why; the shop's own figure only proposes it. */
function readAllowance(
  { allowances, unit }: SheetValues,
  role: Role,
  errors: Record<string, string>,
): SheetBody['limits'][number]['allowance'] {
  const { over = '', why = '' } = allowances[role] ?? {};
  // what a draft leaves empty is nothing once it is published
  if (over.trim() === '') return null;
  const read = parseLength(over, unit);
  if ('error' in read || read.mm > MOST_OVER) {
    errors[`allowances.${role}.over`] = 'A little over the greatest, such as 0.02 mm; 0.1 mm at the most.';
    return null;
  }
  if (read.mm > 0 && why.trim() === '')
    errors[`allowances.${role}.why`] = 'Why more than the greatest is taken here.';
  return { over: Math.round(read.mm * 1e4) / 1e4, why: why.trim() };
}

/** mm: more than this over the band is another limit, and no allowance. */
const MOST_OVER = 0.1;

export function readLimits(
  values: SheetValues,
  roles: readonly Role[],
  rule: SingleRule | null,
  errors: Record<string, string>,
): SheetBody['limits'] {
  const { unit } = values;
  return roles.flatMap((role) => {
    const text = values.limits[role] ?? '';
    if (text.trim() === '') {
      if (values.limitsToCome) return [];
      errors[`limits.${role}`] =
        `What does the source say for ${ROLE_WORDS[role]}? Where its book is not here yet, tick that.`;
      return [];
    }
    const main = readPrinted(text, { unit, rule }, `limits.${role}`, errors);
    const also = values.also.flatMap((each, index) => {
      if (each.role !== role || each.text.trim() === '') return [];
      const read = readPrinted(each.text, { unit, rule }, `also.${index}.text`, errors);
      return read ? [{ kind: each.kind, ...read }] : [];
    });
    return main ? [{ role, ...main, also, allowance: readAllowance(values, role, errors) }] : [];
  });
}

/** What is printed of one clearance, understood; or a sentence at its field. */
function readPrinted(
  text: string,
  { unit, rule }: { readonly unit: LengthUnit; readonly rule: SingleRule | null },
  field: string,
  errors: Record<string, string>,
): Pick<SheetBody['limits'][number], 'min' | 'max' | 'figure' | 'asWritten'> | null {
  const read = printedFrom(text, unit);
  const wrong =
    'error' in read
      ? LIMITS_ERRORS[read.error]
      : read.figure === null
        ? null
        : singleBandComplaint(read.figure, rule);
  if (wrong) errors[field] = sentence(wrong);
  return 'error' in read ? null : read;
}

/** What of a form is about limits. */
type LimitValues = Pick<SheetValues, 'limits' | 'also' | 'allowances'>;

/** Lays limits out as they would have been typed. */
export function limitsTyped(limits: SheetBody['limits']): LimitValues {
  return {
    limits: Object.fromEntries(limits.map((limit) => [limit.role, printedTyped(limit)])),
    also: limits.flatMap(({ role, also = [] }) =>
      also.map((each) => ({ role, kind: each.kind, text: printedTyped(each) })),
    ),
    allowances: Object.fromEntries(
      limits.map(({ role, allowance }) => [
        role,
        {
          over: allowance ? (allowance.over === 0 ? '0' : `${allowance.over} mm`) : '',
          why: allowance?.why ?? '',
        },
      ]),
    ),
  };
}

/** The source's own words where they still say the same limits, else the limits. */
function printedTyped({ min, max, figure = null, asWritten }: PrintedLimits): string {
  const read = parseLimits(asWritten, 'mm');
  const same = !('error' in read) && read.min === min && read.max === max && read.figure === figure;
  if (same) return asWritten;
  return figure === null ? `${min}–${max} mm` : `${figure} mm`;
}
