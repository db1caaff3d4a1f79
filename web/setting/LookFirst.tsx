import { Box, Button } from '@chakra-ui/react';
import { checkKey, lastDone, setsAsFound, SETTING } from '@zero-lash/core/builds';
import { gapInTenths, lookFirst, type LimitedPoint } from '@zero-lash/core/measuring';
import { lookedAtFor } from '@zero-lash/core/sheets';
import type { ReadingRow } from '@zero-lash/contract/measuring';
import type { ReactNode } from 'react';
import { Caution } from '../app/Caution.tsx';
import { useLengths } from '../app/lengths.ts';
import { ShopTime } from '../app/ShopTime.tsx';
import { useLastGapsQuery } from '../engines/endpoints.ts';
import type { BuildView } from '../builds/buildView.ts';
import { useBenchWrite } from '../builds/useBenchWrite.ts';

interface Props {
  readonly build: BuildView;
  readonly point: LimitedPoint;
  readonly reading: ReadingRow | undefined;
  /** where the point is set: it comes when it was looked at */
  readonly children: ReactNode;
}

/** What is far out, or moved fast since it was last known, is looked at before it is set: one tap says that it is sound. */
export function LookFirst({ build, point, reading, children }: Props) {
  const put = useBenchWrite(build.id);
  const { length, interval } = useLengths();
  const { data: gaps } = useLastGapsQuery(build.engine.id);
  const before = gaps?.find((gap) => gap.point === point.key && gap.buildId !== build.id) ?? null;
  const check = checkKey('looked', point.key);
  const tick = build.ticks.find((each) => each.stage === SETTING && each.check === check && each.done);
  const round = reading && build.rounds.find(({ id }) => id === reading.roundId);
  // where the head is opened its parts are measured anyway; one that is newly built, or measured from a baseline, was never nearer
  const unopened = setsAsFound(build.job, build.stage) || build.carried !== null;
  const wasFound = unopened && (round?.kind === 'as-found' || round?.kind === 'recheck');
  const why =
    reading && wasFound ? lookFirst(gapInTenths(reading), reading.verdict, point.limits, before) : null;
  // what was begun already is not held up by it
  if (!why || tick || !reading || lastDone(build.settings, point.key)) return children;
  const verdict = reading.verdict === 'tight' ? 'tight' : 'loose';
  return (
    <Box marginBottom="3">
      <Caution>
        {why === 'far-out' ? (
          `It is far ${verdict}: no setting crept that far.`
        ) : (
          <>
            It moved fast: {interval({ lo: before!.lo, hi: before!.hi! })} when it was last known
            {before!.usage !== null && `, at ${before!.usage} ${build.engine.usageUnit}`} (
            <ShopTime at={before!.at} day />
            ).
          </>
        )}{' '}
        Before it is set, look at: {listed(lookedAtFor(build.sheet.pattern, point.role, verdict))}. Its band
        is {length(point.min)} to {length(point.max)}.
      </Caution>
      <Button
        variant="solid"
        onClick={() => put({ kind: 'tick', body: { stage: SETTING, check, done: true } })}
      >
        Looked at, sound
      </Button>
      <Box fontSize="sm" color="faded" marginTop="1">
        If it is not, write down what was found below, and make this a larger job.
      </Box>
    </Box>
  );
}

const listed = (what: readonly string[]) =>
  what.length < 2 ? what.join('') : `${what.slice(0, -1).join(', ')} and ${what.at(-1)}`;
