import type { DemoEngine } from './world.ts';

/**
 * Frost fans with years of rechecks: their exhausts close up by a known rate, so that what is forecast can be seen to be right.
 * One has an exhaust that sinks fast, and one had its meter replaced.
 */
export const DEMO_FLEET: readonly DemoEngine[] = [
  {
    name: 'Frost fan 12, Quarry Rows',
    serial: 'Q4-2302',
    owner: 'Sellend Orchards',
    duty: 'frost fan',
    sheet: 'orchardFour',
    usage: 1420,
    usagePerDay: 0.9,
    builds: [
      {
        complaint: 'Set when it was bought',
        openedDaysAgo: 935,
        stage: 'run-in',
        signedOffDaysAgo: 930,
        recheckedDaysAgo: [918, 850, 560, 240],
        drift: 0.004,
      },
    ],
  },
  {
    name: 'Frost fan 14, Long Acre',
    serial: 'Q4-2318',
    owner: 'Sellend Orchards',
    duty: 'frost fan',
    sheet: 'orchardFour',
    usage: 1180,
    usagePerDay: 0.8,
    newMeterDaysAgo: 96,
    builds: [
      {
        complaint: 'Ticking at idle',
        openedDaysAgo: 770,
        stage: 'run-in',
        signedOffDaysAgo: 765,
        recheckedDaysAgo: [752, 690, 380, 60],
        drift: 0.004,
      },
    ],
  },
  {
    name: 'Frost fan 16, Weir Meadow',
    serial: 'Q4-2340',
    owner: 'Orrel and Daughters',
    duty: 'frost fan',
    sheet: 'orchardFour',
    usage: 960,
    usagePerDay: 1,
    builds: [
      {
        complaint: 'Exhaust seats cut, set new',
        openedDaysAgo: 640,
        stage: 'run-in',
        signedOffDaysAgo: 632,
        recheckedDaysAgo: [620, 555, 250],
        drift: 0.005,
      },
    ],
  },
  {
    name: 'Frost fan 18, Cold Corner',
    serial: 'Q4-2352',
    owner: 'Orrel and Daughters',
    duty: 'frost fan',
    sheet: 'orchardFour',
    usage: 705,
    usagePerDay: 1,
    builds: [
      {
        complaint: 'Hard to start in the cold',
        openedDaysAgo: 428,
        stage: 'run-in',
        signedOffDaysAgo: 420,
        recheckedDaysAgo: [409, 380, 348, 280, 190, 110, 30],
        drift: 0.0022,
        runaway: { point: '3E', times: 4.6 },
      },
    ],
  },
];

/** A plan of its own for the engine whose exhaust sinks: sooner than its sheet says, and at a few points of the head. */
export const DEMO_OWN_PLAN = {
  engine: 'Frost fan 18, Cold Corner',
  step: { afterUsage: 120, afterDays: 90, points: ['1I', '1E', '4I', '4E'] },
  why: 'An exhaust sinks fast: looked at often until the seat is cut, the rest by a sample',
} as const;

/** Owners and how they wish to be told; the addresses are made up, and lead nowhere. */
export const DEMO_OWNERS: Readonly<
  Record<string, { readonly email: string; readonly tells: 'mail' | 'peace' }>
> = {
  'Sellend Orchards': { email: 'yard@sellend.example', tells: 'mail' },
  'Orrel and Daughters': { email: 'tamsin@orrel.example', tells: 'mail' },
  'Overmere Rack Railway': { email: 'workshop@rackrailway.example', tells: 'mail' },
  'Kestrel Ridge Ropeway': { email: 'rescue@kestrelridge.example', tells: 'mail' },
  'Brackwater Brigade': { email: '', tells: 'mail' },
  'Overmere Infirmary': { email: 'plant@infirmary.example', tells: 'peace' },
};
