import { Box, Button, Flex } from '@chakra-ui/react';
import type { EngineView } from '@zero-lash/contract/engines';
import { buildInWords, stageIn, RUNNING } from '@zero-lash/core/builds';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { Empty, Page, PartHeading } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { ShopTime } from '../app/ShopTime.tsx';
import { useShopTimes } from '../app/useShopTimes.ts';
import { useRole } from '../app/useRole.ts';
import { onDemand, useFetched } from '../app/onDemand.tsx';
import { dueInWords } from '../rechecks/due.ts';
import { outcomeInWords, recheckDayInWords } from '@zero-lash/core/rechecks';
import { DueMark } from '../rechecks/DueMark.tsx';
import { Differences } from './Differences.tsx';
import { useEngineQuery } from './endpoints.ts';
import { GapCourse } from './GapCourse.tsx';
import { LastCheck } from './LastCheck.tsx';
import { OpenBuild } from './OpenBuild.tsx';
import { PutAway } from './PutAway.tsx';
import { RanCompared } from './RanCompared.tsx';
import { WhatIsIn } from './WhatIsIn.tsx';
import { Running } from './Running.tsx';

const EditEngine = onDemand(async () => (await import('./EditEngine.tsx')).EditEngine);
const GivePlan = onDemand(async () => (await import('./OwnPlan.tsx')).GivePlan);
const LookedAt = onDemand(async () => (await import('./OwnPlan.tsx')).LookedAt);
const EngineTrends = onDemand(async () => (await import('../rechecks/EngineTrends.tsx')).EngineTrends);

/** One engine: its builds, its gaps over time, its rechecks and its running figure. */
export default function EnginePage() {
  const { id = '' } = useParams();
  const lookedAtIsHere = useFetched(LookedAt);
  const { data: engine, error, refetch } = useEngineQuery(id, { refetchOnMountOrArgChange: true });
  const { mayWork } = useRole();
  const [editing, setEditing] = useState(false);
  const [planning, setPlanning] = useState(false);
  if (error) return <ProblemNote error={error} onRetry={refetch} />;
  if (!engine) return null;
  return (
    <Page
      title={engine.name}
      under={
        <>
          {[engine.serial, engine.owner, engine.duty, engine.place].filter(Boolean).join(' · ')} ·{' '}
          <Link to={`/sheets/${engine.sheetId}`}>{engine.sheetName}</Link>
        </>
      }
      actions={
        <>
          <a className="zl-tool" href={`/api/engines/${engine.id}/label`} target="_blank" rel="noreferrer">
            Label (PDF)
          </a>
          <a className="zl-tool" href={`/api/engines/${engine.id}/record`} download>
            Record (ZIP)
          </a>
          {mayWork && !editing && <Button onClick={() => setEditing(true)}>Change details</Button>}
        </>
      }
    >
      {editing && <EditEngine engine={engine} onDone={() => setEditing(false)} />}
      {planning && engine.plan && (
        <GivePlan engine={engine} plan={engine.plan} onDone={() => setPlanning(false)} />
      )}
      <Box
        display="grid"
        gap="8"
        gridTemplateColumns={{ base: 'minmax(0, 1fr)', lg: 'minmax(0, 1fr) 320px' }}
      >
        <Box minWidth="0">
          <Builds engine={engine} />
          <TakenIn engine={engine} />
          <Box marginTop="6">
            <EngineTrends engineId={engine.id} />
          </Box>
          <Box marginTop="6">
            <PartHeading>Gaps over time</PartHeading>
            <GapCourse engine={engine} />
          </Box>
          <Box marginTop="6">
            <WhatIsIn engineId={engine.id} />
          </Box>
          <Box marginTop="6">
            <RanCompared engineId={engine.id} />
          </Box>
        </Box>
        <Box display="grid" gap="6" alignContent="start">
          <Running engine={engine} mayWork={mayWork} />
          <PastRechecks engine={engine} />
          <LookedAt engine={engine} onChange={() => setPlanning(true)} />
          {/* not before what stands above it: it would move under a finger */}
          {lookedAtIsHere && <PutAway engine={engine} />}
        </Box>
      </Box>
    </Page>
  );
}

function Builds({ engine }: { readonly engine: EngineView }) {
  const { mayWork } = useRole();
  const free = engine.putAway === null && (!engine.buildId || engine.stage === RUNNING);
  return (
    <Box as="section">
      <PartHeading>Builds</PartHeading>
      {engine.builds.length === 0 && !mayWork && <Empty>No build has been done on this engine.</Empty>}
      {engine.builds.map((build) => (
        <Flex
          key={build.id}
          as={Link}
          className="zl-row"
          {...{ to: `/builds/${build.id}` }}
          gap="4"
          alignItems="baseline"
          minHeight="44px"
          paddingY="2"
          borderBottom="1px solid"
          borderColor="hairline"
        >
          <Box fontWeight="650" flexShrink={0}>
            Build {build.number}
          </Box>
          <Box flex="1" minWidth="0">
            {buildInWords(build)}
            <Box fontSize="sm" color="faded">
              opened <ShopTime at={build.openedAt} day />
              {build.signedOffAt && (
                <>
                  , signed off <ShopTime at={build.signedOffAt} day /> by {build.signedOffBy}
                </>
              )}
              {build.abandoned && `, abandoned by ${build.abandoned.by}: ${build.abandoned.why}`}
            </Box>
          </Box>
          <Box flexShrink={0}>
            {build.abandoned
              ? 'abandoned'
              : build.closedAt
                ? 'finished'
                : stageIn(build.job, build.stage).title}
          </Box>
        </Flex>
      ))}
      {mayWork && free && <OpenBuild engine={engine} />}
      {mayWork && free && <LastCheck engine={engine} />}
    </Box>
  );
}

/** From which shop it came, and where its record said something else than what followed. */
function TakenIn({ engine }: { readonly engine: EngineView }) {
  return engine.takenIn.map(({ shop, at, by, differences }) => (
    <Box key={at} fontSize="sm" color="faded" marginTop="3">
      Its record came from {shop}, imported by {by}, <ShopTime at={at} day />.
      <Differences found={differences} />
    </Box>
  ));
}

function PastRechecks({ engine }: { readonly engine: EngineView }) {
  const { today } = useShopTimes();
  const shown = engine.rechecks.filter(({ status }) => status !== 'dropped');
  return (
    <Box as="section">
      <PartHeading>Rechecks</PartHeading>
      {shown.length === 0 && (
        <Empty>The first is planned when a build is signed off, or from when it was last checked.</Empty>
      )}
      {shown.map((recheck) => (
        <Box key={recheck.id} paddingY="2" borderBottom="1px solid" borderColor="hairline">
          <Flex justifyContent="space-between" gap="3">
            <Link to={`/builds/${recheck.buildId}`}>Recheck {recheck.sequence}</Link>
            {recheck.state ? (
              <Box>
                <DueMark state={recheck.state} />{' '}
                {recheckDayInWords({ ...engine, ...recheck }, today(), engine.usageUnit)}
              </Box>
            ) : (
              <Box>{recheck.doneAt && <ShopTime at={recheck.doneAt} day />}</Box>
            )}
          </Flex>
          <Box fontSize="sm" color="faded">
            {recheck.outcome
              ? `${outcomeInWords(recheck.outcome, recheck.points?.length ?? null)}, ${recheck.doneBy}`
              : dueInWords(recheck, engine)}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
