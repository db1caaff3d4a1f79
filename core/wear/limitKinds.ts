import { impossible, MEASURED_IN } from '../bounds/index.ts';

/** Units of what is measured while a head is open; lengths are kept in mm and shown in the shop's unit. */
export type WearUnit = 'mm' | 'N' | '%' | 'bar';

/** How a limit holds: from a nominal figure towards a limit, at most, at least, or between two figures. */
export type LimitForm = 'from-nominal' | 'at-most' | 'at-least' | 'band';

/** One kind of limit a source may give. */
export interface LimitKind {
  readonly title: string;
  readonly unit: WearUnit;
  readonly form: LimitForm;
  /** which way a figure goes as it wears, where that has to be known without a nominal */
  readonly grows: boolean;
}

const kind = (title: string, form: LimitForm, unit: WearUnit = 'mm', grows = true): LimitKind => ({
  title,
  unit,
  form,
  grows,
});

/** Everything a source may limit, in the order a head is looked over. */
export const LIMIT_KINDS = {
  compression: kind('Compression, least', 'at-least', 'bar', false),
  'compression-spread': kind('Compression, under the best', 'at-most', '%'),
  'leak-down-watch': kind('Leak-down, watched above', 'at-most', '%'),
  'leak-down': kind('Leak-down', 'at-most', '%'),
  'lobe-lift': kind('Lobe lift', 'from-nominal', 'mm', false),
  'journal-clearance': kind('Journal clearance', 'from-nominal'),
  'journal-ovality': kind('Journal ovality', 'at-most'),
  'journal-taper': kind('Journal taper', 'at-most'),
  'cam-runout': kind('Cam runout', 'at-most'),
  'cam-float': kind('Cam end float', 'from-nominal'),
  'stem-guide': kind('Stem to guide', 'from-nominal'),
  'stem-runout': kind('Stem runout', 'at-most'),
  'valve-margin': kind('Valve margin', 'from-nominal', 'mm', false),
  'tip-grinding': kind('Tip grinding, in all', 'at-most'),
  'seat-width': kind('Seat width', 'band'),
  'seat-free-face': kind('Face left free beside the contact', 'at-least', 'mm', false),
  'seat-runout': kind('Seat runout', 'at-most'),
  'stem-height': kind('Stem height', 'band'),
  'spring-length': kind('Spring free length', 'from-nominal', 'mm', false),
  'spring-force': kind('Spring force, seated', 'at-least', 'N', false),
  'spring-bind': kind('Spring, room before bind', 'at-least', 'mm', false),
  'spring-square': kind('Spring, out of square', 'at-most'),
  'follower-bore': kind('Follower in its bore', 'from-nominal'),
  'follower-crown': kind('Follower crown, hollow', 'at-most'),
  'rocker-bush': kind('Rocker bush on its shaft', 'from-nominal'),
  'rocker-pad': kind('Rocker pad, hollow', 'at-most'),
  'screw-standout': kind('Adjusting screw, thread showing', 'band'),
  'pushrod-runout': kind('Pushrod runout', 'at-most'),
  'chain-stretch': kind('Chain stretch', 'at-most', '%'),
} as const satisfies Readonly<Record<string, LimitKind>>;

/** The name of a kind of limit. */
export type LimitKey = keyof typeof LIMIT_KINDS;

/** A limit as a source gives it. Where it has no nominal, or only one end, that is null. */
export interface GivenLimit {
  readonly part: LimitKey;
  /** intake or exhaust, where they differ */
  readonly of: 'intake' | 'exhaust' | 'both';
  /** a cylinder or a place, where it is meant for that alone; empty for all */
  readonly place: string;
  readonly nominal: number | null;
  readonly limit: number | null;
  readonly min: number | null;
  readonly max: number | null;
  readonly source: string;
}

/** Where something is measured, as far as a limit may be meant for it alone. */
export interface LimitedPlace {
  readonly key: string;
  readonly cylinder: string | null;
  readonly role: 'intake' | 'exhaust' | null;
}

/**
 * Finds the limit that holds at a place: the one meant most closely for it, and of two alike the later.
 *
 * @example limitAt([], 'stem-guide', placesOf(pattern, lobeItem)[0]) // undefined
 */
export function limitAt(
  limits: readonly GivenLimit[],
  part: LimitKey,
  { key, cylinder, role }: LimitedPlace,
): GivenLimit | undefined {
  const nearness = (limit: GivenLimit) => {
    const there = limit.place === '' ? 0 : limit.place === key ? 4 : limit.place === cylinder ? 2 : -1;
    const of = limit.of === 'both' ? 0 : limit.of === role ? 1 : -1;
    return there < 0 || of < 0 ? -1 : there + of;
  };
  let best: GivenLimit | undefined;
  for (const limit of limits)
    if (limit.part === part && nearness(limit) >= 0 && (!best || nearness(limit) >= nearness(best)))
      best = limit;
  return best;
}

/**
 * Says what is wrong with a limit as it is written; null where it holds together. A limit lies on the side a part wears to.
 *
 * @example limitComplaint({ part: 'spring-length', of: 'both', place: '', nominal: 45, limit: 44, min: null, max: null, source: '' }) // null
 */
export function limitComplaint({ part, nominal, limit, min, max }: GivenLimit): string | null {
  const { form, grows } = LIMIT_KINDS[part];
  const isFit = form === 'from-nominal' && grows;
  const quantity = MEASURED_IN[LIMIT_KINDS[part].unit];
  const cannotBe = [nominal, limit, min, max]
    // a fit may be an interference, which is a little less than nothing
    .map((given) => (given === null ? null : impossible(quantity, Math.abs(given))))
    .find((each) => each !== null);
  if (cannotBe) return cannotBe;
  if (!isFit && [nominal, limit, min, max].some((given) => given !== null && given < 0))
    return 'this is never less than nothing';
  if (form === 'band') {
    if (min === null || max === null) return 'give the least and the greatest';
    return min < max ? null : 'the greatest must be above the least';
  }
  if (limit === null) return 'give the limit';
  if (form !== 'from-nominal' || nominal === null) return null;
  if (nominal === limit) return 'the limit must differ from the nominal figure';
  if (grows !== limit > nominal)
    return grows
      ? 'this grows as it wears: its limit lies above the nominal figure'
      : 'this shrinks as it wears: its limit lies below the nominal figure';
  return null;
}
