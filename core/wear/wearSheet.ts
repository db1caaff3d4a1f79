import { standingLines, type Entry, type Standing } from '../entries/index.ts';
import type { Pattern } from '../sheets/index.ts';
import {
  gradePressures,
  type Characteristic,
  type Figures,
  type Graded,
  type LimitsThere,
} from './characteristics.ts';
import { limitAt, type GivenLimit, type LimitKey } from './limitKinds.ts';
import { wearKey, type FigureLine, type WearLine } from './wearLines.ts';
import { placesOf, type WearPlace } from './wearPlaces.ts';

/** Everything of a wear sheet as it stands. */
export interface WearSheet {
  readonly standing: ReadonlyMap<string, Standing<WearLine>>;
  /** the sheet's limits, and those given for this build */
  readonly limits: readonly GivenLimit[];
}

/** Puts a wear sheet together from what was written, and from the spec sheet's limits; those of the build come last and hold. */
export function wearSheetOf(entries: readonly Entry<WearLine>[], sheet: readonly GivenLimit[]): WearSheet {
  const standing = standingLines(entries, wearKey);
  const added = [...standing.values()].map(({ line }) => line).filter((line) => line.kind === 'limit');
  return { standing, limits: [...sheet, ...added] };
}

/** The figures of a characteristic at a place: of the part that was found, or of the one fitted since. */
export function figuresAt(
  { standing }: WearSheet,
  { key, fields }: Pick<Characteristic, 'key' | 'fields'>,
  place: string,
  set: FigureLine['set'],
): Figures {
  const found: [string, readonly number[]][] = [];
  for (const { key: name } of fields) {
    const line = standing.get(`figure ${set} ${key} ${place} ${name}`)?.line;
    if (line?.kind === 'figure' && line.how === 'measured') found.push([name, line.values]);
  }
  return Object.fromEntries(found);
}

/** How a characteristic stands at a place. */
export interface WearThere extends Graded {
  /** by figures, by a gauge, or by eye */
  readonly by: 'figures' | 'gauge' | 'eye';
  readonly set: FigureLine['set'];
}

/** The limits of a characteristic that hold at a place, and the lift, which springs need. */
function limitsThere({ limits }: WearSheet, item: Characteristic, place: WearPlace): LimitsThere {
  const wanted: readonly LimitKey[] = [...item.limits, 'lobe-lift'];
  const found = wanted.flatMap((part) => {
    const given = limitAt(limits, part, place);
    return given ? [[part, given] as const] : [];
  });
  return Object.fromEntries(found) as LimitsThere;
}

/**
 * Says how a characteristic stands at a place: graded by the figures of what is in now, or by a gauge, or by eye.
 *
 * @returns null where nothing was written there
 * @example wearAt(sheet, pattern, characteristicOf('lobe')!, place)?.verdict // 'watch'
 */
export function wearAt(
  sheet: WearSheet,
  pattern: Pattern,
  item: Characteristic,
  place: WearPlace,
): WearThere | null {
  for (const set of ['fitted', 'found'] as const) {
    const looked = item.fields
      .map(({ key }) => sheet.standing.get(`figure ${set} ${item.key} ${place.key} ${key}`)?.line)
      .filter((line) => line?.kind === 'figure' && line.how !== 'measured' && line.how !== 'taken-back')
      .map((line) => (line as FigureLine).how);
    const nothing = { used: null, derived: [], missing: [], set };
    if (looked.includes('gauge-wont')) return { ...nothing, verdict: 'replace', by: 'gauge' };
    const graded =
      item.key === 'compression'
        ? compressionAt(sheet, pattern, item, place, set)
        : item.grade(figuresAt(sheet, item, place.key, set), limitsThere(sheet, item, place));
    if (graded) return { ...graded, by: 'figures', set };
    if (looked.includes('gauge-goes')) return { ...nothing, verdict: 'keep', by: 'gauge' };
    if (looked.includes('sound')) return { ...nothing, verdict: 'keep', by: 'eye' };
  }
  return null;
}

function compressionAt(
  sheet: WearSheet,
  pattern: Pattern,
  item: Characteristic,
  place: WearPlace,
  set: FigureLine['set'],
): Graded | null {
  const pressures = Object.fromEntries(
    placesOf(pattern, item).flatMap(({ key }) => {
      const { value } = figuresAt(sheet, item, key, set);
      return value?.length ? [[key, Math.max(...value)]] : [];
    }),
  );
  return gradePressures(pressures, limitsThere(sheet, item, place))[place.key] ?? null;
}

/**
 * Says at which lash points a hollow was seen: a flat blade bridges it there, so one that will not go proves nothing.
 *
 * @example hollowAt(sheet) // Set { '3E' }
 */
export function hollowAt({ standing }: WearSheet): ReadonlySet<string> {
  const points = new Set<string>();
  for (const { line } of standing.values())
    if (line.kind === 'mark' && line.damage === 'hollow' && !line.gone) points.add(line.place);
  return points;
}
