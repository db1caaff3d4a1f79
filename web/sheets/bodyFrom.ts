// Long because each field's own sentence for what is wrong with it stands here.
import { sheetBody, type SheetBody, type WearLimit } from '@zero-lash/contract/sheets';
import {
  printedFrom,
  rolesOf,
  ROLE_WORDS,
  singleBandComplaint,
  type LimitsError,
  type MarkName,
  type Means,
  type Pattern,
  type Role,
  type SingleRule,
} from '@zero-lash/core/sheets';
import { parseTorqueSteps } from '@zero-lash/core/assembly';
import {
  parseFigure,
  parseLength,
  parsePitch,
  type FigureUnit,
  type LengthUnit,
} from '@zero-lash/core/length';
import { readChart } from '@zero-lash/core/setting';
import { LIMIT_KINDS } from '@zero-lash/core/wear';
import { firingAngles, inCycle, parseFiringOrder } from '@zero-lash/core/turning';
import { numberTyped } from '@zero-lash/core/length';
import { sentence } from '../app/sentence.ts';
import { readSteps } from './planSteps.ts';
import { CAUTIOUS_TIMING, type MeansValues, type SheetValues } from './formValues.ts';

/** What is wrong with the form: a sentence by the field's path. */
export type FormErrors = Readonly<Record<string, string>>;

/** A form understood, or what is wrong with it. The pattern stands alone too, for the drawings, once it holds. */
export interface ReadForm {
  readonly pattern: Pattern | null;
  readonly body: SheetBody | null;
  readonly errors: FormErrors;
}

/**
 * Reads a form as it is typed. Everything wrong is said at once, each where it stands.
 *
 * @param rule the shop's band round one figure; null where it has none
 */
export function readForm(values: SheetValues, rule: SingleRule | null = null): ReadForm {
  const errors: Record<string, string> = {};
  const pattern = readPattern(values, errors);
  const roles = pattern ? rolesOf(pattern) : (Object.keys(values.limits) as Role[]);
  const limits = readLimits(values, roles, rule, errors);
  for (const field of ['maker', 'name', 'manual'] as const)
    if (values[field].trim() === '') errors[field] = 'This cannot stay empty.';
  const draft = {
    pattern,
    condition: values.condition,
    temperature: readTemperature(values, errors),
    limits,
    wearLimits: values.wear.map((row, index) => wearLimitOf(row, index, errors)),
    torques: values.torques.map((torque, index) => ({
      ...torque,
      rows: wholes(torque.rows, `torques.${index}.rows`, errors),
      sequence: wholes(torque.sequence, `torques.${index}.sequence`, errors),
    })),
    pieceCharts: values.pieceCharts.flatMap(({ role, text }, index) => {
      if (text.trim() === '') return [];
      const chart = readChart(text);
      if ('error' in chart) errors[`pieceCharts.${index}.text`] = chart.error;
      return 'error' in chart ? [] : [{ role, ...chart, installed: [...chart.installed] }];
    }),
    assembly: values.assembly
      .split('\n')
      .map((text) => text.trim())
      .filter(Boolean)
      .map((text) => ({ text: text.replace(/^!\s*/, ''), hold: text.startsWith('!') })),
    wanted: values.wanted.map(({ name, count, kind }, index) => ({
      name,
      kind,
      count: wholes(count, `wanted.${index}.count`, errors)[0] ?? 1,
    })),
    usageUnit: values.usageUnit,
    recheckPlan: readSteps(values.plan, errors),
    runIn: { heatCycles: optional(values.heatCycles, 'heatCycles', errors) ?? 0, retorque: values.retorque },
    source: { manual: values.manual, edition: values.edition, page: values.page },
    secondSource: readSecond(values, errors),
    notes: values.notes,
  };
  if (!pattern) return { pattern, body: null, errors };
  const checked = sheetBody.safeParse(draft);
  if (checked.success && Object.keys(errors).length === 0) return { pattern, body: checked.data, errors };
  for (const { path, message } of checked.error?.issues ?? []) {
    const field = fieldOf(path.map(String), values, limits);
    // limits that were not understood are not there, and have their own sentences
    if (field !== 'limits') errors[field] ??= sentence(message);
  }
  return { pattern, body: null, errors };
}

/** The form's field for a path of the sheet. */
function fieldOf(path: readonly string[], values: SheetValues, limits: SheetBody['limits']): string {
  const [first = '', second = '', third = '', ...rest] = path;
  if (first === 'limits' && second !== '') {
    const role = limits[Number(second)]?.role;
    if (third !== 'also') return `limits.${role}`;
    const kind = limits[Number(second)]?.also[Number(rest[0])]?.kind;
    return `also.${values.also.findIndex((each) => each.role === role && each.kind === kind)}.text`;
  }
  if (first === 'secondSource') return `second.${second || 'manual'}`;
  if (first === 'pattern') {
    if (second === 'timing') return third || 'ivoBtdc';
    if (second === 'decompressor') return third === 'opens' ? 'decompressorOpens' : 'decompressorCloses';
    if (second === 'means') return ['means', third === 'sizes' ? (rest[0] ?? 'from') : third].join('.');
    if (second === 'roleMeans') {
      const index = values.others.findIndex(({ role }) => role === third);
      return `others.${index}.means.${rest[0] === 'sizes' ? (rest[1] ?? 'from') : rest[0]}`;
    }
    if (second === 'cylinders') return 'bankA';
    if (second === 'markNames') return 'markNames';
    if (second === 'brakes') return `brakes.0.${rest[0] ?? 'closes'}`;
    return second;
  }
  if (first === 'recheckPlan') return `plan.${second || 0}.${third || 'afterUsage'}`;
  if (first === 'wearLimits')
    return `wear.${second}.${third === 'min' ? 'nominal' : third === 'max' ? 'limit' : third || 'limit'}`;
  if (first === 'pieceCharts') return `pieceCharts.${second}.text`;
  if (first === 'torques') return `torques.${second}.${third || 'fastening'}`;
  if (first === 'wanted') return `wanted.${second}.${third || 'name'}`;
  if (first === 'assembly') return 'assembly';
  if (first === 'runIn') return 'heatCycles';
  if (first === 'source') return second;
  if (first === 'temperature') return 'tempTo';
  return first;
}

/** Whole numbers with commas or spaces between; what is none is said. */
function wholes(text: string, field: string, errors: Record<string, string>): number[] {
  const pieces = text.split(/[\s,;–-]+/).filter(Boolean);
  if (pieces.some((piece) => !/^\d{1,3}$/.test(piece))) {
    errors[field] = 'Whole numbers with commas between, such as 5, 5.';
    return [];
  }
  return pieces.map(Number);
}

/** A row of the form as the limit it means: of what has a band, its two figures are the least and the greatest. */
function wearLimitOf(
  { part, of, place, nominal, limit, source }: SheetValues['wear'][number],
  index: number,
  errors: Record<string, string>,
): WearLimit {
  const { unit, form } = LIMIT_KINDS[part];
  const named = { part, of, place, source, unit };
  const band = form === 'band';
  const read = (text: string, field: string, needed: boolean) => {
    if (text.trim() === '') {
      if (needed) errors[`wear.${index}.${field}`] = 'A number is missing here.';
      return null;
    }
    return figureIn(text, unit, `wear.${index}.${field}`, errors);
  };
  const first = read(nominal, 'nominal', band);
  const last = read(limit, 'limit', true);
  const ends = band
    ? { nominal: null, limit: null, min: first, max: last }
    : { nominal: form === 'from-nominal' ? first : null, limit: last, min: null, max: null };
  const asTyped = {
    ...(SAYS_UNIT.test(nominal) ? { first: nominal.trim() } : {}),
    ...(SAYS_UNIT.test(limit) ? { last: limit.trim() } : {}),
  };
  return { ...named, ...ends, ...(Object.keys(asTyped).length > 0 ? { asTyped } : {}) };
}

/** A figure that says its unit is kept as it was typed, beside what it comes to. */
const SAYS_UNIT = /[a-z°"%]/i;

/** A figure in whichever unit it is typed; a sentence at its field where it is none. */
function figureIn(
  text: string,
  unit: FigureUnit,
  field: string,
  errors: Record<string, string>,
): number | null {
  const read = parseFigure(text, unit);
  if ('error' in read) errors[field] = sentence(read.error);
  return 'error' in read ? null : read.value;
}

function required(text: string, field: string, errors: Record<string, string>): number {
  const value = numberTyped(text);
  if (Number.isNaN(value))
    errors[field] = text.trim() === '' ? 'A number is missing here.' : `“${text}” is not a number.`;
  return value;
}

function optional(text: string, field: string, errors: Record<string, string>): number | null {
  return text.trim() === '' ? null : required(text, field, errors);
}

function numbers(text: string, field: string, errors: Record<string, string>): number[] {
  const parts = text.split(/[\s;°]+|,\s+/).filter(Boolean);
  return parts.map((part) => required(part, field, errors));
}

function readPattern(values: SheetValues, errors: Record<string, string>): Pattern | null {
  const before = Object.keys(errors).length;
  const names = (text: string) =>
    text
      .toUpperCase()
      .split(/[\s,;-]+/)
      .filter(Boolean);
  const twoBanks = values.layout === 'v' || values.layout === 'flat';
  const banks = { A: names(values.bankA), B: twoBanks ? names(values.bankB) : [] };
  const all = [...banks.A, ...banks.B];
  if (banks.A.length === 0) errors.bankA = 'Name the cylinders from the front, such as 1 2 3 4.';
  if (twoBanks && banks.B.length === 0) errors.bankB = 'Name this bank’s cylinders from the front.';
  const strange = all.find((name) => !/^[A-Z]?\d{1,2}$/.test(name));
  if (strange)
    errors.bankA = `“${strange}” is not a cylinder’s name: use a number, or a letter and a number.`;
  const twice = all.find((name, index) => all.indexOf(name) !== index);
  if (twice) errors.bankA = `Cylinder ${twice} is there twice.`;
  if (all.length > 12) errors.bankA = 'No more than twelve cylinders.';

  const single = values.layout === 'single';
  if (single && all.length > 1) errors.bankA = 'A single has one cylinder.';
  const firing = single ? all.slice(0, 1) : all;
  const order = parseFiringOrder(firing.length === 1 ? firing[0]! : values.firingOrder, firing);
  if ('error' in order) errors.firingOrder = order.error;
  const angles = firingAngles(single ? '' : values.firingSteps, firing.length);
  if ('error' in angles) errors.firingSteps = angles.error;

  const cautious = values.assumed;
  const timing = {
    ivoBtdc: cautious ? CAUTIOUS_TIMING.ivoBtdc : required(values.ivoBtdc, 'ivoBtdc', errors),
    ivcAbdc: cautious ? CAUTIOUS_TIMING.ivcAbdc : required(values.ivcAbdc, 'ivcAbdc', errors),
    evoBbdc: cautious ? CAUTIOUS_TIMING.evoBbdc : required(values.evoBbdc, 'evoBbdc', errors),
    evcAtdc: cautious ? CAUTIOUS_TIMING.evcAtdc : required(values.evcAtdc, 'evcAtdc', errors),
    assumed: cautious,
    lift: cautious ? null : optional(values.lift, 'lift', errors),
  };
  const pulley = numbers(values.marks, 'marks', errors);
  if (pulley.some((mark) => mark < 0 || mark >= 360))
    errors.marks = 'A mark of the pulley lies from 0° to under 360°.';
  const cam = numbers(values.camMarks, 'camMarks', errors);
  const brakes = values.brakes.flatMap(({ cylinders, opens, closes }, index) =>
    names(cylinders).map((cylinder) => {
      if (!all.includes(cylinder)) errors[`brakes.${index}.cylinders`] = `There is no cylinder ${cylinder}.`;
      return {
        cylinder,
        opens: required(opens, `brakes.${index}.opens`, errors),
        closes: required(closes, `brakes.${index}.closes`, errors),
      };
    }),
  );
  const margin = required(values.margin, 'margin', errors);
  const decompressor = values.decompressed
    ? {
        role: values.decompressed,
        opens: required(values.decompressorOpens, 'decompressorOpens', errors),
        closes: required(values.decompressorCloses, 'decompressorCloses', errors),
      }
    : null;
  const makersStops = readTable(values.makersStops, errors);
  const bankAngle = values.layout === 'v' ? required(values.bankAngle, 'bankAngle', errors) : null;
  const means = readMeans(values.means, 'means', errors);
  const roleMeans = Object.fromEntries(
    values.others.map(({ role, means: other }, index) => [
      role,
      readMeans(other, `others.${index}.means`, errors),
    ]),
  );
  if (Object.keys(errors).length > before || 'error' in order || 'error' in angles) return null;
  const firesAt = new Map(order.order.map((id, index) => [id, angles.angles[index]!]));
  return {
    layout: values.layout,
    bankAngle,
    cylinders: (['A', 'B'] as const).flatMap((bank) =>
      banks[bank].map((id, index) => ({ id, bank, place: index + 1, firesAt: firesAt.get(id)! })),
    ),
    turns: values.turns,
    seenFrom: values.seenFrom,
    valves: { intake: Number(values.intakes), exhaust: Number(values.exhausts) },
    bridges: { intake: values.bridgeIntake, exhaust: values.bridgeExhaust },
    bridgeKind: values.bridgeGuided ? 'guided' : 'plain',
    closingSide: values.closingSide,
    brakes,
    exhaustSide: values.exhaustSide,
    timing,
    margin,
    turnsBack: values.turnsBack,
    camDrive: values.camDrive,
    camsAbove: values.camsAbove,
    coverHoldsCams: values.coverHoldsCams,
    decompressor,
    makersStops,
    markNames: readMarkNames(values, errors),
    marks: [...new Set([...pulley, ...pulley.map((mark) => mark + 360), ...cam.map(inCycle)])].sort(
      (a, b) => a - b,
    ),
    means,
    roleMeans,
  };
}

/** Reads a maker's table as it is typed: a position a line, its degrees, a colon, and the points measured there. */
function readTable(text: string, errors: Record<string, string>): NonNullable<Pattern['makersStops']> {
  return text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)
    .flatMap((line) => {
      const [place = '', ...rest] = line.split(':');
      const angle = numberTyped(place.replace('°', '').trim());
      const points = rest
        .join(' ')
        .split(/[\s,;]+/)
        .filter(Boolean);
      if (Number.isNaN(angle) || points.length === 0) {
        errors.makersStops ??= `“${line}” is not understood: degrees, a colon, then points, such as 0: 1I 1E.`;
        return [];
      }
      return [{ angle, points }];
    });
}

const MARK_NAME =
  /^(\d+(?:[.,]\d+)?)\s*°?\s*:\s*(.+?)(?:\s*,\s*(front|flywheel|left|right))?(?:\s*,\s*not\s+(.+))?$/i;

/** What marks are called, one a line. */
function readMarkNames({ markNames }: SheetValues, errors: Record<string, string>): MarkName[] {
  return markNames
    .split('\n')
    .map((text) => text.trim())
    .filter(Boolean)
    .flatMap((text) => {
      const [, at, words, from, decoys = ''] = MARK_NAME.exec(text) ?? [];
      if (at === undefined || words === undefined) {
        errors.markNames ??= `“${text}” is not understood: degrees, a colon, what it says, such as 120: 2-5, front.`;
        return [];
      }
      return [
        { at: numberTyped(at), words, from: (from?.toLowerCase() ?? null) as MarkName['from'], decoys },
      ];
    });
}

/** A thread's pitch, mm; null where nothing is typed: it is not known. */
function readPitch(text: string, field: string, errors: Record<string, string>): number | null {
  if (text === '') return null;
  const read = parsePitch(text);
  if ('error' in read) errors[field] = sentence(read.error);
  return 'error' in read ? null : read.mm;
}

/** A lock nut's torque, or its range, in Nm: a bare figure is in Nm; null where nothing is typed. */
function readLockTorque(
  text: string,
  field: string,
  errors: Record<string, string>,
): { readonly torqueNm: number | null; readonly torqueToNm?: number } {
  if (text === '') return { torqueNm: null };
  const read = parseTorqueSteps(/[a-z]/i.test(text.replace(/\bto\b/gi, '')) ? text : `${text} Nm`);
  const step = 'error' in read ? undefined : read.steps.length === 1 ? read.steps[0] : undefined;
  if (step?.kind !== 'torque') {
    errors[field] = 'error' in read ? sentence(read.error) : 'One torque, or a range such as 10–11 lbf·ft.';
    return { torqueNm: null };
  }
  const { nm, toNm } = step;
  return { torqueNm: round3(nm), ...(toNm === undefined ? {} : { torqueToNm: round3(toNm) }) };
}

const round3 = (value: number) => Math.round(value * 1000) / 1000;

/** A figure of a means of setting, as it is typed. */
type FigureField = Exclude<keyof MeansValues, 'turnsBare'>;

function readMeans(values: MeansValues, path: string, errors: Record<string, string>): Means {
  const figure = (field: FigureField) => required(values[field], `${path}.${field}`, errors);
  const maybe = (field: FigureField) => optional(values[field], `${path}.${field}`, errors);
  // where a finger's gap is taken changes every figure worked out from it: the source says so, and nobody else
  const finger = () => {
    if (values.gapAt === '') errors[`${path}.gapAt`] = 'Is the gap taken at the valve, or at the cam?';
    return { rockerRatio: figure('fingerRatio'), gapAt: values.gapAt || ('valve' as const) };
  };
  if (values.kind === 'screw' || values.kind === 'pivot-nut') {
    const onFinger = values.kind === 'screw' && values.end === 'finger-pivot';
    const itself = values.locking === 'self-locking';
    const [pitch, torque, runsAt] = [
      values.pitch.trim(),
      itself ? '' : values.torqueNm.trim(),
      itself ? values.runsAt.trim() : '',
    ];
    const runs = readLockTorque(runsAt, `${path}.runsAt`, errors).torqueNm;
    const asTyped = {
      ...(/[a-z/]/i.test(pitch) ? { pitch } : {}),
      ...(/[a-z]/i.test(torque) ? { torque } : {}),
      ...(/[a-z]/i.test(runsAt) ? { runsAt } : {}),
    };
    const turned = {
      pitch: readPitch(pitch, `${path}.pitch`, errors),
      ...(onFinger ? finger() : { rockerRatio: maybe('rockerRatio') }),
      locking: values.locking,
      ...readLockTorque(torque, `${path}.torqueNm`, errors),
      ...(runs === null ? {} : { runsAtNm: runs }),
      ...(Object.keys(asTyped).length > 0 ? { asTyped } : {}),
    };
    return values.kind === 'screw'
      ? { kind: 'screw', end: values.end, ...turned }
      : { kind: 'pivot-nut', ...turned };
  }
  const sizes = { from: figure('from'), to: figure('to'), step: figure('step') };
  const { marking, stampedIn } = values;
  if (values.kind !== 'shim') return { kind: values.kind, sizes, marking, stampedIn };
  return {
    kind: 'shim',
    seat: values.seat,
    sizes,
    diameter: figure('diameter'),
    marking,
    stampedIn,
    seatOffset: maybe('seatOffset'),
    ...(values.seat === 'under-finger' ? finger() : {}),
    ...(values.seat === 'under-bucket' && values.turnsBare ? { turnsBare: true } : {}),
    ...(values.seat === 'on-bucket' && values.toolCrank.trim() !== ''
      ? { toolCrank: values.toolCrank.trim() }
      : {}),
  };
}

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

function readLimits(
  values: SheetValues,
  roles: readonly Role[],
  rule: SingleRule | null,
  errors: Record<string, string>,
): SheetBody['limits'] {
  const { unit } = values;
  return roles.flatMap((role) => {
    const text = values.limits[role] ?? '';
    if (text.trim() === '') {
      errors[`limits.${role}`] =
        `Nothing is measured without limits: what does the source say for ${ROLE_WORDS[role]}?`;
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

/** What stands of a second source; null where none is named. */
function readSecond({ second }: SheetValues, errors: Record<string, string>): SheetBody['secondSource'] {
  if (Object.values(second).every((text) => text.trim() === '')) return null;
  for (const field of ['manual', 'whyNot'] as const)
    if (second[field].trim() === '')
      errors[`second.${field}`] =
        field === 'manual' ? 'Which manual is it?' : 'Why the other one was taken, and not this.';
  return second;
}

function readTemperature(values: SheetValues, errors: Record<string, string>): SheetBody['temperature'] {
  const { tempFrom, tempTo } = values;
  const missing = [tempFrom, tempTo].map((text) => text.trim() === '');
  if (missing.every(Boolean)) return null;
  if (missing.some(Boolean)) {
    errors[missing[0] ? 'tempFrom' : 'tempTo'] = 'From and to, or neither.';
    return null;
  }
  const [from, to] = [figureIn(tempFrom, '°C', 'tempFrom', errors), figureIn(tempTo, '°C', 'tempTo', errors)];
  if (from === null || to === null) return null;
  const typed = { from: tempFrom.trim(), to: tempTo.trim() };
  return {
    from,
    to,
    ...(Object.values(typed).some((text) => SAYS_UNIT.test(text)) ? { asTyped: typed } : {}),
  };
}
