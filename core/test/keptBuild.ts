import { STAGES, type BuildState, type SettingState } from '../builds/index.ts';
import type { ReadingState, Verdict } from '../measuring/index.ts';
import { lashPoints, type Pattern } from '../sheets/index.ts';
import { inlineFour } from './patterns.ts';

export const POINTS = lashPoints(inlineFour).map(({ key }) => key);
export const at = (minute: number) => new Date(Date.UTC(2031, 0, 1, 8, minute)).toISOString();
export const reading = (
  point: string,
  minute: number,
  verdict: Verdict,
  change: Partial<ReadingState> = {},
): ReadingState => ({
  ...{ point, verdict, takenAt: at(minute), offBase: false },
  reading: { kind: 'bracket' },
  ...change,
});
export const setting = (point: string, minute: number, kind: SettingState['kind'] = 'turned') => ({
  point,
  kind,
  at: at(minute),
});
export const SCREWS: Pattern = {
  ...inlineFour,
  roleMeans: {},
  means: { kind: 'screw', end: 'valve', pitch: 1, rockerRatio: 1, locking: 'lock-nut', torqueNm: 20 },
};
export const shims = (seat: 'on-bucket' | 'under-bucket' | 'under-finger'): Pattern => ({
  ...SCREWS,
  means: {
    kind: 'shim',
    seat,
    sizes: { from: 2, to: 3, step: 0.05 },
    diameter: 9,
    marking: '',
    seatOffset: null,
  },
});
export const build = (change: Partial<BuildState>): BuildState => ({
  ...{ job: 'rebuild', stage: 'set' },
  sheet: { pattern: SCREWS },
  ticks: STAGES.flatMap(({ key, checks }) =>
    checks.map((check) => ({
      ...{ stage: key, check: check.key, done: true, at: at(0) },
      // turned over after whatever is done: what is tried of the two turns themselves says when they were
      ...(check.beforeReadings ? { earlier: Array.from({ length: 120 }, (_, minute) => at(minute)) } : {}),
    })),
  ),
  rounds: [],
  settings: [],
  signOff: null,
  ...change,
});
export const all = (minute: number, verdict: Verdict = 'in-spec') =>
  POINTS.map((point) => reading(point, minute, verdict));
