import {
  counted,
  figureShown,
  figureWithUnit,
  METRIC,
  unitShown,
  type FigureUnit,
  type ShownIn,
} from '@zero-lash/core/length';
import type { SheetBody, WearLimit } from '@zero-lash/contract/sheets';
import { sentence } from '../app/sentence.ts';
import { originInWords, originsOf, ROLE_WORDS, type PrintedLimits, type Role } from '@zero-lash/core/sheets';
import { LIMIT_KINDS } from '@zero-lash/core/wear';
import { camsOutInWords, marginOf, pointsInWords, turningInWords } from '@zero-lash/core/turning';
import { alsoInWords, firingInWords, layoutInWords, meansInFull, stepInWords } from './words.ts';

/** What figures that are no lengths are shown in. */
const SYSTEM_WORDS = { metric: 'bar, N, N·m, °C', inch: 'psi, lbf, lbf·ft, °F' } as const;

/** A wear limit as a sheet says it: `8.62 new, limit 8.45 mm`, `at least 1.10, at most 1.80 mm`. */
function limitInWords(
  { part, nominal, limit, min, max, unit, source, asTyped }: WearLimit,
  shown: ShownIn,
): string {
  const beside = (value: number, typed: string | undefined) => besideTyped(value, typed, unit, shown);
  const { form } = LIMIT_KINDS[part];
  const word = form === 'at-least' ? 'at least' : form === 'at-most' ? 'at most' : 'limit';
  const said = [
    nominal === null ? '' : `${beside(nominal, asTyped?.first)} new`,
    limit === null ? '' : `${word} ${beside(limit, asTyped?.last)}`,
    min === null ? '' : `at least ${beside(min, asTyped?.first)}`,
    max === null ? '' : `at most ${beside(max, asTyped?.last)}`,
  ];
  const figures = `${said.filter(Boolean).join(', ')} ${unitShown(unit, shown)}`;
  return source === '' ? figures : `${figures}, by ${source}`;
}

/** The span of temperatures a sheet measures in, as it stands in the source, and in the unit that is shown. */
function temperatureInWords(
  { from, to, asTyped }: NonNullable<SheetBody['temperature']>,
  shown: ShownIn,
): string {
  const read = `${figureShown(from, '°C', shown)} to ${figureWithUnit(to, '°C', shown)}`;
  return asTyped ? `${asTyped.from} to ${asTyped.to} (${read})` : read;
}

/** A few figures by which two pictures are told apart that are said alike. */
function checksumOf(file: string): string {
  let sum = 0;
  for (let index = 0; index < file.length; index += 1) sum = (sum * 31 + file.charCodeAt(index)) >>> 0;
  return sum.toString(16).padStart(8, '0');
}

/** A clearance as a sheet holds it: its pair or its one figure, and what is written. */
function printedInWords({ min, max, figure = null, asWritten }: PrintedLimits, shown: ShownIn): string {
  const read =
    figure === null
      ? `${figureShown(min!, 'mm', shown)}–${figureWithUnit(max!, 'mm', shown)}`
      : `${figureWithUnit(figure, 'mm', shown)}, one figure`;
  return `${read}${asWritten ? `, written “${asWritten}”` : ''}`;
}

/** A figure as it stands in the source, and what it comes to where that says something else: `0.340 in, which is 8.636`. */
function besideTyped(value: number, typed: string | undefined, unit: FigureUnit, shown: ShownIn): string {
  const is = figureShown(value, unit, shown);
  if (!typed) return is;
  const same = typed === `${is} ${unitShown(unit, shown)}` || (shown.length === 'thou' && INCHES.test(typed));
  return same ? typed : `${typed}, which is ${is}`;
}

/** What is printed in inches: a shop that reads in thou knows what it is. */
const INCHES = /(?:\bin|″|")$/;

/** One line of a sheet in words: what it is about, and what the sheet says of it. */
export interface SheetLine {
  readonly name: string;
  readonly text: string;
}

/**
 * A sheet line by line, as it is read and as two revisions are held against each other.
 *
 * @param shown what its figures are written in, beside what the source prints
 */
export function sheetInWords(sheet: SheetBody, shown: ShownIn = METRIC): SheetLine[] {
  const { pattern, source } = sheet;
  const { timing } = pattern;
  const camsOut = camsOutInWords(pattern);
  const lines: (SheetLine | false | null)[] = [
    { name: 'Layout', text: layoutInWords(pattern) },
    { name: 'Cylinders', text: banksInWords(pattern) },
    { name: 'Fires', text: firingInWords(pattern.cylinders) },
    { name: 'Turns', text: turningInWords(pattern) },
    {
      name: 'Marks at',
      text:
        pattern.marks.length === 0
          ? 'none: it is put in position by its pistons'
          : pattern.marks.map((mark) => `${mark}°`).join(', '),
    },
    ...(pattern.markNames ?? []).map(({ at, words, from, decoys }) => ({
      name: `The mark at ${at}°`,
      text: [`“${words}”`, from && `seen from the ${from}`, decoys && `not ${decoys}`]
        .filter(Boolean)
        .join(', '),
    })),
    ...pattern.positionSigns.map(({ at, cams, rotor }) => ({
      name: `Seen at ${at}°`,
      text: [cams && `the cams’ marks ${cams}`, rotor].filter(Boolean).join(', '),
    })),
    camsOut !== null && { name: 'Cams come out', text: camsOut },
    ...sheet.pictures.map(({ at, of, says, file }, index) => ({
      name: `Picture ${index + 1}`,
      text: `${says}: ${of === 'mark' ? 'the mark' : 'the cams'} at ${at}°, checksum ${checksumOf(file)}`,
    })),
    { name: 'Valves', text: valvesInWords(pattern) },
    {
      name: 'Valve timing',
      text: `intake opens ${timing.ivoBtdc}° before, closes ${timing.ivcAbdc}° after; exhaust opens ${timing.evoBbdc}° before, closes ${timing.evcAtdc}° after${timing.assumed ? ' (a cautious default: the source gives none)' : ''}; ${marginOf(pattern)}° kept clear of the ramps${timing.lift ? `, as it was given at ${figureWithUnit(timing.lift, 'mm', shown)} of lift` : ''}`,
    },
    pattern.camDrive !== 'unsaid' && { name: 'Cams driven by', text: pattern.camDrive },
    pattern.camsAbove !== 'unsaid' && {
      name: 'Cams above each head',
      text: pattern.camsAbove === 'two' ? 'two: intake and exhaust' : 'one',
    },
    pattern.coverHoldsCams && {
      name: 'Cover',
      text: 'its bolts hold the cams: they lie differently once it comes off again',
    },
    (pattern.readiness?.coldHours ?? null) !== null && {
      name: 'Cold after',
      text: `${pattern.readiness?.coldHours} hours`,
    },
    (pattern.readiness?.hotMinutes ?? null) !== null && {
      name: 'Measured hot within',
      text: `${pattern.readiness?.hotMinutes} minutes after it was shut down`,
    },
    pattern.readiness?.noSpark === true && {
      name: 'No spark',
      text: 'fires by compression: its air is what stops it when it runs away',
    },
    pattern.readiness?.barred === true && {
      name: 'Large engine',
      text: `barred over, started by air; crankcase doors stay shut ${pattern.readiness.doorsMinutes ? `for ${pattern.readiness.doorsMinutes} minutes` : 'as its manual says'}`,
    },
    pattern.readiness !== undefined &&
      pattern.readiness.access.length > 0 && {
        name: 'Comes off for access',
        text: pattern.readiness.access.join(', '),
      },
    !pattern.turnsBack && { name: 'Turned back', text: 'never: its tensioner or belt may jump' },
    pattern.decompressor && {
      name: 'Decompressor',
      text: `lifts the ${pattern.decompressor.role} from ${pattern.decompressor.opens}° to ${pattern.decompressor.closes}° after firing TDC`,
    },
    ...pattern.makersStops.map(({ angle, points }) => ({
      name: `Maker’s table, ${angle}°`,
      text: points.join(' '),
    })),
    ...pattern.makersPairs.map(({ open, points }) => ({
      name: `Maker’s table, ${pointsInWords(pattern, open, ' and ')} fully open`,
      text: pointsInWords(pattern, points, ' '),
    })),
    pattern.valveRow && {
      name: 'Valves stand',
      text: `in one row${pattern.valveRow.splayed ? ', leaning apart' : ''}, from the front ${[
        pattern.valveRow.A,
        pattern.valveRow.B,
      ]
        .filter(Boolean)
        .map((row) => [...row].join(' '))
        .join('; bank B ')}`,
    },
    Object.keys(pattern.makersNames).length > 0 && {
      name: 'The maker’s names',
      text: Object.entries(pattern.makersNames)
        .map(([own, name]) => `${own} is ${name}`)
        .join(', '),
    },
    ...pattern.brakes.map(({ cylinder, opens, closes }) => ({
      name: `Brake rocker ${cylinder}`,
      text: `off its base circle from ${opens}° to ${closes}° after its firing TDC`,
    })),
    { name: 'Exhaust side', text: pattern.exhaustSide },
    { name: 'Set by', text: meansInFull(pattern.means, shown) },
    ...Object.entries(pattern.roleMeans).map(([role, means]) => ({
      name: `${ROLE_WORDS[role as Role]} set by`,
      text: means ? meansInFull(means, shown) : '',
    })),
    ...sheet.limits.flatMap(({ role, also, allowance, ...printed }) => [
      {
        name: `Limits, ${ROLE_WORDS[role]}`,
        text: `${printedInWords(printed, shown)}${
          allowance?.over
            ? `, up to ${figureWithUnit(allowance.over, 'mm', shown)} over: ${allowance.why}`
            : ''
        }`,
      },
      ...(also ?? []).map(({ kind, ...each }) => ({
        name: `Limits, ${ROLE_WORDS[role]}, ${alsoInWords(kind, sheet.condition)}`,
        text: printedInWords(each, shown),
      })),
    ]),
    ...(sheet.limitsToCome ? [{ name: 'Limits', text: 'to come: its book is not here yet' }] : []),
    ...(sheet.system ? [{ name: 'Shown in', text: SYSTEM_WORDS[sheet.system] }] : []),
    { name: 'Measured', text: sheet.condition },
    {
      name: 'Temperature',
      text: sheet.temperature ? temperatureInWords(sheet.temperature, shown) : 'not said',
    },
    {
      name: 'Recheck after',
      text:
        sheet.recheckPlan.length === 0
          ? 'not said: a lead plans it'
          : `${sheet.recheckPlan.map((step) => stepInWords(step, sheet.usageUnit)).join('; then ')}; and so on`,
    },
    ...sheet.wearLimits.map((limit) => ({
      name: [LIMIT_KINDS[limit.part].title, limit.of === 'both' ? '' : limit.of, limit.place]
        .filter(Boolean)
        .join(', '),
      text: limitInWords(limit, shown),
    })),
    ...sheet.torques.map(({ fastening, steps, order, rows, sequence }) => ({
      name: `Torque, ${fastening}`,
      text: [
        steps,
        order,
        rows.length > 0 && `${rows.join(' and ')} bolts a row, the near row first`,
        sequence.length > 0 && `in the order ${sequence.join(', ')}`,
      ]
        .filter(Boolean)
        .join('; '),
    })),
    ...(sheet.pieceCharts ?? []).map(({ role, installed, rows }) => ({
      name: `Maker’s chart, ${ROLE_WORDS[role]}`,
      text: `${counted(rows.length, 'range')} of gaps, ${counted(installed.length, 'piece')} fitted now, from ${installed[0]} to ${installed.at(-1)} mm; it governs`,
    })),
    (sheet.assembly ?? []).length > 0 && {
      name: 'Put together',
      text: sheet.assembly.map(({ text, hold }) => `${hold ? 'not to be skipped: ' : ''}${text}`).join('; '),
    },
    sheet.runIn &&
      (sheet.runIn.heatCycles > 0 || sheet.runIn.retorque) && {
        name: 'Before it is signed off',
        text: `${counted(sheet.runIn.heatCycles, 'heat cycle')}${sheet.runIn.retorque ? ', then the head tightened again, cold' : ''}`,
      },
    sheet.wanted.length > 0 && {
      name: 'Wanted at hand',
      text: sheet.wanted.map(({ name, count }) => (count > 1 ? `${name} ${count}` : name)).join(', '),
    },
    {
      name: 'Source',
      text: [source.manual, source.edition, source.page && `page ${source.page}`].filter(Boolean).join(', '),
    },
    ...originLines(sheet),
    sheet.secondSource && {
      name: 'A second source',
      text: `${[
        sheet.secondSource.manual,
        sheet.secondSource.edition,
        sheet.secondSource.page && `page ${sheet.secondSource.page}`,
        sheet.secondSource.figures,
      ]
        .filter(Boolean)
        .join(', ')}; not taken: ${sheet.secondSource.whyNot}`,
    },
    sheet.notes !== '' && { name: 'Notes', text: sheet.notes },
  ];
  return lines.filter((line) => line !== false && line !== null);
}

/** Where the figures are from, those together that are from one place. */
function originLines(sheet: SheetBody): SheetLine[] {
  const from = new Map<string, string[]>();
  for (const { title, origin } of originsOf(sheet)) {
    const words = originInWords(origin);
    from.set(words, [...(from.get(words) ?? []), title]);
  }
  return [...from].map(([words, titles]) => ({
    name: sentence(words).replace(/\.$/, ''),
    text: titles.join(', '),
  }));
}

function banksInWords({ cylinders }: SheetBody['pattern']): string {
  const bank = (name: 'A' | 'B') =>
    cylinders
      .filter((cylinder) => cylinder.bank === name)
      .sort((a, b) => a.place - b.place)
      .map(({ id }) => id)
      .join(' ');
  return bank('B') === ''
    ? `${bank('A')} from the front`
    : `${bank('A')} and ${bank('B')}, each from the front`;
}

function valvesInWords({ valves, bridges, bridgeKind, closingSide }: SheetBody['pattern']): string {
  const side = (count: number, name: string, bridged: boolean) =>
    `${count} ${name}${bridged ? ' under one bridge' : ''}`;
  const guided = bridgeKind === 'guided' ? ', bridges guided and balanced by a screw' : '';
  return `${side(valves.intake, 'intake', bridges.intake)}, ${side(valves.exhaust, 'exhaust', bridges.exhaust)} a cylinder${guided}${closingSide ? ', each drawn shut' : ''}`;
}

/** One line that two revisions of a sheet do not share. */
export interface SheetChange {
  readonly name: string;
  readonly before: string | null;
  readonly after: string | null;
}

/**
 * What changed from one revision to another, line by line.
 *
 * @param shown what figures are written in; a change too small to be seen in that is written as it is kept
 */
export function changesBetween(before: SheetBody, after: SheetBody, shown: ShownIn = METRIC): SheetChange[] {
  const kept = linesApart(before, after, METRIC);
  const read = new Map(linesApart(before, after, shown).map((change) => [change.name, change]));
  return kept.map((change) => read.get(change.name) ?? change);
}

function linesApart(before: SheetBody, after: SheetBody, shown: ShownIn): SheetChange[] {
  const [old, fresh] = [before, after].map(
    (sheet) => new Map(sheetInWords(sheet, shown).map(({ name, text }) => [name, text])),
  ) as [Map<string, string>, Map<string, string>];
  return [...new Set([...fresh.keys(), ...old.keys()])]
    .map((name) => ({ name, before: old.get(name) ?? null, after: fresh.get(name) ?? null }))
    .filter((change) => change.before !== change.after);
}
