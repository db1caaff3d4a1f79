import { Button, Flex, Heading } from '@chakra-ui/react';
import type { PastRecheck } from '@zero-lash/contract/rechecks';
import { obstaclesToSignOff, statusOf } from '@zero-lash/core/builds';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { Choice } from '../app/Choice.tsx';
import { Labelled } from '../app/Labelled.tsx';
import { Caution } from '../app/Caution.tsx';
import { Note } from '../app/Note.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { WithReason } from '../app/WithReason.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { useOpenBuildMutation } from '../builds/endpoints.ts';
import { useRole } from '../app/useRole.ts';
import { useLeaveLateMutation } from './endpoints.ts';

interface Props {
  readonly build: BuildView;
  /** the last recheck, which did not find every gap held; or the one to come, where what came in late says otherwise than was signed */
  readonly recheck: PastRecheck;
}

/**
 * A recheck that did not hold, or what came in after signing: what was found is carried into a short build, or a long one is opened.
 * What came in late a lead may leave as it is, with a reason.
 */
export function SetAgain({ build, recheck }: Props) {
  const { mayWork, mayLead } = useRole();
  const [open, { error, isLoading }] = useOpenBuildMutation();
  const [leave, leaving] = useLeaveLateMutation();
  const navigate = useNavigate();
  const { late } = recheck;
  const found = late ? lateAt(build) : foundAt(build, recheck);
  const go = async () => {
    const opened = await open({
      engineId: build.engine.id,
      revisionId: build.sheet.id,
      complaint: complaintOf(late ? 'Came in after it was signed' : `Recheck ${recheck.sequence}`, found),
      recheckId: recheck.id,
    });
    if (!('error' in opened)) void navigate(`/builds/${opened.data.build}`);
  };
  return (
    <Note tone="tight" role="alert" marginBottom="3">
      <Heading as="h3" fontSize="md" fontWeight="650">
        {late
          ? 'What came in after it was signed off says otherwise'
          : `Recheck ${recheck.sequence} did not hold`}
      </Heading>
      {found.length > 0 && <p>{found.join(', ')}.</p>}
      {late && (
        <Caution>
          Do not run it on before it is set again: a valve that has gone tight burns. Tell its owner, too.
        </Caution>
      )}
      {mayWork && (
        <>
          <Caution>
            Before the cover comes off again: engine cold; ignition, fuel and battery isolated.
          </Caution>
          <Flex gap="3" alignItems="center" flexWrap="wrap" marginTop="2">
            <Button variant="solid" loading={isLoading} onClick={() => void go()}>
              Set it again
            </Button>
            <span>
              begins at Set with what was found; or{' '}
              <Link to={`/engines/${build.engine.id}`}>take the engine in from the start</Link>
            </span>
          </Flex>
        </>
      )}
      {late && mayLead && (
        <WithReason
          draft={`late:${build.id}`}
          ask="Leave it as it is…"
          label="Because"
          action="Leave it as it is"
          missing="Say in a line why what came in late does not matter."
          follows="What came in stays beside the signature, with this; the recheck comes when it was planned."
          most={200}
          busy={leaving.isLoading}
          onDo={async (why) =>
            !('error' in (await leave({ recheckId: recheck.id, why, version: recheck.version })))
          }
        />
      )}
      <ProblemNote error={error ?? leaving.error} />
    </Note>
  );
}

/** Why an engine is set again whose recheck held. */
const WHY_AGAIN = {
  '': 'say why…',
  nut: 'a lock nut was found slack',
  seat: 'a seat or a face wears in',
  reading: 'a reading was wrong',
  head: 'the head was tightened again',
  otherwise: 'it is wanted otherwise',
} as const;

/** A recheck that held is set again all the same, for a reason that stands with the build. */
export function SetHeldAgain({ build, recheck }: Props) {
  const { mayWork } = useRole();
  const [open, { error, isLoading }] = useOpenBuildMutation();
  const [why, setWhy] = useState<keyof typeof WHY_AGAIN>('');
  const [asks, setAsks] = useState(false);
  const [missing, setMissing] = useState(false);
  const navigate = useNavigate();
  if (!mayWork) return null;
  const go = async () => {
    setMissing(why === '');
    if (why === '') return;
    const opened = await open({
      ...{ engineId: build.engine.id, revisionId: build.sheet.id, recheckId: recheck.id },
      complaint: `Recheck ${recheck.sequence} held: ${WHY_AGAIN[why]}`,
    });
    if (!('error' in opened)) void navigate(`/builds/${opened.data.build}`);
  };
  if (!asks)
    return (
      <Button variant="plain" onClick={() => setAsks(true)}>
        Set it again all the same…
      </Button>
    );
  return (
    <Note marginY="2">
      <Caution>Before the cover comes off again: engine cold; ignition, fuel and battery isolated.</Caution>
      <Flex gap="3" alignItems="flex-end" flexWrap="wrap">
        <Labelled label="Set again, because" error={missing ? 'Say why first.' : undefined}>
          <Choice of={WHY_AGAIN} value={why} onChoose={setWhy} />
        </Labelled>
        <Button variant="solid" loading={isLoading} onClick={() => void go()}>
          Set it again
        </Button>
        <Button variant="plain" onClick={() => setAsks(false)}>
          Leave it
        </Button>
      </Flex>
      <ProblemNote error={error} />
    </Note>
  );
}

/** The points a recheck found out or left undecided, each with what it is: `2I tight`. */
function foundAt({ rounds }: BuildView, { id }: PastRecheck): string[] {
  const round = rounds.find(({ recheckId }) => recheckId === id);
  return (round?.readings ?? [])
    .filter(({ verdict }) => verdict !== 'in-spec')
    .map(({ point, verdict }) => foundInWords(point, verdict));
}

/** What stands against what was signed by now: each point with what it is, and the rest in its own words. */
function lateAt(build: BuildView): string[] {
  const status = statusOf(build);
  const out = [...status.proved].filter(([, verdict]) => verdict !== 'in-spec');
  const others = obstaclesToSignOff(status).filter(({ points }) => points.length === 0);
  return [...out.map(([point, verdict]) => foundInWords(point, verdict)), ...others.map(({ text }) => text)];
}

const foundInWords = (point: string, verdict: string) =>
  `${point} ${verdict.startsWith('undecided') ? 'undecided' : verdict}`;

const LONGEST = 300;

const complaintOf = (what: string, found: readonly string[]) =>
  `${what}: ${found.join(', ') || 'did not hold'}`.slice(0, LONGEST);
