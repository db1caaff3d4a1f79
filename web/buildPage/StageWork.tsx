import { Box, Button, Flex, chakra } from '@chakra-ui/react';
import type { BuildView } from '../builds/buildView.ts';
import {
  checksAt,
  obstaclesTo,
  stageIn,
  stagesOn,
  statusOf,
  stageOf,
  type Circumstances,
  type JobKey,
  type StageKey,
} from '@zero-lash/core/builds';
import { memo, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useStable } from '../app/useStable.ts';
import { useShared } from '../app/useShared.ts';
import { StillUnsent } from '../app/StillUnsent.tsx';
import { useOnceSent } from '../app/useOnceSent.ts';
import { RefusedNotes } from '../app/RefusedNotes.tsx';
import { useRole } from '../app/useRole.ts';
import { KnowHow } from '../knowHow/KnowHow.tsx';
import { Abandon } from './Abandon.tsx';
import { Check } from '../builds/Check.tsx';
import { LargerJob } from './LargerJob.tsx';
import { GoBack, type BackState } from './GoBack.tsx';
import { useMoveStageMutation } from '../builds/endpoints.ts';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import { StageNotes } from './StageNotes.tsx';
import { MarksToSee } from '../turning/MarksToSee.tsx';

interface Props {
  readonly build: BuildView;
  readonly stage: StageKey;
  /** somebody looks a second time, and must not see what was found */
  readonly blind: boolean;
  /** selects the first point a stage waits for */
  readonly onPoint: (key: string) => void;
  readonly onLook: (stage: StageKey | null) => void;
  /** what the stage's own room brings; it stands under what is ticked off */
  readonly children?: ReactNode;
}

/** What is ticked off and written down at a stage, and the way on to the next. */
export function StageWork({ build, stage, blind, onPoint, onLook, children }: Props) {
  const here = stage === build.stage && !build.closedAt;
  const { mayWork } = useRole();
  const { sheet, settings, ticks, provesAgain } = build;
  const state = useMemo(
    () => ({ job: build.job, stage: build.stage, sheet, settings, ticks, provesAgain, rounds: [] }),
    [build.job, build.stage, sheet, settings, ticks, provesAgain],
  );
  const status = useMemo(() => statusOf(build), [build]);
  const obstacles = useShared(useMemo(() => obstaclesTo(status), [status]));
  const on = useShared(useMemo(() => stagesOn(status), [status]));
  const circumstances = useShared(status.circumstances);
  const answers = useShared(status.answers);
  const [ticked, setTicked] = useState(0);
  const onTicked = useStable(() => setTicked((before) => before + 1));
  return (
    <div className="stage-work">
      <KnowHow buildId={build.id} sheet={sheet} known={build['know-how']} stage={stage} />
      <Checks
        buildId={build.id}
        sheet={sheet}
        ticks={build.ticks}
        job={build.job}
        stage={stage}
        circumstances={circumstances}
        answers={answers}
        enabled={here && mayWork}
        onTicked={onTicked}
      />
      {children}
      {here && mayWork && on.length > 0 && (
        <Onward
          buildId={build.id}
          version={build.version}
          state={state}
          obstacles={obstacles}
          to={on.at(-1)!}
          ticked={ticked}
          blind={blind}
          onPoint={onPoint}
          onLook={onLook}
        />
      )}
      <StageNotes
        buildId={build.id}
        notes={build.notes}
        job={build.job}
        stage={stage}
        // what is added to a sign-off is a lead's, and stands with it
        enabled={mayWork && !build.closedAt && !(build.signOff && demandsSignOff(stage))}
      />
      {stage === build.stage && (
        <LargerJob
          id={build.id}
          version={build.version}
          job={build.job}
          enabled={mayWork && !build.closedAt && !build.signOff}
        />
      )}
      {stage === build.stage && (
        <Abandon
          id={build.id}
          version={build.version}
          signed={build.signOff !== null}
          abandoned={build.abandoned !== null}
          closed={build.closedAt !== null}
        />
      )}
    </div>
  );
}

const demandsSignOff = (stage: StageKey) => stageOf(stage).demands.includes('signed-off');

interface ChecksProps {
  readonly buildId: string;
  readonly sheet: BuildView['sheet'];
  readonly ticks: BuildView['ticks'];
  readonly job: JobKey;
  readonly stage: StageKey;
  /** what was done so far: some checks are asked only once it was */
  readonly circumstances: Circumstances;
  /** what the record answers by itself, and from what */
  readonly answers: ReturnType<typeof statusOf>['answers'];
  readonly enabled: boolean;
  readonly onTicked: () => void;
}

const Checks = memo(function Checks({
  buildId,
  sheet,
  ticks,
  job,
  stage,
  circumstances,
  answers,
  enabled,
  onTicked,
}: ChecksProps) {
  const put = useBenchWrite(buildId);
  const checks = checksAt(job, stage, circumstances);
  if (checks.length === 0) return null;
  return (
    <fieldset>
      <chakra.legend fontWeight="650">Tick off</chakra.legend>
      {checks.map((check) => {
        const last = ticks.find((each) => each.stage === stage && each.check === check.key);
        const row = last?.done ? last : undefined;
        const answer = check.answeredBy ? (answers[check.answeredBy] ?? undefined) : undefined;
        // what was undone says who had done it: they know how it stood
        const before = last?.earlierBy?.findLast((name) => name !== null);
        return (
          <Box key={check.key} borderBottom="1px solid" borderColor="hairline">
            <Check
              text={check.text}
              by={row?.by ?? answer}
              {...(before ? { aside: `ticked by ${before} before` } : {})}
              enabled={enabled && !(answer && !row)}
              onTick={(done) => {
                put({ kind: 'tick', body: { stage, check: check.key, done } });
                if (done) onTicked();
              }}
            />
            {check.shows === 'marks' && <MarksToSee sheet={sheet} />}
          </Box>
        );
      })}
      <RefusedNotes buildId={buildId} which={({ kind }) => kind === 'tick'} />
    </fieldset>
  );
});

interface OnwardProps extends Pick<Props, 'blind' | 'onPoint' | 'onLook'> {
  readonly buildId: string;
  readonly version: number;
  /** what a step back undoes goes by; no reading is part of it */
  readonly state: BackState;
  readonly obstacles: ReturnType<typeof obstaclesTo>;
  /** where the build goes on to */
  readonly to: StageKey;
  /** how often something was ticked here: the last tick of a stage is its way on */
  readonly ticked: number;
}

const Onward = memo(function Onward(props: OnwardProps) {
  const { buildId, version, state, obstacles, to: next, ticked, blind, onPoint, onLook } = props;
  const { stage } = state;
  const [move, { error, isLoading }] = useMoveStageMutation();
  // what a sign-off leads on from says itself what stands against it
  const bySignOff = stageOf(stage).demands.includes('signed-off');
  const waiting = blind ? undefined : obstacles.flatMap(({ points }) => points)[0];
  const { once, waiting: sending, unsent } = useOnceSent(buildId);
  const go = useStable(async (to: StageKey) => {
    const result = await once(() => move({ buildId, to, version }));
    if (result && !('error' in result)) onLook(null);
  });
  const open = bySignOff || blind ? 1 : obstacles.length;
  const seen = useRef(0);
  useEffect(() => {
    const tickedNow = ticked > seen.current;
    seen.current = ticked;
    if (tickedNow && open === 0) void go(next);
  }, [state.ticks]);
  return (
    <Box>
      {blind && (
        <div className="point-note">
          What stands against going on would tell what was found: it is shown when the second look is done.
        </div>
      )}
      {(bySignOff || blind ? [] : obstacles).map(({ code, text }) => (
        <div key={code} className="point-note">
          {text}
        </div>
      ))}
      {unsent && <StillUnsent buildId={buildId} step="the build goes on" />}
      <Flex gap="2" marginTop="2" flexWrap="wrap">
        {!bySignOff && (
          <Button
            variant="solid"
            disabled={blind || obstacles.length > 0}
            loading={isLoading || sending}
            onClick={() => void go(next)}
          >
            Go on to {stageIn(state.job, next).title}
          </Button>
        )}
        {waiting && <Button onClick={() => onPoint(waiting)}>Show {waiting}</Button>}
      </Flex>
      <GoBack state={state} busy={isLoading || sending} onGo={go} />
      <ProblemNote error={error} />
    </Box>
  );
});
