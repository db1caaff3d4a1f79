import {
  gearParts,
  lashPoints,
  meansFor,
  rolesOf,
  type Bank,
  type LashPoint,
  type Pattern,
  type Role,
} from '../sheets/index.ts';
import type { KeptBuild } from './standing.ts';
import { STAGES } from './stages.ts';

/** How much is proved again after a change at a point: what it bears on, or more where the shop says so. */
export type ProvesAgain = 'disturbed' | 'cylinder' | 'head' | 'every-point';

/** Something slackened or taken out, which moves every gap it bears on although no point was set. */
export interface Disturbance {
  /** as it is ticked off where points are set */
  readonly key: string;
  readonly text: string;
  /** the points it bears on */
  readonly points: readonly string[];
}

const ROCKERS: Partial<Readonly<Record<string, string>>> = {
  screw: 'Rocker shaft slackened or taken off',
  'pivot-nut': 'Pivot nuts or pedestals slackened or taken off',
  'lash-cap': 'Rockers or fingers taken off',
  'under-finger': 'Fingers taken off',
};

/**
 * Lists what may be slackened or taken out of an engine by itself and put back, head by head.
 *
 * Rule: a rocker shaft, a cam or a head that was slackened lies anew; every gap under it is another one until it is measured. A
 * cam in the block works every head.
 *
 * @example disturbances(pattern).map(({ key }) => key) // ['rockers-A', 'cam-A', 'newcam-A', 'head-A']
 */
export function disturbances(pattern: Pattern): readonly Disturbance[] {
  const banks = [...new Set(pattern.cylinders.map(({ bank }) => bank))].sort();
  const all = rolesOf(pattern).map((role) => meansFor(pattern, role));
  const ways = new Set(all.map((means) => (means.kind === 'shim' ? means.seat : means.kind)));
  const rockers = [...ways].map((way) => ROCKERS[way]).find((text) => text !== undefined);
  const kinds = [
    ...(rockers === undefined ? [] : [{ key: 'rockers', text: rockers }]),
    { key: 'cam', text: 'Cam taken out and put back' },
    { key: 'newcam', text: 'Another cam, or other followers or rockers, fitted' },
    { key: 'head', text: 'Head off, or torqued again' },
  ];
  const where = (bank: Bank) => (banks.length > 1 ? `, bank ${bank}` : '');
  return banks.flatMap((bank) =>
    kinds.map(({ key, text }) => ({
      key: `${key}-${bank}`,
      text: `${text}${where(bank)}`,
      points: lashPoints(pattern)
        .filter(
          (point) =>
            bankOf(pattern, point) === bank || (key.endsWith('cam') && gearParts(pattern).camIn === 'block'),
        )
        .map((point) => point.key),
    })),
  );
}

/**
 * Lists the heads that may be torqued again once an engine runs, each with the points it bears on.
 *
 * @example headsToTorque(pattern).map(({ key }) => key) // ['head-A']
 */
export const headsToTorque = (pattern: Pattern): readonly Disturbance[] =>
  disturbances(pattern).filter(({ key }) => key.startsWith('head-'));

/**
 * Says what was slackened, by its key alone; undefined where that is no key of such a thing.
 *
 * @example slackenedInWords('head-A') // 'Head A torqued again'
 */
export function slackenedInWords(key: string): string | undefined {
  const [what, bank] = key.split('-');
  const words: Readonly<Record<string, string>> = {
    rockers: `Rockers of head ${bank} slackened or taken off`,
    cam: `Cam of head ${bank} taken out`,
    newcam: `Another cam, followers or rockers in head ${bank}`,
    head: `Head ${bank} off, or torqued again`,
  };
  return words[what ?? ''];
}

/**
 * Lists the points that a change at one of them disturbs, itself among them. A screw, a pivot nut and a shim on top of a
 * bucket are changed with everything round them left as it was. Under a bucket or a finger, a graded bucket or a lash cap:
 * cam or rockers come out first, and every point they bear on, at least along that head, is another one afterwards.
 *
 * Rule: a gap belongs to how its cam and rocker lay when it was measured; what was lifted out lies anew.
 *
 * @param atLeast how much the shop has proved again whatever was changed; it never makes it less
 * @example disturbedBy(pattern, '2I') // ['1I', '1E', '2I', '2E'] with shims under the buckets
 */
export function disturbedBy(
  pattern: Pattern,
  key: string,
  atLeast: ProvesAgain = 'disturbed',
): readonly string[] {
  const points = lashPoints(pattern);
  const changed = points.find((point) => point.key === key);
  if (!changed) return [];
  const reach = [comesOut(pattern, changed) ? 'head' : 'disturbed', atLeast] as const;
  return points
    .filter((point) => reach.some((far) => REACH[far](pattern, changed, point)))
    .map((point) => point.key);
}

/** Whether cam or rockers come out before a point is changed. */
function comesOut(pattern: Pattern, { role }: LashPoint): boolean {
  const means = meansFor(pattern, role);
  if (means.kind === 'shim') return means.seat !== 'on-bucket';
  return means.kind !== 'screw' && means.kind !== 'pivot-nut';
}

const bankOf = (pattern: Pattern, { cylinder }: LashPoint) =>
  pattern.cylinders.find(({ id }) => id === cylinder)?.bank;

const valveOf = ({ role }: LashPoint) => role.replace('-closing', '');

/** Whether a change at the first point is one for the second. */
const REACH: Readonly<Record<ProvesAgain, (pattern: Pattern, from: LashPoint, to: LashPoint) => boolean>> = {
  // the two sides of a valve that is drawn shut bear on one another, and a tool that holds a bucket down its neighbour's too
  disturbed: (pattern, from, to) =>
    from.cylinder === to.cylinder &&
    valveOf(from) === valveOf(to) &&
    (from.index === to.index || underOneTool(pattern, from)),
  cylinder: (_, from, to) => from.cylinder === to.cylinder,
  head: (pattern, from, to) => bankOf(pattern, from) === bankOf(pattern, to),
  'every-point': () => true,
};

/** Whether the piece of a point is changed under a tool that holds down the buckets of its like valves together. */
function underOneTool(pattern: Pattern, { role }: LashPoint): boolean {
  const means = meansFor(pattern, role);
  return means.kind === 'shim' && means.seat === 'on-bucket';
}

/** What is slackened that is taken off and put together again. */
const TAKEN_OFF = ['rockers', 'cam', 'newcam'];

/**
 * Finds when a cam or the rockers last came out, ticked as such or for the sake of a piece under them; ms, or -Infinity.
 *
 * @example camOutAt(build) > Date.parse(tick.at)
 */
export function camOutAt({
  sheet: { pattern },
  settings,
  ticks,
}: Pick<KeptBuild, 'sheet' | 'settings' | 'ticks'>): number {
  const points = new Map(lashPoints(pattern).map((point) => [point.key, point]));
  return Math.max(
    -Infinity,
    ...settings
      .filter(
        ({ kind, point }) => kind !== 'left' && points.has(point) && comesOut(pattern, points.get(point)!),
      )
      .map(({ at }) => Date.parse(at)),
    ...ticks
      .filter(
        ({ stage, check, done }) => done && stage === SETTING && TAKEN_OFF.includes(check.split('-')[0]!),
      )
      .map(({ at }) => Date.parse(at)),
  );
}

/**
 * Finds when a cam last came out of its caps, ticked as such or for the sake of a piece under it; ms, or -Infinity.
 *
 * @example camCapsOffAt(build) > -Infinity // from the first shim under a bucket on
 */
export function camCapsOffAt({
  sheet: { pattern },
  settings,
  ticks,
}: Pick<KeptBuild, 'sheet' | 'settings' | 'ticks'>): number {
  if (gearParts(pattern).camIn === 'block') return -Infinity;
  const roles = new Map(lashPoints(pattern).map(({ key, role }) => [key, role]));
  return Math.max(
    -Infinity,
    ...settings
      .filter(({ kind, point }) => {
        const role = roles.get(point);
        return kind !== 'left' && role !== undefined && liesUnderCam(pattern, role);
      })
      .map(({ at }) => Date.parse(at)),
    ...ticks
      .filter(({ stage, check, done }) => done && stage === SETTING && /^(new)?cam-/.test(check))
      .map(({ at }) => Date.parse(at)),
  );
}

/** Whether the piece of a role lies under a cam, which comes out before it is changed. */
function liesUnderCam(pattern: Pattern, role: Role): boolean {
  const means = meansFor(pattern, role);
  return means.kind === 'bucket' || (means.kind === 'shim' && means.seat === 'under-bucket');
}

/**
 * Finds for each point when what its gap rested on was last taken apart: what was found before says nothing of how it is. A piece
 * under a cam is chosen with the cam out, by what was found with it in: it goes back as it lay, unless it is another one.
 *
 * Rule: a reading belongs to the shaft, nuts, cam and head that it was taken with.
 *
 * @example lastTakenApart(build).get('1I') // when its rocker shaft was off
 */
export function lastTakenApart({
  sheet: { pattern },
  ticks,
}: Pick<KeptBuild, 'sheet' | 'ticks'>): ReadonlyMap<string, string> {
  const last = new Map<string, string>();
  const roles = new Map(lashPoints(pattern).map(({ key, role }) => [key, role]));
  const ticked = ticks.filter(({ stage, done }) => done && stage === SETTING);
  if (ticked.length === 0) return last;
  for (const { key, points } of disturbances(pattern))
    for (const { check, at } of ticked)
      if (check === key)
        for (const point of points) {
          if (key.startsWith('cam-') && liesUnderCam(pattern, roles.get(point)!)) continue;
          if (Date.parse(at) > Date.parse(last.get(point) ?? '0001-01-01')) last.set(point, at);
        }
  return last;
}

/** The stage where points are set, and what was slackened is ticked off. */
const SETTING = STAGES.find(({ sets }) => sets)!.key;

/**
 * Finds for each point when something was last done that disturbs it: a change there or at a neighbour under the same cam, or
 * something slackened that bears on it.
 *
 * @returns no entry for a point that nothing disturbed
 * @example lastDisturbed(build).get('1I')
 */
export function lastDisturbed({
  sheet: { pattern },
  settings,
  ticks,
  provesAgain = 'disturbed',
}: Pick<KeptBuild, 'sheet' | 'settings' | 'ticks' | 'provesAgain'>): ReadonlyMap<string, string> {
  const last = new Map<string, string>();
  const disturb = (points: readonly string[], at: string) => {
    for (const key of points)
      if (Date.parse(at) > Date.parse(last.get(key) ?? '0001-01-01')) last.set(key, at);
  };
  for (const { point, kind, at, giver } of settings)
    if (kind !== 'left') {
      disturb(disturbedBy(pattern, point, provesAgain), at);
      // a piece that went to another place was taken out of its own
      if (giver) disturb(disturbedBy(pattern, giver, provesAgain), at);
    }
  const ticked = ticks.filter(({ stage, done }) => done && stage === SETTING);
  if (ticked.length > 0)
    for (const { key, points } of disturbances(pattern))
      for (const { check, at } of ticked) if (check === key) disturb(points, at);
  return last;
}
