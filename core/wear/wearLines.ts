import type { PartKind } from './characteristics.ts';
import type { Grade } from './grade.ts';
import type { GivenLimit, WearUnit } from './limitKinds.ts';

/** Damage that no figure shows. */
export const DAMAGE = {
  pitting: 'Pitted',
  scuffing: 'Scuffed',
  blue: 'Blued',
  cracked: 'Cracked',
  bent: 'Bent',
  hollow: 'Hollow worn in',
  'air-inlet': 'Air escapes at the inlet',
  'air-exhaust': 'Air escapes at the exhaust',
  'air-crankcase': 'Air escapes into the crankcase',
  'air-neighbour': 'Air escapes into a neighbour',
  'air-coolant': 'Air escapes into the coolant',
  other: 'Something else',
} as const;
export type Damage = keyof typeof DAMAGE;

/** A figure written down: readings of one field at one place, or how it was looked at instead. */
export interface FigureLine {
  readonly kind: 'figure';
  readonly item: string;
  readonly place: string;
  readonly field: string;
  readonly values: readonly number[];
  readonly asTyped: string;
  readonly how: 'measured' | 'gauge-goes' | 'gauge-wont' | 'sound' | 'taken-back';
  /** of the part that was found, or of the one that was fitted in its place */
  readonly set: 'found' | 'fitted';
  readonly doubtKept: boolean;
}

/** Damage seen at a place; gone where it was put right or was none. */
export interface MarkLine {
  readonly kind: 'mark';
  readonly part: PartKind;
  readonly place: string;
  readonly damage: Damage;
  readonly note: string;
  readonly gone: boolean;
}

/** What becomes of a part, as a person decides it. */
export interface FateLine {
  readonly kind: 'fate';
  readonly part: PartKind;
  readonly place: string;
  /** undecided where it is left to what was measured */
  readonly fate: Grade | 'undecided';
  readonly order: 'none' | 'to-order' | 'ordered' | 'in-hand' | 'fitted';
  readonly reason: string;
}

/** A limit that the sheet lacks, given for this build with its source. */
export interface LimitLine extends GivenLimit {
  readonly kind: 'limit';
  readonly unit: WearUnit;
}

/** A line of a wear sheet. */
export type WearLine = FigureLine | MarkLine | FateLine | LimitLine;

/**
 * Names what a line of a wear sheet takes the place of: the same figure of the same place, the same damage, the same part.
 *
 * @example wearKey({ kind: 'figure', set: 'found', item: 'lobe', place: '3E', field: 'height' }) // 'figure found lobe 3E height'
 */
export function wearKey(line: WearLine): string {
  switch (line.kind) {
    case 'figure':
      return `figure ${line.set} ${line.item} ${line.place} ${line.field}`;
    case 'mark':
      return `mark ${line.part} ${line.place} ${line.damage}`;
    case 'fate':
      return `fate ${line.part} ${line.place}`;
    case 'limit':
      return `limit ${line.part} ${line.of} ${line.place}`;
  }
}
