// Long because it is data: one entry an engine.
import type { PersonRole } from '@zero-lash/contract/people';
import type { JobKey, StageKey } from '@zero-lash/core/builds';
import { PLANNED, PLANNED_GAPS } from './atSet.ts';
import type { DEMO_SHEETS } from './sheets/index.ts';

/** The people of the demo shop. Their passphrases are printed at the start, for the demo only. */
export const DEMO_PEOPLE: readonly { name: string; role: PersonRole; passphrase: string }[] = [
  { name: 'Ilse Marrand', role: 'lead', passphrase: 'brass-and-feeler' },
  { name: 'Osk Velland', role: 'lead', passphrase: 'second-look-twice' },
  { name: 'Tobin Hask', role: 'bench', passphrase: 'two-full-turns' },
  { name: 'Petra Quell', role: 'viewer', passphrase: 'only-looking-on' },
];

export const DEMO_SHOP = { name: 'Overmere Valley Engine Works', zone: 'Europe/Vienna' };

/** What happened to one build of a demo engine; days are counted back from the day the demo is loaded. */
export interface DemoBuild {
  /** the whole of it where it is left out */
  readonly job?: JobKey;
  readonly complaint: string;
  readonly openedDaysAgo: number;
  readonly stage: StageKey;
  /** share of the stage's points measured or set so far */
  readonly progress?: number;
  readonly signedOffDaysAgo?: number;
  readonly recheckedDaysAgo?: readonly number[];
  /** mm a hundred days that the exhausts close up; negative opens */
  /** the gaps as they truly were found, mm by point, where that matters for what the demo shows */
  readonly found?: Readonly<Record<string, number>>;
  readonly drift?: number;
  /** one point that moves faster than its neighbours */
  readonly runaway?: { readonly point: string; readonly times: number };
  readonly notes?: readonly { readonly stage: StageKey; readonly text: string }[];
}

/** An engine of the demo world. */
export interface DemoEngine {
  readonly name: string;
  readonly serial: string;
  readonly owner: string;
  readonly duty: string;
  readonly sheet: keyof typeof DEMO_SHEETS;
  readonly usage: number;
  readonly usagePerDay: number;
  /** when its meter was replaced by one that began at 0 */
  readonly newMeterDaysAgo?: number;
  readonly builds: readonly DemoBuild[];
}

/** The engines of the demo world: every stage has one, and the rechecks run from long overdue to far off. */
export const DEMO_ENGINES: readonly DemoEngine[] = [
  {
    name: 'Frost fan 3, Lower Terrace',
    serial: 'Q4-2207',
    owner: 'Sellend Orchards',
    duty: 'frost fan',
    sheet: 'orchardFour',
    usage: 1840,
    usagePerDay: 0.9,
    builds: [
      {
        complaint: 'Uneven idle; cylinder 3 down on compression',
        openedDaysAgo: 1,
        stage: 'take-in',
      },
    ],
  },
  {
    name: 'Fire pump, Brackwater',
    serial: 'HV2-0418',
    owner: 'Brackwater Brigade',
    duty: 'fire pump',
    sheet: 'pumpTwin',
    usage: 312,
    usagePerDay: 0.3,
    builds: [{ complaint: 'Ticking after the autumn drill', openedDaysAgo: 3, stage: 'open-up' }],
  },
  {
    name: 'Frost fan 7, Chapel Slope',
    serial: 'Q4-2260',
    owner: 'Sellend Orchards',
    duty: 'frost fan',
    sheet: 'orchardFour',
    usage: 2210,
    usagePerDay: 0.8,
    builds: [
      {
        complaint: 'Top end rebuild before the blossom season',
        openedDaysAgo: 4,
        stage: 'as-found',
        progress: 0.4,
        drift: 0.05,
        notes: [{ stage: 'open-up', text: 'Rocker shaft end plug weeping; new plug ordered.' }],
      },
    ],
  },
  {
    name: 'Head saw, Pellow Mill',
    serial: 'S1-0931',
    owner: 'Pellow Sawmill',
    duty: 'head saw drive',
    sheet: 'sawSingle',
    usage: 5120,
    usagePerDay: 6,
    builds: [
      {
        job: 'valve-check',
        complaint: 'First look after two seasons',
        openedDaysAgo: 898,
        stage: 'run-in',
        signedOffDaysAgo: 890,
        drift: 0.01,
      },
      {
        complaint: 'Down on power; cover off for the winter',
        openedDaysAgo: 418,
        stage: 'run-in',
        signedOffDaysAgo: 410,
        drift: 0.01,
      },
      {
        complaint: 'Hard to start when warm',
        openedDaysAgo: 6,
        stage: 'wear',
        drift: 0.07,
        notes: [
          { stage: 'open-up', text: 'Exhaust follower face lightly scuffed; kept for the wear stage.' },
        ],
      },
    ],
  },
  {
    name: 'Railcar 2, rear engine',
    serial: 'T16-0077',
    owner: 'Overmere Rack Railway',
    duty: 'rack railcar',
    sheet: 'railFour',
    usage: 48210,
    usagePerDay: 62,
    builds: [
      {
        complaint: 'Leak-down on 2 and 3; seats to be cut',
        openedDaysAgo: 12,
        stage: 'head-work',
        drift: 0.05,
        notes: [
          { stage: 'wear', text: 'Lobes within limits. Exhaust seats on 2 and 3 pitted: cut both pairs.' },
        ],
      },
    ],
  },
  {
    name: 'Railcar 1, front engine',
    serial: 'T16-0071',
    owner: 'Overmere Rack Railway',
    duty: 'rack railcar',
    sheet: 'railFour',
    usage: 61480,
    usagePerDay: 58,
    builds: [
      {
        complaint: 'Yearly overhaul',
        openedDaysAgo: 15,
        stage: 'set',
        progress: 0.3,
        drift: 0.06,
        runaway: { point: '3Eb', times: 1.6 },
      },
    ],
  },
  {
    name: 'Irrigation pump, Long Meadow',
    serial: 'Q4-1984',
    owner: 'Long Meadow Growers',
    duty: 'irrigation pump',
    sheet: 'orchardFour',
    usage: 3985,
    usagePerDay: 2.2,
    builds: [
      {
        complaint: 'Smoke at start; guides renewed',
        openedDaysAgo: 9,
        stage: 'prove',
        progress: 0.6,
        drift: 0.05,
      },
    ],
  },
  {
    name: 'Edger, Pellow Mill',
    serial: 'S1-0877',
    owner: 'Pellow Sawmill',
    duty: 'edger drive',
    sheet: 'sawSingle',
    usage: 7410,
    usagePerDay: 7,
    builds: [{ complaint: 'Noise after a long shift', openedDaysAgo: 5, stage: 'close', drift: -0.04 }],
  },
  {
    name: 'Frost fan 1, Upper Terrace',
    serial: 'Q4-2101',
    owner: 'Sellend Orchards',
    duty: 'frost fan',
    sheet: 'orchardFour',
    usage: 2904,
    usagePerDay: 0.9,
    builds: [
      {
        complaint: 'Rebuild after the frost season',
        openedDaysAgo: 820,
        stage: 'run-in',
        signedOffDaysAgo: 805,
        recheckedDaysAgo: [790, 680, 400],
        drift: 0.004,
      },
    ],
  },
  {
    name: 'Frost fan 5, Mill Field',
    serial: 'Q4-2188',
    owner: 'Sellend Orchards',
    duty: 'frost fan',
    sheet: 'orchardFour',
    usage: 1522,
    usagePerDay: 0.7,
    builds: [
      {
        complaint: 'Exhaust valve 2 burnt',
        openedDaysAgo: 420,
        stage: 'run-in',
        signedOffDaysAgo: 410,
        recheckedDaysAgo: [396, 300],
        drift: 0.006,
        runaway: { point: '2E', times: 3 },
      },
    ],
  },
  {
    name: 'Fire pump, Overmere Quay',
    serial: 'HV2-0399',
    owner: 'Overmere Brigade',
    duty: 'fire pump',
    sheet: 'pumpTwin',
    usage: 268,
    usagePerDay: 0.25,
    builds: [
      {
        complaint: 'New exhaust seats',
        openedDaysAgo: 24,
        stage: 'run-in',
        signedOffDaysAgo: 18,
        drift: 0.02,
      },
    ],
  },
  {
    name: 'Railcar 3, front engine',
    serial: 'T16-0083',
    owner: 'Overmere Rack Railway',
    duty: 'rack railcar',
    sheet: 'railFour',
    usage: 39840,
    usagePerDay: 60,
    builds: [
      {
        complaint: 'First overhaul',
        openedDaysAgo: 760,
        stage: 'run-in',
        signedOffDaysAgo: 740,
        recheckedDaysAgo: [727, 655],
        drift: 0.01,
      },
      {
        complaint: 'Noise from the intake side',
        openedDaysAgo: 210,
        stage: 'run-in',
        signedOffDaysAgo: 196,
        recheckedDaysAgo: [182, 112],
        drift: 0.008,
        runaway: { point: '1Ea', times: 2.4 },
      },
    ],
  },
  {
    name: 'Ropeway rescue drive',
    serial: 'HV2-0452',
    owner: 'Kestrel Ridge Ropeway',
    duty: 'rescue drive',
    sheet: 'pumpTwin',
    usage: 96,
    usagePerDay: 0.1,
    builds: [
      {
        complaint: 'Cam and followers renewed',
        openedDaysAgo: 150,
        stage: 'run-in',
        signedOffDaysAgo: 140,
        recheckedDaysAgo: [121],
        drift: 0.004,
      },
    ],
  },
  {
    name: 'Trimmer, Pellow Mill',
    serial: 'S1-0902',
    owner: 'Pellow Sawmill',
    duty: 'trimmer drive',
    sheet: 'sawSingle',
    usage: 2230,
    usagePerDay: 1,
    builds: [
      {
        complaint: 'Rebuilt with a reground cam',
        openedDaysAgo: 70,
        stage: 'run-in',
        signedOffDaysAgo: 62,
        drift: 0.006,
      },
    ],
  },
  {
    name: 'Snow groomer 2',
    serial: 'G6-0140',
    owner: 'Kestrel Ridge Slopes',
    duty: 'snow groomer',
    sheet: 'groomerSix',
    usage: 6240,
    usagePerDay: 3,
    builds: [
      {
        complaint: 'Top end before the season; brake weak',
        openedDaysAgo: 5,
        stage: 'as-found',
        progress: 0.2,
        drift: 0.05,
      },
    ],
  },
  {
    name: 'Ice racer, number 14',
    serial: 'R4-0033',
    owner: 'Frostmere Ice Track',
    duty: 'ice-track racer',
    sheet: 'racerFour',
    usage: 41,
    usagePerDay: 0.2,
    builds: [
      {
        complaint: 'Fresh head for the season',
        openedDaysAgo: 48,
        stage: 'run-in',
        signedOffDaysAgo: 40,
        recheckedDaysAgo: [14],
        drift: 0.01,
        runaway: { point: '3Ea', times: 12 },
      },
    ],
  },
  {
    name: 'Emergency set, Overmere Infirmary',
    serial: 'B4-0512',
    owner: 'Overmere Infirmary',
    duty: 'emergency generator',
    sheet: 'flatFour',
    usage: 388,
    usagePerDay: 0.2,
    builds: [
      {
        complaint: 'Buckets regraded',
        openedDaysAgo: 300,
        stage: 'run-in',
        signedOffDaysAgo: 290,
        recheckedDaysAgo: [210],
        drift: 0.002,
      },
    ],
  },
  {
    name: 'Summit drive, Kestrel Ridge',
    serial: 'V12-0007',
    owner: 'Kestrel Ridge Ropeway',
    duty: 'ropeway main drive',
    sheet: 'ropewayTwelve',
    usage: 10420,
    usagePerDay: 5,
    builds: [
      {
        job: 'valve-check',
        complaint: 'Yearly valve inspection',
        openedDaysAgo: 8,
        stage: 'prove',
        progress: 0.25,
        drift: 0.03,
      },
    ],
  },
  {
    name: 'Line trolley',
    serial: 'T3-0219',
    owner: 'Overmere Rack Railway',
    duty: 'line trolley',
    sheet: 'trolleyThree',
    usage: 2710,
    usagePerDay: 1.4,
    builds: [{ complaint: 'Fingers noisy', openedDaysAgo: 7, stage: 'wear', drift: -0.04 }],
  },
  {
    name: PLANNED,
    serial: 'T16-0090',
    owner: 'Overmere Rack Railway',
    duty: 'rack railcar',
    sheet: 'railFour',
    usage: 44310,
    usagePerDay: 55,
    builds: [
      {
        complaint: 'Ticking when warm; seats found sunk',
        openedDaysAgo: 10,
        stage: 'set',
        found: PLANNED_GAPS,
      },
    ],
  },
  {
    name: 'Frost fan 9, River Terrace',
    serial: 'Q4-2275',
    owner: 'Sellend Orchards',
    duty: 'frost fan',
    sheet: 'orchardFour',
    usage: 1190,
    usagePerDay: 0.8,
    builds: [{ complaint: 'Set before the blossom nights', openedDaysAgo: 6, stage: 'set', drift: 0.04 }],
  },
  {
    name: 'Chipper, Pellow Mill',
    serial: 'S1-0915',
    owner: 'Pellow Sawmill',
    duty: 'chipper drive',
    sheet: 'sawSingle',
    usage: 3320,
    usagePerDay: 3,
    builds: [{ complaint: 'Hard to start', openedDaysAgo: 4, stage: 'set', drift: 0.06 }],
  },
  {
    name: 'Hose pump, Overmere Quay',
    serial: 'HV2-0461',
    owner: 'Overmere Brigade',
    duty: 'fire pump',
    sheet: 'pumpTwin',
    usage: 154,
    usagePerDay: 0.2,
    builds: [
      {
        job: 'valve-check',
        complaint: '',
        openedDaysAgo: 1,
        stage: 'set',
        progress: 0.5,
        found: { '1I': 0.102, '1E': 0.062 },
      },
    ],
  },
  {
    name: 'Ice racer, number 7',
    serial: 'R4-0029',
    owner: 'Frostmere Ice Track',
    duty: 'ice-track racer',
    sheet: 'racerFour',
    usage: 63,
    usagePerDay: 0.2,
    builds: [{ complaint: 'Before the first race', openedDaysAgo: 6, stage: 'set', drift: 0.05 }],
  },
  {
    name: 'Emergency set, Lower School',
    serial: 'B4-0498',
    owner: 'Overmere Valley Council',
    duty: 'emergency generator',
    sheet: 'flatFour',
    usage: 205,
    usagePerDay: 0.1,
    builds: [{ complaint: 'Noisy when cold', openedDaysAgo: 9, stage: 'set', drift: 0.04 }],
  },
  {
    name: 'Ballast trolley',
    serial: 'T3-0224',
    owner: 'Overmere Rack Railway',
    duty: 'line trolley',
    sheet: 'trolleyThree',
    usage: 1980,
    usagePerDay: 1,
    builds: [{ complaint: 'New seats all round', openedDaysAgo: 8, stage: 'set', drift: 0.05 }],
  },
  {
    name: 'Valley drive, Kestrel Ridge',
    serial: 'V12-0011',
    owner: 'Kestrel Ridge Ropeway',
    duty: 'ropeway main drive',
    sheet: 'ropewayTwelve',
    usage: 8120,
    usagePerDay: 4,
    builds: [{ complaint: 'Caps worn on bank B', openedDaysAgo: 9, stage: 'set', drift: 0.03 }],
  },
  {
    name: 'Spare, shelf 4',
    serial: 'Q4-2301',
    owner: 'Overmere Valley Engine Works',
    duty: 'spare',
    sheet: 'orchardFour',
    usage: 0,
    usagePerDay: 0,
    builds: [],
  },
];
