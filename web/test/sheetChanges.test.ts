import { type SheetFile } from '@zero-lash/contract/sheets';
import type { Means } from '@zero-lash/core/sheets';
import { describe, expect, it } from 'vitest';
import { changesBetween, sheetInWords } from '../sheets/inWords.ts';
import { cap, gorge } from './gorgeSheet.ts';

describe('two revisions', () => {
  it('are held against each other line by line', () => {
    const after = { ...gorge, notes: '', source: { ...gorge.source, page: '4' } };
    expect(changesBetween(gorge, gorge)).toEqual([]);
    expect(changesBetween(gorge, after)).toEqual([
      { name: 'Source', before: 'Gorge-line leaflet, page 3', after: 'Gorge-line leaflet, page 4' },
      { name: 'Notes', before: 'By hand only.', after: null },
    ]);
    expect(sheetInWords(gorge).find(({ name }) => name === 'Cylinders')?.text).toBe(
      '1 3 and 2 4, each from the front',
    );
  });
});

/** The way to every figure and word inside a value. */
function leavesOf(value: unknown, way: readonly (string | number)[] = []): (readonly (string | number)[])[] {
  if (typeof value !== 'object' || value === null) return [way];
  return Object.entries(value).flatMap(([key, inner]) => leavesOf(inner, [...way, key]));
}

/** Another value of each word that is one of a few. */
const OTHERS: Readonly<Record<string, readonly string[]>> = {
  layout: ['v', 'flat'],
  bank: ['A', 'B'],
  turns: ['clockwise', 'anticlockwise'],
  seenFrom: ['front', 'flywheel'],
  exhaustSide: ['left', 'right'],
  seat: ['on-bucket', 'under-finger'],
  end: ['valve', 'pushrod'],
  gapAt: ['valve', 'cam'],
  locking: ['lock-nut', 'self-locking'],
  condition: ['cold', 'hot'],
  usageUnit: ['hours', 'km'],
  system: ['inch', 'metric'],
  role: ['intake', 'exhaust'],
  part: ['lobe-lift', 'rocker-bush'],
  of: ['intake', 'exhaust'],
  unit: ['mm', '%'],
  camDrive: ['gears', 'belt'],
  bridgeKind: ['plain', 'guided'],
  stampedIn: ['mm', 'in'],
  before: ['10-01'],
};

function anotherValue(name: string, now: unknown): unknown {
  if (typeof now === 'number') return now + 1;
  if (typeof now === 'boolean') return !now;
  const few = OTHERS[name];
  if (few) return few.find((word) => word !== now);
  return now === null ? 7 : `${String(now)}x`;
}

describe('whatever changes on a sheet', () => {
  const shim = {
    ...{ kind: 'shim', seat: 'on-bucket', sizes: { from: 2, to: 3, step: 0.05 }, diameter: 25 },
    ...{ marking: 'etched', stampedIn: 'mm', seatOffset: 1.2 },
    ...{ rockerRatio: 1.3, gapAt: 'cam', turnsBare: true, toolCrank: 'piston well down' },
  } as const;
  const screw = {
    ...{ kind: 'screw', end: 'valve', pitch: 1, rockerRatio: 1.4, locking: 'lock-nut', torqueNm: 20 },
  } as const;
  const bucket = {
    kind: 'bucket',
    sizes: { from: 2, to: 3, step: 0.05 },
    marking: 'inside',
    stampedIn: 'mm',
  } as const;
  const nut = { kind: 'pivot-nut', pitch: 1, rockerRatio: 1.4, locking: 'lock-nut', torqueNm: 20 } as const;

  it.each([shim, screw, bucket, nut, cap] as Means[])('is shown among the changes: set by $kind', (means) => {
    const sheet: SheetFile = { ...gorge, pattern: { ...gorge.pattern, means: means as never } };
    const unseen = leavesOf({
      ...sheet,
      format: undefined,
      formatVersion: undefined,
      name: undefined,
      maker: undefined,
    })
      .filter(([first]) => !['format', 'formatVersion', 'name', 'maker'].includes(String(first)))
      // what kind of means it is decides which figures there are; of places their order counts, as it is shown
      .filter((way) => !['kind', 'place'].includes(String(way.at(-1))))
      .filter((way) => {
        const changed = structuredClone(sheet) as never;
        const holder = way.slice(0, -1).reduce<Record<string, never>>((inside, key) => inside[key]!, changed);
        const [last] = way.slice(-1) as [string];
        holder[last] = anotherValue(last, holder[last]) as never;
        return changesBetween(sheet, changed).length === 0;
      })
      .map((way) => way.join('.'));
    expect(unseen).toEqual([]);
  });
});
