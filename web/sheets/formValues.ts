// Long because every field of the form is named here once, with how it becomes text and how a fresh sheet starts.
import type { SheetBody, SheetFile, SheetRevision, WearLimit } from '@zero-lash/contract/sheets';
import type { WantedPart } from '@zero-lash/core/parts';
import {
  parseLimits,
  rolesOf,
  type AlsoKind,
  type Locking,
  type MarkName,
  type Means,
  type Pattern,
  type PrintedLimits,
  type Role,
} from '@zero-lash/core/sheets';
import type { LengthUnit } from '@zero-lash/core/length';
import { FRESH_STEP, stepsTyped, type StepValues } from './planSteps.ts';
import { writeChart } from '@zero-lash/core/setting';
import { FROM_SOURCE, originsTyped, UNSAID } from './originsTyped.ts';
import { firingSteps } from '@zero-lash/core/turning';

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

/** A spec sheet as it is typed: texts, so that what is wrong stays readable and nothing is lost. */
export interface SheetValues {
  readonly maker: string;
  readonly name: string;
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
  readonly pictures: readonly {
    readonly at: string;
    readonly of: 'mark' | 'cams';
    readonly says: string;
    /** base64, as it is kept */
    readonly file: string;
  }[];
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
  /** heat cycles before it is signed off, and whether the head is torqued again after them */
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

const NO_SECOND: SecondValues = { manual: '', edition: '', page: '', figures: '', whyNot: '' };

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

const typed = (value: number | null | undefined) =>
  value === null || value === undefined ? '' : String(value);

/** Lays a sheet out as it would have been typed: for a new revision, a copy, a draft, or a file read in. */
export function valuesFrom(sheet: SheetRevision | SheetFile): SheetValues {
  const { pattern, source } = sheet;
  const bank = (name: 'A' | 'B') =>
    pattern.cylinders
      .filter((cylinder) => cylinder.bank === name)
      .sort((a, b) => a.place - b.place)
      .map(({ id }) => id)
      .join(' ');
  const firing = [...pattern.cylinders].sort((a, b) => a.firesAt - b.firesAt);
  return {
    maker: sheet.maker,
    name: sheet.name,
    layout: pattern.layout,
    bankAngle: typed(pattern.bankAngle),
    bankA: bank('A'),
    bankB: bank('B'),
    firingOrder: firing.map(({ id }) => id).join('-'),
    firingSteps: firingSteps(firing.map(({ firesAt }) => firesAt)),
    turns: pattern.turns,
    seenFrom: pattern.seenFrom,
    exhaustSide: pattern.exhaustSide,
    ...marksTyped(pattern.marks),
    markNames: (pattern.markNames ?? []).map(markNameTyped).join('\n'),
    signs: (pattern.positionSigns ?? []).map(({ at, ...sign }) => ({ ...sign, at: typed(at) })),
    pictures: (sheet.pictures ?? []).map(({ at, ...picture }) => ({ ...picture, at: typed(at) })),
    camsOutAt: typed(pattern.camsOut?.at),
    camsOutBy: pattern.camsOut?.lockedBy ?? '',
    camsOutFirst: pattern.camsOut?.first ?? '',
    intakes: String(pattern.valves.intake),
    exhausts: String(pattern.valves.exhaust),
    bridgeIntake: pattern.bridges.intake,
    bridgeExhaust: pattern.bridges.exhaust,
    bridgeGuided: pattern.bridgeKind === 'guided',
    closingSide: pattern.closingSide,
    brakes: brakesTyped(pattern.brakes),
    ivoBtdc: typed(pattern.timing.ivoBtdc),
    ivcAbdc: typed(pattern.timing.ivcAbdc),
    evoBbdc: typed(pattern.timing.evoBbdc),
    evcAtdc: typed(pattern.timing.evcAtdc),
    assumed: pattern.timing.assumed,
    margin:
      sheet.origins?.margin?.from === 'assumed' && pattern.margin === USUAL_MARGIN
        ? ''
        : typed(pattern.margin),
    lift: typed(pattern.timing.lift),
    turnsBack: pattern.turnsBack ?? true,
    camDrive: pattern.camDrive ?? 'unsaid',
    camsAbove: pattern.camsAbove ?? 'unsaid',
    coverHoldsCams: pattern.coverHoldsCams ?? false,
    decompressed: pattern.decompressor?.role ?? '',
    decompressorOpens: typed(pattern.decompressor?.opens),
    decompressorCloses: typed(pattern.decompressor?.closes),
    makersStops: (pattern.makersStops ?? [])
      .map(({ angle, points }) => `${angle}: ${points.join(' ')}`)
      .join('\n'),
    makersPairs: (pattern.makersPairs ?? [])
      .map(({ open, points }) => `${open.join(' ')}: ${points.join(' ')}`)
      .join('\n'),
    makersNames: Object.entries(pattern.makersNames ?? {})
      .map(([own, name]) => `${own} ${name}`)
      .join(', '),
    valvesStand: !pattern.valveRow ? 'across' : pattern.valveRow.splayed ? 'splayed' : 'one-row',
    rowA: [...(pattern.valveRow?.A ?? '')].join(' '),
    rowB: [...(pattern.valveRow?.B ?? '')].join(' '),
    means: meansTyped(pattern.means),
    others: Object.entries(pattern.roleMeans).map(([role, means]) => ({
      role: role as Role,
      means: meansTyped(means as Means),
    })),
    condition: sheet.condition,
    tempFrom: sheet.temperature?.asTyped?.from ?? typed(sheet.temperature?.from),
    tempTo: sheet.temperature?.asTyped?.to ?? typed(sheet.temperature?.to),
    unit: 'mm',
    limits: Object.fromEntries(sheet.limits.map((limit) => [limit.role, limitsTyped(limit)])),
    limitsToCome: sheet.limitsToCome,
    system: sheet.system ?? '',
    also: sheet.limits.flatMap(({ role, also = [] }) =>
      also.map((each) => ({ role, kind: each.kind, text: limitsTyped(each) })),
    ),
    allowances: Object.fromEntries(
      sheet.limits.map(({ role, allowance }) => [
        role,
        {
          over: allowance ? (allowance.over === 0 ? '0' : `${allowance.over} mm`) : '',
          why: allowance?.why ?? '',
        },
      ]),
    ),
    wear: sheet.wearLimits.map(({ part, of, place, nominal, limit, min, max, source, asTyped }) => ({
      ...{ part, of, place, source },
      nominal: asTyped?.first ?? typed(min ?? nominal),
      limit: asTyped?.last ?? typed(max ?? limit),
    })),
    torques: sheet.torques.map(({ rows, sequence, ...rest }) => ({
      ...rest,
      rows: rows.join(', '),
      sequence: sequence.join(', '),
    })),
    pieceCharts: (sheet.pieceCharts ?? []).map(({ role, ...chart }) => ({ role, text: writeChart(chart) })),
    assembly: (sheet.assembly ?? []).map(({ text, hold }) => `${hold ? '! ' : ''}${text}`).join('\n'),
    wanted: sheet.wanted.map(({ count, ...rest }) => ({ ...rest, count: String(count) })),
    usageUnit: sheet.usageUnit,
    plan: sheet.recheckPlan.length > 0 ? stepsTyped(sheet.recheckPlan) : [FRESH_STEP],
    origins: originsTyped(sheet.origins),
    heatCycles: sheet.runIn?.heatCycles ? String(sheet.runIn.heatCycles) : '',
    retorque: sheet.runIn?.retorque ?? false,
    manual: source.manual,
    edition: source.edition,
    page: source.page,
    second: sheet.secondSource ?? NO_SECOND,
    notes: sheet.notes,
  };
}

/** A mark's name as a line: `120: 2-5, front, not the dot beside it`. */
const markNameTyped = ({ at, words, from, decoys }: MarkName) =>
  [`${at}: ${words}`, from, decoys && `not ${decoys}`].filter(Boolean).join(', ');

/** A mark of the pulley comes round twice in a cycle; what comes round once is on a wheel of the cam's. */
function marksTyped(marks: readonly number[]) {
  const pulley = marks.filter((mark) => mark < 360 && marks.includes(mark + 360));
  const cam = marks.filter((mark) => !pulley.includes(mark % 360));
  return { marks: pulley.join(' '), camMarks: cam.join(' ') };
}

function brakesTyped(brakes: Pattern['brakes']): SheetValues['brakes'] {
  const groups = new Map<string, { cylinders: string[]; opens: string; closes: string }>();
  for (const { cylinder, opens, closes } of brakes) {
    const key = `${opens} ${closes}`;
    const group = groups.get(key) ?? { cylinders: [], opens: String(opens), closes: String(closes) };
    groups.set(key, { ...group, cylinders: [...group.cylinders, cylinder] });
  }
  return [...groups.values()].map((group) => ({ ...group, cylinders: group.cylinders.join(' ') }));
}

function meansTyped(means: Means): MeansValues {
  const sizes = 'sizes' in means ? means.sizes : null;
  return {
    kind: means.kind,
    end: 'end' in means ? means.end : FRESH_MEANS.end,
    pitch: 'pitch' in means ? (means.asTyped?.pitch ?? typed(means.pitch)) : FRESH_MEANS.pitch,
    rockerRatio:
      means.kind === 'screw' || means.kind === 'pivot-nut'
        ? typed(means.rockerRatio)
        : FRESH_MEANS.rockerRatio,
    fingerRatio: isFinger(means) && 'rockerRatio' in means ? typed(means.rockerRatio) : '',
    gapAt: ('gapAt' in means && means.gapAt) || '',
    locking: 'locking' in means ? means.locking : FRESH_MEANS.locking,
    torqueNm: 'torqueNm' in means ? torqueTyped(means) : '',
    runsAt: 'runsAtNm' in means ? (means.asTyped?.runsAt ?? typed(means.runsAtNm)) : '',
    seat: 'seat' in means ? means.seat : FRESH_MEANS.seat,
    from: sizes ? typed(sizes.from) : FRESH_MEANS.from,
    to: sizes ? typed(sizes.to) : FRESH_MEANS.to,
    step: sizes ? typed(sizes.step) : FRESH_MEANS.step,
    diameter: 'diameter' in means ? typed(means.diameter) : FRESH_MEANS.diameter,
    marking: 'marking' in means ? means.marking : '',
    stampedIn: 'stampedIn' in means ? (means.stampedIn ?? 'mm') : 'mm',
    seatOffset: 'seatOffset' in means ? typed(means.seatOffset) : '',
    turnsBare: means.kind === 'shim' && (means.turnsBare ?? false),
    toolCrank: means.kind === 'shim' ? (means.toolCrank ?? '') : '',
  };
}

/** A lock nut's torque as it was typed, in Nm where that was not kept. */
const torqueTyped = ({
  torqueNm,
  torqueToNm,
  asTyped,
}: Extract<Means, { readonly pitch: unknown }>): string =>
  asTyped?.torque ??
  [torqueNm, torqueToNm].flatMap((each) => (each === null || each === undefined ? [] : [each])).join('–');

const isFinger = (means: Means): boolean =>
  (means.kind === 'shim' && means.seat === 'under-finger') ||
  (means.kind === 'screw' && means.end === 'finger-pivot');

/** The source's own words where they still say the same limits, else the limits. */
function limitsTyped({ min, max, figure = null, asWritten }: PrintedLimits): string {
  const read = parseLimits(asWritten, 'mm');
  const same = !('error' in read) && read.min === min && read.max === max && read.figure === figure;
  if (same) return asWritten;
  return figure === null ? `${min}–${max} mm` : `${figure} mm`;
}

/** The roles a half-typed pattern has: what limits are asked for. */
export const rolesOfPattern = (pattern: Pattern | null): Role[] =>
  pattern ? rolesOf(pattern) : ['intake', 'exhaust'];
