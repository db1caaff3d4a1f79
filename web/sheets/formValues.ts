// Long because every field of the form is named here once, with how it becomes text and how a fresh sheet starts.
import type { SheetBody, WearLimit } from '@zero-lash/contract/sheets';
import type { WantedPart } from '@zero-lash/core/parts';
import {
  rolesOf,
  type AlsoKind,
  type Locking,
  type Means,
  type Pattern,
  type Role,
  FIGURE_KEYS,
  type FigureKey,
  type Origin,
} from '@zero-lash/core/sheets';
import type { LengthUnit } from '@zero-lash/core/length';
import { FRESH_STEP, type StepValues } from './planSteps.ts';

/** A means of setting as it is typed. */
export interface MeansValues {
  readonly kind: Means['kind'];
  readonly end: 'valve' | 'pushrod' | 'finger-pivot' | 'eccentric';
  readonly pitch: string;
  readonly rockerRatio: string;
  /** of a finger: its ratio, and where its gap is taken; both are said by the source, and nothing stands there before */
  readonly fingerRatio: string;
  readonly gapAt: '' | 'valve' | 'cam';
  readonly locking: Locking;
  readonly torqueNm: string;
  /** the least that what holds by its own grip turns with */
  readonly runsAt: string;
  readonly seat: 'on-bucket' | 'under-bucket' | 'under-finger';
  readonly from: string;
  readonly to: string;
  readonly step: string;
  readonly diameter: string;
  readonly marking: string;
  readonly stampedIn: 'mm' | 'in';
  readonly seatOffset: string;
  /** of shims under buckets: the maker allows it to be turned with nothing in */
  readonly turnsBare: boolean;
  /** of shims on buckets: where the sheet puts the crank before the tool goes in */
  readonly toolCrank: string;
}

/** Where a figure is from as it is typed; nothing where nobody says. */
export interface OriginValues {
  readonly from: '' | Origin;
  readonly page: string;
}

export type OriginsTyped = Readonly<Record<FigureKey, OriginValues>>;

/** The same for every figure. */
export const everyOrigin = (of: (key: FigureKey) => OriginValues): OriginsTyped =>
  Object.fromEntries(FIGURE_KEYS.map((key) => [key, of(key)])) as OriginsTyped;

/** A new sheet is typed from the source that it names, until somebody says otherwise. */
export const FROM_SOURCE = everyOrigin(() => ({ from: 'source', page: '' }));

/** Of a sheet from before this was asked, nobody said. */
export const UNSAID = everyOrigin(() => ({ from: '', page: '' }));

/** An engine's pattern as it is typed. */
export interface PatternValues {
  readonly layout: Pattern['layout'];
  readonly bankAngle: string;
  /** the names of a bank's cylinders, from the front */
  readonly bankA: string;
  readonly bankB: string;
  readonly firingOrder: string;
  readonly firingSteps: string;
  readonly turns: Pattern['turns'];
  readonly seenFrom: Pattern['seenFrom'];
  readonly exhaustSide: Pattern['exhaustSide'];
  /** degrees of one turn, on the pulley or flywheel: each comes round twice */
  readonly marks: string;
  /** degrees over two turns, on a wheel that turns with the cam: each comes round once */
  readonly camMarks: string;
  /** what marks are called, one a line: `120: 2-5, front, not the dot beside it` */
  readonly markNames: string;
  /** what is seen at a position besides its mark */
  readonly signs: readonly { readonly at: string; readonly cams: string; readonly rotor: string }[];
  /** where the crank stands while cams come out, what locks it, and what comes first */
  readonly camsOutAt: string;
  readonly camsOutBy: string;
  readonly camsOutFirst: string;
  readonly intakes: string;
  readonly exhausts: string;
  readonly bridgeIntake: boolean;
  readonly bridgeExhaust: boolean;
  readonly bridgeGuided: boolean;
  readonly closingSide: boolean;
  readonly brakes: readonly { readonly cylinders: string; readonly opens: string; readonly closes: string }[];
  readonly ivoBtdc: string;
  readonly ivcAbdc: string;
  readonly evoBbdc: string;
  readonly evcAtdc: string;
  readonly assumed: boolean;
  readonly margin: string;
  readonly lift: string;
  readonly turnsBack: boolean;
  readonly camDrive: NonNullable<Pattern['camDrive']>;
  readonly camsAbove: NonNullable<Pattern['camsAbove']>;
  readonly coverHoldsCams: boolean;
  /** how it stands before it is measured or opened */
  readonly coldHours: string;
  readonly hotMinutes: string;
  readonly barred: boolean;
  readonly noSpark: boolean;
  readonly doorsMinutes: string;
  /** what comes off for access, with commas between */
  readonly access: string;
  readonly decompressed: '' | 'intake' | 'exhaust';
  readonly decompressorOpens: string;
  readonly decompressorCloses: string;
  /** the maker's own table, a position a line: `0: 1I 1E` */
  readonly makersStops: string;
  /** its table of pairs, a row a line: `5E: 2E 2I` */
  readonly makersPairs: string;
  /** what it calls them: `1E 12`, with commas between; or a head's row from the front, `A: 1 2 3 4` */
  readonly makersNames: string;
  readonly valvesStand: 'across' | 'one-row' | 'splayed';
  /** along each head that has them in one row, a letter a valve from the front: `E I I E` */
  readonly rowA: string;
  readonly rowB: string;
  readonly means: MeansValues;
  readonly others: readonly { readonly role: Role; readonly means: MeansValues }[];
}

/** A spec sheet as it is typed: texts, so that what is wrong stays readable and nothing is lost. */
export interface SheetValues extends PatternValues {
  readonly maker: string;
  readonly name: string;
  readonly pictures: readonly {
    readonly at: string;
    readonly of: 'mark' | 'cams';
    readonly says: string;
    /** base64, as it is kept */
    readonly file: string;
  }[];
  readonly condition: SheetBody['condition'];
  readonly tempFrom: string;
  readonly tempTo: string;
  readonly unit: LengthUnit;
  readonly limits: Readonly<Partial<Record<Role, string>>>;
  /** the book that has them is not here yet */
  readonly limitsToCome: boolean;
  /** what pressures, torques and temperatures are shown in; empty where that is the shop's */
  readonly system: '' | 'metric' | 'inch';
  /** what else is printed for a role, each as it is printed */
  readonly also: readonly { readonly role: Role; readonly kind: AlsoKind; readonly text: string }[];
  /** what is taken over the greatest in a role, and why */
  readonly allowances: Readonly<Partial<Record<Role, { readonly over: string; readonly why: string }>>>;
  readonly wear: readonly {
    readonly part: WearLimit['part'];
    readonly of: WearLimit['of'];
    readonly place: string;
    /** new, or the least of a band */
    readonly nominal: string;
    /** the limit, or the greatest of a band */
    readonly limit: string;
    readonly source: string;
  }[];
  readonly torques: readonly {
    readonly fastening: string;
    readonly steps: string;
    readonly order: string;
    /** bolts in each row, and the maker's order of them, as numbers with commas */
    readonly rows: string;
    readonly sequence: string;
  }[];
  /** the maker's charts of pieces, as they are typed */
  readonly pieceCharts: readonly { readonly role: Role; readonly text: string }[];
  /** how it is put together, a step a line; one that may not be skipped begins with ! */
  readonly assembly: string;
  readonly wanted: readonly {
    readonly name: string;
    readonly count: string;
    readonly kind: WantedPart['kind'];
  }[];
  readonly usageUnit: SheetBody['usageUnit'];
  readonly plan: readonly StepValues[];
  /** where each figure is from */
  readonly origins: typeof FROM_SOURCE;
  /** heat cycles before it is signed off, and whether the head is tightened again after them */
  readonly heatCycles: string;
  readonly retorque: boolean;
  readonly manual: string;
  readonly edition: string;
  readonly page: string;
  /** a source beside the first; nothing is there where its manual is not named */
  readonly second: SecondValues;
  readonly notes: string;
}

/** A second source as it is typed. */
interface SecondValues {
  readonly manual: string;
  readonly edition: string;
  readonly page: string;
  readonly figures: string;
  readonly whyNot: string;
}

export const NO_SECOND: SecondValues = { manual: '', edition: '', page: '', figures: '', whyNot: '' };

/** Degrees kept clear of the ramps where a source says nothing of it. */
export const USUAL_MARGIN = 15;

/** Valve timing where a source gives none: long enough that nothing is measured on a ramp. */
export const CAUTIOUS_TIMING = { ivoBtdc: 30, ivcAbdc: 70, evoBbdc: 70, evcAtdc: 30 } as const;

export const FRESH_MEANS: MeansValues = {
  kind: 'screw',
  end: 'valve',
  pitch: '',
  rockerRatio: '',
  fingerRatio: '',
  gapAt: '',
  locking: 'lock-nut',
  torqueNm: '',
  runsAt: '',
  seat: 'under-bucket',
  from: '',
  to: '',
  step: '',
  diameter: '',
  marking: '',
  stampedIn: 'mm',
  seatOffset: '',
  turnsBare: false,
  toolCrank: '',
};

/** The cylinders a layout most often has, which stand in the form until others are typed. */
export const USUAL_CYLINDERS: Readonly<Record<SheetValues['layout'], Pick<SheetValues, 'bankA' | 'bankB'>>> =
  {
    single: { bankA: '1', bankB: '' },
    inline: { bankA: '1 2 3 4', bankB: '' },
    v: { bankA: '1 3', bankB: '2 4' },
    flat: { bankA: '1 3', bankB: '2 4' },
  };

/** What a new sheet starts from: an in-line four, the commonest there is. */
export const FRESH_SHEET: SheetValues = {
  maker: '',
  name: '',
  layout: 'inline',
  bankAngle: '',
  ...USUAL_CYLINDERS.inline,
  firingOrder: '',
  firingSteps: '',
  turns: 'clockwise',
  seenFrom: 'front',
  exhaustSide: 'left',
  marks: '',
  camMarks: '',
  markNames: '',
  signs: [],
  pictures: [],
  camsOutAt: '',
  camsOutBy: '',
  camsOutFirst: '',
  intakes: '1',
  exhausts: '1',
  bridgeIntake: false,
  bridgeExhaust: false,
  bridgeGuided: false,
  closingSide: false,
  brakes: [],
  ivoBtdc: '',
  ivcAbdc: '',
  evoBbdc: '',
  evcAtdc: '',
  assumed: false,
  margin: '',
  lift: '',
  turnsBack: true,
  camDrive: 'unsaid',
  camsAbove: 'unsaid',
  coverHoldsCams: false,
  coldHours: '',
  hotMinutes: '',
  barred: false,
  noSpark: false,
  doorsMinutes: '',
  access: '',
  decompressed: '',
  decompressorOpens: '',
  decompressorCloses: '',
  makersStops: '',
  makersPairs: '',
  makersNames: '',
  valvesStand: 'across',
  rowA: '',
  rowB: '',
  means: FRESH_MEANS,
  others: [],
  condition: 'cold',
  tempFrom: '',
  tempTo: '',
  unit: 'mm',
  limits: {},
  limitsToCome: false,
  system: '',
  also: [],
  allowances: {},
  wear: [],
  torques: [],
  pieceCharts: [],
  assembly: '',
  wanted: [],
  usageUnit: 'hours',
  plan: [FRESH_STEP],
  origins: FROM_SOURCE,
  heatCycles: '',
  retorque: false,
  manual: '',
  edition: '',
  page: '',
  second: NO_SECOND,
  notes: '',
};

/** A form as it was kept on this device, be it by an older version that had not every field yet. */
export function valuesKept(text: string): SheetValues {
  const kept = JSON.parse(text) as Partial<SheetValues>;
  return {
    ...FRESH_SHEET,
    origins: UNSAID,
    ...kept,
    means: { ...FRESH_MEANS, ...kept.means },
    others: (kept.others ?? []).map((other) => ({ ...other, means: { ...FRESH_MEANS, ...other.means } })),
  };
}

/** The roles a half-typed pattern has: what limits are asked for. */
export const rolesOfPattern = (pattern: Pattern | null): Role[] =>
  pattern ? rolesOf(pattern) : ['intake', 'exhaust'];
