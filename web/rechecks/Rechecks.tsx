import { unreachedIn } from '@zero-lash/core/measuring';
import { Box, Button, Flex } from '@chakra-ui/react';
import type { BuildView } from '../builds/buildView.ts';
import type { Round } from '@zero-lash/contract/measuring';
import { lashPoints } from '@zero-lash/core/sheets';
import { leftToMeasure, newestRound, RUNNING, unreachedPoints } from '@zero-lash/core/builds';
import { ShopTime } from '../app/ShopTime.tsx';
import { PartHeading } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { dueInWords, expectedInWords } from './due.ts';
import { outcomeInWords, hasMeter, recheckDayInWords } from '@zero-lash/core/rechecks';
import { DueMark } from './DueMark.tsx';
import { HeadTorqued } from './HeadTorqued.tsx';
import { WhatIsForecast } from './WhatIsForecast.tsx';
import { StillUnsent } from '../app/StillUnsent.tsx';
import { useOnceSent } from '../app/useOnceSent.ts';
import { useRole } from '../app/useRole.ts';
import { useShopTimes } from '../app/useShopTimes.ts';
import { useSession } from '../app/useSession.ts';
import { RefusedNotes } from '../app/RefusedNotes.tsx';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import { useCloseRecheckMutation } from './endpoints.ts';
import { SetAgain, SetHeldAgain } from './SetAgain.tsx';

/** The build's rechecks: the next one and its work, and what earlier ones said. */
export function Rechecks({ build }: { readonly build: BuildView }) {
  const { mayWork } = useRole();
  const { today } = useShopTimes();
  const put = useBenchWrite(build.id);
  const [close, closing] = useCloseRecheckMutation();
  const next = build.rechecks.find(({ status }) => status === 'planned');
  const past = build.rechecks.filter(({ status }) => status === 'done');
  const failed = next?.late ? next : past[0] && past[0].outcome !== 'held' ? past[0] : undefined;
  const held =
    past[0]?.outcome === 'held' && build.stage === RUNNING && !build.closedAt ? past[0] : undefined;
  const newest = newestRound(build.rounds, 'recheck');
  const round = newest?.recheckId === next?.id ? newest : undefined;
  const { once, waiting: sending, unsent } = useOnceSent(build.id);
  const judge = (recheckId: string) => once(() => close({ recheckId }));
  const others = othersAt(round, useSession()?.person.name);
  const passed = unreachedIn(round?.readings ?? []);
  const unreached = [...unreachedPoints(build), ...passed];
  const points = lashPoints(build.sheet.pattern).filter(({ key }) => !unreached.includes(key));
  const look = next?.points?.filter((key) => !passed.includes(key)) ?? null;
  const left = leftToMeasure(points, round, look);
  return (
    <Box>
      <PartHeading>Rechecks</PartHeading>
      {failed && !build.closedAt && <SetAgain build={build} recheck={failed} />}
      {next && (
        <Box borderBottom="1px solid" borderColor="hairline" paddingBottom="3">
          <Flex gap="3" alignItems="baseline" flexWrap="wrap">
            <b>Recheck {next.sequence}</b>
            {next.state && next.state !== 'not-held' && <DueMark state={next.state} />}
            {recheckDayInWords({ ...build.engine, ...next }, today(), build.engine.usageUnit)}
          </Flex>
          <Box color="faded">
            {dueInWords(next, build.engine)}; {expectedInWords(next)}
            {hasMeter(build.engine.usageUnit) && `; now at ${build.engine.usage}`}
            {build.engine.running !== build.engine.usage && `, ${build.engine.running} run in all`}
          </Box>
          {next.points && <ShortLook points={next.points} of={points.length} />}
          <WhatIsForecast recheck={next} engine={build.engine} />
          <HeadTorqued build={build} enabled={mayWork && !build.closedAt && build.stage === RUNNING} />
          {mayWork && !build.closedAt && !round && (
            <Button
              variant={failed ? 'outline' : 'solid'}
              marginTop="2"
              onClick={() => put({ kind: 'round', recheckId: next.id, sequence: next.sequence })}
            >
              Measure it now
            </Button>
          )}
          {mayWork && round && (
            <Flex gap="3" alignItems="center" marginTop="2" flexWrap="wrap">
              <Button
                variant="solid"
                disabled={left > 0}
                loading={closing.isLoading || sending}
                onClick={() => void judge(next.id)}
              >
                Judge the recheck
              </Button>
              {left > 0 && <Box color="faded">{left === 1 ? '1 point' : `${left} points`} to measure</Box>}
            </Flex>
          )}
          {mayWork && round && left === 0 && others.length > 0 && (
            <Box fontSize="sm" color="faded">
              Measured here too:{' '}
              {others.map(({ by, at }, index) => (
                <span key={by}>
                  {index > 0 && ', '}
                  {by}, last heard of <ShopTime at={at} />
                </span>
              ))}
              . A tablet out of reach may still hold something: what comes in late is kept, judged, and opens
              the question again.
            </Box>
          )}
          {unsent && <StillUnsent buildId={build.id} step="the recheck is judged" />}
          <RefusedNotes
            buildId={build.id}
            which={({ kind, within }) => kind === 'round' && within === next.id}
          />
          <ProblemNote error={closing.error} />
        </Box>
      )}
      {held && !round && !next?.late && <SetHeldAgain build={build} recheck={held} />}
      {past.map((recheck) => (
        <Box key={recheck.id} paddingY="2" borderBottom="1px solid" borderColor="hairline">
          <b>Recheck {recheck.sequence}</b> {recheck.doneAt && <ShopTime at={recheck.doneAt} day />}:{' '}
          {recheck.outcome && outcomeInWords(recheck.outcome, recheck.points?.length ?? null)}, by{' '}
          {recheck.doneBy}
        </Box>
      ))}
    </Box>
  );
}

/** Which points a short look takes, and what makes it one of the whole head. */
function ShortLook({ points, of }: { readonly points: readonly string[]; readonly of: number }) {
  return (
    <Box marginTop="1">
      A short check: <b>{points.join(' ')}</b>, {points.length} of {of} points. Once one of them is out or
      undecided, the whole head is measured.
    </Box>
  );
}

/** Who else measured in a round, and when what they wrote last came in: the newest first. */
function othersAt(round: Round | undefined, me: string | undefined) {
  const last = new Map<string, string>();
  for (const { by, at } of round?.readings ?? [])
    if (by !== me && at > (last.get(by) ?? '')) last.set(by, at);
  return [...last].map(([by, at]) => ({ by, at })).sort((a, b) => b.at.localeCompare(a.at));
}
