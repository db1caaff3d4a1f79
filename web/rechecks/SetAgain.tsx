import { Button, Flex, Heading } from '@chakra-ui/react';
import type { PastRecheck } from '@zero-lash/contract/rechecks';
import { obstaclesToSignOff, statusOf } from '@zero-lash/core/builds';
import { Link, useNavigate } from 'react-router';
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
