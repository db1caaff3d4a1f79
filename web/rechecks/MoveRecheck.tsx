import { saysSomething } from '@zero-lash/core/bounds';
import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { RecheckMove, RecheckRow } from '@zero-lash/contract/rechecks';
import { type FormEvent } from 'react';
import { Choice } from '../app/Choice.tsx';
import { useDraft } from '../app/useDraft.ts';
import { Labelled } from '../app/Labelled.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useMoveRecheckMutation } from './endpoints.ts';

type Kind = RecheckMove['kind'];

const KINDS: Readonly<Record<Kind, string>> = {
  moved: 'Move it to a day',
  'on-hold': 'Hold it back',
  released: 'Let it go again',
  dropped: 'Drop it for the next',
};

interface Props {
  readonly recheck: Pick<RecheckRow, 'id' | 'engine' | 'dueDate' | 'onHold' | 'version'>;
  readonly onDone: () => void;
}

/** What a lead does about a recheck, with a reason that stays on the record. */
export function MoveRecheck({ recheck, onDone }: Props) {
  const {
    texts: { kind: chosen, day, why },
    type,
    clear,
  } = useDraft(`move:${recheck.id}`, {
    ...{ kind: (recheck.onHold ? 'released' : 'moved') as string, day: recheck.dueDate ?? '', why: '' },
  });
  const [move, { error, isLoading }] = useMoveRecheckMutation();
  const { [recheck.onHold ? 'on-hold' : 'released']: _, ...may } = KINDS;
  // held back or let go by somebody else meanwhile, what was chosen may not be there any more
  const kind = (chosen in may ? chosen : Object.keys(may)[0]!) as Kind;
  async function send(event: FormEvent) {
    event.preventDefault();
    const answer = await move({
      ...{ recheckId: recheck.id, kind, why: why.trim(), version: recheck.version },
      day: kind === 'moved' ? day : null,
    });
    if ('error' in answer) return;
    clear();
    onDone();
  }
  return (
    <form onSubmit={(event) => void send(event)}>
      <Flex gap="3" alignItems="flex-end" flexWrap="wrap">
        <Box width="200px">
          <Labelled label={`What of ${recheck.engine}`}>
            <Choice of={may as Record<Kind, string>} value={kind} onChoose={(next) => type('kind', next)} />
          </Labelled>
        </Box>
        {kind === 'moved' && (
          <Box width="180px">
            <Labelled label="To the day">
              <Input type="date" required value={day} onChange={({ target }) => type('day', target.value)} />
            </Labelled>
          </Box>
        )}
        <Box flex="1" minWidth="220px">
          <Labelled label="Because">
            <Input
              required
              maxLength={200}
              value={why}
              onChange={({ target }) => type('why', target.value)}
            />
          </Labelled>
        </Box>
        <Button type="submit" variant="solid" loading={isLoading} disabled={!saysSomething(why)}>
          {KINDS[kind]}
        </Button>
      </Flex>
      {kind === 'moved' && (
        <Box fontSize="sm" color="faded">
          The day then governs: neither running nor forecast brings it back before that.
        </Box>
      )}
      <ProblemNote error={error} />
    </form>
  );
}
