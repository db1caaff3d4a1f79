import { parseEntry } from './parseEntry.ts';
import type { Reading } from './reading.ts';

/** Two lengths that are nearer than this are one, in mm: what is typed is unrounded, and a gauge rounds to a tenth of a micrometre. */
const SAME = 0.0001;

/**
 * Says whether what was typed is another figure than the reading it came with. A text that is no entry, such as what a row of blades
 * said, stands as it is; one that is read as it stands in any unit agrees, and so does one whose point or unit slipped, where the
 * figure that was meant was taken.
 *
 * @param asTyped what a person typed, or a gauge said
 * @example saysOtherwise('0.30', { kind: 'value', value: 0.15, uncertainty: 0.01 }) // true
 */
export function saysOtherwise(asTyped: string, reading: Reading): boolean {
  const figures = figuresOf(reading);
  if (figures === null) return false;
  // held against the reading itself: a slip is one of its figures, by whatever limits it was asked about
  const spec = { min: Math.min(...figures), max: Math.max(...figures) };
  const meant = (['mm', 'thou'] as const).flatMap((unit) => {
    const read = parseEntry(asTyped, unit, spec);
    return 'error' in read ? [] : [read.reading, ...read.meant];
  });
  return meant.length > 0 && !meant.some((each) => among(figuresOf(each), figures));
}

/** The lengths of a reading of one or two figures, in mm; null for tries, which are told in words. */
function figuresOf(reading: Reading): readonly number[] | null {
  switch (reading.kind) {
    case 'tries':
      return null;
    case 'bracket':
      return [reading.go, reading.noGo];
    case 'drag':
      return [reading.blade];
    case 'value':
      return [reading.value];
    case 'go-only':
      return [reading.go];
    case 'no-go-only':
      return [reading.noGo];
  }
}

/** Each of some figures is one of the reading's. */
const among = (typed: readonly number[] | null, figures: readonly number[]) =>
  typed !== null && typed.every((figure) => figures.some((each) => Math.abs(figure - each) <= SAME));
