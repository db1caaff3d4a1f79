// Long because it is data: what was measured, counted and learned in the demo world while its heads were open.
import { randomUUID } from 'node:crypto';
import type { HeadWorkBody } from '@zero-lash/contract/headwork';
import type { LedgerLineBody } from '@zero-lash/contract/parts';
import type { WearLineBody } from '@zero-lash/contract/wear';
import { expectedParts, type LedgerGroup } from '@zero-lash/core/parts';
import { lobesOf, valvesOf, camsOf, journalsOf, type Pattern } from '@zero-lash/core/sheets';
import type { StageKey } from '@zero-lash/core/builds';
import type { Knex } from 'knex';
import sharp from 'sharp';
import { pictureOf } from '../plugins/picture.ts';

const MS_PER_DAY = 86_400_000;

/** A figure as it was found, or of what was fitted in its place. */
const figure = (
  item: string,
  place: string,
  field: string,
  values: readonly number[],
  set: 'found' | 'fitted' = 'found',
): WearLineBody => ({
  ...{ kind: 'figure', item, place, field, values: [...values], asTyped: values.join(' ') },
  ...{ how: 'measured', set, doubtKept: false },
});

const rounded = (value: number) => Math.round(value * 1000) / 1000;
/** Small differences between like parts, the same each time the demo is loaded. */
const spread = (index: number, by: number) => rounded((((index * 7919) % 11) / 10 - 0.5) * by);

/** Stems, guides, margins, contact widths and springs of every valve, a little worn. */
function valvesOfHead(pattern: Pattern, worn: Readonly<Record<string, number>> = {}): WearLineBody[] {
  return valvesOf(pattern).flatMap(({ key, role }, index) => {
    const stem = rounded((role === 'intake' ? 6.972 : 6.961) + spread(index, 0.006));
    const guide = rounded(7.012 + spread(index + 3, 0.008) + (worn[key] ?? 0));
    return [
      figure('stem-guide', key, 'stem', [stem, rounded(stem - 0.004)]),
      figure('stem-guide', key, 'guide', [guide, rounded(guide + 0.003)]),
      figure('valve-margin', key, 'value', [rounded((role === 'intake' ? 1.12 : 1.02) + spread(index, 0.1))]),
      figure('seat-width', key, 'value', [rounded(1.42 + spread(index + 5, 0.3))]),
      figure('stem-height', key, 'before', [rounded(38.2 + spread(index + 1, 0.12))]),
      figure('spring-length', key, 'value', [rounded(41.1 + spread(index + 2, 0.5))]),
    ];
  });
}

/** Every lobe and journal of an engine's cams; a lobe that is named has lost so much. */
function cams(pattern: Pattern, lost: Readonly<Record<string, number>> = {}): WearLineBody[] {
  return camsOf(pattern).flatMap((cam) => [
    ...lobesOf(pattern, cam).flatMap((place, index) => {
      const lift = place.includes('I') ? 8.17 : 7.87;
      const base = rounded(28 + spread(index, 0.01));
      return [
        figure('lobe', place, 'height', [
          rounded(base + lift - (lost[place] ?? 0) + spread(index + 4, 0.02)),
        ]),
        figure('lobe', place, 'base', [base]),
      ];
    }),
    ...journalsOf(pattern, cam).flatMap((place, index) => {
      const diameter = rounded(25.96 + spread(index, 0.006));
      return [
        figure('journal', place, 'front', [diameter, rounded(diameter - 0.004)]),
        figure('journal', place, 'rear', [rounded(diameter - 0.002), rounded(diameter - 0.005)]),
        figure('journal', place, 'bore', [rounded(26.015 + spread(index + 2, 0.008))]),
      ];
    }),
  ]);
}

const pressures = (
  bar: Readonly<Record<string, number>>,
  lost: Readonly<Record<string, number>>,
): WearLineBody[] => [
  ...Object.entries(bar).map(([cylinder, value]) => figure('compression', cylinder, 'value', [value])),
  ...Object.entries(lost).map(([cylinder, value]) => figure('leak-down', cylinder, 'value', [value])),
];

interface Told {
  readonly engine: string;
  /** which of its builds, from 1 */
  readonly build: number;
  readonly daysAgo: number;
  readonly wear?: (pattern: Pattern) => readonly WearLineBody[];
  readonly headwork?: readonly HeadWorkBody[];
  readonly counted?: {
    readonly groups: readonly LedgerGroup[];
    readonly short: Readonly<Record<string, number>>;
    /** where fastenings of one kind sat */
    readonly places?: Readonly<Record<string, string>>;
    /** counted in, of those that did not come back whole; left out where nothing is counted in yet */
    readonly back?: Readonly<Record<string, number>>;
  };
}

const cutSeat = (step: string, valve: string, depth: number, done: number | null): HeadWorkBody => ({
  ...{ step, valve, operation: 'seat-cut', depth, normalDepth: null, seatAngle: null, done, dropped: false },
});
/** One cut of four seats, of which two are done. */
const RAILCAR_SEATS = randomUUID();

/** A follower's wear over three rebuilds of one saw: margin and springs go the same way. */
const sawAt = (margin: number, guide: number, spring: number): WearLineBody[] => [
  figure('valve-margin', '1E', 'value', [margin]),
  figure('valve-margin', '1I', 'value', [rounded(margin + 0.12)]),
  figure('stem-guide', '1E', 'stem', [6.96]),
  figure('stem-guide', '1E', 'guide', [guide]),
  figure('spring-length', '1E', 'value', [spring]),
  figure('spring-length', '1I', 'value', [rounded(spring + 0.25)]),
];

const TOLD: readonly Told[] = [
  {
    engine: 'Frost fan 3, Lower Terrace',
    build: 1,
    daysAgo: 0.3,
    wear: () => [
      ...pressures({ '1': 11.4, '2': 11.6, '3': 9.1, '4': 11.2 }, { '1': 6, '2': 5, '3': 24, '4': 8 }),
      {
        kind: 'mark',
        part: 'cylinder',
        place: '3',
        damage: 'air-exhaust',
        note: 'heard at the tailpipe',
        gone: false,
      },
    ],
  },
  {
    engine: 'Fire pump, Brackwater',
    build: 1,
    daysAgo: 0.4,
    counted: { groups: ['cover', 'gear'], short: { 'sealing washer': 1 } },
  },
  {
    // closed but for a washer that nobody finds
    engine: 'Edger, Pellow Mill',
    build: 1,
    daysAgo: 0.3,
    counted: {
      groups: ['cover'],
      short: {},
      places: { 'cover bolt, long': 'the two by the breather', 'cover bolt, short': 'all round the edge' },
      back: { 'sealing washer': 1 },
    },
  },
  { engine: 'Head saw, Pellow Mill', build: 1, daysAgo: 895, wear: () => sawAt(1.16, 7.014, 41.4) },
  { engine: 'Head saw, Pellow Mill', build: 2, daysAgo: 415, wear: () => sawAt(1.02, 7.031, 40.9) },
  {
    engine: 'Head saw, Pellow Mill',
    build: 3,
    daysAgo: 2,
    wear: () => [
      ...sawAt(0.9, 7.046, 40.1),
      figure('rocker-pad', '1E', 'value', [0.06]),
      {
        kind: 'mark',
        part: 'follower',
        place: '1E',
        damage: 'scuffing',
        note: 'a third of the face',
        gone: false,
      },
      { kind: 'fate', part: 'spring', place: '1E', fate: 'replace', order: 'ordered', reason: 'short' },
    ],
  },
  {
    // stands at Set: what its exhausts want is partly in it already, one valve is beyond any shim
    engine: 'Railcar 1, front engine',
    build: 1,
    daysAgo: 13,
    wear: (pattern) =>
      pieces(pattern, {
        ...{ '1Ia': 2.8, '1Ib': 2.6, '1Ea': 2.9, '1Eb': 2.45, '2Ia': 2.8, '2Ib': 2.65 },
        ...{ '2Ea': 2.85, '2Eb': 2.8, '3Ia': 2.7, '3Ib': 2.7, '3Ea': 2.75, '3Eb': 2.7 },
        ...{ '4Ia': 2.55, '4Ib': 2.6, '4Ea': 2.65, '4Eb': 2 },
      }),
  },
  {
    engine: 'Railcar 2, rear engine',
    build: 1,
    daysAgo: 3,
    wear: (pattern) => [
      ...cams(pattern, { '3Eb': 0.06 }),
      ...valvesOfHead(pattern, { '2Ea': 0.022, '3Ea': 0.03 }),
      ...pieces(pattern, { '2Ea': 2.25, '2Eb': 2.15, '3Ea': 2.15, '3Eb': 2.3 }),
      { kind: 'mark', part: 'seat', place: '2Eb', damage: 'pitting', note: 'cut the pair', gone: false },
      { kind: 'mark', part: 'seat', place: '3Ea', damage: 'pitting', note: 'cut the pair', gone: false },
    ],
    headwork: [
      cutSeat(RAILCAR_SEATS, '2Ea', 0.2, 0.18),
      cutSeat(RAILCAR_SEATS, '2Eb', 0.2, 0.21),
      cutSeat(RAILCAR_SEATS, '3Ea', 0.2, null),
      cutSeat(RAILCAR_SEATS, '3Eb', 0.2, null),
    ],
  },
  {
    engine: 'Line trolley',
    build: 1,
    daysAgo: 1,
    wear: (pattern) => [
      ...cams(pattern, { '2Ea': 0.19, '2Eb': 0.05 }),
      ...valvesOfHead(pattern).slice(0, 40),
      {
        kind: 'mark',
        part: 'cam',
        place: '2Ea',
        damage: 'scuffing',
        note: 'over the nose, felt by a nail',
        gone: false,
      },
      { kind: 'mark', part: 'rocker', place: '2Ea', damage: 'hollow', note: '', gone: false },
      {
        kind: 'fate',
        part: 'seal',
        place: 'Cover gasket',
        fate: 'replace',
        order: 'to-order',
        reason: 'torn',
      },
    ],
  },
];

/** Pieces as they were found: 2.55 where nothing else is said. */
function pieces(pattern: Pattern, said: Readonly<Record<string, number>>): WearLineBody[] {
  return valvesOf(pattern).map(({ key }, index) =>
    figure('piece-in', key, 'value', [said[key] ?? rounded(2.45 + Math.round((index * 3) % 5) * 0.05)]),
  );
}

interface Learned {
  readonly engine: string;
  readonly stage: StageKey;
  readonly text: string;
}

const LEARNED: readonly Learned[] = [
  {
    engine: 'Railcar 2, rear engine',
    stage: 'open-up',
    text: 'The rear cover bolt wants a short bent key; the breather has to come off first.',
  },
  {
    engine: 'Railcar 2, rear engine',
    stage: 'wear',
    text: 'Exhaust seats on 2 and 3 pit first: look at them before the rest is measured.',
  },
  {
    engine: 'Frost fan 3, Lower Terrace',
    stage: 'take-in',
    text: 'Bring two plugs for the rocker shaft ends: they weep once disturbed.',
  },
  {
    engine: 'Frost fan 3, Lower Terrace',
    stage: 'open-up',
    text: 'The long cover bolts stand at the front; the hole at the rear is shallow.',
  },
];

/** Tells what was written in the demo world while its heads were open. */
export async function loadOpenHeads(
  db: Knex,
  { bench, now }: { readonly bench: string; readonly now: Date },
): Promise<void> {
  const at = (daysAgo: number) => new Date(now.getTime() - daysAgo * MS_PER_DAY);
  const buildOf = async (engine: string, number: number) => {
    const row = await db('builds as b')
      .join('engines as e', 'e.id', 'b.engine_id')
      .join('sheet_revisions as r', 'r.id', 'b.revision_id')
      .where({ 'e.name': engine, 'b.number': number })
      .first('b.id', 'r.pattern', 'r.sheet_id as sheetId');
    return row as { readonly id: string; readonly pattern: Pattern; readonly sheetId: string };
  };
  for (const { engine, build, daysAgo, wear, headwork, counted } of TOLD) {
    const { id, pattern } = await buildOf(engine, build);
    const write = (room: 'wear' | 'headwork' | 'ledger', lines: readonly unknown[]) =>
      db('build_entries').insert({
        ...{ id: randomUUID(), build_id: id, room, by: bench, at: at(daysAgo) },
        lines: JSON.stringify(lines),
      });
    if (wear) await write('wear', wear(pattern));
    if (headwork) await write('headwork', headwork);
    if (counted) await write('ledger', countOf(pattern, counted));
  }
  for (const { engine, stage, text } of LEARNED) {
    const { id, sheetId } = await buildOf(engine, 1);
    await db('know_how').insert({
      ...{ id: randomUUID(), sheet_id: sheetId, build_id: id, stage, text, by: bench, at: at(2) },
    });
  }
  await addPicture(db, (await buildOf('Line trolley', 1)).id, bench, at(1));
}

function countOf(
  pattern: Pattern,
  { groups, short, places = {}, back }: NonNullable<Told['counted']>,
): LedgerLineBody[] {
  return expectedParts(pattern)
    .filter(({ group }) => groups.includes(group))
    .map((part) => ({
      ...part,
      // the arrow on every cap looks to the front
      way: part.name === 'Cam cap' ? ('front' as const) : ('unsaid' as const),
      out: short[part.key] ?? part.expected,
      place: places[part.key] ?? part.place,
      in: back ? (back[part.key] ?? part.expected) : null,
      ...{ dropped: false, note: part.key in short ? 'one was missing when it came' : '' },
    }));
}

/** A drawn picture of a scuffed lobe: the demo world has no camera. */
async function addPicture(db: Knex, build: string, by: string, at: Date): Promise<void> {
  const drawn = `<svg xmlns="http://www.w3.org/2000/svg" width="900" height="650">
    <rect width="900" height="650" fill="#6b675e"/>
    <ellipse cx="450" cy="380" rx="210" ry="190" fill="#b8b3a6"/>
    <path d="M300 330Q330 90 450 80Q570 90 600 330Z" fill="#b8b3a6"/>
    <circle cx="450" cy="385" r="92" fill="#8b867a"/>
    ${Array.from({ length: 26 }, (_, index) => `<path d="M${395 + index * 4} ${92 + ((index * 37) % 23)}l${3 + (index % 4)} ${60 + ((index * 53) % 70)}" stroke="#4a463d" stroke-width="${1 + (index % 3)}"/>`).join('')}
    <text x="30" y="620" font-family="sans-serif" font-size="30" fill="#efe7d6">2Ea, over the nose</text></svg>`;
  const { bytes, width, height } = await pictureOf(await sharp(Buffer.from(drawn)).png().toBuffer());
  await db('photographs').insert({
    ...{
      id: randomUUID(),
      build_id: build,
      stage: 'wear',
      about: 'Camshaft 2Ea',
      note: '',
      shows: 'mark cam 2Ea scuffing',
      width,
      height,
    },
    ...{ picture: bytes, by, at },
  });
}
