import type { NewSheet } from '@zero-lash/contract/sheets';
import { BARE, CAP_TORQUES, COOL_ROOM, PLAIN, WEAR_LIMITS, step } from './parts.ts';
import { printed } from './printed.ts';

/** A parallel twin whose valves are drawn shut by rockers of their own; its sheet waits for a second pair of eyes. */
export const drawnShutTwin: NewSheet = {
  name: 'P2 Drawshut',
  maker: 'Vessany',
  body: {
    ...BARE,
    pattern: {
      ...PLAIN,
      layout: 'inline',
      cylinders: [
        { id: '1', bank: 'A', place: 1, firesAt: 0 },
        { id: '2', bank: 'A', place: 2, firesAt: 360 },
      ],
      valves: { intake: 1, exhaust: 1 },
      closingSide: true,
      exhaustSide: 'left',
      timing: { ivoBtdc: 24, ivcAbdc: 58, evoBbdc: 58, evcAtdc: 24, assumed: false, lift: null },
      marks: [0, 360],
      means: {
        kind: 'shim',
        seat: 'under-finger',
        sizes: { from: 2, to: 4.5, step: 0.05 },
        diameter: 7,
        marking: 'none: by micrometer',
        stampedIn: 'mm',
        seatOffset: null,
        rockerRatio: 1.3,
        gapAt: 'valve',
      },
    },
    condition: 'cold',
    temperature: COOL_ROOM,
    limits: [
      printed('intake', '0.10–0.14 mm'),
      printed('intake-closing', '0.02–0.06 mm'),
      printed('exhaust', '0.12–0.16 mm'),
      printed('exhaust-closing', '0.02–0.06 mm'),
    ],
    wearLimits: WEAR_LIMITS,
    torques: CAP_TORQUES,
    wanted: [],
    pieceCharts: [],
    assembly: [],
    runIn: { heatCycles: 0, retorque: false },
    usageUnit: 'hours',
    recheckPlan: [step(10, 60)],
    source: { manual: 'Vessany P2 works leaflet', edition: '', page: '3' },
    secondSource: null,
    notes: 'Copied from a photograph of the leaflet: check every figure against the paper.',
  },
};
