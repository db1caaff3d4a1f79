import { gearParts } from './trainPlaces.ts';
import { meansFor, rolesOf } from './lashPoints.ts';
import type { Means, Pattern } from './pattern.ts';

/** Where a figure of a sheet is from: printed in its source, taken by whoever wrote the sheet, or a rule of the shop's. */
export type Origin = 'source' | 'assumed' | 'shop';

/** Every figure, or figures that are printed together, that say where they are from. */
export const FIGURE_KEYS = [
  'timing',
  'margin',
  'marks',
  'pitch',
  'rocker-ratio',
  'sizes',
  'diameter',
  'lock-torque',
  'limits',
  'temperature',
  'wear-limits',
  'torques',
  'plan',
  'heat-cycles',
] as const;

export type FigureKey = (typeof FIGURE_KEYS)[number];

/** Where a figure is from, and on which page; the sheet's own page where none is named. */
export interface FigureOrigin {
  readonly from: Origin;
  readonly page: string;
}

/** What a sheet says of where its figures are from; of what is not there nobody said it. */
export type FigureOrigins = Partial<Readonly<Record<FigureKey, FigureOrigin>>>;

/** A sheet as far as its figures go. */
export interface SheetFigures {
  readonly pattern: Pattern;
  readonly limits: readonly { readonly role: string }[];
  readonly temperature: object | null;
  readonly wearLimits: readonly unknown[];
  readonly torques: readonly unknown[];
  readonly recheckPlan: readonly unknown[];
  readonly runIn?: { readonly heatCycles: number };
  readonly origins?: FigureOrigins;
}

/** Whether a sheet has a figure; `none` where an engine like this has no such figure, or needs none. */
type There = 'known' | 'unknown' | 'none';

interface Figure {
  readonly key: FigureKey;
  readonly title: string;
  readonly there: (sheet: SheetFigures) => There;
  /** what cannot be said where it is not known; empty where nothing hangs on it */
  readonly without: string;
}

const ways = ({ pattern }: SheetFigures): readonly Means[] =>
  rolesOf(pattern).map((role) => meansFor(pattern, role));

/** Whether a figure of the means of setting is known in every role that has it. */
const ofMeans =
  (read: (means: Means) => unknown) =>
  (sheet: SheetFigures): There => {
    const figures = ways(sheet)
      .map(read)
      .filter((figure) => figure !== undefined);
    if (figures.length === 0) return 'none';
    return figures.includes(null) ? 'unknown' : 'known';
  };

const known = (there: boolean, other: There): There => (there ? 'known' : other);

/** Every figure that says where it is from, in the order they stand on a sheet. */
const FIGURES: readonly Figure[] = [
  {
    key: 'timing',
    title: 'Valve timing',
    there: ({ pattern }) => known(!pattern.timing.assumed, 'unknown'),
    without:
      'a cautious default keeps clear of every usual cam, and it is turned from firing to firing, which needs none',
  },
  {
    key: 'margin',
    title: 'Margin kept from the ramps',
    there: () => 'known',
    without: '',
  },
  {
    key: 'marks',
    title: 'Marks',
    there: ({ pattern }) => known(pattern.marks.length > 0, 'none'),
    without: '',
  },
  {
    key: 'pitch',
    title: 'Thread',
    // an eccentric has none
    there: ofMeans((means) =>
      'pitch' in means && !(means.kind === 'screw' && means.end === 'eccentric') ? means.pitch : undefined,
    ),
    without: 'no angle is given: it is set by the blade',
  },
  {
    key: 'rocker-ratio',
    title: 'Rocker ratio',
    there: ofMeans((means) => ('rockerRatio' in means ? means.rockerRatio : undefined)),
    without: 'what hangs on it is not worked out: turns at a pushrod or pivot, and what cutting a seat does',
  },
  {
    key: 'sizes',
    title: 'Sizes of pieces',
    there: ofMeans((means) => ('sizes' in means ? means.sizes : undefined)),
    without: 'no piece is named: only the thickness it would take',
  },
  {
    key: 'diameter',
    title: 'Diameter of shims',
    there: ofMeans((means) => (means.kind === 'shim' ? means.diameter : undefined)),
    without: 'pieces are not told apart by it: measure one before any is ordered',
  },
  {
    key: 'lock-torque',
    title: 'Torque of what locks it',
    there: ofMeans((means) =>
      'torqueNm' in means && means.locking !== 'self-locking' ? means.torqueNm : undefined,
    ),
    without: 'it is locked as the manual says, and nothing is held against a figure',
  },
  {
    key: 'limits',
    title: 'Limits',
    there: ({ pattern, limits }) =>
      known(
        rolesOf(pattern).every((role) => limits.some((each) => each.role === role)),
        'unknown',
      ),
    without: 'gaps are read and written down, and nothing is judged, set or signed before its book is here',
  },
  {
    key: 'temperature',
    title: 'Temperature it is measured at',
    there: ({ temperature }) => known(temperature !== null, 'unknown'),
    without: 'no temperature is asked about: cold is an engine that stood overnight',
  },
  {
    key: 'wear-limits',
    title: 'Wear limits',
    there: ({ wearLimits }) => known(wearLimits.length > 0, 'unknown'),
    without: 'what is measured of wear is written down and not judged',
  },
  {
    key: 'torques',
    title: 'Torques',
    there: ({ torques }) => known(torques.length > 0, 'unknown'),
    without: 'nothing is tightened pass by pass here: take them from the manual',
  },
  {
    key: 'plan',
    title: 'Recheck plan',
    there: ({ recheckPlan }) => known(recheckPlan.length > 0, 'unknown'),
    without: 'no recheck is planned by itself: a lead plans one at sign-off',
  },
  {
    key: 'heat-cycles',
    title: 'Heat cycles before it is signed off',
    there: ({ runIn }) => known((runIn?.heatCycles ?? 0) > 0, 'none'),
    without: '',
  },
];

/** A figure that a sheet has, and where it is from: null where nobody said. */
export interface SaidOrigin {
  readonly key: FigureKey;
  readonly title: string;
  readonly origin: FigureOrigin | null;
}

/**
 * Lists the figures a sheet has, each with where it is from. Of a sheet that was written before this was asked, nobody said.
 *
 * @example originsOf({ ...sheet, origins: { limits: { from: 'source', page: '12' } } }).find(({ key }) => key === 'limits')?.origin?.page // '12'
 */
export function originsOf(sheet: SheetFigures): readonly SaidOrigin[] {
  return FIGURES.filter(({ there }) => there(sheet) === 'known').map(({ key, title }) => ({
    ...{ key, title },
    origin: sheet.origins?.[key] ?? null,
  }));
}

/** A figure that a sheet does not have, and what cannot be said for want of it. */
export interface Unknown {
  readonly key: FigureKey | 'cams';
  readonly title: string;
  readonly without: string;
}

/**
 * Lists what a sheet does not know that an engine like this has, with what then cannot be said: it is named before the sheet is published,
 * and where a build begins.
 *
 * @example unknownsOf({ ...sheet, temperature: null }).map(({ key }) => key).includes('temperature') // true
 */
export function unknownsOf(sheet: SheetFigures): readonly Unknown[] {
  const { camsAbove = 'unsaid' } = sheet.pattern;
  return [
    ...FIGURES.filter(({ there }) => there(sheet) === 'unknown').map(({ key, title, without }) => ({
      ...{ key, title, without },
    })),
    ...(camsAbove === 'unsaid' && gearParts(sheet.pattern).camIn === 'head'
      ? [
          {
            key: 'cams' as const,
            title: 'Cams above each head',
            without:
              'lobes, journals and caps are listed by a guess, and one cam is taken to work a whole head',
          },
        ]
      : []),
  ];
}

const WORDS: Readonly<Record<Origin, string>> = {
  source: 'the source',
  assumed: 'assumed by us',
  shop: 'the shop’s',
};

/**
 * Says where a figure is from, in a few words.
 *
 * @example originInWords({ from: 'source', page: '12' }) // 'the source, page 12'
 */
export function originInWords(origin: FigureOrigin | null): string {
  if (origin === null) return 'origin unsaid';
  return `${WORDS[origin.from]}${origin.from === 'source' && origin.page !== '' ? `, page ${origin.page}` : ''}`;
}
