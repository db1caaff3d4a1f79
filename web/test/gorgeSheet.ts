import { sheetFile, type SheetFile } from '@zero-lash/contract/sheets';

export const cap = {
  ...{ kind: 'lash-cap', sizes: { from: 2.5, to: 3.5, step: 0.02 }, marking: 'etched', stampedIn: 'in' },
} as const;

export const PICTURE = { at: '0', of: 'mark' as const, says: 'the notch', file: '/9j/4AAQSkZJRg==' };

/** A V-four with everything a sheet can say: uneven firing, brakes, a second means, a mark on the cam wheel. */
export const gorge: SheetFile = sheetFile.parse({
  format: 'zero-lash-sheet',
  formatVersion: 1,
  maker: 'Tarnholt',
  name: 'V4 Gorge',
  pattern: {
    layout: 'v',
    bankAngle: 90,
    cylinders: [
      { id: '1', bank: 'A', place: 1, firesAt: 0 },
      { id: '3', bank: 'A', place: 2, firesAt: 360 },
      { id: '2', bank: 'B', place: 1, firesAt: 450 },
      { id: '4', bank: 'B', place: 2, firesAt: 180 },
    ],
    turns: 'anticlockwise',
    seenFrom: 'flywheel',
    valves: { intake: 2, exhaust: 2 },
    bridges: { intake: true, exhaust: false },
    closingSide: false,
    brakes: [
      { cylinder: '1', opens: 640, closes: 780 },
      { cylinder: '3', opens: 640, closes: 780 },
      { cylinder: '2', opens: 300, closes: 380 },
    ],
    exhaustSide: 'right',
    timing: { ivoBtdc: 20, ivcAbdc: 50, evoBbdc: 52, evcAtdc: 18, assumed: false, lift: 0.1 },
    margin: 12.5,
    turnsBack: false,
    camDrive: 'gears',
    camsAbove: 'two',
    coverHoldsCams: true,
    decompressor: { role: 'exhaust', opens: 600, closes: 660 },
    valveRow: { splayed: true, A: 'EIIEEIEI', B: 'IIEEIEIE' },
    makersNames: { '1Ea': '1', '2': 'rear right', '3Ib': '6', '1B': 'brake 1' },
    makersPairs: [{ open: ['1I'], points: ['2I', '3Ea'] }],
    positionSigns: [{ at: 450, cams: 'letters up', rotor: 'at the notch' }],
    camsOut: { at: 360, lockedBy: '8 mm pin', first: 'belt marked' },
    makersStops: [
      { angle: 0, points: ['1I', '1Ea', '1Eb'] },
      { angle: 450.5, points: ['2I', '2Ea', '2Eb'] },
    ],
    marks: [0, 90, 360, 450, 500],
    means: {
      kind: 'screw',
      end: 'pushrod',
      pitch: 0.75,
      rockerRatio: 1.3,
      locking: 'lock-nut',
      torqueNm: 14,
    },
    roleMeans: { exhaust: cap },
  },
  condition: 'hot',
  temperature: { from: 70, to: 95 },
  limits: [
    { role: 'intake', min: 0.0762, max: 0.127, asWritten: '3 to 5 thou' },
    { role: 'exhaust', min: 0.2, max: 0.3, asWritten: '0.25 ± 0.05 mm' },
    { role: 'brake', min: 0.7, max: 0.8, asWritten: '0.7–0.8 mm' },
  ],
  wearLimits: [
    {
      ...{ part: 'stem-guide', of: 'exhaust', place: '', nominal: null, limit: 0.1, min: null, max: null },
      ...{ unit: 'mm', source: '' },
    },
    {
      ...{ part: 'seat-width', of: 'both', place: '3', nominal: null, limit: null, min: 1.1, max: 1.8 },
      ...{ unit: 'mm', source: 'letter' },
    },
  ],
  pictures: [{ at: 90, of: 'mark', says: 'the notch', file: PICTURE.file }],
  torques: [
    {
      ...{ fastening: 'Cam caps', steps: '8 Nm, then 14 Nm', order: 'from the middle out' },
      ...{ rows: [2, 2], sequence: [1, 4, 2, 3] },
    },
  ],
  wanted: [{ name: 'Head gasket', count: 2, kind: 'seal' }],
  usageUnit: 'starts',
  recheckPlan: [
    { afterUsage: 20, afterDays: 30 },
    { afterUsage: null, afterDays: 365 },
  ],
  source: { manual: 'Gorge-line leaflet', edition: '', page: '3' },
  notes: 'By hand only.',
});
