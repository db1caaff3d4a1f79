import { Box, Flex, Heading } from '@chakra-ui/react';
import type { BuildView } from '../builds/buildView.ts';
import type { Pattern } from '@zero-lash/core/sheets';
import { runningInWords } from '@zero-lash/core/rechecks';
import {
  buildInWords,
  cautionsAt,
  checksAt,
  circumstancesOf,
  meantAt,
  stageIn,
  stageOf,
  type JobKey,
  type RoundKind,
  type StageKey,
} from '@zero-lash/core/builds';
import { memo } from 'react';
import { useFetched } from '../app/onDemand.tsx';
import { Link, useParams } from 'react-router';
import { Caution } from '../app/Caution.tsx';
import { Page } from '../app/Page.tsx';
import { PointsOnPaper } from './PointsOnPaper.tsx';
import { useLater } from '../app/useLater.ts';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { HeadLegend } from '../drawings/HeadLegend.tsx';
import { HeadDrawing } from '../drawings/HeadDrawing.tsx';
import { useToolsQuery } from '../instruments/endpoints.ts';
import { BlindChoice } from '../measuring/BlindChoice.tsx';
import { HotClock } from '../measuring/HotClock.tsx';
import { OtherEngine } from '../measuring/OtherEngine.tsx';
import { StrikeOutRound, TurnedBack } from '../measuring/StrikeOut.tsx';
import { StopGuide } from '../turning/StopGuide.tsx';
import { useSession } from '../app/useSession.ts';
import { WhereToTurn } from '../turning/WhereToTurn.tsx';
import '../builds/build.css';
import { AbandonedNote } from './Abandon.tsx';
import { LimitsToCome } from './LimitsToCome.tsx';
import { PointPanel } from './PointPanel.tsx';
import { RoundConditions } from '../measuring/RoundConditions.tsx';
import { StageRail } from './StageRail.tsx';
import { FromPaper } from '../measuring/FromPaper.tsx';
import { SetCold } from '../setting/SetCold.tsx';
import { AimedOutside } from '../setting/AimedOutside.tsx';
import { STAGE_ROOMS } from './stageRooms.ts';
import { StageWork } from './StageWork.tsx';
import { Tally } from './Tally.tsx';
import { useBuild } from '../builds/useBuild.ts';
import { useFromTheTop } from './useFromTheTop.ts';
import { useBuildWork, type BuildWork } from './useBuildWork.ts';

/** One build: its stages down the side, the head in the middle, the selected point's work beside it. */
export default function BuildPage() {
  const { id = '' } = useParams();
  const { build, error, refetch } = useBuild(id);
  // a key for a blade means nothing before it is known which blades there are
  const { isLoading: bladesToCome } = useToolsQuery(undefined, {
    selectFromResult: ({ isLoading }) => ({ isLoading }),
  });
  if (error) return <ProblemNote error={error} onRetry={refetch} />;
  if (!build || bladesToCome) return null;
  return <Build key={build.id} build={build} />;
}

function Build({ build }: { readonly build: BuildView }) {
  const work = useBuildWork(build);
  useFromTheTop(work.looking);
  // while a blade is in the hand, the head and the point answer at once; what stands round them follows
  const later = useLater(work);
  const aside = STAGE_ROOMS[work.looking].First !== undefined;
  // before anything is measured, what is to be done comes first and the head is only shown
  const { wide = false } = STAGE_ROOMS[work.looking];
  const led = stageOf(work.looking).shows === null || wide;
  const near = work.open && work.mayWork;
  return (
    <Page
      title={build.engine.name}
      under={
        <Under
          number={build.number}
          carried={build.carried}
          said={buildInWords(build)}
          engine={build.engine}
          sheet={build.sheet}
          measures={stageOf(build.stage).measures}
        />
      }
    >
      <AbandonedNote abandoned={build.abandoned} />
      {build.closedAt && !build.abandoned && (
        <Box color="faded">This build is closed: a later one took over.</Box>
      )}
      <div
        className="build"
        data-wide={wide || undefined}
        data-aside={aside ? (near ? 'after' : 'before') : undefined}
        data-ticks={checksAt(build.job, work.looking, circumstancesOf(build)).length > 0 || undefined}
      >
        <div className="build-rail">
          <StageRail at={build.stage} job={build.job} looking={work.looking} onLook={work.lookAt} />
        </div>
        <div className="build-head">
          <AboveHead work={later} />
          {led && (
            <div className="build-work">
              <WorkArea work={later} />
            </div>
          )}
          <div className={led ? 'build-map build-map-small' : 'build-map'}>
            <HeadDrawing
              pattern={build.sheet.pattern}
              points={work.shown}
              selected={work.round ? work.selected.key : null}
              onSelect={work.select}
              label={`Lash points of ${build.engine.name}`}
            />
            <BelowHead states={later.round ? later.states : null} />
          </div>
        </div>
        {!led && (
          <div className="build-work">
            <WorkArea work={later} />
          </div>
        )}
        {work.open && (
          <div className="build-turn">
            <WhereToTurn
              sheet={build.sheet}
              engine={build.engine.name}
              work={later.turning}
              states={later.states}
              selected={later.selected.key}
              onSelect={later.select}
              enabled={later.mayWork}
            />
            <FromPaper work={later} />
          </div>
        )}
        {aside && (
          <div className="build-aside">
            <AsideArea work={later} />
          </div>
        )}
        <div className={near ? 'build-point build-point-near' : 'build-point'}>
          <PointArea work={work} />
        </div>
        <PointsOnPaper build={later.build} looking={work.looking} />
      </div>
    </Page>
  );
}

interface AreaProps {
  readonly work: BuildWork;
}

interface UnderProps extends Pick<BuildView, 'number' | 'carried' | 'engine' | 'sheet'> {
  /** what the build is for */
  readonly said: string;
  readonly measures: RoundKind | null;
}

const Under = memo(function Under({ number, carried, said, engine, sheet, measures }: UnderProps) {
  return (
    <>
      <Link to={`/engines/${engine.id}`}>Build {number}</Link>
      {carried && (
        <>
          , which sets again what{' '}
          <Link to={`/builds/${carried.buildId}`}>
            recheck {carried.sequence} of build {carried.number}
          </Link>{' '}
          found
        </>
      )}{' '}
      · {said} ·{' '}
      <Link to={`/sheets/${sheet.sheetId}`}>
        {sheet.maker} {sheet.name}, revision {sheet.number}
      </Link>{' '}
      · {meantAt(sheet, measures)?.condition} · {runningInWords(engine.usage, engine.usageUnit)}
    </>
  );
});

/** What the stage is for, and what to beware of. */
const AboutStage = memo(function AboutStage({
  job,
  looking,
  pattern,
}: {
  readonly job: JobKey;
  readonly looking: StageKey;
  readonly pattern: Pattern;
}) {
  const stage = stageIn(job, looking);
  return (
    <>
      <Flex alignItems="baseline" gap="3" flexWrap="wrap">
        <Heading as="h2" fontSize="lg" fontWeight="650">
          {stage.title}
        </Heading>
        <Box color="faded">{stage.aim}</Box>
      </Flex>
      <Box marginY="2">
        {cautionsAt(looking, pattern).map((text) => (
          <Caution key={text}>{text}</Caution>
        ))}
      </Box>
    </>
  );
});

/** What the stage is about, what its room says first, and where to turn. */
const AboveHead = memo(function AboveHead({ work }: AreaProps) {
  const { build, about, looking, open, turning, mayWork, select } = work;
  const { Above } = STAGE_ROOMS[looking];
  return (
    <>
      <AboutStage job={build.job} looking={looking} pattern={build.sheet.pattern} />
      <LimitsToCome build={about} />
      <AimedOutside build={about} />
      <SetCold build={build} />
      {Above && <Above build={build} />}
      {open && (
        <div className="build-stop">
          <StopGuide
            buildId={build.id}
            sheet={build.sheet}
            stage={build.stage}
            known={build['know-how']}
            work={turning}
            enabled={mayWork}
            onArrive={select}
          />
        </div>
      )}
    </>
  );
});

const BelowHead = memo(function BelowHead({ states }: { readonly states: BuildWork['states'] | null }) {
  return (
    states && (
      <>
        <Tally states={states} />
        <HeadLegend />
      </>
    )
  );
});

/** What the round is taken under, a second look, and the stage's own work. */
const WorkArea = memo(function WorkArea({ work }: AreaProps) {
  const { build, looking, here, conditionsRound, open, mayWork, blind, setBlind, select, look, turning } =
    work;
  const { Under, wide } = STAGE_ROOMS[looking];
  const roomIsHere = useFetched(Under);
  const measured = stageOf(looking).measures !== null;
  const me = useSession()?.person.name;
  const own = here?.readings.filter(({ roundId }) => [here.id, conditionsRound?.id].includes(roundId)) ?? [];
  return (
    <>
      {measured && conditionsRound && open && (
        <HotClock build={build} round={conditionsRound} enabled={mayWork} />
      )}
      {measured && conditionsRound && (
        <RoundConditions
          key={conditionsRound.id}
          build={build}
          round={conditionsRound}
          enabled={open && mayWork}
        />
      )}
      {open && mayWork && here && (
        <BlindChoice blind={blind} onChoose={setBlind} anything={here.readings.some(({ by }) => by !== me)} />
      )}
      {open && mayWork && here && !blind && (
        <>
          <TurnedBack buildId={build.id} readings={own} at={turning.turning.at} />
          <StrikeOutRound buildId={build.id} readings={own} />
          <OtherEngine buildId={build.id} roundId={(conditionsRound ?? here).id} readings={own} />
        </>
      )}
      {/* both at once, so the way on never moves under a finger as the room comes in above it */}
      {!roomIsHere && wide && <Box minHeight="480px" />}
      {roomIsHere && (
        <StageWork build={build} stage={looking} blind={blind} onPoint={select} onLook={look}>
          {/* what is planned would tell what was found */}
          {Under && !blind && <Under build={build} stage={looking} />}
        </StageWork>
      )}
    </>
  );
});

/** What the stage's own room says of the whole build. */
const AsideArea = memo(function AsideArea({ work: { build, looking } }: AreaProps) {
  const { First } = STAGE_ROOMS[looking];
  return First && <First build={build} />;
});

/** The selected point's work. */
const PointArea = memo(function PointArea({ work }: AreaProps) {
  const { build, looking, round, roundAt, selected, turning, blind, onNext, onWalk } = work;
  return round ? (
    <PointPanel
      build={build}
      round={roundAt(selected.key)}
      visit={round.id}
      stage={looking}
      point={selected}
      change={work.changed(selected.key)}
      turning={turning}
      staysFor={work.staysFor}
      beside={work.beside}
      feltHere={work.feltHere}
      blind={blind}
      onNext={onNext}
      onSelect={work.select}
      onWalk={onWalk}
    />
  ) : null;
});
