import { camsOf, lobesOf, type Pattern } from '../sheets/index.ts';
import { PARTS, type Characteristic, type PartKind } from './characteristics.ts';
import type { Grade } from './grade.ts';
import { DAMAGE, type Damage, type FateLine } from './wearLines.ts';
import { characteristicsFor, placesOf, type WearPlace } from './wearPlaces.ts';
import { wearAt, type WearSheet, type WearThere } from './wearSheet.ts';

/** What becomes of one part, with what says so. */
export interface PartDisposition {
  readonly part: PartKind;
  readonly place: string;
  readonly verdict: Grade | null;
  /** as a person decided it; null where it follows from what was measured and seen */
  readonly decided: FateLine | null;
  readonly reasons: readonly string[];
  /** the greatest share of an allowance used; null where none is known */
  readonly used: number | null;
  /** what has to be measured again before it is fitted, and was not yet */
  readonly measureNew: readonly string[];
}

const GRADES: readonly (Grade | null)[] = [null, 'keep', 'watch', 'replace'];
const worse = (a: Grade | null, b: Grade | null) => (GRADES.indexOf(a) > GRADES.indexOf(b) ? a : b);

/** How something that is measured at one place is called where it belongs to a whole cam. */
function placeOfPart(pattern: Pattern, { part, at }: Characteristic, { key }: WearPlace): string {
  if (part !== 'cam') return key;
  if (at === 'lobe') return camsOf(pattern).find((cam) => lobesOf(pattern, cam).includes(key)) ?? key;
  if (at === 'journal') return key.replace(/ J\d+$/, '');
  return key;
}

/** What a place of a characteristic comes to, in a few words. */
function reasonOf({ title }: Characteristic, { key }: WearPlace, there: WearThere): string {
  if (there.by !== 'figures') return `${title} ${key}: ${there.by === 'gauge' ? 'by gauge' : 'by eye'}`;
  return there.used === null
    ? `${title} ${key}`
    : `${title} ${key}: ${Math.round(there.used * 100)} % of its allowance`;
}

/**
 * Sums a wear sheet up part by part: what is kept, watched and replaced, and why. A person's own word stands above it.
 *
 * @example partDispositions(wear, pattern).filter(({ verdict }) => verdict === 'replace') // []
 */
export function partDispositions(sheet: WearSheet, pattern: Pattern): readonly PartDisposition[] {
  const parts = new Map<string, PartDisposition>();
  const at = (part: PartKind, place: string): PartDisposition =>
    parts.get(`${part} ${place}`) ?? {
      ...{ part, place, verdict: null, decided: null, reasons: [], used: null, measureNew: [] },
    };
  for (const item of characteristicsFor(pattern))
    for (const place of placesOf(pattern, item)) {
      const there = wearAt(sheet, pattern, item, place);
      if (!there) continue;
      const before = at(item.part, placeOfPart(pattern, item, place));
      const bad = there.verdict === 'watch' || there.verdict === 'replace';
      parts.set(`${before.part} ${before.place}`, {
        ...before,
        verdict: worse(before.verdict, there.verdict),
        reasons: bad ? [...before.reasons, reasonOf(item, place, there)] : before.reasons,
        used: there.used === null ? before.used : Math.max(before.used ?? -Infinity, there.used),
      });
    }
  for (const { line } of sheet.current.values()) {
    if (line.kind === 'mark' && !line.gone) {
      const before = at(line.part, line.place);
      parts.set(`${line.part} ${line.place}`, {
        ...before,
        verdict: worse(before.verdict, SEEN[line.damage]),
        reasons: [...before.reasons, [DAMAGE[line.damage], line.note].filter(Boolean).join(': ')],
      });
    }
  }
  for (const { line } of sheet.current.values())
    if (line.kind === 'fate') {
      const before = at(line.part, line.place);
      const decided = line.fate === 'undecided' ? null : line;
      parts.set(`${line.part} ${line.place}`, {
        ...before,
        decided,
        verdict: decided ? (decided.fate as Grade) : before.verdict,
        reasons: line.reason === '' ? before.reasons : [...before.reasons, line.reason],
        measureNew: decided?.fate === 'replace' ? figuresMissing(sheet, pattern, line) : [],
      });
    }
  return [...parts.values()];
}

/** Damage is watched unless a person says more; a crack is never run on. */
const SEEN: Readonly<Record<Damage, Grade>> = {
  pitting: 'watch',
  scuffing: 'replace',
  blue: 'replace',
  cracked: 'replace',
  bent: 'replace',
  hollow: 'watch',
  'air-inlet': 'watch',
  'air-exhaust': 'watch',
  'air-crankcase': 'watch',
  'air-neighbour': 'watch',
  'air-coolant': 'watch',
  other: 'watch',
};

/** What of a replaced part is not measured yet on the new one; of a cam, one lobe of it counts for all. */
function figuresMissing({ current }: WearSheet, pattern: Pattern, { part, place }: FateLine): string[] {
  const wanted = new Set<string>(PARTS[part].measureNew);
  return characteristicsFor(pattern)
    .filter(({ key }) => wanted.has(key))
    .filter((item) => {
      const own = placesOf(pattern, item).filter(
        (each) => each.key === place || placeOfPart(pattern, item, each) === place,
      );
      return !own.some(({ key }) =>
        item.fields.some((field) => current.has(`figure fitted ${item.key} ${key} ${field.key}`)),
      );
    })
    .map(({ key }) => key);
}
