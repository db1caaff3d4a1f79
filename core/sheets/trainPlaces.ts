import { lashPoints, meansFor } from './lashPoints.ts';
import { perPattern } from './perPattern.ts';
import type { Bank, Pattern } from './pattern.ts';

/** One valve, and the lash point that its gap belongs to. */
export interface Valve {
  /** such as `1I`, `3Eb` */
  readonly key: string;
  readonly cylinder: string;
  readonly role: 'intake' | 'exhaust';
  /** from 0 at the front of its like ones */
  readonly index: number;
  /** the lash point that opens it; a bridge carries a pair on one */
  readonly point: string;
}

const LETTERS = 'abc';

/**
 * Lists every valve of a pattern, cylinder by cylinder in the maker's order, intakes first. Under a bridge there are two to
 * a lash point.
 *
 * @example valvesOf(inlineFour).find(({ key }) => key === '1Eb')?.point // '1E'
 */
export function valvesOf(pattern: Pattern): readonly Valve[] {
  return pattern.cylinders.flatMap(({ id }) =>
    (['intake', 'exhaust'] as const).flatMap((role) => {
      const count = pattern.valves[role];
      return Array.from({ length: count }, (_, index): Valve => {
        const stem = `${id}${role === 'intake' ? 'I' : 'E'}`;
        const key = count > 1 ? `${stem}${LETTERS[index]}` : stem;
        return { key, cylinder: id, role, index, point: pattern.bridges[role] ? stem : key };
      });
    }),
  );
}

/**
 * Says which parts a valve gear has between its cams and its valves, by how its gaps are set.
 *
 * @example gearParts(pattern).rockers // true
 */
export function gearParts(pattern: Pattern): {
  readonly rockers: boolean;
  readonly pushrods: boolean;
  readonly followers: boolean;
  readonly camIn: 'block' | 'head';
} {
  const ways = (['intake', 'exhaust'] as const).map((role) => meansFor(pattern, role));
  const pushrods = ways.some(
    (means) => means.kind === 'pivot-nut' || (means.kind === 'screw' && means.end === 'pushrod'),
  );
  const buckets = ways.some(
    (means) => means.kind === 'bucket' || (means.kind === 'shim' && means.seat !== 'under-finger'),
  );
  return {
    rockers: ways.some(
      (means) => means.kind !== 'bucket' && (means.kind !== 'shim' || means.seat === 'under-finger'),
    ),
    pushrods,
    followers: buckets || pushrods,
    camIn: pushrods ? 'block' : 'head',
  };
}

/**
 * Names the cams of an engine: one in the block, else one or two above each bank, as the sheet says. Where it does not say: two
 * where buckets run on more than two valves a cylinder.
 *
 * @example camsOf(inlineFour) // ['intake cam', 'exhaust cam']
 */
export const camsOf = perPattern((pattern): readonly string[] => {
  const { camIn, followers } = gearParts(pattern);
  if (camIn === 'block') return ['cam'];
  const banks = [...new Set(pattern.cylinders.map(({ bank }) => bank))].sort();
  const { camsAbove = 'unsaid', valves } = pattern;
  const two = camsAbove === 'unsaid' ? followers && valves.intake + valves.exhaust > 2 : camsAbove === 'two';
  const names = two ? ['intake cam', 'exhaust cam'] : ['cam'];
  return banks.flatMap((bank) => names.map((name) => (banks.length > 1 ? `${name} ${bank}` : name)));
});

/** The bank a cam turns in; both for one in the block. */
function banksOfCam(pattern: Pattern, cam: string): readonly Bank[] {
  const named = /\s([AB])$/.exec(cam)?.[1] as Bank | undefined;
  return named ? [named] : [...new Set(pattern.cylinders.map(({ bank }) => bank))];
}

/**
 * Names the journals of a cam, from the front: one more than it has cylinders in a row.
 *
 * @example journalsOf(inlineFour, 'cam') // ['cam J1', …, 'cam J5']
 */
export function journalsOf(pattern: Pattern, cam: string): readonly string[] {
  const banks = banksOfCam(pattern, cam);
  const longest = Math.max(
    ...banks.map((bank) => pattern.cylinders.filter((cylinder) => cylinder.bank === bank).length),
  );
  return Array.from({ length: longest + 1 }, (_, index) => `${cam} J${index + 1}`);
}

/**
 * Says which lash points a cam has lobes for, from the front of the engine.
 *
 * @example lobesOf(inlineFour, 'exhaust cam').length // 5
 */
export const lobesOf = perPattern((pattern, cam: string): readonly string[] => {
  const banks = new Set(banksOfCam(pattern, cam));
  const only = cam.startsWith('intake') ? 'intake' : cam.startsWith('exhaust') ? 'exhaust' : null;
  const place = (id: string) => pattern.cylinders.find((cylinder) => cylinder.id === id)!;
  return lashPoints(pattern)
    .filter(({ cylinder, role }) => {
      if (!banks.has(place(cylinder).bank)) return false;
      return only === null || role.startsWith(only) || (role === 'brake' && only === 'exhaust');
    })
    .toSorted((a, b) => place(a.cylinder).place - place(b.cylinder).place)
    .map(({ key }) => key);
});
