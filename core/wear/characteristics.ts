// Long because it is a table: everything that is measured on a head, with how it is typed, graded and limited.
import { LIMIT_KINDS, type GivenLimit, type LimitKey, type WearUnit } from './limitKinds.ts';
import * as features from './features.ts';
import { gradeOfLimit, isUnder, shareOfLimit, worstOf, type Grade } from './grade.ts';

const { greatest, least, meanOf, spreadOf } = features;

/** The pages of a wear sheet: each holds what is measured in one way, in one sitting. */
export const WEAR_PAGES = {
  pressure: 'Compression and leak-down',
  camshaft: 'Camshaft',
  valves: 'Valves and seats',
  springs: 'Springs',
  followers: 'Followers',
  rockers: 'Rockers',
  small: 'Pieces and pushrods',
  chain: 'Chain',
} as const;
export type WearPage = keyof typeof WEAR_PAGES;

/** What kind of place something is measured at. */
export type PlaceKind = 'cylinder' | 'valve' | 'point' | 'lobe' | 'journal' | 'cam' | 'engine';

/** One column of a characteristic: a figure, or several readings of it. */
export interface WearField {
  readonly key: string;
  readonly label: string;
  readonly unit: WearUnit;
  /** readings it takes at the most */
  readonly most: number;
}

/** The figures of one characteristic at one place, by the field's key. */
export type Figures = Readonly<Record<string, readonly number[]>>;
/** The limits that hold there; what is not given is not there. */
export type LimitsThere = Partial<Readonly<Record<LimitKey, GivenLimit>>>;

/** A figure worked out from those measured. */
export interface Derived {
  readonly label: string;
  readonly value: number;
  readonly unit: WearUnit;
}

/** A figure, read or worked out, and the limit it is held against. */
export interface HeldFigure {
  readonly figure: number;
  readonly part: LimitKey;
}

/** What figures come to: null as a verdict where no limit says, or where what they come to cannot be. */
export interface Graded {
  readonly verdict: Grade | null;
  /** share of the allowance used; null where there is none */
  readonly used: number | null;
  readonly derived: readonly Derived[];
  /** limits without which more cannot be said */
  readonly missing: readonly LimitKey[];
  /** what was held against its limit, the first one first */
  readonly held: readonly HeldFigure[];
}

/** Something that is measured, place by place. */
export interface Characteristic {
  readonly key: string;
  readonly title: string;
  readonly page: WearPage;
  readonly at: PlaceKind;
  /** the part that is replaced where it is worn out */
  readonly part: PartKind;
  readonly fields: readonly WearField[];
  readonly limits: readonly LimitKey[];
  /** null where too little is measured to say anything */
  readonly grade: (figures: Figures, limits: LimitsThere) => Graded | null;
  /** how it is measured, in a line */
  readonly how: string;
}

/** Parts that are kept, watched or replaced, and what a new one has to be measured for before assembly. */
export const PARTS = {
  cylinder: { title: 'Cylinder', measureNew: [] },
  cam: { title: 'Camshaft', measureNew: ['lobe', 'journal', 'cam-runout'] },
  follower: { title: 'Follower', measureNew: ['follower-bore', 'follower-crown', 'piece-in'] },
  valve: {
    title: 'Valve',
    measureNew: [
      'stem-guide',
      'valve-margin',
      'seat-width',
      'seat-place',
      'leak-test',
      'stem-height',
      'piece-in',
      'seat-offset',
    ],
  },
  guide: {
    title: 'Valve guide',
    measureNew: ['stem-guide', 'seat-runout', 'seat-width', 'seat-place', 'stem-height', 'leak-test'],
  },
  seat: {
    title: 'Valve seat',
    measureNew: ['seat-runout', 'seat-width', 'seat-place', 'stem-height', 'leak-test'],
  },
  spring: { title: 'Valve spring', measureNew: ['spring-length', 'spring-force'] },
  retainer: { title: 'Retainer and collets', measureNew: ['spring-force'] },
  rocker: { title: 'Rocker', measureNew: ['rocker-bush', 'rocker-pad'] },
  screw: { title: 'Adjusting screw', measureNew: ['screw-standout'] },
  pushrod: { title: 'Pushrod', measureNew: ['pushrod-runout'] },
  piece: { title: 'Graded piece', measureNew: ['piece-in'] },
  chain: { title: 'Chain', measureNew: ['chain-stretch'] },
  /** gaskets, seals and washers, by name: looked at, and used again or replaced */
  seal: { title: 'Seal', measureNew: [] },
} as const satisfies Readonly<
  Record<string, { readonly title: string; readonly measureNew: readonly string[] }>
>;
export type PartKind = keyof typeof PARTS;

const field = (key: string, label: string, most = 4, unit: WearUnit = 'mm'): WearField => ({
  key,
  label,
  unit,
  most,
});

const mm = (label: string, value: number): Derived => ({ label, value, unit: 'mm' });
const have = (figures: Figures, ...keys: readonly string[]) =>
  keys.every((key) => (figures[key]?.length ?? 0) > 0);
const nothingSaid = (derived: readonly Derived[], missing: readonly LimitKey[]): Graded => ({
  verdict: null,
  used: null,
  derived,
  missing,
  held: [],
});

/**
 * Whether a figure cannot be: less than no clearance, runout or stretch. Where the source itself gives an interference it may.
 *
 * @example isImpossible({ figure: -0.04, part: 'stem-guide' }, limits) // true
 */
export function isImpossible({ figure, part }: HeldFigure, limits: LimitsThere): boolean {
  const { form, grows } = LIMIT_KINDS[part];
  if (form === 'band' || !grows || !isUnder(figure, 0)) return false;
  const { nominal, limit } = limits[part] ?? { nominal: null, limit: null };
  return ![nominal, limit].some((given) => given !== null && given < 0);
}

/** Grades a figure by the limit that holds: from its nominal, at most, at least, or within a band. */
function byLimit(
  figure: number,
  part: LimitKey,
  limits: LimitsThere,
): Pick<Graded, 'verdict' | 'used'> | null {
  const given = limits[part];
  if (!given) return null;
  if (isImpossible({ figure, part }, limits)) return { verdict: null, used: null };
  const { form, grows } = LIMIT_KINDS[part];
  if (form === 'band') {
    if (given.min === null || given.max === null) return null;
    return {
      verdict: features.band({ measured: [figure], min: given.min, max: given.max }).verdict,
      used: null,
    };
  }
  const { nominal, limit } = given;
  if (limit === null) return null;
  if (form === 'at-most')
    return { verdict: gradeOfLimit(figure, limit), used: limit > 0 ? shareOfLimit(figure, limit) : null };
  if (form === 'at-least' || nominal === null) {
    const past = grows ? isUnder(limit, figure) : isUnder(figure, limit);
    return { verdict: past ? 'replace' : 'keep', used: null };
  }
  const { used, verdict } = features.value({ measured: [figure], nominal, limit });
  return { used, verdict };
}

/** Grades several figures of one thing, each by its own limit; the worst counts, and the share is that of the first. */
function together(
  figures: readonly (readonly [figure: number | null, part: LimitKey])[],
  limits: LimitsThere,
  derived: readonly Derived[],
): Graded {
  const held = figures.flatMap(([figure, part]) => (figure === null ? [] : [{ figure, part }]));
  const graded = held.map(({ figure, part }) => byLimit(figure, part, limits));
  const missing = held.filter((_, index) => graded[index] === null).map(({ part }) => part);
  const said = graded.filter((one) => one !== null);
  const verdicts = said.flatMap(({ verdict }) => (verdict === null ? [] : [verdict]));
  // one that cannot be leaves the others standing where they are bad, and nothing where they are good
  const isOpen = verdicts.length < said.length && worstOf(verdicts) === 'keep';
  return {
    verdict: said.length === 0 || isOpen ? null : worstOf(verdicts),
    used: said.find(({ used }) => used !== null)?.used ?? null,
    ...{ derived, missing, held },
  };
}

/** A characteristic that is one figure, held against one limit. */
function single(
  key: string,
  title: string,
  page: WearPage,
  at: PlaceKind,
  part: PartKind,
  how: string,
  limit: LimitKey = key as LimitKey,
  label = title,
): Characteristic {
  const { unit, grows, form } = LIMIT_KINDS[limit];
  return {
    ...{ key, title, page, at, part, how, limits: [limit] },
    fields: [field('value', label, 4, unit)],
    grade: ({ value = [] }, limits) => {
      if (value.length === 0) return null;
      const worst = form === 'band' || grows ? greatest(value) : least(value);
      const ends = form === 'band' ? [least(value), worst] : [worst];
      return together(
        ends.map((figure) => [figure, limit]),
        limits,
        value.length > 1 ? [{ label: 'worst', value: worst, unit }] : [],
      );
    },
  };
}

/** Something that runs in something else. */
function running(
  key: LimitKey,
  title: string,
  page: WearPage,
  at: PlaceKind,
  part: PartKind,
  [outer, outerLabel]: readonly [string, string],
  [inner, innerLabel]: readonly [string, string],
  how: string,
): Characteristic {
  return {
    ...{ key, title, page, at, part, how, limits: [key] },
    fields: [field(inner, innerLabel), field(outer, outerLabel)],
    grade: (figures, limits) => {
      if (!have(figures, inner, outer)) return null;
      const { clearanceMax } = features.clearances(figures[outer]!, figures[inner]!);
      const more = [figures[outer]!, figures[inner]!].map(spreadOf);
      return together([[clearanceMax, key]], limits, [
        mm('clearance', clearanceMax),
        ...(more[0]! > 0 ? [mm(`${outerLabel.toLowerCase()} spread`, more[0]!)] : []),
        ...(more[1]! > 0 ? [mm(`${innerLabel.toLowerCase()} spread`, more[1]!)] : []),
      ]);
    },
  };
}

/** Something that no figure says: it is looked at, or tried, and is sound or is not. */
function looked(
  key: string,
  title: string,
  page: WearPage,
  at: PlaceKind,
  part: PartKind,
  how: string,
): Characteristic {
  return {
    ...{ key, title, page, at, part, how, limits: [] },
    fields: [field('value', 'Sound or no-go', 1)],
    grade: () => null,
  };
}

/** Pressures and losses are graded cylinder beside cylinder: see {@link gradePressures}. */
const besideOthers = () => null;

/**
 * Everything that is measured on a valve train, in the order a head is looked over.
 *
 * Rule: each is graded as the feature of its kind is (`features.ts`); where a source gives several limits for one thing, the
 * worst counts.
 */
export const CHARACTERISTICS: readonly Characteristic[] = [
  {
    ...{ key: 'compression', title: 'Compression', page: 'pressure', at: 'cylinder', part: 'cylinder' },
    fields: [field('value', 'Pressure', 2, 'bar')],
    limits: ['compression', 'compression-spread'],
    grade: besideOthers,
    how: 'Warm, throttle open, starting disabled at the ignition and the fuel; before it is isolated and left to go cold.',
  },
  {
    ...{ key: 'leak-down', title: 'Leak-down', page: 'pressure', at: 'cylinder', part: 'cylinder' },
    fields: [field('value', 'Lost', 2, '%')],
    limits: ['leak-down-watch', 'leak-down'],
    grade: ({ value = [] }, limits) => {
      if (value.length === 0) return null;
      const worst = greatest(value);
      const held = [{ figure: worst, part: 'leak-down' as const }];
      const watch = limits['leak-down-watch']?.limit ?? null;
      const limit = limits['leak-down']?.limit ?? null;
      if (limit === null) return { ...nothingSaid([], ['leak-down']), held };
      const { verdict } = features.leakDown({
        cylinders: [{ cylinder: '1', percent: worst }],
        watch: watch ?? limit,
        limit,
      });
      return {
        verdict,
        used: limit > 0 ? shareOfLimit(worst, limit) : null,
        derived: [],
        missing: watch === null ? ['leak-down-watch'] : [],
        held,
      };
    },
    how: 'At the firing TDC with the crank barred, so that the air does not turn it; listen where it escapes.',
  },
  {
    ...{ key: 'lobe', title: 'Lobe', page: 'camshaft', at: 'lobe', part: 'cam' },
    fields: [field('height', 'Over the nose'), field('base', 'Base circle')],
    limits: ['lobe-lift'],
    grade: ({ height = [], base = [] }, limits) => {
      const stations = Math.min(height.length, base.length);
      if (stations === 0) return null;
      const { lift, taper } = features.lobeLift(
        height.slice(0, stations).map((one, index) => ({ height: one, base: base[index]! })),
      );
      const nominal = limits['lobe-lift']?.nominal ?? null;
      return together([[lift, 'lobe-lift']], limits, [
        mm('lift', lift),
        ...(nominal === null ? [] : [mm('lost', nominal - lift)]),
        ...(stations > 1 ? [mm('taper', taper)] : []),
      ]);
    },
    how: 'At the same stations along the lobe for both: the lift is the least of their differences.',
  },
  {
    ...{ key: 'journal', title: 'Journal', page: 'camshaft', at: 'journal', part: 'cam' },
    fields: [
      field('front', 'Front, two ways', 2),
      field('rear', 'Rear, two ways', 2),
      field('bore', 'Bore, caps torqued'),
    ],
    limits: ['journal-clearance', 'journal-ovality', 'journal-taper'],
    grade: ({ front = [], rear = [], bore = [] }, limits) => {
      const planes = [front, rear].filter((plane) => plane.length > 0);
      const round = planes.filter((plane) => plane.length > 1);
      if (planes.length === 0) return null;
      const clearance = bore.length > 0 ? features.clearances(bore, planes.flat()).clearanceMax : null;
      const ovality = round.length > 0 ? features.journalForm(round).ovality : null;
      const taper = planes.length > 1 ? features.journalForm(planes).taper : null;
      return together(
        [
          [clearance, 'journal-clearance'],
          [ovality, 'journal-ovality'],
          [taper, 'journal-taper'],
        ],
        limits,
        [
          ...(clearance === null ? [] : [mm('clearance', clearance)]),
          ...(ovality === null ? [] : [mm('ovality', ovality)]),
          ...(taper === null ? [] : [mm('taper', taper)]),
        ],
      );
    },
    how: 'Two diameters at right angles in each of two planes; the bore with its cap on and torqued.',
  },
  single('cam-runout', 'Runout', 'camshaft', 'cam', 'cam', 'Between its end journals, at the middle one.'),
  single('cam-float', 'End float', 'camshaft', 'cam', 'cam', 'Pushed home each way, by indicator.'),
  running(
    'stem-guide',
    'Stem in guide',
    'valves',
    'valve',
    'guide',
    ['guide', 'Guide'],
    ['stem', 'Stem'],
    'Stem at three heights, guide at both ends and the middle: the widest over the least.',
  ),
  {
    ...{ key: 'guide-wobble', title: 'Stem rocks in guide', page: 'valves', at: 'valve', part: 'guide' },
    fields: [
      field('wobble', 'Side to side', 2),
      field('height', 'Height above guide', 1),
      field('length', 'Guide length', 1),
    ],
    limits: ['stem-guide'],
    grade: (figures, limits) => {
      if (!have(figures, 'wobble', 'height', 'length') || figures['length']![0]! <= 0) return null;
      const clearanceMax = features.wobbleClearance({
        wobble: greatest(figures['wobble']!),
        height: figures['height']![0]!,
        guideLength: figures['length']![0]!,
      });
      return together([[clearanceMax, 'stem-guide']], limits, [mm('clearance', clearanceMax)]);
    },
    how: 'Where neither can be measured: the valve a little off its seat, indicator on the stem, rocked side to side.',
  },
  single(
    'stem-runout',
    'Stem runout',
    'valves',
    'valve',
    'valve',
    'Turned in blocks, indicator on the stem.',
  ),
  single('valve-margin', 'Margin', 'valves', 'valve', 'valve', 'From the face’s edge to the head’s.'),
  single(
    'seat-width',
    'Contact width',
    'valves',
    'valve',
    'seat',
    'After lapping or blueing, where it is seen.',
  ),
  {
    ...{ key: 'seat-place', title: 'Place of contact', page: 'valves', at: 'valve', part: 'seat' },
    fields: [field('outer', 'Face free outside', 3), field('inner', 'Face free inside', 3)],
    limits: ['seat-free-face'],
    grade: ({ outer = [], inner = [] }, limits) => {
      if (outer.length === 0 || inner.length === 0) return null;
      const [rim, throat] = [least(outer), least(inner)];
      const off = (meanOf(outer) - meanOf(inner)) / 2;
      const named = off > 0 ? 'off the middle, inward' : 'off the middle, outward';
      return together([[Math.min(rim, throat), 'seat-free-face']], limits, [
        ...(off === 0 ? [] : [mm(named, Math.abs(off))]),
      ]);
    },
    how: 'Blued: what of the valve’s face stays bright outside the contact, and inside it. It belongs in the middle.',
  },
  single('seat-runout', 'Seat runout', 'valves', 'valve', 'seat', 'On a pilot in its own guide.'),
  looked(
    'leak-test',
    'Leak test',
    'valves',
    'valve',
    'seat',
    'After lapping, which a maker may forbid: never a coated face. Fluid on the closed valve, or a lamp behind it: sound where nothing comes through, no-go where it does.',
  ),
  {
    ...{ key: 'stem-height', title: 'Stem height', page: 'valves', at: 'valve', part: 'valve' },
    fields: [field('before', 'Before', 3), field('after', 'After', 3)],
    limits: ['stem-height'],
    grade: ({ before = [], after = [] }, limits) => {
      const last = after.length > 0 ? after : before;
      if (last.length === 0) return null;
      const rose = before.length > 0 && after.length > 0 ? meanOf(after) - meanOf(before) : null;
      return together([[meanOf(last), 'stem-height']], limits, rose === null ? [] : [mm('risen', rose)]);
    },
    how: 'From the spring’s seat to the tip, valve held shut: before the seat is touched, and after.',
  },
  single(
    'spring-length',
    'Free length',
    'springs',
    'valve',
    'spring',
    'Standing free, at its shortest side.',
  ),
  single('spring-square', 'Out of square', 'springs', 'valve', 'spring', 'Against a square, turned round.'),
  {
    ...{ key: 'spring-force', title: 'Force and bind', page: 'springs', at: 'valve', part: 'spring' },
    fields: [
      field('height-1', 'Height 1', 1),
      field('force-1', 'Force 1', 1, 'N'),
      field('height-2', 'Height 2', 1),
      field('force-2', 'Force 2', 1, 'N'),
      field('installed', 'Installed height', 1),
      field('bind', 'Coils touch at', 1),
    ],
    limits: ['spring-force', 'spring-bind'],
    grade: (figures, limits) => {
      if (!have(figures, 'height-1', 'force-1', 'height-2', 'force-2', 'installed')) return null;
      const one = (key: string) => figures[key]?.[0] ?? null;
      const [first, second] = [one('height-1')!, one('height-2')!];
      if (first === second) return null;
      const lift = limits['lobe-lift']?.nominal ?? null;
      const bind = one('bind');
      const { rate, seatForce, openForce, bindMargin } = features.springForces({
        loads: [
          { height: first, force: one('force-1')! },
          { height: second, force: one('force-2')! },
        ],
        installedHeight: one('installed')!,
        lift: lift ?? 0,
        coilBindHeight: bind ?? 0,
      });
      const roomKnown = lift !== null && bind !== null;
      const graded = together(
        [
          [seatForce, 'spring-force'],
          [roomKnown ? bindMargin : null, 'spring-bind'],
        ],
        limits,
        [
          { label: 'N a mm', value: rate, unit: 'N' },
          { label: 'seated', value: seatForce, unit: 'N' },
          ...(lift === null ? [] : [{ label: 'open', value: openForce, unit: 'N' as const }]),
          ...(roomKnown ? [mm('room before bind', bindMargin)] : []),
        ],
      );
      return lift === null && bind !== null
        ? { ...graded, missing: [...graded.missing, 'lobe-lift'] }
        : graded;
    },
    how: 'Two loads at two heights; a low seat force from a sunk seat is packed up to height, then bind is looked at again.',
  },
  running(
    'follower-bore',
    'Follower in bore',
    'followers',
    'point',
    'follower',
    ['bore', 'Bore'],
    ['follower', 'Follower'],
    'Bore in two directions at two depths, the follower across its skirt.',
  ),
  single(
    'follower-crown',
    'Crown, hollow',
    'followers',
    'point',
    'follower',
    'A straight edge and a blade across the crown; a hollow hides from a flat blade.',
  ),
  running(
    'rocker-bush',
    'Bush on shaft',
    'rockers',
    'point',
    'rocker',
    ['bush', 'Bush'],
    ['shaft', 'Shaft'],
    'Across the load and along it; the shaft where the rocker runs.',
  ),
  single('rocker-pad', 'Pad, hollow', 'rockers', 'point', 'rocker', 'How deep the pad is worn in.'),
  single(
    'screw-standout',
    'Thread showing',
    'rockers',
    'point',
    'screw',
    'How much thread shows above its lock nut, as found.',
  ),
  looked(
    'screw-look',
    'Thread and ball',
    'rockers',
    'point',
    'screw',
    'The screw runs free in its thread by hand, its ball or foot is round and not blue.',
  ),
  {
    ...{ key: 'piece-in', title: 'Piece as found', page: 'small', at: 'point', part: 'piece' },
    fields: [field('value', 'Thickness', 2)],
    limits: [],
    grade: ({ value = [] }) => (value.length === 0 ? null : nothingSaid([], [])),
    how: 'The shim, bucket or cap that was in, by micrometer: what the head work does is worked out from it.',
  },
  {
    ...{ key: 'seat-offset', title: 'Seat offset', page: 'small', at: 'point', part: 'piece' },
    fields: [
      field('shim', 'Known shim', 2),
      field('gap', 'Gap with it', 2),
      field('bare', 'Gap with none', 2),
    ],
    limits: [],
    grade: ({ shim = [], gap = [], bare = [] }) => {
      if (!have({ shim, gap, bare }, 'shim', 'gap', 'bare')) return null;
      return nothingSaid([mm('offset', meanOf(shim) + meanOf(gap) - meanOf(bare))], []);
    },
    how: 'How much lower a shim lies than what a bare gap is measured against: found once with a shim that is known, valve by valve.',
  },
  looked(
    'retainer-look',
    'Retainer and collets',
    'small',
    'valve',
    'retainer',
    'Seats of the collets and the rotator looked at: a step, a crack or a rotator that does not turn is no-go.',
  ),
  single('pushrod-runout', 'Pushrod runout', 'small', 'point', 'pushrod', 'Rolled on a flat, or in blocks.'),
  {
    ...{ key: 'chain-stretch', title: 'Chain', page: 'chain', at: 'engine', part: 'chain' },
    fields: [field('measured', 'Over the pitches, taut', 3), field('new', 'When new', 1)],
    limits: ['chain-stretch'],
    grade: ({ measured = [], new: fresh = [] }, limits) => {
      const nominal = fresh[0];
      if (measured.length === 0 || nominal === undefined || nominal <= 0) return null;
      const stretchPercent = features.stretchOf({ measured, nominal });
      return together([[stretchPercent, 'chain-stretch']], limits, [
        { label: 'stretched', value: stretchPercent, unit: '%' },
      ]);
    },
    how: 'Pulled taut, at three places: 21 pins are 20 pitches. The new length is pitches times pitch.',
  },
];

/**
 * Finds a characteristic by its key.
 *
 * @example characteristicOf('lobe').title // 'Lobe'
 */
export function characteristicOf(key: string): Characteristic | undefined {
  return CHARACTERISTICS.find((each) => each.key === key);
}

/**
 * Grades compressions cylinder beside cylinder: one under the least, or too far under the best, is out.
 *
 * @returns a grade for each cylinder that was measured
 * @example gradePressures({ 1: 12, 2: 8 }, {})['1'].verdict // null
 */
export function gradePressures(
  pressures: Readonly<Record<string, number>>,
  limits: LimitsThere,
): Readonly<Record<string, Graded>> {
  const cylinders = Object.entries(pressures).map(([cylinder, pressure]) => ({ cylinder, pressure }));
  const best = Math.max(0, ...cylinders.map(({ pressure }) => pressure));
  if (!(best > 0)) return {};
  const least = limits.compression?.limit ?? null;
  const spreadLimit = limits['compression-spread']?.limit ?? null;
  const missing: LimitKey[] = [
    ...(least === null ? (['compression'] as const) : []),
    ...(spreadLimit === null ? (['compression-spread'] as const) : []),
  ];
  const { low } = features.compression({
    cylinders,
    least: least ?? 0,
    spreadLimit: (spreadLimit ?? 100) / 100,
  });
  return Object.fromEntries(
    cylinders.map(({ cylinder, pressure }): [string, Graded] => [
      cylinder,
      {
        verdict: missing.length === 2 ? null : low.includes(cylinder) ? 'replace' : 'keep',
        used: null,
        derived: [{ label: 'under the best', value: ((best - pressure) / best) * 100, unit: '%' }],
        missing,
        held: [{ figure: pressure, part: 'compression' as const }],
      },
    ]),
  );
}
