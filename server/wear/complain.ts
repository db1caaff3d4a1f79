import type { WearLineBody } from '@zero-lash/contract/wear';
import { camsOf, type Pattern } from '@zero-lash/core/sheets';
import {
  CHARACTERISTICS,
  characteristicOf,
  characteristicsFor,
  placesLimited,
  placesOf,
} from '@zero-lash/core/wear';

const placesOfPart = (pattern: Pattern, part: string) => [
  ...(part === 'cam' ? camsOf(pattern) : []),
  ...CHARACTERISTICS.filter((each) => each.part === part || part === 'retainer').flatMap((each) =>
    placesOf(pattern, each).map(({ key }) => key),
  ),
];

/** Says what of a line of a wear sheet an engine has no place for; null where it fits. */
export function complainOfWear(
  line: WearLineBody,
  pattern: Pattern,
): { readonly path: string; readonly message: string } | null {
  const { place } = line;
  // a seal is called what it is called: no place on the head has it
  if (line.kind === 'limit')
    return place === '' || placesLimited(pattern, line.part).includes(place)
      ? null
      : { path: 'place', message: `there is no ${place} to limit` };
  if (line.kind === 'fate' && line.part === 'seal') return null;
  if (line.kind !== 'figure')
    return placesOfPart(pattern, line.part).includes(place)
      ? null
      : { path: 'place', message: `there is no ${line.part} at ${place}` };
  const item = characteristicOf(line.item);
  if (!item || !characteristicsFor(pattern).includes(item))
    return { path: 'item', message: `it has nothing to measure as ${line.item}` };
  if (!placesOf(pattern, item).some(({ key }) => key === place))
    return { path: 'place', message: `there is no ${place}` };
  const field = item.fields.find(({ key }) => key === line.field);
  if (!field) return { path: 'field', message: `${item.title} has no ${line.field}` };
  if (line.values.length > field.most)
    return { path: 'values', message: `${field.label} takes ${field.most} readings at the most` };
  return null;
}
