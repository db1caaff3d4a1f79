import { Box, Heading } from '@chakra-ui/react';
import type { WearOfBuild } from '@zero-lash/contract/wear';
import {
  characteristicsFor,
  figuresAt,
  limitAt,
  placesOf,
  wearAt,
  wearRate,
  wearSheetOf,
  type WearSheet,
} from '@zero-lash/core/wear';
import { useMemo } from 'react';
import { grouped } from '../app/figures.ts';
import { useUnit } from '../app/lengths.ts';
import type { BuildView } from '../builds/buildView.ts';
import { useWearOfEngineQuery } from './endpoints.ts';
import { unitHere, wearFigure } from './words.ts';

const ROWS_SHOWN = 12;

interface Course {
  readonly name: string;
  readonly unit: 'mm' | 'N' | '%' | 'bar';
  readonly seen: readonly { readonly usage: number; readonly measured: number }[];
  readonly perUnit: number;
  readonly atLimit: number | null;
  readonly left: number | null;
}

/** What the same places measured build after build: how fast they wear, and when they meet their limit. */
export function BetweenBuilds({ build }: { readonly build: BuildView }) {
  const { data } = useWearOfEngineQuery(build.engine.id);
  const shop = useUnit();
  const courses = useMemo(() => (data ? coursesOf(build, data) : []), [build, data]);
  if (courses.length === 0) return null;
  const { usageUnit } = build.engine;
  return (
    <Box as="section" aria-label="Between builds">
      <Heading as="h3" fontSize="md" fontWeight="650">
        Between builds
      </Heading>
      <Box overflowX="auto" tabIndex={0} role="region" aria-label="Course of wear">
        <table>
          <thead>
            <Box as="tr" borderBottom="1px solid" borderColor="ink">
              <th scope="col">Place</th>
              <th scope="col">Build by build</th>
              <th scope="col">Wears</th>
              <th scope="col">At its limit</th>
            </Box>
          </thead>
          <tbody>
            {courses.slice(0, ROWS_SHOWN).map(({ name, unit, seen, perUnit, atLimit, left }) => (
              <Box as="tr" key={name} borderBottom="1px solid" borderColor="hairline">
                <Box as="th" {...{ scope: 'row' }} fontWeight="600" height="44px">
                  {name}
                </Box>
                <td>
                  {seen.map(({ measured }) => wearFigure(measured, unit, shop)).join(' → ')}{' '}
                  {unitHere(unit, shop)}
                </td>
                <td>
                  {wearFigure(Math.abs(perUnit) * 1000, unit, shop)} {unitHere(unit, shop)} in 1,000{' '}
                  {usageUnit}
                </td>
                <td>
                  {atLimit === null
                    ? 'not on this way'
                    : left === 0
                      ? `passed, at ${grouped(Math.round(atLimit))} ${usageUnit}`
                      : `at ${grouped(Math.round(atLimit))}, ${grouped(Math.round(left!))} ${usageUnit} from here`}
                </td>
              </Box>
            ))}
          </tbody>
        </table>
      </Box>
      {courses.length > ROWS_SHOWN && (
        <Box fontSize="sm" color="faded">
          The {ROWS_SHOWN} that meet their limits first, of {courses.length}.
        </Box>
      )}
    </Box>
  );
}

function coursesOf(build: BuildView, builds: readonly WearOfBuild[]): Course[] {
  const { pattern, wearLimits } = build.sheet;
  // of this build what was only just written here counts already
  const sheets = builds.map(({ buildId, running, entries }) => ({
    running: buildId === build.id ? build.engine.running : running,
    sheet: wearSheetOf(buildId === build.id ? build.wear : entries, wearLimits),
  }));
  return characteristicsFor(pattern)
    .filter(({ limits, key }) => limits.length > 0 && key !== 'compression')
    .flatMap((item) =>
      placesOf(pattern, item).flatMap((place): Course[] => {
        const given = limitAt(sheets.at(-1)?.sheet.limits ?? [], item.limits[0]!, place);
        if (!given || given.limit === null) return [];
        const nominal = given.nominal ?? 0;
        if (nominal === given.limit) return [];
        const seen = sheets.flatMap(({ running, sheet }) => {
          const measured = judgedFigure(sheet, build, item, place);
          return measured === null ? [] : [{ usage: running, measured }];
        });
        const { perUnit, atLimit, left } = wearRate({ observations: seen, nominal, limit: given.limit });
        if (perUnit === null) return [];
        const { unit } = item.fields[0]!;
        return [{ name: `${item.title} ${place.key}`, unit, seen, perUnit, atLimit, left }];
      }),
    )
    .toSorted((a, b) => (a.atLimit ?? Infinity) - (b.atLimit ?? Infinity));
}

/** The figure a characteristic is judged by: the derived one, or the one that was read. */
function judgedFigure(
  sheet: WearSheet,
  build: BuildView,
  item: ReturnType<typeof characteristicsFor>[number],
  place: ReturnType<typeof placesOf>[number],
): number | null {
  const there = wearAt(sheet, build.sheet.pattern, item, place);
  if (there?.by !== 'figures') return null;
  const [derived] = there.derived;
  if (item.fields.length > 1) return derived?.value ?? null;
  return derived?.value ?? figuresAt(sheet, item, place.key, there.set)[item.fields[0]!.key]?.[0] ?? null;
}
