import type { Pattern } from '../sheets/index.ts';

/** An in-line four with bridged exhausts and one brake rocker. */
export const inlineFour: Pattern = {
  layout: 'inline',
  bankAngle: null,
  cylinders: [1, 2, 3, 4].map((place) => ({
    id: String(place),
    bank: 'A',
    place,
    firesAt: [0, 540, 180, 360][place - 1]!,
  })),
  turns: 'clockwise',
  seenFrom: 'front',
  valves: { intake: 2, exhaust: 2 },
  bridges: { intake: false, exhaust: true },
  closingSide: false,
  brakes: [{ cylinder: '2', opens: 300, closes: 380 }],
  exhaustSide: 'right',
  timing: { ivoBtdc: 14, ivcAbdc: 52, evoBbdc: 54, evcAtdc: 12, assumed: false },
  margin: 15,
  marks: [0, 180, 360, 540],
  means: { kind: 'bucket', sizes: { from: 2, to: 3, step: 0.05 }, marking: '' },
  roleMeans: {},
};
/** Twelve cylinders in a V, five valves each, every one drawn shut: the most lash points there can be. */
export const vTwelve: Pattern = {
  ...inlineFour,
  layout: 'v',
  bankAngle: 60,
  valves: { intake: 3, exhaust: 2 },
  bridges: { intake: false, exhaust: false },
  brakes: [],
  closingSide: true,
  cylinders: Array.from({ length: 12 }, (_, index) => ({
    id: String(index + 1),
    bank: index < 6 ? ('A' as const) : ('B' as const),
    place: (index % 6) + 1,
    firesAt: index * 60,
  })),
};

/** An in-line six firing 1-5-3-6-2-4 with plain valves. */
export const inlineSix: Pattern = {
  ...inlineFour,
  valves: { intake: 1, exhaust: 1 },
  bridges: { intake: false, exhaust: false },
  brakes: [],
  cylinders: [1, 2, 3, 4, 5, 6].map((place) => ({
    id: String(place),
    bank: 'A' as const,
    place,
    firesAt: [1, 5, 3, 6, 2, 4].indexOf(place) * 120,
  })),
  marks: [0, 120, 240, 360, 480, 600],
};
