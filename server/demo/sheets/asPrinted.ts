import type { NewSheet } from '@zero-lash/contract/sheets';
import {
  AT_HAND,
  BARE,
  COOL_ROOM,
  PLAIN,
  WEAR_LIMITS,
  WITH_HEAD,
  WITH_SCREWS,
  inLine,
  step,
  FROM_SOURCE,
} from './parts.ts';
import { printed } from './printed.ts';

/** One figure for each role, in thou: the band round them is the shop's; and what may be left alone as found. */
export const winderSix: NewSheet = {
  name: 'L6 Winder',
  maker: 'Hadderby',
  body: {
    ...BARE,
    pattern: {
      ...PLAIN,
      layout: 'inline',
      cylinders: inLine([1, 5, 3, 6, 2, 4]),
      valves: { intake: 1, exhaust: 2 },
      bridges: { intake: false, exhaust: true },
      exhaustSide: 'right',
      timing: { ivoBtdc: 10, ivcAbdc: 48, evoBbdc: 50, evcAtdc: 12, assumed: false, lift: null },
      marks: [0, 120, 240, 360, 480, 600],
      markNames: [
        { at: 0, words: '1-6', from: 'flywheel', decoys: 'the dot beside it, which is the pump’s' },
        { at: 120, words: '2-5', from: 'flywheel', decoys: '' },
        { at: 240, words: '3-4', from: 'flywheel', decoys: '' },
      ],
      positionSigns: [
        { at: 0, cams: '', rotor: 'the pump coupling’s line at the body’s' },
        { at: 360, cams: '', rotor: 'the pump coupling’s line across from the body’s' },
      ],
      means: {
        kind: 'screw',
        end: 'pushrod',
        pitch: 1.25,
        rockerRatio: 1.4,
        locking: 'lock-nut',
        torqueNm: 35,
      },
    },
    condition: 'cold',
    temperature: COOL_ROOM,
    limits: [
      printed('intake', '12 thou (0.30 mm)'),
      printed('exhaust', '20 thou (0.51 mm)', { leave: '15 to 25 thou' }),
    ],
    wearLimits: WITH_SCREWS,
    torques: WITH_HEAD,
    wanted: AT_HAND,
    pieceCharts: [],
    assembly: [],
    runIn: { heatCycles: 0, retorque: false },
    usageUnit: 'hours',
    recheckPlan: [step(25, 60), step(500, 365)],
    source: { manual: 'Hadderby L6 winding-house book', edition: '2', page: '19' },
    secondSource: {
      ...{ manual: 'Hadderby works letter 61', edition: '', page: '1', figures: 'exhaust 18 thou' },
      whyNot: 'for the older cam, which this engine has not',
    },
    notes: '',
  },
};

/** Valves numbered along the banks, all in one row a head; the maker's own table of pairs; the thread's pitch is nowhere given. */
export const ridgeSix: NewSheet = {
  name: 'V6 Ridge',
  maker: 'Vessany',
  body: {
    ...BARE,
    pattern: {
      ...PLAIN,
      layout: 'v',
      bankAngle: 60,
      cylinders: [1, 2, 3, 4, 5, 6].map((number) => ({
        id: String(number),
        bank: number % 2 === 1 ? ('A' as const) : ('B' as const),
        place: Math.ceil(number / 2),
        firesAt: (number - 1) * 120,
      })),
      valves: { intake: 1, exhaust: 1 },
      exhaustSide: 'left',
      valveRow: { splayed: false, A: 'EIIEEI', B: 'IEEIIE' },
      makersNames: {
        ...{ '1E': '1', '1I': '2', '3I': '3', '3E': '4', '5E': '5', '5I': '6' },
        ...{ '2I': '7', '2E': '8', '4E': '9', '4I': '10', '6I': '11', '6E': '12' },
      },
      makersPairs: [
        { open: ['1E'], points: ['4E', '2I'] },
        { open: ['2E'], points: ['5E', '3I'] },
        { open: ['3E'], points: ['6E', '4I'] },
        { open: ['4E'], points: ['1E', '5I'] },
        { open: ['5E'], points: ['2E', '6I'] },
        { open: ['6E'], points: ['3E', '1I'] },
      ],
      timing: { ivoBtdc: 14, ivcAbdc: 50, evoBbdc: 52, evcAtdc: 12, assumed: false, lift: null },
      marks: [0, 360],
      means: {
        ...{ kind: 'pivot-nut', pitch: null, rockerRatio: 1.5 },
        ...{ locking: 'self-locking', torqueNm: null, runsAtNm: 5 },
      },
    },
    condition: 'cold',
    temperature: COOL_ROOM,
    limits: [printed('intake', '0.20–0.25 mm'), printed('exhaust', '0.30–0.36 mm')],
    wearLimits: WEAR_LIMITS,
    torques: [],
    wanted: [],
    pieceCharts: [],
    assembly: [],
    runIn: { heatCycles: 0, retorque: false },
    usageUnit: 'km',
    recheckPlan: [step(1000, 90), step(20000, 730)],
    source: { manual: 'Vessany V6 road-train book', edition: '3', page: '31' },
    secondSource: null,
    notes: '',
  },
};

/** Two figures on a leaflet, and little else: no mark, no pitch, no timing, no torque. */
export const minnowSingle: NewSheet = {
  name: 'M1 Minnow',
  maker: 'Hadderby',
  body: {
    ...BARE,
    pattern: {
      ...PLAIN,
      layout: 'single',
      cylinders: [{ id: '1', bank: 'A', place: 1, firesAt: 0 }],
      valves: { intake: 1, exhaust: 1 },
      exhaustSide: 'right',
      timing: { ivoBtdc: 30, ivcAbdc: 70, evoBbdc: 70, evcAtdc: 30, assumed: true, lift: null },
      marks: [],
      means: {
        ...{ kind: 'screw', end: 'valve', pitch: null, rockerRatio: null },
        ...{ locking: 'lock-nut', torqueNm: null },
      },
    },
    condition: 'cold',
    temperature: null,
    limits: [printed('intake', '0.10'), printed('exhaust', '0.15')],
    wearLimits: [],
    torques: [],
    wanted: [],
    pieceCharts: [],
    assembly: [],
    runIn: { heatCycles: 0, retorque: false },
    usageUnit: 'hours',
    recheckPlan: [],
    // what is kept clear of the ramps the leaflet does not say either
    origins: { ...FROM_SOURCE, margin: { from: 'assumed', page: '' } },
    source: { manual: 'Hadderby M1 leaflet', edition: '', page: '1' },
    secondSource: null,
    notes: '',
  },
};
