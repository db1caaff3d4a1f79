import type { NewSheet } from '@zero-lash/contract/sheets';
import { BARE, CAP_TORQUES, COOL_ROOM, PLAIN, WEAR_LIMITS, step } from './parts.ts';
import { printed } from './printed.ts';

export const pumpTwin: NewSheet = {
  name: 'HV2 Pumper',
  maker: 'Hadderby',
  body: {
    ...BARE,
    pattern: {
      ...PLAIN,
      layout: 'v',
      bankAngle: 75,
      cylinders: [
        { id: '1', bank: 'A', place: 1, firesAt: 0 },
        { id: '2', bank: 'B', place: 1, firesAt: 435 },
      ],
      turns: 'anticlockwise',
      seenFrom: 'flywheel',
      valves: { intake: 1, exhaust: 1 },
      exhaustSide: 'left',
      timing: { ivoBtdc: 10, ivcAbdc: 46, evoBbdc: 50, evcAtdc: 10, assumed: true, lift: null },
      marks: [0, 75, 360, 435],
      means: {
        kind: 'pivot-nut',
        pitch: 1,
        rockerRatio: 1.4,
        locking: 'self-locking',
        torqueNm: null,
      },
    },
    condition: 'cold',
    temperature: COOL_ROOM,
    limits: [printed('intake', '3 to 5 thou'), printed('exhaust', '4 to 7 thou')],
    wearLimits: WEAR_LIMITS,
    torques: CAP_TORQUES,
    wanted: [],
    pieceCharts: [],
    assembly: [],
    runIn: { heatCycles: 0, retorque: false },
    usageUnit: 'hours',
    recheckPlan: [step(5, 21), step(100, 180)],
    source: { manual: 'Hadderby HV2 fitter’s notes', edition: 'blue cover', page: '12' },
    secondSource: null,
    notes: 'Timing is a cautious default: the notes give none.',
  },
};

/** What the blue cover got wrong: the exhaust's loose end. */
export const pumpTwinSecond: NewSheet['body'] = {
  ...pumpTwin.body,
  limits: [printed('intake', '3 to 5 thou'), printed('exhaust', '4 to 6 thou')],
  source: { manual: 'Hadderby HV2 fitter’s notes', edition: 'grey cover', page: '12' },
  secondSource: null,
  notes: 'Timing is a cautious default: the notes give none. The grey cover corrects the exhaust.',
};

/** The ice racer's V-four: uneven firing, shims on top of the buckets. */
export const racerFour: NewSheet = {
  name: 'R4 Rime',
  maker: 'Vessany',
  body: {
    ...BARE,
    pattern: {
      ...PLAIN,
      layout: 'v',
      bankAngle: 70,
      cylinders: [
        { id: '1', bank: 'A', place: 1, firesAt: 0 },
        { id: '3', bank: 'A', place: 2, firesAt: 360 },
        { id: '2', bank: 'B', place: 1, firesAt: 470 },
        { id: '4', bank: 'B', place: 2, firesAt: 110 },
      ],
      valves: { intake: 2, exhaust: 2 },
      exhaustSide: 'left',
      timing: { ivoBtdc: 30, ivcAbdc: 62, evoBbdc: 64, evcAtdc: 28, assumed: false, lift: null },
      marks: [0, 110, 360, 470],
      means: {
        kind: 'shim',
        seat: 'on-bucket',
        sizes: { from: 1.8, to: 3.2, step: 0.05 },
        diameter: 29,
        marking: 'hundredths, scratched',
        stampedIn: 'mm',
        seatOffset: null,
        toolCrank: 'a third of a turn past firing TDC: piston well down, the lobe still away',
      },
    },
    condition: 'cold',
    temperature: { from: -5, to: 25 },
    limits: [printed('intake', '0.10–0.16 mm'), printed('exhaust', '0.20–0.26 mm')],
    wearLimits: WEAR_LIMITS,
    torques: CAP_TORQUES,
    wanted: [],
    pieceCharts: [],
    assembly: [],
    runIn: { heatCycles: 0, retorque: false },
    usageUnit: 'hours',
    recheckPlan: [step(5, 30), step(20, 120)],
    source: { manual: 'Vessany R4 tuner’s folder', edition: '2', page: '9' },
    secondSource: null,
    notes: '',
  },
};

/** The valley's emergency generator: a flat four with graded buckets. */
export const flatFour: NewSheet = {
  name: 'B4 Flatiron',
  maker: 'Quillmere',
  body: {
    ...BARE,
    pattern: {
      ...PLAIN,
      layout: 'flat',
      cylinders: [
        { id: '1', bank: 'A', place: 1, firesAt: 0 },
        { id: '3', bank: 'A', place: 2, firesAt: 180 },
        { id: '2', bank: 'B', place: 1, firesAt: 360 },
        { id: '4', bank: 'B', place: 2, firesAt: 540 },
      ],
      valves: { intake: 2, exhaust: 2 },
      exhaustSide: 'left',
      timing: { ivoBtdc: 12, ivcAbdc: 48, evoBbdc: 50, evcAtdc: 12, assumed: false, lift: null },
      marks: [0, 180, 360, 540],
      means: {
        kind: 'bucket',
        sizes: { from: 4.32, to: 5.12, step: 0.02 },
        marking: 'inside the crown',
        stampedIn: 'mm',
      },
      turnsBack: false,
      camDrive: 'belt',
      camsOut: {
        at: 0,
        lockedBy: 'an 8 mm pin through the flywheel',
        first: 'belt marked against both wheels, its tension off',
      },
      // the hand book has the intakes of 4 at half a turn, where they are lifting
      makersStops: [
        { angle: 0, points: ['1Ia', '1Ib', '1Ea', '1Eb', '3Ea', '3Eb'] },
        { angle: 180, points: ['3Ia', '3Ib', '4Ia', '4Ib'] },
        { angle: 360, points: ['2Ia', '2Ib', '2Ea', '2Eb', '4Ea', '4Eb'] },
      ],
    },
    condition: 'cold',
    temperature: COOL_ROOM,
    limits: [printed('intake', '0.13 ± 0.02 mm'), printed('exhaust', '0.22 ± 0.02 mm')],
    wearLimits: WEAR_LIMITS,
    torques: CAP_TORQUES,
    wanted: [],
    pieceCharts: [],
    assembly: [],
    runIn: { heatCycles: 2, retorque: true },
    usageUnit: 'hours',
    recheckPlan: [step(25, 90), step(500, 730)],
    source: { manual: 'Quillmere B4 workshop book', edition: '2nd', page: '52' },
    secondSource: null,
    notes: '',
  },
};

/** The ropeway's main drive: a V-twelve with lash caps. */
export const ropewayTwelve: NewSheet = {
  name: 'V12 Summit',
  maker: 'Quillmere',
  body: {
    ...BARE,
    pattern: {
      ...PLAIN,
      layout: 'v',
      bankAngle: 60,
      cylinders: [1, 12, 5, 8, 3, 10, 6, 7, 2, 11, 4, 9]
        .map((number, order) => ({
          id: String(number),
          bank: number <= 6 ? ('A' as const) : ('B' as const),
          place: number <= 6 ? number : number - 6,
          firesAt: order * 60,
        }))
        .sort((a, b) => Number(a.id) - Number(b.id)),
      turns: 'anticlockwise',
      seenFrom: 'flywheel',
      valves: { intake: 1, exhaust: 1 },
      exhaustSide: 'left',
      timing: { ivoBtdc: 18, ivcAbdc: 46, evoBbdc: 52, evcAtdc: 16, assumed: false, lift: null },
      marks: [0, 60, 120, 180, 240, 300, 360, 420, 480, 540, 600, 660],
      means: {
        kind: 'lash-cap',
        sizes: { from: 2.5, to: 3.5, step: 0.02 },
        marking: 'etched',
        stampedIn: 'mm',
      },
    },
    condition: 'cold',
    temperature: COOL_ROOM,
    limits: [printed('intake', '0.24 ± 0.04 mm'), printed('exhaust', '0.34 ± 0.04 mm')],
    wearLimits: WEAR_LIMITS,
    torques: CAP_TORQUES,
    wanted: [],
    pieceCharts: [],
    assembly: [],
    runIn: { heatCycles: 0, retorque: false },
    usageUnit: 'hours',
    recheckPlan: [step(50, 120), step(1000, 365)],
    source: { manual: 'Quillmere V12 ropeway volume', edition: '1', page: '203' },
    secondSource: null,
    notes: '',
  },
};
