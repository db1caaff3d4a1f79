import { perPattern } from './perPattern.ts';
import { lashPoints } from './lashPoints.ts';
import { valvesOf } from './trainPlaces.ts';
import type { Bank, Cylinder, Pattern } from './pattern.ts';

const CLOSING = '-c';

/**
 * Lists what a maker may have a name of its own for, by our names: every valve, every brake rocker, every cylinder.
 *
 * @example nameable(pattern).slice(0, 3) // ['1', '2', '3']
 */
export const nameable = perPattern((pattern): readonly string[] => [
  ...pattern.cylinders.map(({ id }) => id),
  ...valvesOf(pattern).map(({ key }) => key),
  ...pattern.brakes.map(({ cylinder }) => `${cylinder}B`),
]);

/** The maker's name of every lash point that has one, by ours. */
const namesOfPoints = perPattern((pattern): ReadonlyMap<string, string> => {
  const { makersNames = {} } = pattern;
  const valves = valvesOf(pattern);
  return new Map(
    lashPoints(pattern).flatMap(({ key, role }) => {
      const opening = key.replace(CLOSING, '');
      const own =
        role === 'brake' ? [key] : valves.filter(({ point }) => point === opening).map((v) => v.key);
      const names = own.flatMap((name) => makersNames[name] ?? []);
      if (names.length === 0 || names.length < own.length) return [];
      return [[key, `${names.join('+')}${key.endsWith(CLOSING) ? ' closing' : ''}`]];
    }),
  );
});

/**
 * Says what the maker calls a lash point; under a bridge the names of both its valves. Nothing where it has no name of its own.
 *
 * @example makersName({ ...pattern, makersNames: { '1I': '2' } }, '1I') // '2'
 */
export function makersName(pattern: Pattern, key: string): string | undefined {
  return namesOfPoints(pattern).get(key);
}

/**
 * Calls a lash point by both its names, the maker's first: a person reads them off the manual, and ours stays beside.
 *
 * @example bothNames({ ...pattern, makersNames: { '1I': '2' } }, '1I') // '2 (1I)'
 */
export function bothNames(pattern: Pattern, key: string): string {
  const name = makersName(pattern, key);
  return name === undefined ? key : `${name} (${key})`;
}

/**
 * Calls a cylinder as its maker does, where that is not how we number it.
 *
 * @example cylinderName({ makersNames: { '2': 'rear' } }, '2') // 'rear'
 */
export function cylinderName({ makersNames = {} }: Pick<Pattern, 'makersNames'>, id: string): string {
  return makersNames[id] ?? id;
}

/**
 * Finds the lash point that somebody means who writes our name of it or the maker's.
 *
 * @example pointNamed({ ...pattern, makersNames: { '1I': '2' } }, '2') // '1I'
 */
export function pointNamed(pattern: Pattern, written: string): string | undefined {
  const same = (name: string) => name.toLowerCase() === written.toLowerCase();
  const own = lashPoints(pattern).find(({ key }) => same(key))?.key;
  return own ?? [...namesOfPoints(pattern)].find(([, name]) => name.split('+').some(same))?.[0];
}

/**
 * Lists the valves of a head along its row, from the front, by our names; nothing where they do not stand in one row.
 *
 * @example valvesAlong({ ...pattern, valveRow: { splayed: false, A: 'EIIEEIIE', B: '' } }, 'A') // ['1E', '1I', '2I', '2E', …]
 */
export function valvesAlong(pattern: Pattern, bank: Bank): readonly string[] {
  if (!pattern.valveRow) return [];
  const letters = [...pattern.valveRow[bank]];
  const each = pattern.valves.intake + pattern.valves.exhaust;
  const valves = valvesOf(pattern);
  return cylindersAlong(pattern, bank).flatMap(({ id }, index) => {
    const own = valves.filter(({ cylinder }) => cylinder === id);
    const seen = { I: 0, E: 0 };
    return letters.slice(index * each, (index + 1) * each).flatMap((letter) => {
      const role = letter === 'I' ? 'intake' : 'exhaust';
      const nth = seen[letter as 'I' | 'E']++;
      return own.filter((valve) => valve.role === role && valve.index === nth).map(({ key }) => key);
    });
  });
}

/** The cylinders under one head, from the front. */
const cylindersAlong = (pattern: Pick<Pattern, 'cylinders'>, bank: Bank): readonly Cylinder[] =>
  pattern.cylinders.filter((cylinder) => cylinder.bank === bank).toSorted((a, b) => a.place - b.place);

/**
 * Says what is wrong with a row of valves: a letter too many or too few, at a cylinder or in all. Null where it holds.
 *
 * @example rowComplaint(pattern, 'A', 'EIIEEIIE') // null
 */
export function rowComplaint(
  pattern: Pick<Pattern, 'cylinders' | 'valves'>,
  bank: Bank,
  order: string,
): string | null {
  const { intake, exhaust } = pattern.valves;
  const each = intake + exhaust;
  const cylinders = cylindersAlong(pattern, bank);
  if (order.length !== each * cylinders.length)
    return `${order.length} letters for the ${each * cylinders.length} valves of its row`;
  const wrong = cylinders.find((_, index) => {
    const own = [...order.slice(index * each, (index + 1) * each)];
    return own.filter((letter) => letter === 'I').length !== intake;
  });
  return wrong ? `cylinder ${wrong.id} has ${intake} I and ${exhaust} E` : null;
}

/**
 * Says what is wrong with a maker's names: one of nothing there is, two of one name, or one that is ours for another. Null where
 * they hold.
 *
 * @example namesComplaint({ ...pattern, makersNames: { '1I': '5', '1E': '5' } }) // '1I and 1E are both called 5'
 */
export function namesComplaint(pattern: Pattern): string | null {
  const names = Object.entries(pattern.makersNames ?? {});
  const known = new Set(nameable(pattern));
  const cylinders = new Set(pattern.cylinders.map(({ id }) => id));
  const strange = names.find(([own]) => !known.has(own));
  if (strange) return `there is no ${strange[0]} to name`;
  for (const [own, name] of names) {
    const kind = cylinders.has(own);
    const twin = names.find(
      ([other, its]) =>
        other !== own && cylinders.has(other) === kind && its.toLowerCase() === name.toLowerCase(),
    );
    if (twin) return `${own} and ${twin[0]} are both called ${name}`;
    if (name !== own && known.has(name.toUpperCase()) && cylinders.has(name.toUpperCase()) === kind)
      return `${name} is what ${name.toUpperCase()} is called here: ${own} cannot have it`;
  }
  return null;
}
