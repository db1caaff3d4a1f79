/** What is known of a gap, with both its ends; mm. */
interface Known {
  readonly lo: number;
  readonly hi: number;
}

/** Gaps measured just before and just after a lock nut was tightened; mm. */
export interface LockShiftInput {
  readonly pairs: readonly { readonly before: Known; readonly after: Known }[];
}

/** How much one person's locking moves a gap on one means of setting; mm, null where that cannot be said. */
export interface LockShift {
  readonly count: number;
  readonly mean: number | null;
  readonly sd: number | null;
  /** what is reckoned with: 0 until enough pairs say so */
  readonly use: number;
}

/** From so many pairs on a shift is reckoned with. */
const LEAST_PAIRS = 6;

/**
 * Learns how much somebody's gaps change when the lock nut is tightened.
 *
 * Rule: the mean of after − before, reckoned with from six pairs on, where it is clearly not nothing: more than twice its
 * standard error.
 *
 * @example lockShift({ pairs: [] }).use // 0
 */
export function lockShift({ pairs }: LockShiftInput): LockShift {
  const count = pairs.length;
  if (count === 0) return { count, mean: null, sd: null, use: 0 };
  const shifts = pairs.map(({ before, after }) => middleOf(after) - middleOf(before));
  const mean = meanOf(shifts);
  const sd =
    count < 2 ? null : Math.sqrt(shifts.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (count - 1));
  const clear = sd !== null && count >= LEAST_PAIRS && Math.abs(mean) > (2 * sd) / Math.sqrt(count);
  return { count, mean, sd, use: clear ? mean : 0 };
}

/** Points looked at twice, the second time without seeing the first; mm. */
export interface FeelSpreadInput {
  readonly looks: readonly { readonly first: Known; readonly second: Known }[];
}

/** How well a person feels the same gap again, and how far inside a band that keeps a plan; mm. */
export interface FeelSpread {
  readonly count: number;
  readonly sd: number | null;
  /** how much wider the first look reads than the second */
  readonly bias: number | null;
  readonly guard: number;
}

const LEAST_LOOKS = 10;
/** Until a person's own spread is known; mm. */
const USUAL_GUARD = 0.004;
const LEAST_GUARD = 0.002;

/**
 * Learns a person's spread of feel from blind second looks, and the guard a plan keeps inside its band by it.
 *
 * Rule: half the mean square of the differences, less what the width of the brackets explains; the guard is twice the spread,
 * once there are ten looks.
 *
 * @example feelSpread({ looks: [] }).guard // 0.004
 */
export function feelSpread({ looks }: FeelSpreadInput): FeelSpread {
  const count = looks.length;
  if (count === 0) return { count, sd: null, bias: null, guard: USUAL_GUARD };
  const differences = looks.map(({ first, second }) => middleOf(first) - middleOf(second));
  const widths = looks.flatMap(({ first, second }) => [first.hi - first.lo, second.hi - second.lo]);
  const variance =
    differences.reduce((sum, one) => sum + one ** 2, 0) / (2 * count) -
    meanOf(widths.map((width) => width ** 2)) / 12;
  const sd = Math.sqrt(Math.max(0, variance));
  return {
    count,
    sd,
    bias: meanOf(differences),
    guard: count < LEAST_LOOKS ? USUAL_GUARD : Math.max(2 * sd, LEAST_GUARD),
  };
}

const middleOf = ({ lo, hi }: Known) => (lo + hi) / 2;
const meanOf = (figures: readonly number[]) => figures.reduce((sum, one) => sum + one, 0) / figures.length;
