import { readFileSync } from 'node:fs';
import type { BuildState } from '../builds/index.ts';
import { lashPoints, layOutHeads, type Pattern } from '../sheets/index.ts';
import { planStops } from '../turning/index.ts';
import { all, at, build as builtOn, reading, SCREWS, setting, shims as withShims } from './keptBuild.ts';
import { characteristicOf, wearSheetOf } from '../wear/index.ts';
import { inlineFour, inlineSix, vTwelve } from './patterns.ts';

/** What the first worked case of an operation is given. */
function givenTo(operation: string): Record<string, never> {
  const cases = JSON.parse(readFileSync(new URL(`./cases/${operation}.json`, import.meta.url), 'utf8')) as {
    input: Record<string, never>;
  }[];
  return cases[0]!.input;
}

/** A plain four with screws: one intake and one exhaust a cylinder. */
const pattern: Pattern = {
  ...SCREWS,
  valves: { intake: 1, exhaust: 1 },
  bridges: { intake: false, exhaust: false },
  brakes: [],
};
const points = lashPoints(pattern);
const limits = [
  { role: 'intake' as const, min: 0.2, max: 0.25 },
  { role: 'exhaust' as const, min: 0.3, max: 0.35 },
];
const sheet = { pattern, limits, wearLimits: [], wanted: [], pieceCharts: [] };
const taken = {
  torques: [{ fastening: 'Rocker nuts', steps: '8 Nm, then 14 Nm' }],
  assembly: [
    { text: 'Oil the followers', hold: true },
    { text: 'Cams to their marks', hold: true },
  ],
};
const part = { group: 'gear' as const, place: '', way: null, note: '', dropped: false };
const proved = all(60).filter(({ point }) => points.some(({ key }) => key === point));
const round = { id: 'r1', kind: 'as-found' as const, closedAt: null, readings: [reading('3E', 5, 'tight')] };
const build = {
  ...{ wear: [], aim: 'middle', ownAims: null },
  ...builtOn({
    sheet: { ...sheet, wearLimits: [] } as unknown as BuildState['sheet'],
    rounds: [round, { id: 'r2', kind: 'proved' as const, closedAt: null, readings: proved }] as never,
    settings: points.map(({ key }) => setting(key, 20, key === '2I' ? 'left' : 'turned')),
  }),
};

/**
 * What an example in the core may name besides what the core exports: an engine of eight points with screws, whose build is proved, and
 * what worked cases are given.
 */
export const WORLD: Readonly<Record<string, unknown>> = {
  ...{ pattern, points, limits, round, build, inlineFour, inlineSix, vTwelve },
  sheet: { ...sheet, ...taken, temperature: null, recheckPlan: [] },
  ticks: build.ticks,
  shims: withShims('on-bucket'),
  sizes: { from: 2, to: 3, step: 0.05 },
  reading: reading('1I', 5, 'in-spec'),
  cylinders: pattern.cylinders,
  timing: pattern.timing,
  map: layOutHeads(pattern),
  plan: planStops(pattern, 'fewest'),
  at,
  given: givenTo,
  ledger: [
    { ...part, key: 'rockers', name: 'Rocker', expected: 8, out: 8, in: 8 },
    { ...part, key: 'bolts', name: 'Cover bolt', expected: 6, out: 6, in: 5 },
  ],
  blades: { blades: [0.2, 0.25, 0.3], missing: [0.2], worn: [], measured: [{ blade: 0.3, is: 0.298 }] },
  chart: {
    role: 'intake',
    installed: [2.4, 2.45],
    rows: [
      { from: 0, to: 0.1, pieces: [2.3, 2.35] },
      { from: 0.1, to: 0.2, pieces: ['keep', 'keep'] },
    ],
  },
  course: {
    point: '3E',
    role: 'exhaust',
    limits: { min: 0.3, max: 0.35 },
    observations: [
      { usage: 0, lo: 0.33, hi: 0.335 },
      { usage: 100, lo: 0.32, hi: 0.325 },
      { usage: 250, lo: 0.31, hi: 0.315 },
    ],
  },
  wear: wearSheetOf([], []),
  lobeItem: characteristicOf('lobe'),
};
