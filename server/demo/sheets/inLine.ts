import type { NewSheet } from '@zero-lash/contract/sheets';
import {
  AT_HAND,
  CAP_TORQUES,
  COOL_ROOM,
  inLine,
  PLAIN,
  UNSHOWN,
  WITH_HEAD,
  WITH_SCREWS,
  WITH_TIPS,
  WEAR_LIMITS,
} from './parts.ts';

export const orchardFour: NewSheet = {
  name: 'Q4 Orchard',
  maker: 'Quillmere',
  body: {
    pattern: {
      ...PLAIN,
      layout: 'inline',
      cylinders: inLine([1, 3, 4, 2]),
      valves: { intake: 1, exhaust: 1 },
      exhaustSide: 'left',
      timing: { ivoBtdc: 14, ivcAbdc: 52, evoBbdc: 54, evcAtdc: 12, assumed: false, lift: null },
      marks: [0, 180, 360, 540],
      means: {
        kind: 'screw',
        end: 'valve',
        pitch: 1,
        rockerRatio: 1.5,
        locking: 'lock-nut',
        torqueNm: 22,
      },
    },
    condition: 'cold',
    temperature: COOL_ROOM,
    limits: [
      { role: 'intake', min: 0.2, max: 0.3, asWritten: '0.25 ± 0.05 mm' },
      { role: 'exhaust', min: 0.3, max: 0.4, asWritten: '0.35 ± 0.05 mm' },
    ],
    wearLimits: WITH_SCREWS,
    torques: WITH_HEAD,
    wanted: AT_HAND,
    pieceCharts: [],
    usageUnit: 'hours',
    recheckPlan: [
      { afterUsage: 10, afterDays: 30 },
      { afterUsage: 50, afterDays: 120 },
      { afterUsage: 250, afterDays: 365 },
    ],
    source: { manual: 'Quillmere Q4 workshop book', edition: '4th, revised', page: '31' },
    notes: 'Frost-fan duty: recheck before the blossom nights whatever the hours say.',
  },
};

export const railFour: NewSheet = {
  name: 'T16 Rack',
  maker: 'Tarnholt',
  body: {
    pattern: {
      ...PLAIN,
      layout: 'inline',
      cylinders: inLine([1, 3, 4, 2]),
      valves: { intake: 2, exhaust: 2 },
      exhaustSide: 'right',
      timing: { ivoBtdc: 18, ivcAbdc: 48, evoBbdc: 50, evcAtdc: 16, assumed: false, lift: null },
      camDrive: 'chain',
      marks: [0, 180, 360, 540],
      means: {
        kind: 'shim',
        seat: 'under-bucket',
        sizes: { from: 2, to: 3.2, step: 0.05 },
        diameter: 9.5,
        marking: 'hundredths on one face, face down',
        stampedIn: 'mm',
        seatOffset: 0.31,
      },
    },
    condition: 'cold',
    temperature: COOL_ROOM,
    limits: [
      { role: 'intake', min: 0.11, max: 0.19, asWritten: '0.15 ± 0.04 mm' },
      { role: 'exhaust', min: 0.21, max: 0.29, asWritten: '0.25 ± 0.04 mm' },
    ],
    wearLimits: WITH_TIPS,
    torques: [...CAP_TORQUES, { ...UNSHOWN, fastening: 'Head nuts', steps: '60 Nm, then 145 Nm', order: '' }],
    wanted: [],
    pieceCharts: [],
    usageUnit: 'km',
    recheckPlan: [
      { afterUsage: 800, afterDays: 60 },
      { afterUsage: 4000, afterDays: 180 },
      { afterUsage: 12000, afterDays: 365 },
    ],
    source: { manual: 'Tarnholt T16 overhaul sheets', edition: '2', page: 'C-7' },
    notes: '',
  },
};

export const sawSingle: NewSheet = {
  name: 'S1 Sawyer',
  maker: 'Vessany',
  body: {
    pattern: {
      ...PLAIN,
      layout: 'single',
      cylinders: [{ id: '1', bank: 'A', place: 1, firesAt: 0 }],
      valves: { intake: 1, exhaust: 1 },
      exhaustSide: 'left',
      timing: { ivoBtdc: 12, ivcAbdc: 44, evoBbdc: 46, evcAtdc: 12, assumed: false, lift: null },
      decompressor: { role: 'exhaust', opens: 610, closes: 680 },
      marks: [0, 360],
      means: {
        kind: 'screw',
        end: 'pushrod',
        pitch: 0.75,
        rockerRatio: 1.3,
        locking: 'lock-nut',
        torqueNm: 14,
      },
    },
    condition: 'cold',
    temperature: COOL_ROOM,
    limits: [
      { role: 'intake', min: 0.08, max: 0.14, asWritten: '0.08–0.14 mm' },
      { role: 'exhaust', min: 0.14, max: 0.2, asWritten: '0.14–0.20 mm' },
    ],
    wearLimits: WITH_SCREWS,
    torques: CAP_TORQUES,
    wanted: [],
    pieceCharts: [],
    usageUnit: 'starts',
    recheckPlan: [
      { afterUsage: 20, afterDays: 30 },
      { afterUsage: 300, afterDays: 365 },
    ],
    source: { manual: 'Vessany S1 owner’s and fitter’s book', edition: '1', page: '44' },
    notes: '',
  },
};

export const trolleyThree: NewSheet = {
  name: 'T3 Trolley',
  maker: 'Tarnholt',
  body: {
    pattern: {
      ...PLAIN,
      layout: 'inline',
      cylinders: inLine([1, 3, 2]),
      valves: { intake: 2, exhaust: 2 },
      exhaustSide: 'right',
      timing: { ivoBtdc: 20, ivcAbdc: 50, evoBbdc: 52, evcAtdc: 18, assumed: false, lift: null },
      marks: [0, 360],
      means: {
        kind: 'shim',
        seat: 'under-finger',
        sizes: { from: 1.2, to: 2.6, step: 0.025 },
        diameter: 8,
        marking: 'thousandths of a millimetre, laser marked',
        stampedIn: 'mm',
        seatOffset: null,
      },
    },
    condition: 'cold',
    temperature: COOL_ROOM,
    limits: [
      { role: 'intake', min: 0.12, max: 0.18, asWritten: '0.15 ± 0.03 mm' },
      { role: 'exhaust', min: 0.22, max: 0.28, asWritten: '0.25 ± 0.03 mm' },
    ],
    wearLimits: WEAR_LIMITS,
    torques: CAP_TORQUES,
    wanted: [],
    pieceCharts: [],
    usageUnit: 'hours',
    recheckPlan: [
      { afterUsage: 20, afterDays: 60 },
      { afterUsage: 400, afterDays: 365 },
    ],
    source: { manual: 'Tarnholt T3 line-trolley book', edition: '3', page: '18' },
    notes: 'One mark on the pulley only.',
  },
};

/** The groomer's six: bridged pairs, and a brake rocker on every cylinder. */
export const groomerSix: NewSheet = {
  name: 'G6 Groomer',
  maker: 'Hadderby',
  body: {
    pattern: {
      ...PLAIN,
      layout: 'inline',
      cylinders: inLine([1, 5, 3, 6, 2, 4]),
      valves: { intake: 2, exhaust: 2 },
      bridges: { intake: true, exhaust: true },
      brakes: [1, 2, 3, 4, 5, 6].map((cylinder) => ({
        cylinder: String(cylinder),
        opens: 640,
        closes: 720 + 60,
      })),
      exhaustSide: 'left',
      timing: { ivoBtdc: 16, ivcAbdc: 36, evoBbdc: 48, evcAtdc: 14, assumed: false, lift: null },
      marks: [0, 120, 240, 360, 480, 600],
      means: { kind: 'screw', end: 'valve', pitch: 1, rockerRatio: 1.4, locking: 'lock-nut', torqueNm: 39 },
    },
    condition: 'cold',
    temperature: { from: 5, to: 40 },
    limits: [
      { role: 'intake', min: 0.25, max: 0.35, asWritten: '0.30 ± 0.05 mm' },
      { role: 'exhaust', min: 0.55, max: 0.65, asWritten: '0.60 ± 0.05 mm' },
      { role: 'brake', min: 0.7, max: 0.8, asWritten: '0.75 ± 0.05 mm' },
    ],
    wearLimits: WITH_SCREWS,
    torques: [
      { ...UNSHOWN, fastening: 'Rocker shaft', steps: '20 Nm, then 60 Nm', order: 'from the middle out' },
    ],
    wanted: [],
    pieceCharts: [],
    usageUnit: 'hours',
    recheckPlan: [
      { afterUsage: 100, afterDays: 120 },
      { afterUsage: 1000, afterDays: 365 },
    ],
    source: { manual: 'Hadderby G6 service sheets', edition: 'winter issue', page: '7-14' },
    notes: 'The brake rocker is measured when its companion cylinder fires.',
  },
};
