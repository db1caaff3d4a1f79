import { BOUNDS, saysSomething, type Quantity } from '@zero-lash/core/bounds';
import { z } from 'zod';
import { line, passage, remark } from './values.ts';

/** A figure within what its quantity can be, by the core's one table of bounds. */
export function bounded(quantity: Quantity) {
  const { least, most, under, over } = BOUNDS[quantity];
  return z.number().min(least, { error: under }).max(most, { error: over });
}

/** A clearance limit in mm. */
export const limitMm = bounded('limit');

/** The thickness of a graded piece in mm. */
export const thicknessMm = bounded('thickness');

const says = { error: 'say why in a word or more' };

/** Why something is done, in one line; a full stop is no reason. */
export const why = (most: number) => line(most).refine(saysSomething, says);

/** Why something is done, in several lines. */
export const whyAtLength = (most: number) => passage(most).refine(saysSomething, says);

/** A reason that may be left out; one that is given says something. */
export const whyPerhaps = (most: number) =>
  remark(most).refine((text) => text === '' || saysSomething(text), says);
