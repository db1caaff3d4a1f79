import { Box, Button, Flex, Heading } from '@chakra-ui/react';
import {
  characteristicsFor,
  partDispositions,
  placesOf,
  WEAR_PAGES,
  wearAt,
  type Characteristic,
  type FigureLine,
  type WearPage,
} from '@zero-lash/core/wear';
import { useMemo, useState } from 'react';
import { Labelled, Select } from '../app/Labelled.tsx';
import { RefusedNotes } from '../app/RefusedNotes.tsx';
import { useLater } from '../app/useLater.ts';
import { useShownIn } from '../app/lengths.ts';
import { onDemand } from '../app/onDemand.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { CamDrawing } from '../drawings/CamDrawing.tsx';
import { Photographs } from '../photographs/Photographs.tsx';
import { MarkForm, MarksSeen } from './Marks.tsx';
import { MissingLimits } from './MissingLimits.tsx';
import { useWear, type WearWork } from './useWear.ts';
import { WearCsv } from './WearCsv.tsx';
import { WearGrid } from './WearGrid.tsx';
import { WearSummary } from './WearSummary.tsx';
import './wear.css';

const BetweenBuilds = onDemand(async () => (await import('./BetweenBuilds.tsx')).BetweenBuilds);

const NONE: ReadonlySet<string> = new Set();

/** Pages that are measured while the head is open; pressures are taken before, at take-in. */
const PAGES = (Object.keys(WEAR_PAGES) as WearPage[]).filter((page) => page !== 'pressure');

/** The wear sheet: a short set by default, each page in the way its things are measured, and what it all comes to. */
export function WearSheetWork({ build }: { readonly build: BuildView }) {
  const work = useWear(build);
  // the field that is typed into answers at once; what the whole sheet comes to follows
  const sheet = useLater(work.sheet);
  const later = useMemo(() => ({ ...work, sheet, unsent: NONE }), [sheet, work.enabled, work.write]);
  const { pattern } = build.sheet;
  const shown = useShownIn(build.sheet.system);
  const all = useMemo(() => characteristicsFor(pattern), [pattern]);
  const [whole, setWhole] = useState(false);
  const [set, setSet] = useState<FigureLine['set']>('found');
  const pages = PAGES.filter((page) => all.some((item) => item.page === page));
  const [page, setPage] = useState<WearPage | 'summary'>(pages[0]!);
  const items = useMemo(
    () => all.filter((item) => item.page === page && (whole || isShort(item, later, pattern))),
    [all, page, whole, later, pattern],
  );
  const fates = useMemo(() => partDispositions(sheet, pattern), [sheet, pattern]);
  const bad = fates.filter(({ verdict }) => verdict === 'watch' || verdict === 'replace').length;
  return (
    <Box as="section" aria-label="Wear sheet" display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="3">
      <Flex justifyContent="space-between" alignItems="flex-end" gap="3" flexWrap="wrap">
        <Heading as="h3" fontSize="lg" fontWeight="650">
          Wear sheet
        </Heading>
        <Flex gap="3" alignItems="flex-end" flexWrap="wrap">
          <Box width="170px">
            <Labelled label="Figures of">
              <Select value={set} onChange={({ target }) => setSet(target.value as FigureLine['set'])}>
                <option value="found">what was found</option>
                <option value="fitted">what is fitted</option>
              </Select>
            </Labelled>
          </Box>
          <Box width="230px">
            <Labelled label="What is shown">
              <Select
                value={whole ? 'all' : 'short'}
                onChange={({ target }) => setWhole(target.value === 'all')}
              >
                <option value="short">what has a limit or was seen</option>
                <option value="all">everything there is to measure</option>
              </Select>
            </Labelled>
          </Box>
        </Flex>
      </Flex>
      <div className="wear-tabs" role="tablist" aria-label="Pages of the wear sheet">
        {pages.map((each) => (
          <button
            key={each}
            type="button"
            role="tab"
            aria-selected={page === each}
            onClick={() => setPage(each)}
          >
            {WEAR_PAGES[each]}
          </button>
        ))}
        <button
          type="button"
          role="tab"
          aria-selected={page === 'summary'}
          onClick={() => setPage('summary')}
        >
          Result {bad > 0 && <small>{bad} to see to</small>}
        </button>
      </div>
      {page === 'summary' ? (
        <>
          <WearSummary build={build} fates={fates} work={later} />
          <BetweenBuilds build={build} />
        </>
      ) : (
        <>
          {page === 'camshaft' && <CamDrawing pattern={pattern} sheet={sheet} />}
          {items.length === 0 && (
            <Box color="faded">
              The sheet has no limit for anything here, and nothing was seen.{' '}
              <Button variant="plain" onClick={() => setWhole(true)}>
                Show everything there is to measure
              </Button>
            </Box>
          )}
          <WearGrid buildId={build.id} pattern={pattern} work={work} items={items} set={set} shown={shown} />
          <MissingLimits work={later} pattern={pattern} items={items} shown={shown} />
          <MarkForm pattern={pattern} work={later} page={page} />
          <MarksSeen build={build} stage="wear" work={later} />
        </>
      )}
      <Box fontSize="sm" color="faded">
        Several readings are separated by spaces; a word goes too: <b>sound</b> (looked at, good), <b>go</b>{' '}
        or <b>no-go</b> by a gauge. Enter goes down the column. Guides first, then seats, faces, leak test,
        tips, springs.
      </Box>
      <RefusedNotes buildId={build.id} which={({ kind }) => kind === 'wear'} />
      <WearCsv build={build} work={later} />
      <Photographs build={build} stage="wear" />
    </Box>
  );
}

/** What has a limit, or where something was written already. */
function isShort(item: Characteristic, { sheet }: WearWork, pattern: BuildView['sheet']['pattern']): boolean {
  if (item.key === 'piece-in' || item.key === 'stem-height') return true;
  if (item.limits.some((part) => sheet.limits.some((limit) => limit.part === part))) {
    // two ways to one clearance: rocking is the second choice
    if (item.key !== 'guide-wobble') return true;
  }
  return placesOf(pattern, item).some((place) => wearAt(sheet, pattern, item, place) !== null);
}
