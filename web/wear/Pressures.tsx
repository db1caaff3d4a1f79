import { CLOSING, RUNNING, STAGE_KEYS } from '@zero-lash/core/builds';
import { Box, Heading } from '@chakra-ui/react';
import { characteristicsFor, figuresAt, placesOf } from '@zero-lash/core/wear';
import { figureShown } from '@zero-lash/core/length';
import { useMemo, useState } from 'react';
import { Caution } from '../app/Caution.tsx';
import { Labelled, Select } from '../app/Labelled.tsx';
import { RefusedNotes } from '../app/RefusedNotes.tsx';
import { useShownIn } from '../app/lengths.ts';
import type { BuildView } from '../builds/buildView.ts';
import { PressureBars } from '../drawings/PressureBars.tsx';
import { MarkForm, MarksSeen } from './Marks.tsx';
import { MissingLimits } from './MissingLimits.tsx';
import { useWear } from './useWear.ts';
import { WearGrid } from './WearGrid.tsx';

/** Compression and leak-down, cylinder by cylinder: before anything is opened, and after it is closed again. */
export function Pressures({ build }: { readonly build: BuildView }) {
  const work = useWear(build);
  const { pattern } = build.sheet;
  const shown = useShownIn(build.sheet.system);
  const after = build.stage === CLOSING || build.stage === RUNNING;
  const [set, setSet] = useState<'found' | 'fitted'>(after ? 'fitted' : 'found');
  const items = useMemo(
    () => characteristicsFor(pattern).filter(({ page }) => page === 'pressure'),
    [pattern],
  );
  const bars = useMemo(() => {
    const [item] = items;
    const valueOf = (place: string, which: 'found' | 'fitted') =>
      figuresAt(work.sheet, item!, place, which)['value']?.reduce((a, b) => Math.max(a, b)) ?? null;
    const inShop = (bar: number | null) => (bar === null ? null : Number(figureShown(bar, 'bar', shown)));
    return placesOf(pattern, item!).map(({ key }) => ({
      cylinder: key,
      before: inShop(valueOf(key, 'found')),
      after: inShop(valueOf(key, 'fitted')),
    }));
  }, [items, work.sheet, pattern, shown]);
  return (
    <Box
      as="section"
      aria-label="Compression and leak-down"
      display="grid"
      gridTemplateColumns="minmax(0, 1fr)"
      gap="2"
    >
      <Box display="flex" gap="3" alignItems="flex-end" flexWrap="wrap">
        <Heading as="h3" fontSize="md" fontWeight="650" flex="1">
          Compression and leak-down
        </Heading>
        <Box width="190px">
          <Labelled label="Taken">
            <Select value={set} onChange={({ target }) => setSet(target.value as typeof set)}>
              <option value="found">before it is opened</option>
              <option value="fitted">after it is closed again</option>
            </Select>
          </Labelled>
        </Box>
      </Box>
      <Caution>
        Compression is taken with ignition and fuel off at their source, so that it cannot start; for
        leak-down the crank is barred, or the air turns it. Hands clear of everything that turns.
      </Caution>
      <PressureBars bars={bars} />
      <WearGrid buildId={build.id} pattern={pattern} work={work} items={items} set={set} shown={shown} />
      <MissingLimits work={work} pattern={pattern} items={items} shown={shown} />
      <MarkForm pattern={pattern} work={work} page="pressure" />
      <MarksSeen build={build} stage={STAGE_KEYS[0]} work={work} air />
      <RefusedNotes buildId={build.id} which={({ kind }) => kind === 'wear'} />
    </Box>
  );
}
