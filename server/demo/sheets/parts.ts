import { FIGURE_KEYS } from '@zero-lash/core/sheets';
import type { SheetBody } from '@zero-lash/contract/sheets';
import { LIMIT_KINDS } from '@zero-lash/core/wear';

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

/** A step of a recheck plan: after so much running or so many days, or before a season. */
export const step = (
  afterUsage: number | null,
  afterDays: number | null,
  more: Partial<SheetBody['recheckPlan'][number]> = {},
): SheetBody['recheckPlan'][number] => ({
  ...{ afterUsage, afterDays, afterCycles: null, before: null, until: null, season: '', points: [] },
  ...more,
});

export const PLAIN = {
  bankAngle: null,
  turns: 'clockwise',
  seenFrom: 'front',
  bridges: { intake: false, exhaust: false },
  closingSide: false,
  brakes: [],
  margin: 15,
  roleMeans: {},
  bridgeKind: 'plain',
  turnsBack: true,
  camDrive: 'unsaid',
  camsAbove: 'unsaid',
  coverHoldsCams: false,
  decompressor: null,
  makersStops: [],
  markNames: [],
  makersPairs: [],
  makersNames: {},
  valveRow: null,
  positionSigns: [],
  camsOut: null,
} satisfies Partial<Pattern>;

const IN_SOURCE = { from: 'source', page: '' } as const;

/** Every figure as it stands in the source that the sheet names. */
export const FROM_SOURCE = Object.fromEntries(
  FIGURE_KEYS.map((key) => [key, IN_SOURCE]),
) as SheetBody['origins'];

/** What a demo sheet says nothing of. */
export const BARE = {
  pictures: [],
  limitsToCome: false,
  system: null,
  origins: FROM_SOURCE,
} satisfies Partial<SheetBody>;

export const COOL_ROOM = { from: 10, to: 30 };

type Limit = SheetBody['wearLimits'][number];

const PRINTED: Pick<Limit, 'place' | 'source' | 'nominal' | 'limit' | 'min' | 'max'> = {
  ...{ place: '', source: '', nominal: null, limit: null, min: null, max: null },
};
/** A limit from a nominal figure; without one where the source gives none. */
const worn = (
  part: Limit['part'],
  nominal: number | null,
  limit: number,
  of: Limit['of'] = 'both',
): Limit => ({ ...PRINTED, part, of, nominal, limit, unit: LIMIT_KINDS[part].unit });
const banded = (part: Limit['part'], min: number, max: number): Limit => ({
  ...PRINTED,
  ...{ part, of: 'both', min, max, unit: LIMIT_KINDS[part].unit },
});

/** Wear limits and torques that the makers of the valley give for their smaller engines. */
export const WEAR_LIMITS: SheetBody['wearLimits'] = [
  worn('compression', null, 9.5),
  worn('compression-spread', null, 12),
  worn('leak-down-watch', null, 10),
  worn('leak-down', null, 20),
  worn('lobe-lift', 8.2, 8.05, 'intake'),
  worn('lobe-lift', 7.9, 7.75, 'exhaust'),
  worn('journal-clearance', 0.04, 0.1),
  worn('journal-ovality', null, 0.02),
  worn('stem-guide', 0.03, 0.08, 'intake'),
  worn('stem-guide', 0.045, 0.1, 'exhaust'),
  worn('valve-margin', 1.2, 0.7),
  banded('seat-width', 1.1, 1.8),
  worn('seat-runout', null, 0.05),
  worn('spring-length', 41.5, 40.2),
  worn('spring-force', null, 165),
  worn('spring-bind', null, 1),
];

/** The same, where the maker lets a tip be ground and screws are to stand out so far. */
export const WITH_TIPS: SheetBody['wearLimits'] = [...WEAR_LIMITS, worn('tip-grinding', null, 0.2)];
export const WITH_SCREWS: SheetBody['wearLimits'] = [
  ...WEAR_LIMITS,
  worn('rocker-bush', 0.02, 0.08),
  worn('rocker-pad', null, 0.1),
  banded('screw-standout', 3, 9),
];
/** A fastening whose bolts the sheet does not draw. */
export const UNSHOWN = { rows: [], sequence: [] };
export const CAP_TORQUES: SheetBody['torques'] = [
  { ...UNSHOWN, fastening: 'Cam caps', steps: '8 Nm, then 14 Nm', order: 'from the middle out, crosswise' },
  { ...UNSHOWN, fastening: 'Cover bolts', steps: '9 Nm', order: 'crosswise; the two long ones at the front' },
];
/** The same, with the head's own bolts as its maker draws and numbers them. */
export const WITH_HEAD: SheetBody['torques'] = [
  ...CAP_TORQUES,
  {
    fastening: 'Head bolts',
    steps: '20 Nm, then 45 Nm, then 90°',
    order: '',
    rows: [5, 5],
    sequence: [8, 3, 2, 7, 9, 4, 1, 6, 10, 5],
  },
];
/** What the maker lists to have at hand. */
export const AT_HAND: SheetBody['wanted'] = [
  { name: 'Cover gasket, two-piece', count: 1, kind: 'seal' },
  { name: 'Head gasket', count: 1, kind: 'seal' },
  { name: 'Stem seals, intake', count: 8, kind: 'seal' },
  { name: 'Stem seals, exhaust', count: 8, kind: 'seal' },
  { name: 'Half-moon plug, rear', count: 1, kind: 'seal' },
  { name: 'Copper washers, 8', count: 4, kind: 'seal' },
  { name: 'Cam pins, 5', count: 2, kind: 'tool' },
];
