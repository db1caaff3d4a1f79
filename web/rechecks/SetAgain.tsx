import { Button, Flex, Heading } from '@chakra-ui/react';
import type { PastRecheck } from '@zero-lash/contract/rechecks';
import { Link, useNavigate } from 'react-router';
import { Caution } from '../app/Caution.tsx';
import { Note } from '../app/Note.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { useOpenBuildMutation } from '../builds/endpoints.ts';
import { useRole } from '../people/useRole.ts';

interface Props {
  readonly build: BuildView;
  /** the last recheck, which did not find every gap held */
  readonly recheck: PastRecheck;
}

/** A recheck that did not hold: what it found is carried into a short build, or a long one is opened. */
export function SetAgain({ build, recheck }: Props) {
  const { mayWork } = useRole();
  const [open, { error, isLoading }] = useOpenBuildMutation();
  const navigate = useNavigate();
  const found = foundAt(build, recheck);
  const go = async () => {
    const opened = await open({
      engineId: build.engine.id,
      revisionId: build.sheet.id,
      complaint: complaintOf(recheck, found),
      recheckId: recheck.id,
    });
    if (!('error' in opened)) void navigate(`/builds/${opened.data.build}`);
  };
  return (
    <Note tone="tight" role="alert" marginBottom="3">
      <Heading as="h3" fontSize="md" fontWeight="650">
        Recheck {recheck.sequence} did not hold
      </Heading>
      {found.length > 0 && <p>{found.join(', ')}.</p>}
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
      <ProblemNote error={error} />
    </Note>
  );
}

/** The points a recheck found out or left undecided, each with what it is: `2I tight`. */
function foundAt({ rounds }: BuildView, { id }: PastRecheck): string[] {
  const round = rounds.find(({ recheckId }) => recheckId === id);
  return (round?.readings ?? [])
    .filter(({ verdict }) => verdict !== 'in-spec')
    .map(({ point, verdict }) => `${point} ${verdict.startsWith('undecided') ? 'undecided' : verdict}`);
}

const LONGEST = 300;

const complaintOf = ({ sequence }: PastRecheck, found: readonly string[]) =>
  `Recheck ${sequence}: ${found.join(', ') || 'did not hold'}`.slice(0, LONGEST);
