import { z } from 'zod';
import {
  sheetBody,
  type SheetBody,
  type WearLimit,
  type NewSheet,
  type SheetFile,
  type SheetRevision,
} from '@zero-lash/contract/sheets';
import { rolesOf, type Pattern, type Role, type SingleRule } from '@zero-lash/core/sheets';
import { readChart, writeChart } from '@zero-lash/core/setting';
import { LIMIT_KINDS } from '@zero-lash/core/wear';
import { sentence } from '../app/sentence.ts';
import { readOrigins, originsTyped } from './typedOrigins.ts';
import { isUntouched, readSteps, FRESH_STEP, stepsTyped } from './planSteps.ts';
import { type SheetValues, NO_SECOND } from './formValues.ts';
import { withUnits } from './bareFigures.ts';
import { figureIn, optional, required, saysOtherUnit, wholes, typed, typedIn } from './typedFigures.ts';
import { readLimits, limitsTyped } from './typedLimits.ts';
import { readPattern, patternTyped } from './typedPattern.ts';

/** The pattern that a form describes, for the drawings, as soon as it holds; null before. */
export const patternOf = (values: SheetValues): Pattern | null => readPattern(values, {});

/**
 * A sheet as it is typed, and as it is kept: decoded it is what is sent and what a file holds, or everything that is wrong with it at once,
 * each at its field of the form; encoded it is laid out as it would have been typed.
 *
 * @param rule the shop's band round one figure; null where it has none
 */
export const sheetCodec = (rule: SingleRule | null) =>
  z.codec(z.custom<SheetValues>(), z.custom<NewSheet>(), {
    decode: (values, context) => {
      const { body, errors } = decoded(values, rule);
      for (const [path, message] of Object.entries(errors))
        context.issues.push({ code: 'custom', input: values, path: path.split('.'), message });
      return body ? { maker: values.maker.trim(), name: values.name.trim(), body } : z.NEVER;
    },
    encode: ({ maker, name, body }) => ({ maker, name, ...encoded(body) }),
  });

/** Lays a sheet out as it would have been typed: one that a file holds. */
export const valuesOf = (sheet: NewSheet): SheetValues => z.encode(sheetCodec(null), sheet);

/** The same of one that is kept: for a new revision, a copy, or a draft. */
export const valuesFrom = ({ maker, name, ...body }: SheetRevision | SheetFile): SheetValues =>
  valuesOf({ maker, name, body });

/** A form understood, or what is wrong with it: a sentence by the field's path. */
export interface ReadForm {
  readonly body: SheetBody | null;
  readonly errors: Readonly<Record<string, string>>;
}

/** Reads a form as it is typed: a sheet, or everything that is wrong with it, by the paths of its fields. */
export function readForm(values: SheetValues, rule: SingleRule | null = null): ReadForm {
  const read = sheetCodec(rule).safeDecode(values);
  return {
    body: read.data?.body ?? null,
    errors: Object.fromEntries(
      (read.error?.issues ?? []).map(({ path, message }) => [path.map(String).join('.'), message]),
    ),
  };
}

function decoded(typedValues: SheetValues, rule: SingleRule | null): ReadForm {
  const values = withUnits(typedValues);
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
    limitsToCome: values.limitsToCome && limits.length < roles.length,
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
    system: values.system === '' ? null : values.system,
    usageUnit: values.usageUnit,
    // a plan of one step that says nothing is none
    recheckPlan: values.plan.every(isUntouched) ? [] : readSteps(values.plan, values.usageUnit, errors),
    origins: pattern ? readOrigins(values, pattern) : {},
    runIn: { heatCycles: optional(values.heatCycles, 'heatCycles', errors) ?? 0, retorque: values.retorque },
    source: { manual: values.manual, edition: values.edition, page: values.page },
    secondSource: readSecond(values, errors),
    pictures: values.pictures.map(({ at, ...picture }, index) => ({
      ...picture,
      at: required(at, `pictures.${index}.at`, errors),
    })),
    notes: values.notes,
  };
  if (!pattern) return { body: null, errors };
  const checked = sheetBody.safeParse(draft);
  for (const { path, message } of checked.error?.issues ?? []) {
    const field = fieldOf(path.map(String), values, limits);
    // limits that were not understood are not there, and have their own sentences
    if (field !== 'limits') errors[field] ??= sentence(message);
  }
  return { body: checked.success && Object.keys(errors).length === 0 ? checked.data : null, errors };
}

/** Lays a sheet out as it would have been typed. */
function encoded(sheet: SheetBody): Omit<SheetValues, 'maker' | 'name'> {
  const { source, temperature } = sheet;
  return {
    ...patternTyped(sheet.pattern, sheet.origins),
    pictures: (sheet.pictures ?? []).map(({ at, ...picture }) => ({ ...picture, at: typed(at) })),
    condition: sheet.condition,
    tempFrom: temperature?.asTyped?.from ?? typedIn(temperature?.from, '°C'),
    tempTo: temperature?.asTyped?.to ?? typedIn(temperature?.to, '°C'),
    unit: 'mm',
    ...limitsTyped(sheet.limits),
    limitsToCome: sheet.limitsToCome,
    system: sheet.system ?? '',
    wear: sheet.wearLimits.map(({ part, of, place, nominal, limit, min, max, unit, source, asTyped }) => ({
      ...{ part, of, place, source },
      nominal: asTyped?.first ?? typedIn(min ?? nominal, unit),
      limit: asTyped?.last ?? typedIn(max ?? limit, unit),
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
    if (second === 'valveRow') return `row${third || 'A'}`;
    if (second === 'markNames') return 'markNames';
    if (second === 'positionSigns') return `signs.${third}.${rest[0] ?? 'at'}`;
    if (second === 'camsOut')
      return third === 'at' ? 'camsOutAt' : third === 'first' ? 'camsOutFirst' : 'camsOutBy';
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
  if (first === 'origins') return `origins.${second}.${third || 'page'}`;
  if (first === 'pictures') return `pictures.${second}.${third === 'file' ? 'says' : third || 'at'}`;
  if (first === 'runIn') return 'heatCycles';
  if (first === 'source') return second;
  if (first === 'temperature') return 'tempTo';
  return first;
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
    ...(saysOtherUnit(nominal, unit) ? { first: nominal.trim() } : {}),
    ...(saysOtherUnit(limit, unit) ? { last: limit.trim() } : {}),
  };
  return { ...named, ...ends, ...(Object.keys(asTyped).length > 0 ? { asTyped } : {}) };
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
    ...(Object.values(typed).some((text) => saysOtherUnit(text, '°C')) ? { asTyped: typed } : {}),
  };
}
