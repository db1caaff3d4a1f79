import {
  camsOf,
  gearParts,
  journalsOf,
  lashPoints,
  lobesOf,
  perPattern,
  valvesOf,
  type Pattern,
} from '../sheets/index.ts';
import { CHARACTERISTICS, type Characteristic, type PartKind, type PlaceKind } from './characteristics.ts';
import type { LimitedPlace, LimitKey } from './limitKinds.ts';

/** A place of a characteristic, with what limits may be meant for it. */
export interface WearPlace extends LimitedPlace {
  /** the lash point it belongs to, where it belongs to one */
  readonly point: string | null;
}

const atEngine: WearPlace = { key: 'engine', cylinder: null, role: null, point: null };

/**
 * Lists the places at which a characteristic is measured on an engine, in head order.
 *
 * @example placesOf(pattern, characteristicOf('stem-guide')!).length // 8
 */
export const placesOf = (pattern: Pattern, { at }: Pick<Characteristic, 'at'>): readonly WearPlace[] =>
  placesAt(pattern, at);

const placesAt = perPattern((pattern, at: PlaceKind): readonly WearPlace[] => {
  const points = lashPoints(pattern);
  const ofPoint = (key: string): WearPlace => {
    const point = points.find((each) => each.key === key)!;
    const role = point.role.startsWith('intake') ? 'intake' : 'exhaust';
    return { key, cylinder: point.cylinder, role, point: key };
  };
  const named = (key: string): WearPlace => ({
    key,
    cylinder: null,
    role: key.startsWith('intake') ? 'intake' : key.startsWith('exhaust') ? 'exhaust' : null,
    point: null,
  });
  switch (at) {
    case 'cylinder':
      return pattern.cylinders.map(({ id }) => ({ key: id, cylinder: id, role: null, point: null }));
    case 'valve':
      return valvesOf(pattern).map(({ key, cylinder, role, point }) => ({ key, cylinder, role, point }));
    case 'point':
      return points.filter(({ role }) => !role.endsWith('closing')).map(({ key }) => ofPoint(key));
    case 'lobe':
      return camsOf(pattern).flatMap((cam) => lobesOf(pattern, cam).map(ofPoint));
    case 'journal':
      return camsOf(pattern).flatMap((cam) => journalsOf(pattern, cam).map(named));
    case 'cam':
      return camsOf(pattern).map(named);
    case 'engine':
      return [atEngine];
  }
});

/**
 * Lists what a limit may be meant for alone: a cylinder, or a place where what it limits is measured.
 *
 * @example placesLimited(pattern, 'valve-margin') // ['1', '2', …, '1Ia', '1Ib', …]
 */
export function placesLimited(pattern: Pattern, part: LimitKey): readonly string[] {
  const at = new Set(
    CHARACTERISTICS.filter(({ limits }) => limits.includes(part)).map((characteristic) => characteristic.at),
  );
  // what is ground off in all is of each valve, and no figure of the sheet
  if (at.size === 0) at.add('valve');
  return [
    ...pattern.cylinders.map(({ id }) => id),
    ...[...at].flatMap((each) => placesOf(pattern, { at: each }).map(({ key }) => key)),
  ];
}

/**
 * Lists what can be measured on an engine: no pushrods where there are none.
 *
 * @example characteristicsFor(pattern).map(({ key }) => key)
 */
export function characteristicsFor(pattern: Pattern): readonly Characteristic[] {
  const { rockers, pushrods, followers } = gearParts(pattern);
  const { camDrive = 'unsaid' } = pattern;
  const has: Partial<Record<PartKind, boolean>> = {
    rocker: rockers,
    screw: [pattern.means, ...Object.values(pattern.roleMeans)].some(
      ({ kind }) => kind === 'screw' || kind === 'pivot-nut',
    ),
    pushrod: pushrods,
    follower: followers,
    piece: [pattern.means, ...Object.values(pattern.roleMeans)].some((means) => 'sizes' in means),
    chain: camDrive === 'chain' || camDrive === 'unsaid',
  };
  const shims = [pattern.means, ...Object.values(pattern.roleMeans)].some(({ kind }) => kind === 'shim');
  // a bucket or a cap has no seat that a bare gap could be measured to
  return CHARACTERISTICS.filter(({ part, key }) => (has[part] ?? true) && (key !== 'seat-offset' || shims));
}
