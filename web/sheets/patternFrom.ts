import { type MarkName, type Pattern } from '@zero-lash/core/sheets';
import { firingAngles, inCycle, parseFiringOrder } from '@zero-lash/core/turning';
import { numberTyped } from '@zero-lash/core/length';
import { CAUTIOUS_TIMING, type SheetValues } from './formValues.ts';
import { numbers, optional, required } from './typedFigures.ts';
import { readMeans } from './meansFrom.ts';

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
