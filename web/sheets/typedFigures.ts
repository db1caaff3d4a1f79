import { parseFigure, type FigureUnit } from '@zero-lash/core/length';
import { numberTyped } from '@zero-lash/core/length';
import { sentence } from '../app/sentence.ts';

/** A figure as it would have been typed; nothing where there is none. */
export const typed = (value: number | null | undefined): string =>
  value === null || value === undefined ? '' : String(value);

/** Whole numbers with commas or spaces between; what is none is said. */
export function wholes(text: string, field: string, errors: Record<string, string>): number[] {
  const pieces = text.split(/[\s,;–-]+/).filter(Boolean);
  if (pieces.some((piece) => !/^\d{1,3}$/.test(piece))) {
    errors[field] = 'Whole numbers with commas between, such as 5, 5.';
    return [];
  }
  return pieces.map(Number);
}

/** A figure that says its unit. */
export const SAYS_UNIT = /[a-z°"%]/i;

/** A figure as it would have been typed, with the unit it is kept in: whatever bare figures are in, it says the same. */
export const typedIn = (value: number | null | undefined, unit: FigureUnit): string =>
  value === null || value === undefined ? '' : `${value} ${unit}`;

/** Whether a figure is typed in another unit than it is kept in: then what was typed is kept beside what it comes to. */
export const saysOtherUnit = (text: string, unit: FigureUnit | 'N·m'): boolean =>
  SAYS_UNIT.test(text) && !text.trim().toLowerCase().endsWith(unit.toLowerCase());

/** A figure in whichever unit it is typed; a sentence at its field where it is none. */
export function figureIn(
  text: string,
  unit: FigureUnit,
  field: string,
  errors: Record<string, string>,
): number | null {
  const read = parseFigure(text, unit);
  if ('error' in read) errors[field] = sentence(read.error);
  return 'error' in read ? null : read.value;
}

export function required(text: string, field: string, errors: Record<string, string>): number {
  const value = numberTyped(text);
  if (Number.isNaN(value))
    errors[field] = text.trim() === '' ? 'A number is missing here.' : `“${text}” is not a number.`;
  return value;
}

export function optional(text: string, field: string, errors: Record<string, string>): number | null {
  return text.trim() === '' ? null : required(text, field, errors);
}

export function numbers(text: string, field: string, errors: Record<string, string>): number[] {
  const parts = text.split(/[\s;°]+|,\s+/).filter(Boolean);
  return parts.map((part) => required(part, field, errors));
}
