import { hasMeter, type UsageUnit } from '@zero-lash/core/rechecks';
import { Box, Button, Heading } from '@chakra-ui/react';
import { LIMIT_KINDS, wearBetween, wearSheetOf, type WearTrend } from '@zero-lash/core/wear';
import { useMemo, useState } from 'react';
import { grouped } from '../app/figures.ts';
import { figureShown, unitShown, type ShownIn } from '@zero-lash/core/length';
import { useShownIn } from '../app/lengths.ts';
import type { BuildView } from '../builds/buildView.ts';
import { useWearOfEngineQuery } from './endpoints.ts';

const ROWS_SHOWN = 12;

/** What the same places measured build after build: how fast they wear, and when they meet their limit. */
export function BetweenBuilds({ build }: { readonly build: BuildView }) {
  const { data } = useWearOfEngineQuery(build.engine.id);
  const [all, setAll] = useState(false);
  const shown = useShownIn(build.sheet.system);
  const trends = useMemo(() => {
    const { pattern, wearLimits } = build.sheet;
    // of this build what was only just written here counts already
    const builds = (data ?? []).map(({ buildId, running, entries }) => ({
      running: buildId === build.id ? build.engine.running : running,
      sheet: wearSheetOf(buildId === build.id ? build.wear : entries, wearLimits),
    }));
    return wearBetween(pattern, builds);
  }, [build, data]);
  if (trends.length === 0) return null;
  return (
    <Box as="section" aria-label="Between builds">
      <Heading as="h3" fontSize="md" fontWeight="650">
        Between builds
      </Heading>
      <Box overflowX="auto" tabIndex={0} role="region" aria-label="Wear, build by build">
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
            {(all ? trends : trends.slice(0, ROWS_SHOWN)).map((trend) => (
              <TrendRow
                key={`${trend.item.key} ${trend.part} ${trend.place.key}`}
                trend={trend}
                usageUnit={build.engine.usageUnit}
                shown={shown}
              />
            ))}
          </tbody>
        </table>
      </Box>
      {trends.length > ROWS_SHOWN && !all && (
        <Box fontSize="sm" color="faded">
          The {ROWS_SHOWN} that meet their limits first.{' '}
          <Button variant="plain" onClick={() => setAll(true)}>
            Show all {trends.length}
          </Button>
        </Box>
      )}
    </Box>
  );
}

interface TrendProps {
  readonly trend: WearTrend;
  readonly usageUnit: UsageUnit;
  readonly shown: ShownIn;
}

function TrendRow({ trend, usageUnit, shown }: TrendProps) {
  const { item, place, part, before, seen, perUnit, atLimit, left } = trend;
  const { title, unit } = LIMIT_KINDS[part];
  const written = (figures: readonly number[]) =>
    figures.map((figure) => figureShown(figure, unit, shown)).join(' → ');
  return (
    <Box as="tr" borderBottom="1px solid" borderColor="hairline">
      <Box as="th" {...{ scope: 'row' }} fontWeight="600" height="44px">
        {item.title} {place.key}
        {item.limits.length > 1 && <Box fontWeight="400">{title}</Box>}
      </Box>
      <td>
        {before.length > 0 && <Box color="faded">{written(before)}, then replaced</Box>}
        {written(seen.map(({ measured }) => measured))} {unitShown(unit, shown)}
      </td>
      <td>
        {!hasMeter(usageUnit)
          ? 'no meter'
          : perUnit === null
            ? 'not measured again yet'
            : `${figureShown(Math.abs(perUnit) * 1000, unit, shown)} ${unitShown(unit, shown)} in 1,000 ${usageUnit}`}
      </td>
      <td>
        {perUnit === null
          ? ''
          : atLimit === null
            ? 'not on this way'
            : left === 0
              ? `passed, at ${grouped(Math.round(atLimit))} ${usageUnit}`
              : `at ${grouped(Math.round(atLimit))}, ${grouped(Math.round(left!))} ${usageUnit} from here`}
      </td>
    </Box>
  );
}
