import type { SheetBody } from '@zero-lash/contract/sheets';

type Cylinders = SheetBody['pattern']['cylinders'];
type Pattern = SheetBody['pattern'];

/** Cylinders of one bank, numbered from the front, firing evenly in the order given. */
export function inLine(firingOrder: readonly number[]): Cylinders {
  const between = 720 / firingOrder.length;
  return [...firingOrder]
    .sort((a, b) => a - b)
    .map((number) => ({
      id: String(number),
      bank: 'A',
      place: number,
      firesAt: firingOrder.indexOf(number) * between,
    }));
}

export const PLAIN: Pick<
  Pattern,
  | 'bankAngle'
  | 'turns'
  | 'seenFrom'
  | 'bridges'
  | 'closingSide'
  | 'brakes'
  | 'margin'
  | 'roleMeans'
  | 'turnsBack'
  | 'camDrive'
  | 'decompressor'
  | 'makersStops'
> = {
  bankAngle: null,
  turns: 'clockwise',
  seenFrom: 'front',
  bridges: { intake: false, exhaust: false },
  closingSide: false,
  brakes: [],
  margin: 15,
  roleMeans: {},
  turnsBack: true,
  camDrive: 'unsaid',
  decompressor: null,
  makersStops: [],
};

export const COOL_ROOM = { from: 10, to: 30 };

/** Wear limits and torques that the makers of the valley give for their smaller engines. */
export const WEAR_LIMITS: SheetBody['wearLimits'] = [
  { part: 'lobe-lift', of: 'intake', nominal: 8.2, limit: 8.05, unit: 'mm' },
  { part: 'lobe-lift', of: 'exhaust', nominal: 7.9, limit: 7.75, unit: 'mm' },
  { part: 'stem-guide', of: 'intake', nominal: 0.03, limit: 0.08, unit: 'mm' },
  { part: 'stem-guide', of: 'exhaust', nominal: 0.045, limit: 0.1, unit: 'mm' },
  { part: 'seat-width', of: 'both', nominal: 1.2, limit: 2, unit: 'mm' },
  { part: 'spring-length', of: 'both', nominal: 41.5, limit: 40.2, unit: 'mm' },
];
export const CAP_TORQUES: SheetBody['torques'] = [
  { fastening: 'Cam caps', steps: '8 Nm, then 14 Nm', order: 'from the middle out, crosswise' },
  { fastening: 'Cover bolts', steps: '9 Nm', order: 'crosswise; the two long ones at the front' },
];
