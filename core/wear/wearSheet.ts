import { currentLines, type Entry, type CurrentLine } from '../entries/index.ts';
import { leverageOf, valvesOf, type Pattern } from '../sheets/index.ts';
import {
  gradePressures,
  isImpossible,
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
  readonly current: ReadonlyMap<string, CurrentLine<WearLine>>;
  /** the sheet's limits, and those given for this build */
  readonly limits: readonly GivenLimit[];
}

/** Puts a wear sheet together from what was written, and from the spec sheet's limits; those of the build come last and hold. */
export function wearSheetOf(entries: readonly Entry<WearLine>[], sheet: readonly GivenLimit[]): WearSheet {
  const current = currentLines(entries, wearKey);
  const added = [...current.values()].map(({ line }) => line).filter((line) => line.kind === 'limit');
  return { current, limits: [...sheet, ...added] };
}

/** A sheet as it would be with figures in it that are not written down yet. */
export function withLines(sheet: WearSheet, lines: readonly FigureLine[]): WearSheet {
  const current = new Map(sheet.current);
  for (const line of lines) current.set(wearKey(line), { line, id: '', by: '', at: '', before: null });
  return { ...sheet, current };
}

/** The figures of a characteristic at a place: of the part that was found, or of the one fitted since. */
export function figuresAt(
  { current }: WearSheet,
  { key, fields }: Pick<Characteristic, 'key' | 'fields'>,
  place: string,
  set: FigureLine['set'],
): Figures {
  const found: [string, readonly number[]][] = [];
  for (const { key: name } of fields) {
    const line = current.get(`figure ${set} ${key} ${place} ${name}`)?.line;
    if (line?.kind === 'figure' && line.how === 'measured') found.push([name, line.values]);
  }
  return Object.fromEntries(found);
}

/** How a characteristic stands at a place. */
export interface WearThere extends Graded {
  /** by figures, by a gauge, or by eye */
  readonly by: 'figures' | 'gauge' | 'eye';
  readonly set: FigureLine['set'];
  /** what the figures come to cannot be: nothing is said by it */
  readonly isImpossible: boolean;
}

/**
 * The limits of a characteristic that hold at a place, and the lift at the valve, which springs need: a lobe's is what it lifts,
 * and the valve is lifted by the rocker's ratio more.
 */
export function limitsThere(
  { limits }: WearSheet,
  pattern: Pattern,
  item: Characteristic,
  place: WearPlace,
): LimitsThere {
  const wanted: readonly LimitKey[] = [...item.limits, 'lobe-lift'];
  const found = wanted.flatMap((part) => {
    const given = limitAt(limits, part, place);
    if (!given) return [];
    const ofValve = part === 'lobe-lift' && !item.limits.includes(part) && place.role !== null;
    const ratio = ofValve ? leverageOf(pattern, place.role!).rockerRatio : 1;
    // what the valve is lifted by is not known where nobody says by how much the rocker multiplies
    if (ratio === null) return [];
    const { nominal } = given;
    return [[part, { ...given, nominal: nominal === null ? null : nominal * ratio }] as const];
  });
  return Object.fromEntries(found) as LimitsThere;
}

/**
 * Says how a characteristic stands at a place: graded by the figures of what is in now, or by a gauge, or by eye.
 *
 * @returns null where nothing was written there
 * @example wearAt(wear, pattern, lobeItem, placesOf(pattern, lobeItem)[0]) // null
 */
export function wearAt(
  sheet: WearSheet,
  pattern: Pattern,
  item: Characteristic,
  place: WearPlace,
): WearThere | null {
  for (const set of ['fitted', 'found'] as const) {
    const looked = item.fields
      .map(({ key }) => sheet.current.get(`figure ${set} ${item.key} ${place.key} ${key}`)?.line)
      .filter((line) => line?.kind === 'figure' && line.how !== 'measured' && line.how !== 'taken-back')
      .map((line) => (line as FigureLine).how);
    const nothing = { used: null, derived: [], missing: [], held: [], isImpossible: false, set };
    if (looked.includes('gauge-wont')) return { ...nothing, verdict: 'replace', by: 'gauge' };
    const graded = gradedBy(sheet, pattern, item, place, set, figuresAt(sheet, item, place.key, set));
    if (graded) {
      const limits = limitsThere(sheet, pattern, item, place);
      const impossible = graded.held.some((each) => isImpossible(each, limits));
      return { ...graded, by: 'figures', set, isImpossible: impossible };
    }
    if (looked.includes('gauge-goes')) return { ...nothing, verdict: 'keep', by: 'gauge' };
    if (looked.includes('sound')) return { ...nothing, verdict: 'keep', by: 'eye' };
  }
  return null;
}

/**
 * Grades a characteristic at a place by figures; null where they are too few to say anything.
 *
 * @param figures those of the place, whether they are written down or only typed
 */
export function gradedBy(
  sheet: WearSheet,
  pattern: Pattern,
  item: Characteristic,
  place: WearPlace,
  set: FigureLine['set'],
  figures: Figures,
): Graded | null {
  const limits = limitsThere(sheet, pattern, item, place);
  if (item.key !== 'compression') return item.grade(figures, limits);
  // compressions are graded one beside the other
  const pressures = Object.fromEntries(
    placesOf(pattern, item).flatMap(({ key }) => {
      const { value } = key === place.key ? figures : figuresAt(sheet, item, key, set);
      return value?.length ? [[key, Math.max(...value)]] : [];
    }),
  );
  return gradePressures(pressures, limits)[place.key] ?? null;
}

/** Parts that lie where a blade goes: a hollow elsewhere, in a seat say, bridges nothing. */
const AT_THE_GAP: ReadonlySet<string> = new Set(['rocker', 'follower', 'piece', 'valve']);

/**
 * Says at which lash points a hollow is worn in: a flat blade bridges it there, so one that will not go proves nothing. One on
 * a part that was fitted new is gone with it.
 *
 * @example hollowAt(wear, pattern).has('3E') // false
 */
export function hollowAt({ current }: WearSheet, pattern: Pattern): ReadonlySet<string> {
  const pointOf = new Map(valvesOf(pattern).map(({ key, point }) => [key, point]));
  const renewed = new Set<string>();
  for (const { line } of current.values())
    if (line.kind === 'fate' && line.fate === 'replace' && line.order === 'fitted')
      renewed.add(`${line.part} ${line.place}`);
  const points = new Set<string>();
  for (const { line } of current.values())
    if (line.kind === 'mark' && line.damage === 'hollow' && !line.gone)
      if (AT_THE_GAP.has(line.part) && !renewed.has(`${line.part} ${line.place}`))
        points.add(pointOf.get(line.place) ?? line.place);
  return points;
}
