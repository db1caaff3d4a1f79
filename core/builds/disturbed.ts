import {
  camsOf,
  gearParts,
  lashPoints,
  lobesOf,
  meansFor,
  perPattern,
  rolesOf,
  type Bank,
  type LashPoint,
  type Pattern,
  type Role,
} from '../sheets/index.ts';
import { checkKey } from '../checks/index.ts';
import type { BuildState, ProvesAgain } from './buildState.ts';
import { checkSaying, SETTING } from './stages.ts';

/** What may be slackened or taken out. */
type SlackenedKind = 'rockers' | 'cam' | 'cover' | 'new-cam' | 'head';

/** Something slackened or taken out, which moves every gap it bears on although no point was set. */
export interface Disturbance {
  /** as it is ticked off where points are set */
  readonly key: string;
  readonly kind: SlackenedKind;
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
 * Rule: a rocker shaft, a cam or a head that was slackened lies differently; every gap under it is another one until it is measured. A
 * cam in the block works every head. Of two cams above a head each has its own points, but only where the sheet says that there
 * are two: else one cam is taken to work all of them. A cover whose bolts hold the cams takes them with it.
 *
 * @example disturbances(pattern).map(({ key }) => key) // ['rockers-A', 'cam-A', 'newcam-A', 'head-A']
 */
export const disturbances = perPattern((pattern): readonly Disturbance[] => {
  const banks = [...new Set(pattern.cylinders.map(({ bank }) => bank))].sort();
  const all = rolesOf(pattern).map((role) => meansFor(pattern, role));
  const ways = new Set(all.map((means) => (means.kind === 'shim' ? means.seat : means.kind)));
  const rockers = [...ways].map((way) => ROCKERS[way]).find((text) => text !== undefined);
  const kinds: readonly { kind: SlackenedKind; cam?: string; text: string }[] = [
    ...(rockers === undefined ? [] : [{ kind: 'rockers' as const, text: rockers }]),
    ...(hasTwoCams(pattern)
      ? [
          { kind: 'cam' as const, cam: 'intake', text: 'Intake cam taken out and put back' },
          { kind: 'cam' as const, cam: 'exhaust', text: 'Exhaust cam taken out and put back' },
        ]
      : [{ kind: 'cam' as const, text: 'Cam taken out and put back' }]),
    ...(pattern.coverHoldsCams
      ? [{ kind: 'cover' as const, text: 'Cover off again, or its bolts slackened, which hold the cams' }]
      : []),
    { kind: 'new-cam', text: 'Another cam, or other followers or rockers, fitted' },
    { kind: 'head', text: 'Head off, or tightened again' },
  ];
  const where = (bank: Bank) => (banks.length > 1 ? `, bank ${bank}` : '');
  const points = lashPoints(pattern);
  return banks.flatMap((bank) =>
    kinds.map(({ kind, text, cam }) => ({
      key: checkKey(kind, [bank, ...(cam ? [cam] : [])].join('-')),
      kind,
      text: `${text}${where(bank)}`,
      points: points
        .filter(
          (point) =>
            (bankOf(pattern, point) === bank ||
              (CAMS.includes(kind) && gearParts(pattern).camIn === 'block')) &&
            (!cam || camOver(pattern, point)?.startsWith(cam)),
        )
        .map((point) => point.key),
    })),
  );
});

/** What has a cam in it: one in the block works every head. */
const CAMS: readonly SlackenedKind[] = ['cam', 'new-cam'];

/** Whether the sheet says that there are two cams above a head: what is not said is not counted on. */
const hasTwoCams = (pattern: Pattern) => pattern.camsAbove === 'two' && gearParts(pattern).camIn === 'head';

/** The cam that works a point, where the sheet says that there are two above each head; else undefined: all of a head go together. */
const camOver = (pattern: Pattern, { key }: LashPoint): string | undefined =>
  hasTwoCams(pattern) ? camsOf(pattern).find((cam) => lobesOf(pattern, cam).includes(key)) : undefined;

/**
 * Lists the heads that may be tightened again once an engine runs, each with the points it bears on.
 *
 * @example headsToTorque(pattern).map(({ key }) => key) // ['head-A']
 */
export const headsToTorque = (pattern: Pattern): readonly Disturbance[] =>
  disturbances(pattern).filter(({ kind }) => kind === 'head');

/**
 * Lists the points that a change at one of them disturbs, itself among them. A screw, a pivot nut and a shim on top of a
 * bucket are changed with everything round them left as it was. Under a bucket or a finger, a graded bucket or a lash cap:
 * cam or rockers come out first, and every point under that cam, or along that head, is another one afterwards.
 *
 * Rule: a gap belongs to how its cam and rocker lay when it was measured; what was lifted out lies differently.
 *
 * @param atLeast how much the shop has proved again whatever was changed; it never makes it less
 * @example disturbedBy(pattern, '2I') // ['1I', '1E', '2I', '2E'] with shims under the buckets
 */
export const disturbedBy = (
  pattern: Pattern,
  key: string,
  atLeast: ProvesAgain = 'disturbed',
): readonly string[] => disturbedPoints(pattern, key, atLeast);

const disturbedPoints = perPattern((pattern, key: string, atLeast: ProvesAgain): readonly string[] => {
  const points = lashPoints(pattern);
  const changed = points.find((point) => point.key === key);
  if (!changed) return [];
  const own = comesOut(pattern, changed) ? underOneCam : REACH.disturbed;
  return points
    .filter((point) => own(pattern, changed, point) || REACH[atLeast](pattern, changed, point))
    .map((point) => point.key);
});

/** Whether cam or rockers come out before a point is changed. */
const comesOut = (pattern: Pattern, { role }: LashPoint): boolean => !setAtItsStop(pattern, role);

/**
 * Says whether a point of a role is set where the crank stands as it is felt: nothing comes out for it but its own piece.
 *
 * @example setAtItsStop(pattern, 'intake') // true: it has screws
 */
export function setAtItsStop(pattern: Pattern, role: Role): boolean {
  const means = meansFor(pattern, role);
  if (means.kind === 'shim') return means.seat === 'on-bucket';
  return means.kind === 'screw' || means.kind === 'pivot-nut';
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

/** Whether what comes out for the first point lies over the second too. */
function underOneCam(pattern: Pattern, from: LashPoint, to: LashPoint): boolean {
  return REACH.head(pattern, from, to) && camOver(pattern, from) === camOver(pattern, to);
}

/** Whether the piece of a point is changed under a tool that holds down the buckets of its like valves together. */
function underOneTool(pattern: Pattern, { role }: LashPoint): boolean {
  const means = meansFor(pattern, role);
  return means.kind === 'shim' && means.seat === 'on-bucket';
}

/** What is slackened that is taken off and put together again. */
const TAKEN_OFF: readonly SlackenedKind[] = ['rockers', 'cam', 'new-cam', 'cover'];
/** What of it takes a cam out of its caps: none of it is done before the crank stands where cams come out. */
export const CAPS_OFF: readonly SlackenedKind[] = ['cam', 'new-cam', 'cover'];

const COVER_ON = checkSaying('cover-on');

/**
 * Lists what was taken apart of a build, and when: what was ticked so, and a cover that was on and came off again where its bolts
 * hold the cams.
 */
function takenApart({ sheet: { pattern }, ticks }: Pick<BuildState, 'sheet' | 'ticks'>) {
  const kinds = new Map(disturbances(pattern).map((each) => [each.key, each]));
  return ticks.flatMap(({ stage, check, done, at, earlier = [] }) => {
    const ticked = stage === SETTING && done ? kinds.get(check) : undefined;
    if (ticked) return [{ ...ticked, at }];
    const lastOn = earlier.at(-1);
    if (stage !== COVER_ON.stage || check !== COVER_ON.check || lastOn === undefined) return [];
    return [...kinds.values()]
      .filter(({ kind }) => kind === 'cover')
      .map((each) => ({ ...each, at: lastOn }));
  });
}

/**
 * Finds when a cam or the rockers last came out, ticked as such or for the sake of a piece under them; ms, or -Infinity.
 *
 * @example camOutAt(build) // -Infinity
 */
export function camOutAt(build: Pick<BuildState, 'sheet' | 'settings' | 'ticks'>): number {
  const { settings } = build;
  const { pattern } = build.sheet;
  const points = new Map(lashPoints(pattern).map((point) => [point.key, point]));
  return Math.max(
    -Infinity,
    ...settings
      .filter(
        ({ kind, point }) => kind !== 'left' && points.has(point) && comesOut(pattern, points.get(point)!),
      )
      .map(({ at }) => Date.parse(at)),
    ...takenApart(build)
      .filter(({ kind }) => TAKEN_OFF.includes(kind))
      .map(({ at }) => Date.parse(at)),
  );
}

/**
 * Finds when a cam last came out of its caps, ticked as such or for the sake of a piece under it; ms, or -Infinity.
 *
 * @example camCapsOffAt(build) > -Infinity // from the first shim under a bucket on
 */
export function camCapsOffAt(build: Pick<BuildState, 'sheet' | 'settings' | 'ticks'>): number {
  const { settings } = build;
  const { pattern } = build.sheet;
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
    ...takenApart(build)
      .filter(({ kind }) => CAPS_OFF.includes(kind))
      .map(({ at }) => Date.parse(at)),
  );
}

/**
 * Says whether the piece of a role lies under a cam, which comes out before it is changed.
 *
 * @example liesUnderCam(pattern, 'intake') // false: it has screws
 */
export function liesUnderCam(pattern: Pattern, role: Role): boolean {
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
export function lastTakenApart(build: Pick<BuildState, 'sheet' | 'ticks'>): ReadonlyMap<string, string> {
  const last = new Map<string, string>();
  const { pattern } = build.sheet;
  const roles = new Map(lashPoints(pattern).map(({ key, role }) => [key, role]));
  for (const { kind, points, at } of takenApart(build))
    for (const point of points) {
      if (['cam', 'cover'].includes(kind) && liesUnderCam(pattern, roles.get(point)!)) continue;
      if (Date.parse(at) > Date.parse(last.get(point) ?? '0001-01-01')) last.set(point, at);
    }
  return last;
}

/**
 * Finds for each point when something was last done that disturbs it: a change there or at a neighbour under the same cam, or
 * something slackened that bears on it.
 *
 * @returns no entry for a point that nothing disturbed
 * @example lastDisturbed(build).get('1I')
 */
export function lastDisturbed(
  build: Pick<BuildState, 'sheet' | 'settings' | 'ticks' | 'provesAgain'>,
): ReadonlyMap<string, string> {
  const { settings, provesAgain = 'disturbed' } = build;
  const { pattern } = build.sheet;
  const last = new Map<string, string>();
  const disturb = (points: readonly string[], at: string) => {
    for (const key of points)
      if (Date.parse(at) > Date.parse(last.get(key) ?? '0001-01-01')) last.set(key, at);
  };
  for (const { point, kind, at, giver, cause } of settings)
    // what came apart, and is together again, lies differently
    if (cause === 'apart') disturb([point], at);
    else if (kind !== 'left') {
      disturb(disturbedBy(pattern, point, provesAgain), at);
      // a piece that went to another place was taken out of its own
      if (giver) disturb(disturbedBy(pattern, giver, provesAgain), at);
    }
  for (const { points, at } of takenApart(build)) disturb(points, at);
  return last;
}
