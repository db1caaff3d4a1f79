import {
  camsOf,
  gearParts,
  journalsOf,
  lashPoints,
  meansFor,
  valvesOf,
  type Pattern,
  type Role,
} from '../sheets/index.ts';

/** Groups of a count-out, in the order things come off. */
export const LEDGER_GROUPS = {
  cover: 'Cover and its fastenings',
  caps: 'Cam caps',
  gear: 'Valve gear',
  drive: 'Drive and guides',
  valves: 'Valves and springs',
  openings: 'Plugs and seals',
  wanted: 'Spares and tools wanted',
} as const;
export type LedgerGroup = keyof typeof LEDGER_GROUPS;

/** Which way round a part sat: where its arrow or its mark looked. */
export const WAYS_ROUND = {
  unsaid: '–',
  front: 'to the front',
  rear: 'to the rear',
  intake: 'to the intake',
  exhaust: 'to the exhaust',
} as const;
export type WayRound = keyof typeof WAYS_ROUND;

/** One thing that is counted out and in again, or wanted at hand. */
export interface LedgerLine {
  readonly key: string;
  readonly group: LedgerGroup;
  readonly name: string;
  /** where it sits */
  readonly place: string;
  readonly way: WayRound;
  readonly expected: number;
  /** counted out; null where it was not yet */
  readonly out: number | null;
  readonly in: number | null;
  readonly note: string;
  /** not on this engine */
  readonly dropped: boolean;
}

/** Something that is to be counted, before anybody has. */
export type ExpectedPart = Pick<LedgerLine, 'key' | 'group' | 'name' | 'place' | 'expected'>;

/**
 * Prepares a count-out from what a spec sheet says of an engine: what is to be laid out, group by group and place by place.
 * It is where a person begins; the engine on the stand has the last word.
 *
 * @example expectedParts(pattern).filter(({ group }) => group === 'caps').length // one for each journal
 */
export function expectedParts(pattern: Pattern): readonly ExpectedPart[] {
  const { followers, rockers, pushrods, camIn } = gearParts(pattern);
  const { camDrive = 'unsaid' } = pattern;
  const banks = new Set(pattern.cylinders.map(({ bank }) => bank)).size;
  const line = (group: LedgerGroup, name: string, place: string, expected = 1): ExpectedPart => ({
    key: `${name} ${place}`.trim().toLowerCase(),
    group,
    name,
    place,
    expected,
  });
  const points = lashPoints(pattern).filter(({ role }) => !role.endsWith('closing'));
  const caps =
    camIn === 'head'
      ? camsOf(pattern).flatMap((cam) =>
          journalsOf(pattern, cam).map((place) => line('caps', 'Cam cap', place)),
        )
      : [];
  const bridges = bridgedRoles(pattern);
  const gear = points.flatMap(({ key, role }) => {
    const means = meansFor(pattern, role);
    return [
      ...(rockers ? [line('gear', 'Rocker', key)] : []),
      ...(pushrods && role !== 'brake' ? [line('gear', 'Pushrod', key)] : []),
      ...(followers && role !== 'brake'
        ? [line('gear', camIn === 'block' ? 'Follower' : 'Bucket', key)]
        : []),
      ...(means.kind === 'shim' ? [line('gear', 'Shim', key)] : []),
      ...(means.kind === 'lash-cap' ? [line('gear', 'Lash cap', key)] : []),
      ...(bridges.includes(role) ? [line('gear', 'Bridge', key)] : []),
      ...(pattern.closingSide && role !== 'brake' ? [line('gear', 'Closing rocker and its piece', key)] : []),
    ];
  });
  const valves = valvesOf(pattern).flatMap(({ key }) => [
    line('valves', 'Valve', key),
    line('valves', 'Spring', key),
    line('valves', 'Retainer', key),
    line('valves', 'Collets', key, 2),
  ]);
  const drive =
    camDrive === 'chain' || camDrive === 'unsaid'
      ? [line('drive', 'Chain guide', '', 2), line('drive', 'Chain tensioner', '')]
      : camDrive === 'belt'
        ? [line('drive', 'Belt tensioner', '')]
        : [];
  return [
    line('cover', 'Cover', '', banks),
    line('cover', 'Cover bolt, short', '', 4 * banks + 2 * pattern.cylinders.length),
    line('cover', 'Cover bolt, long', '', 2 * banks),
    line('cover', 'Sealing washer', '', 2 * banks),
    ...caps,
    ...(caps.length > 0 ? [line('caps', 'Cap bolt', '', 2 * caps.length)] : []),
    ...gear,
    ...drive,
    ...valves,
    ...pattern.cylinders.map(({ id }) => line('openings', 'Spark plug or nozzle', `cylinder ${id}`)),
    line('openings', 'Plug of an opening', '', pattern.cylinders.length),
  ];
}

/** The roles whose points work a pair of valves over a bridge. */
const bridgedRoles = ({ bridges }: Pattern): readonly Role[] =>
  (['intake', 'exhaust'] as const).filter((role) => bridges[role]);

/** Something to have at hand before an engine is opened. */
export interface WantedPart {
  readonly name: string;
  readonly count: number;
  /** gaskets, seals and washers are looked at as they come off, and used again or replaced */
  readonly kind: 'seal' | 'spare' | 'tool';
}

/** A sheet, as far as it says what is wanted at hand. */
export interface WantsAtHand {
  readonly pattern: Pattern;
  /** what its source lists; empty where it lists nothing */
  readonly wanted: readonly WantedPart[];
}

/**
 * Lists the spares, seals and tools that an engine wants at hand: as its sheet lists them, or what an engine of its pattern
 * wants where the sheet lists nothing.
 *
 * @param strips the head is opened for it; where only the cover comes off, nothing of what lies under it is wanted
 * @example wantedAtHand(sheet).filter(({ kind }) => kind === 'seal')
 */
export function wantedAtHand({ pattern, wanted }: WantsAtHand, strips = true): readonly WantedPart[] {
  if (wanted.length > 0) return wanted;
  const valves = valvesOf(pattern).length;
  const heads = new Set(pattern.cylinders.map(({ bank }) => bank)).size;
  const means = [pattern.means, ...Object.values(pattern.roleMeans)];
  const holds = means.some((each) => each.kind === 'shim' && each.seat === 'on-bucket');
  const list: readonly (WantedPart & { readonly under?: true })[] = [
    { name: 'Cover gasket', count: heads, kind: 'seal' },
    { name: 'Head gasket', count: heads, kind: 'seal', under: true },
    { name: 'Stem seals', count: valves, kind: 'seal', under: true },
    { name: 'Sealing washers', count: 4 * heads, kind: 'seal' },
    { name: 'Plugs for open ports', count: 2 * pattern.cylinders.length, kind: 'spare', under: true },
    ...(holds ? [{ name: 'Tool that holds a bucket down', count: 1, kind: 'tool' as const }] : []),
    { name: 'Spring compressor', count: 1, kind: 'tool', under: true },
  ];
  return list.flatMap(({ under = false, ...part }) => (under && !strips ? [] : [part]));
}

/**
 * The same as lines of a ledger, to be counted as they lie there.
 *
 * @example wantedParts(sheet).map(({ name }) => name)
 */
export function wantedParts(sheet: WantsAtHand, strips = true): readonly ExpectedPart[] {
  return wantedAtHand(sheet, strips).map(({ name, count }) => ({
    ...{ key: `wanted ${name.toLowerCase()}`, group: 'wanted', name, place: '', expected: count },
  }));
}

/** What a ledger line takes the place of: what was said of the same thing before. */
export const ledgerKey = ({ key }: Pick<LedgerLine, 'key'>): string => key;

/** A ledger as it stands: the expected parts with what was counted, and what a person added. */
export function ledgerOf(
  expected: readonly ExpectedPart[],
  counted: ReadonlyMap<string, { readonly line: LedgerLine }>,
): readonly LedgerLine[] {
  const known = new Set(expected.map(({ key }) => key));
  const nothing = { way: 'unsaid', out: null, in: null, note: '', dropped: false } as const;
  const fresh = expected.map((part) => counted.get(part.key)?.line ?? { ...part, ...nothing });
  const added = [...counted.values()].map(({ line }) => line).filter(({ key }) => !known.has(key));
  return [...fresh, ...added].filter(({ dropped }) => !dropped);
}

const FASTENS = /\b(bolt|screw|stud|nut|washer|clip)s?\b/i;

/**
 * Says whether a line is of what fastens the cover or the caps.
 *
 * @example isFastening({ group: 'cover', name: 'Cover bolt, long' }) // true
 */
export const isFastening = ({ group, name }: Pick<LedgerLine, 'group' | 'name'>): boolean =>
  (group === 'cover' || group === 'caps') && FASTENS.test(name);

/**
 * Lists what fastens the cover and the caps and was counted out: those of unequal length go back to their own places.
 *
 * @example fasteningsOf(ledger).map(({ name, place }) => `${name} ${place}`)
 */
export function fasteningsOf(ledger: readonly LedgerLine[]): readonly LedgerLine[] {
  return ledger.filter((line) => isFastening(line) && (line.out ?? 0) > 0);
}

/** A line whose count in is not its count out. */
export interface Imbalance {
  readonly line: LedgerLine;
  /** below 0 something is missing, above 0 something is left over */
  readonly off: number;
}

/**
 * Finds what was counted out and did not come back, or came back beyond what went.
 *
 * Rule: what was never counted in is missing as a whole.
 *
 * @example imbalances(ledger).map(({ line, off }) => `${line.name}: ${off}`)
 */
export function imbalances(ledger: readonly LedgerLine[]): readonly Imbalance[] {
  return ledger
    .filter(({ group, out }) => group !== 'wanted' && out !== null)
    .map((line) => ({ line, off: (line.in ?? 0) - line.out! }))
    .filter(({ off }) => off !== 0);
}
