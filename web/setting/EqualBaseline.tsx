import { Box, Flex } from '@chakra-ui/react';
import { lastChange } from '@zero-lash/core/builds';
import { baselineShim, heldOpenBy, sizeToMeasure, type BaselinePoint } from '@zero-lash/core/setting';
import { pieceGain } from '@zero-lash/core/sheets';
import { useMemo, useState } from 'react';
import { Caution } from '../app/Caution.tsx';
import { Labelled, Select } from '../app/Labelled.tsx';
import { useLengths } from '../app/lengths.ts';
import type { BuildView } from '../builds/buildView.ts';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import { useBudgets } from '../headwork/useBudgets.ts';
import { reachOf } from '../instruments/reach.ts';
import { useBench } from '../instruments/useBench.ts';
import type { BaselineSystem } from './baselineSystems.ts';
import { Everywhere } from './Everywhere.tsx';

interface Props {
  readonly build: BuildView;
  readonly system: BaselineSystem;
  readonly enabled: boolean;
}

/** One equal piece at every point: which size, what it lets be measured, and which other size to try where it does not. */
export function EqualBaseline({ build, system, enabled }: Props) {
  const put = useBenchWrite(build.id);
  const { figure, length, unit } = useLengths(system.points[0]?.stamped);
  const { budgets } = useBudgets(build);
  const { blades, maxStack } = useBench();
  const [chosen, setChosen] = useState<number | null>(null);
  const { sizes, points } = system;
  const measurable = useMemo(() => reachOf(blades, maxStack), [blades, maxStack]);
  // with nothing in, in the same sense as a shim's thickness
  const bare = budgets.flatMap(({ point, budget, installed }): BaselinePoint[] => {
    if (!budget || installed === null || points.every(({ key }) => key !== point.key)) return [];
    const gain = pieceGain(build.sheet.pattern, point.role);
    const { key, spec } = point;
    return [{ key, lo: budget.lo / gain + installed, hi: budget.hi / gain + installed, ...spec, gain }];
  });
  const proposed = bare.length > 0 ? baselineShim({ points: bare, sizes, measurable }) : null;
  const size = chosen ?? proposed?.pick ?? null;
  const with_ =
    size === null ? null : { held: heldOpenBy(bare, size), left: unmeasuredWith(bare, size, measurable) };
  const unknown = points.filter(({ key }) => bare.every((each) => each.key !== key)).map(({ key }) => key);

  function fitted(thickness: number): void {
    for (const { key } of points) {
      const before = lastChange(build.settings, key);
      const found = budgets.find(({ point }) => point.key === key)?.installed ?? null;
      const installed = before?.kind === 'bare' ? null : (before?.fitted ?? found);
      put({
        kind: 'setting',
        body: {
          ...{ point: key, kind: 'fitted', installed, fitted: thickness, note: 'baseline, equal everywhere' },
          ...{ from: 'drawer', to: installed === null ? 'unsaid' : 'drawer' },
        },
      });
    }
  }

  return (
    <Box display="grid" gap="1">
      <b>{system.title}</b>
      {proposed ? (
        <Box>
          {length(proposed.pick)} is proposed: by the forecast {proposed.measurable} of {bare.length} points
          can then be measured with these blades, {proposed.inSpec} of them in spec as they stand.
        </Box>
      ) : (
        <Box color="faded">
          What is in, and the gap it was found with, are not known of any point: choose a size that is surely
          thin enough.
        </Box>
      )}
      <Box width="180px">
        <Labelled label={`Equal piece, ${unit}`}>
          <Select
            value={size === null ? '' : String(size)}
            onChange={({ target }) => setChosen(target.value === '' ? null : Number(target.value))}
          >
            {size === null && <option value="">choose one</option>}
            {sizes.map((each) => (
              <option key={each} value={String(each)}>
                {figure(each)}
              </option>
            ))}
          </Select>
        </Labelled>
      </Box>
      {with_ && with_.held.length > 0 && (
        <Caution>
          {length(size!)} would hold {with_.held.join(', ')} open: it is not turned over with that in. Take a
          thinner one.
        </Caution>
      )}
      {with_ &&
        with_.left
          .filter(({ key }) => !with_.held.includes(key))
          .map((point) => {
            const other = sizeToMeasure(point, sizes, measurable);
            return (
              <Box key={point.key} fontSize="sm">
                {point.key} cannot be measured with it
                {other === null || other === size ? '.' : `: try ${length(other)} there.`}
              </Box>
            );
          })}
      {unknown.length > 0 && proposed && (
        <Box fontSize="sm" color="faded">
          Not reckoned with, because nothing is known of them: {unknown.join(', ')}.
        </Box>
      )}
      <Flex>
        <Everywhere
          key={size}
          label={size === null ? 'Choose a size first' : `Fitted ${figure(size)} everywhere`}
          enabled={enabled && size !== null && with_!.held.length === 0}
          onDo={() => fitted(size!)}
        />
      </Flex>
    </Box>
  );
}

/** The points that a size leaves unmeasured, as the proposal itself counts them. */
function unmeasuredWith(
  points: readonly BaselinePoint[],
  size: number,
  measurable: ReturnType<typeof reachOf>,
): readonly BaselinePoint[] {
  if (points.length === 0) return [];
  const unmeasured = new Set(baselineShim({ points, sizes: [size], measurable }).unmeasurable);
  return points.filter(({ key }) => unmeasured.has(key));
}
