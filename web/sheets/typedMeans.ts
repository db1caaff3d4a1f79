import { type Means } from '@zero-lash/core/sheets';
import { parseTorqueSteps } from '@zero-lash/core/assembly';
import { parsePitch, TENTHS_PER } from '@zero-lash/core/length';
import { sentence } from '../app/sentence.ts';
import { type MeansValues, FRESH_MEANS } from './formValues.ts';
import { figureIn, optional, required, SAYS_UNIT, saysOtherUnit, typed, typedIn } from './typedFigures.ts';

/** A thread's pitch, mm; null where nothing is typed: it is not known. */
function readPitch(text: string, field: string, errors: Record<string, string>): number | null {
  if (text === '') return null;
  const read = parsePitch(text);
  if ('error' in read) errors[field] = sentence(read.error);
  return 'error' in read ? null : read.mm;
}

/** A lock nut's torque, or its range, in N·m: a bare figure is in N·m; null where nothing is typed. */
function readLockTorque(
  text: string,
  field: string,
  errors: Record<string, string>,
): { readonly torqueNm: number | null; readonly torqueToNm?: number } {
  if (text === '') return { torqueNm: null };
  const read = parseTorqueSteps(/[a-z]/i.test(text.replace(/\bto\b/gi, '')) ? text : `${text} N·m`);
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

export function readMeans(values: MeansValues, path: string, errors: Record<string, string>): Means {
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
    const threaded = values.kind === 'pivot-nut' || values.end !== 'eccentric';
    const [pitch, torque, runsAt] = [
      threaded ? values.pitch.trim() : '',
      itself ? '' : values.torqueNm.trim(),
      itself ? values.runsAt.trim() : '',
    ];
    const runs = readLockTorque(runsAt, `${path}.runsAt`, errors).torqueNm;
    const asTyped = {
      ...(/[a-z/]/i.test(pitch) ? { pitch } : {}),
      ...(saysOtherUnit(torque, 'N·m') ? { torque } : {}),
      ...(saysOtherUnit(runsAt, 'N·m') ? { runsAt } : {}),
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
  const unknown = (['from', 'to', 'step'] as const).every((field) => values[field].trim() === '');
  const { marking, stampedIn } = values;
  // in the unit they are stamped in, as the source lists them
  const size = (field: 'from' | 'to' | 'step') => {
    if (stampedIn === 'mm' || values[field].trim() === '') return figure(field);
    const text = SAYS_UNIT.test(values[field]) ? values[field] : `${values[field]} thou`;
    return figureIn(text, 'mm', `${path}.${field}`, errors) ?? NaN;
  };
  const sizes = unknown ? null : { from: size('from'), to: size('to'), step: size('step') };
  if (values.kind !== 'shim') return { kind: values.kind, sizes, marking, stampedIn };
  return {
    kind: 'shim',
    seat: values.seat,
    sizes,
    diameter: maybe('diameter'),
    marking,
    stampedIn,
    seatOffset:
      values.seatOffset.trim() === ''
        ? null
        : figureIn(values.seatOffset, 'mm', `${path}.seatOffset`, errors),
    ...(values.seat === 'under-finger' ? finger() : {}),
    ...(values.seat === 'under-bucket' && values.turnsBare ? { turnsBare: true } : {}),
    ...(values.seat === 'on-bucket' && values.toolCrank.trim() !== ''
      ? { toolCrank: values.toolCrank.trim() }
      : {}),
  };
}

/** Lays the means of setting out as it would have been typed. */
export function meansTyped(means: Means): MeansValues {
  const sizes = 'sizes' in means ? means.sizes : null;
  const inches = 'stampedIn' in means && means.stampedIn === 'in';
  const stamped = (mm: number) => typed(inches ? Math.round((mm / MM_A_THOU) * 10_000) / 10_000 : mm);
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
    torqueNm: 'torqueNm' in means ? (means.asTyped?.torque ?? inNm([means.torqueNm, means.torqueToNm])) : '',
    runsAt: 'runsAtNm' in means ? (means.asTyped?.runsAt ?? inNm([means.runsAtNm])) : '',
    seat: 'seat' in means ? means.seat : FRESH_MEANS.seat,
    from: sizes ? stamped(sizes.from) : FRESH_MEANS.from,
    to: sizes ? stamped(sizes.to) : FRESH_MEANS.to,
    step: sizes ? stamped(sizes.step) : FRESH_MEANS.step,
    diameter: 'diameter' in means ? typed(means.diameter) : FRESH_MEANS.diameter,
    marking: 'marking' in means ? means.marking : '',
    stampedIn: 'stampedIn' in means ? (means.stampedIn ?? 'mm') : 'mm',
    seatOffset: 'seatOffset' in means ? typedIn(means.seatOffset, 'mm') : '',
    turnsBare: means.kind === 'shim' && (means.turnsBare ?? false),
    toolCrank: means.kind === 'shim' ? (means.toolCrank ?? '') : '',
  };
}

const MM_A_THOU = TENTHS_PER.thou / TENTHS_PER.mm;

/** A torque, or its range, as it would have been typed. */
function inNm(ends: readonly (number | null | undefined)[]): string {
  const known = ends.filter((each) => each !== null && each !== undefined);
  return known.length === 0 ? '' : `${known.join('–')} N·m`;
}

const isFinger = (means: Means): boolean =>
  (means.kind === 'shim' && means.seat === 'under-finger') ||
  (means.kind === 'screw' && means.end === 'finger-pivot');
