// Long because all that a point’s budget goes by stands together: its steps, its leverage, its piece or its screw.
import { lengthWithUnit, mmFromTenths, tenthsFromMm, type ShopUnit } from '../length/index.ts';
import { boundedGap, endsOf, judge, type Limits, type Verdict } from '../measuring/index.ts';
import { fitPiece, guardedBand, pieceOutcome, pieceWanted, screwGain, sizesOf } from '../setting/index.ts';
import {
  leverageOf,
  type Leverage,
  meansFor,
  pieceGain,
  valvesOf,
  type LashPoint,
  type Means,
  type Pattern,
  type SizeRange,
} from '../sheets/index.ts';
import { alongAxis, OPERATION_ORDER, operationsFor, type HeadWorkLine } from './headWork.ts';
import { HEAD_OPERATIONS, lashBudget, type HeadOperation, type HeadStep } from './lashBudget.ts';

/** What is known of a point before its budget is worked out. Lengths in mm. */
export interface PointBudgetInput {
  readonly pattern: Pattern;
  readonly point: Pick<LashPoint, 'key' | 'role'>;
  /** the gap as found; null where it was not measured */
  readonly found: { readonly lo: number; readonly hi: number | null; readonly floor?: boolean } | null;
  readonly lines: readonly HeadWorkLine[];
  /** in tenths of a micrometre, see `limitsFromMm` */
  readonly limits: Limits;
  readonly target: number;
  /** the piece the gap was found with; null where it is not known */
  readonly installed: number | null;
  /** how far the screw stands out now, and how far it may */
  readonly standout: number | null;
  readonly standoutLimits: { readonly min: number; readonly max: number } | null;
  /** what may be ground off a tip in all; null where the sheet does not say, and then none may */
  readonly tipLimit: number | null;
  /** what its words are in; mm where it is left out */
  readonly unit?: ShopUnit;
}

/** One step of a point's budget: what it does, and where the gap is then. */
export interface BudgetRow {
  readonly step: string;
  readonly operation: HeadOperation;
  readonly effect: number;
  readonly lo: number;
  readonly hi: number;
  readonly done: boolean;
}

/** What the head work will leave at a point. Lengths in mm. */
export interface PointBudget {
  readonly rows: readonly BudgetRow[];
  /** before anything is set again */
  readonly lo: number;
  readonly hi: number;
  /** a graded piece: what would bring it to its target, the nearest that is made, and what that leaves */
  readonly piece: {
    readonly needed: number;
    readonly nearest: number;
    readonly leaves: { readonly lo: number; readonly hi: number };
    readonly verdict: Verdict;
    readonly underThinnest: number;
    readonly beyondThickest: number;
  } | null;
  /** a screw: how far it will stand out, and by how much that is out of what it may */
  readonly screw: { readonly standout: number; readonly outside: number } | null;
  /** nothing that is made or may be screwed brings it in */
  readonly fails: boolean;
  /** what could be changed so that it comes in, before anybody cuts */
  readonly ways: readonly string[];
  readonly cautions: readonly string[];
}

const ON_BOUNDARY = 1e-9;

/** Writes lengths to the micrometre, which is as near as anybody cuts. */
const lengthIn =
  (unit: ShopUnit = 'mm') =>
  (mm: number) =>
    lengthWithUnit(Math.round(mm * 1000) * 10, unit);

/**
 * Works out what the head work planned and done leaves at a lash point, and whether anything made will bring it in.
 *
 * Rule: what was done counts as it was measured, what is planned as it is planned. A loose bridge takes the mean of its two
 * stems; a guided one is balanced again by its screw, and counts the stem at its fixed end. A tip is ground only as far as
 * the sheet allows.
 *
 * @returns null where how it was found is not known, or what is done hangs on a rocker's ratio that the source does not say
 * @example pointBudget({ pattern, point: points[0], lines: [], target: 0.22, installed: null, found: null }) // null
 */
export function pointBudget(input: PointBudgetInput): PointBudget | null {
  const { pattern, point, lines, target, installed } = input;
  const found = input.found && boundedGap(input.found);
  if (!found) return null;
  const steps = stepsAt(input);
  const means = meansFor(pattern, point.role);
  const gear = leverageOf(pattern, point.role);
  const limits = { min: mmFromTenths(endsOf(input.limits).min), max: mmFromTenths(endsOf(input.limits).max) };
  const closing = point.role.endsWith('closing');
  const { rockerRatio } = gear;
  if (rockerRatio === null && hangsOnRatio(steps, gear)) return null;
  const rows: BudgetRow[] = [];
  let { lo, hi } = found;
  for (const { step, operation, move, done } of steps) {
    const { effects } = lashBudget({
      lo,
      hi,
      steps: [{ kind: operation, ...move }],
      ...gear,
      rockerRatio: rockerRatio ?? 1,
    });
    const effect = effects[0]!;
    lo += effect;
    hi += effect;
    rows.push({ step, operation, effect, lo, hi, done });
  }
  const gain = pieceGain(pattern, point.role);
  const piece =
    'sizes' in means && means.sizes !== null && installed !== null
      ? pieceFor(means.sizes, {
          lo,
          hi,
          limits: input.limits,
          target,
          installed: installed + thickerBy(steps, means),
          gain,
        })
      : null;
  const screw = screwFor(input, { lo, hi });
  const tip = tipGround(lines, point, pattern);
  const ways: string[] = [];
  const said = lengthIn(input.unit);
  const cut = steps.filter(
    ({ operation, done }) => !done && (operation === 'seat-cut' || operation === 'face-cut'),
  );
  if (piece && piece.verdict !== 'in-spec') {
    const short = limits.min - piece.leaves.lo;
    const over = piece.leaves.hi - limits.max;
    if (piece.underThinnest > 0 && short > 0 && !closing) {
      if (cut.length > 0) ways.push(`cut ${said(short / gain)} less`);
      if (input.tipLimit !== null && input.tipLimit - tip >= short / gain - ON_BOUNDARY)
        ways.push(`grind ${said(short / gain)} off the tip: the sheet allows ${said(input.tipLimit)} in all`);
      ways.push(`fit a seat that lets the valve lie ${said(short / gain)} lower`);
    } else if (piece.beyondThickest > 0 && over > 0)
      ways.push(`take back ${said(over / gain)}: a longer stem, or a cut after a new seat`);
    else if (piece.underThinnest === 0 && piece.beyondThickest === 0)
      ways.push('its bracket is wider than the band allows: measure it closer');
  }
  if (screw && screw.outside > 0)
    ways.push('change the pushrod, the screw or the rocker’s height, as the maker allows');
  return {
    rows,
    lo,
    hi,
    piece,
    screw,
    fails:
      (piece !== null &&
        (piece.underThinnest > 0 || piece.beyondThickest > 0) &&
        piece.verdict !== 'in-spec') ||
      (screw !== null && screw.outside > 0),
    ways,
    cautions: cautionsOf(input, tip, hi),
  };
}

/** How much thicker the piece is at the end than the one the gap was found with: that is part of the work. */
function thickerBy(steps: readonly StepHere[], { kind }: Means): number {
  const thicker = kind === 'bucket' ? 'crown-thicker' : 'shim-thicker';
  return steps
    .filter(({ operation }) => operation === thicker)
    .reduce((sum, { move }) => sum + (move.depth ?? 0), 0);
}

interface StepHere {
  readonly step: string;
  readonly operation: HeadOperation;
  readonly move: Omit<HeadStep, 'kind'>;
  readonly done: boolean;
}

/** The steps that bear on a point, in the order of the work, each as far as it moves the point's own end. */
function stepsAt({ pattern, point, lines }: PointBudgetInput): StepHere[] {
  const key = point.key.replace(/-c$/, '');
  const own = valvesOf(pattern).filter((valve) => valve.point === key);
  const counted = own.length > 1 && pattern.bridgeKind === 'guided' ? own.slice(0, 1) : own;
  const known = new Set<string>(operationsFor(pattern));
  const closing = point.role.endsWith('closing');
  const named = new Map<string, HeadWorkLine[]>();
  for (const line of lines)
    if (!line.dropped && counted.some((valve) => valve.key === line.valve) && known.has(line.operation))
      named.set(line.step, [...(named.get(line.step) ?? []), line]);
  return [...named]
    .map(([step, here]): StepHere => {
      const { operation } = here[0]!;
      const move = counted.reduce((sum, valve) => {
        const line = here.find((each) => each.valve === valve.key);
        return sum + (line ? alongAxis(line) : 0);
      }, 0);
      return {
        step,
        operation,
        move: { depth: move / counted.length },
        done: here.every(({ done }) => done !== null),
      };
    })
    .filter(({ operation }) => !closing || HEAD_OPERATIONS[operation].closing !== null)
    .toSorted((a, b) => OPERATION_ORDER.indexOf(a.operation) - OPERATION_ORDER.indexOf(b.operation));
}

/** What would bring a point to its target, the size that comes nearest to it in the plan's own order, and what that leaves. */
function pieceFor(
  made: SizeRange,
  at: {
    readonly lo: number;
    readonly hi: number;
    readonly limits: Limits;
    readonly target: number;
    readonly installed: number;
    readonly gain: number;
  },
): PointBudget['piece'] {
  const { lo, hi, target, installed, gain } = at;
  const all = sizesOf(made);
  const ends = endsOf(at.limits);
  const gap = { lo: lo * 10_000, hi: hi * 10_000, installed: installed * 10_000, gain };
  const needed = pieceWanted(gap, tenthsFromMm(target)) / 10_000;
  // a forecast is known on both sides, also where it lies below nothing
  const chosen = fitPiece({
    ...{ lo, hi, floor: true, installed, gain, target },
    ...{ sizes: all.map(mmFromTenths), min: mmFromTenths(ends.min), max: mmFromTenths(ends.max) },
  });
  const nearest =
    chosen.size !== null
      ? tenthsFromMm(chosen.size)
      : all.reduce((best, size) =>
          Math.abs(size - needed * 10_000) < Math.abs(best - needed * 10_000) - ON_BOUNDARY ? size : best,
        );
  const left = pieceOutcome(gap, nearest, guardedBand(ends, tenthsFromMm(target), 0));
  const leaves = { lo: left.lo / 10_000, hi: left.hi / 10_000 };
  const past = (by: number) => (by > ON_BOUNDARY ? by : 0);
  return {
    needed,
    nearest: mmFromTenths(nearest),
    leaves,
    verdict: judge({ lo: Math.round(left.lo), hi: Math.round(left.hi), floor: left.lo >= 0 }, at.limits)
      .verdict,
    underThinnest: past(mmFromTenths(all[0]!) - needed),
    beyondThickest: past(needed - mmFromTenths(all.at(-1)!)),
  };
}

/** Whether what is done moves the gap by the rocker's ratio: at the cam or the pivot, or where the gap is taken at the cam. */
const hangsOnRatio = (
  steps: readonly { readonly operation: keyof typeof HEAD_OPERATIONS }[],
  { gapAt }: Leverage,
): boolean => steps.some(({ operation }) => gapAt === 'cam' || HEAD_OPERATIONS[operation].end !== 'valve');

/** How far a screw will stand out once its gap is at its target again: a gap that shrank has it backed out. */
function screwFor(
  { pattern, point, target, standout, standoutLimits }: PointBudgetInput,
  { lo, hi }: { readonly lo: number; readonly hi: number },
): PointBudget['screw'] {
  const means = meansFor(pattern, point.role);
  // under a finger's ball no sheet says which way a screw stands out as the gap opens
  if (means.kind !== 'screw' || standout === null) return null;
  // neither stands out at its valve or pushrod
  if (means.end === 'finger-pivot' || means.end === 'eccentric') return null;
  const { gapAt } = leverageOf(pattern, point.role);
  const opens = target - (lo + hi) / 2;
  const gain = screwGain({ screwSide: means.end, rockerRatio: means.rockerRatio, gapAt });
  if (gain === null) return null;
  const stands = standout + opens / gain;
  const { min, max } = standoutLimits ?? { min: -Infinity, max: Infinity };
  return { standout: stands, outside: Math.max(0, min - stands, stands - max) };
}

function tipGround(lines: readonly HeadWorkLine[], point: Pick<LashPoint, 'key'>, pattern: Pattern): number {
  const own = new Set(
    valvesOf(pattern)
      .filter((valve) => valve.point === point.key)
      .map(({ key }) => key),
  );
  return lines
    .filter((line) => !line.dropped && own.has(line.valve) && line.operation === 'tip-grind')
    .reduce((sum, line) => sum + alongAxis(line), 0);
}

function cautionsOf({ point, tipLimit, unit }: PointBudgetInput, tip: number, hi: number): string[] {
  const closing = point.role.endsWith('closing');
  return [
    ...(tip > (tipLimit ?? 0) + ON_BOUNDARY
      ? [
          tipLimit === null
            ? 'The sheet allows no tip to be ground: hollow, hard-tipped and coated stems never are.'
            : `More is ground off the tip than the sheet’s ${lengthIn(unit)(tipLimit)}.`,
        ]
      : []),
    ...(hi < 0 && !closing
      ? ['With what is in now this valve would be held open: turn nothing over like that.']
      : []),
  ];
}
