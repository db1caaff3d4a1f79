import type { SheetBody } from '@zero-lash/contract/sheets';
import { CYLINDER_NAME } from '@zero-lash/contract/pattern';
import {
  namesComplaint,
  pointNamed,
  rowComplaint,
  valvesAlong,
  type Bank,
  type MarkName,
  type Pattern,
  type Means,
  type Role,
} from '@zero-lash/core/sheets';
import { firingAngles, inCycle, parseFiringOrder, firingSteps } from '@zero-lash/core/turning';
import { numberTyped } from '@zero-lash/core/length';
import { CAUTIOUS_TIMING, USUAL_MARGIN, type SheetValues, type PatternValues } from './formValues.ts';
import { sentence } from '../app/sentence.ts';
import { figureIn, numbers, optional, required, typed, typedIn } from './typedFigures.ts';
import { readMeans, meansTyped } from './typedMeans.ts';

export function readPattern(values: SheetValues, errors: Record<string, string>): Pattern | null {
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
  const strange = all.find((name) => !CYLINDER_NAME.test(name));
  if (strange)
    errors.bankA = `“${strange}” is not a cylinder’s name: use a number, a letter, or a letter and a number.`;
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
    lift: cautious || values.lift.trim() === '' ? null : figureIn(values.lift, 'mm', 'lift', errors),
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
  const margin = optional(values.margin, 'margin', errors) ?? USUAL_MARGIN;
  const decompressor = values.decompressed
    ? {
        role: values.decompressed,
        opens: required(values.decompressorOpens, 'decompressorOpens', errors),
        closes: required(values.decompressorCloses, 'decompressorCloses', errors),
      }
    : null;
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
  const plain: Pattern = {
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
    ...readReadiness(values, errors),
    decompressor,
    markNames: readMarkNames(values, errors),
    positionSigns: values.signs.map(({ at, cams, rotor }, index) => ({
      at: required(at, `signs.${index}.at`, errors),
      cams: cams.trim(),
      rotor: rotor.trim(),
    })),
    camsOut: [values.camsOutAt, values.camsOutBy, values.camsOutFirst].every((text) => text.trim() === '')
      ? null
      : {
          at: optional(values.camsOutAt, 'camsOutAt', errors),
          lockedBy: values.camsOutBy.trim(),
          first: values.camsOutFirst.trim(),
        },
    marks: [...new Set([...pulley, ...pulley.map((mark) => mark + 360), ...cam.map(inCycle)])].sort(
      (a, b) => a - b,
    ),
    means,
    roleMeans,
  };
  return withMakersWords(plain, values, errors);
}

/** How an engine stands before it is measured or opened; nothing where nothing of it was typed. */
function readReadiness(values: PatternValues, errors: Record<string, string>): Pick<Pattern, 'readiness'> {
  const readiness = {
    coldHours: optional(values.coldHours, 'coldHours', errors),
    hotMinutes: optional(values.hotMinutes, 'hotMinutes', errors),
    barred: values.barred,
    noSpark: values.noSpark,
    doorsMinutes: values.barred ? optional(values.doorsMinutes, 'doorsMinutes', errors) : null,
    access: values.access
      .split(/[,;\n]+/)
      .map((each) => each.trim())
      .filter(Boolean),
  };
  const { access, barred, noSpark, ...figures } = readiness;
  const said = barred || noSpark || access.length > 0 || Object.values(figures).some((each) => each !== null);
  return said ? { readiness } : {};
}

/** What the maker calls valves, where they stand, and its tables: read once the head is known that they are about. */
function withMakersWords(
  plain: Pattern,
  values: SheetValues,
  errors: Record<string, string>,
): Pattern | null {
  const before = Object.keys(errors).length;
  const banks = [...new Set(plain.cylinders.map(({ bank }) => bank))];
  const row = (bank: Bank, field: 'rowA' | 'rowB') => {
    const order = values[field].toUpperCase().replace(/[\s,;-]+/g, '');
    const complaint = /[^IE]/.test(order)
      ? 'A letter a valve, from the front: I for an intake, E for an exhaust.'
      : banks.includes(bank) && rowComplaint(plain, bank, order);
    if (complaint) errors[field] = sentence(complaint);
    return banks.includes(bank) ? order : '';
  };
  const valveRow =
    values.valvesStand === 'across'
      ? null
      : { splayed: values.valvesStand === 'splayed', A: row('A', 'rowA'), B: row('B', 'rowB') };
  if (Object.keys(errors).length > before) return null;
  const placed = { ...plain, valveRow };
  const named = { ...placed, makersNames: readNames(placed, values.makersNames, errors) };
  const misnamed = namesComplaint(named);
  if (misnamed) errors.makersNames ??= sentence(misnamed);
  const points = (text: string, field: 'makersStops' | 'makersPairs') =>
    text
      .split(/[\s,;]+/)
      .filter(Boolean)
      .map((word) => {
        const found = pointNamed(named, word);
        if (found === undefined) errors[field] ??= `There is no point ${word}.`;
        return found ?? word;
      });
  return {
    ...named,
    makersStops: readTable(values.makersStops, points, errors),
    makersPairs: linesOf(values.makersPairs).flatMap((line) => {
      const [open = '', measured = ''] = line.split(':').map((part) => points(part, 'makersPairs').join(' '));
      if (open === '' || measured === '')
        errors.makersPairs ??= `“${line}” is not understood: the valve that stands fully open, a colon, then what is measured, such as 5E: 2E 2I.`;
      return open === '' || measured === '' ? [] : [{ open: open.split(' '), points: measured.split(' ') }];
    }),
  };
}

const linesOf = (text: string) =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);

/** What the maker calls valves: pairs of our name and its, or a whole head along its row. */
function readNames(
  pattern: Pattern,
  text: string,
  errors: Record<string, string>,
): NonNullable<Pattern['makersNames']> {
  const pairs = linesOf(text).flatMap((line): (readonly [string, string])[] => {
    const [, bank, list = ''] = /^([AB])\s*:(.*)$/i.exec(line) ?? [];
    const isRow = pattern.valveRow || !pattern.cylinders.some(({ id }) => id === bank?.toUpperCase());
    if (bank !== undefined && isRow) {
      const along = valvesAlong(pattern, bank.toUpperCase() as Bank);
      const names = list.split(/[\s,;]+/).filter(Boolean);
      if (along.length === 0)
        errors.makersNames ??=
          'Say first that the valves stand in one row, and how: then they are named along it.';
      else if (along.length !== names.length)
        errors.makersNames ??= `Bank ${bank.toUpperCase()} has ${along.length} valves in its row, and ${names.length} names.`;
      return along.length === names.length ? along.map((key, index) => [key, names[index]!]) : [];
    }
    return line
      .split(/[,;]+/)
      .map((each) => each.trim())
      .filter(Boolean)
      .flatMap((each) => {
        const [, own, name] = /^(\S+?)\s*[:=\s]\s*(.+)$/.exec(each) ?? [];
        if (own === undefined || name === undefined) {
          errors.makersNames ??= `“${each}” is not understood: our name, then the maker’s, such as 1E 12.`;
          return [];
        }
        return [[ourName(own), name] as const];
      });
  });
  const twice = pairs.find(([own], index) => pairs.findIndex(([other]) => other === own) !== index);
  if (twice) errors.makersNames ??= `${twice[0]} is named twice.`;
  return Object.fromEntries(pairs);
}

/** `1eb` as it is written here: `1Eb`. */
const ourName = (typed: string) =>
  typed
    .toUpperCase()
    .replace(/([IE])([ABC])$/, (_, letter: string, which: string) => letter + which.toLowerCase());

/** Reads a maker's table as it is typed: a position a line, its degrees, a colon, and the points measured there. */
function readTable(
  text: string,
  read: (text: string, field: 'makersStops') => readonly string[],
  errors: Record<string, string>,
): NonNullable<Pattern['makersStops']> {
  return linesOf(text).flatMap((line) => {
    const [place = '', ...rest] = line.split(':');
    const angle = numberTyped(place.replace('°', '').trim());
    const points = read(rest.join(' '), 'makersStops');
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

/**
 * Lays a pattern out as it would have been typed.
 *
 * @param origins where its figures are from: a margin of ours is not typed
 */
export function patternTyped(pattern: Pattern, origins: SheetBody['origins'] | undefined): PatternValues {
  const bank = (name: 'A' | 'B') =>
    pattern.cylinders
      .filter((cylinder) => cylinder.bank === name)
      .sort((a, b) => a.place - b.place)
      .map(({ id }) => id)
      .join(' ');
  const firing = [...pattern.cylinders].sort((a, b) => a.firesAt - b.firesAt);
  return {
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
      origins?.margin?.from === 'assumed' && pattern.margin === USUAL_MARGIN ? '' : typed(pattern.margin),
    lift: typedIn(pattern.timing.lift, 'mm'),
    turnsBack: pattern.turnsBack ?? true,
    camDrive: pattern.camDrive ?? 'unsaid',
    camsAbove: pattern.camsAbove ?? 'unsaid',
    coverHoldsCams: pattern.coverHoldsCams ?? false,
    coldHours: typed(pattern.readiness?.coldHours),
    hotMinutes: typed(pattern.readiness?.hotMinutes),
    barred: pattern.readiness?.barred ?? false,
    noSpark: pattern.readiness?.noSpark ?? false,
    doorsMinutes: typed(pattern.readiness?.doorsMinutes),
    access: (pattern.readiness?.access ?? []).join(', '),
    decompressed: pattern.decompressor?.role ?? ('' as const),
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
