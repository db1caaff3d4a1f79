import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { Owner } from '@zero-lash/contract/owners';
import { useState, type FormEvent } from 'react';
import { Link } from 'react-router';
import { Choice } from '../app/Choice.tsx';
import { useDraft } from '../app/useDraft.ts';
import { Labelled } from '../app/Labelled.tsx';
import { Empty, Page } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useRole } from '../app/useRole.ts';
import { useChangeOwnerMutation, useOwnersQuery } from './endpoints.ts';

const TELLS = { mail: 'by mail', peace: 'wants no reminders' } as const;

/** Owners, each kept once: how they wish to be told, and how many engines are theirs. */
export default function OwnersPage() {
  const { data: owners, error, refetch } = useOwnersQuery(undefined, { refetchOnMountOrArgChange: true });
  return (
    <Page title="Owners" under="Whose engines these are, and how each is reminded of a recheck">
      <ProblemNote error={error} onRetry={refetch} />
      {owners?.length === 0 && (
        <Empty>
          None yet. An owner is written down with the first <Link to="/engines">engine</Link> of theirs.
        </Empty>
      )}
      {(owners ?? []).map((owner) => (
        <OwnerRow key={owner.id} owner={owner} />
      ))}
    </Page>
  );
}

function OwnerRow({ owner }: { readonly owner: Owner }) {
  const { mayWork } = useRole();
  const [changing, setChanging] = useState(false);
  const {
    texts: form,
    type,
    changed,
    clear,
  } = useDraft(`owner:${owner.id}`, {
    ...{ name: owner.name, email: owner.email ?? '', tells: owner.tells as string, note: owner.note },
  });
  // what stands by now of a field that something else was typed into
  const saved = (field: 'name' | 'email' | 'note') =>
    changed[field] === undefined ? undefined : `saved: ${owner[field] || 'nothing'}`;
  const [change, { error, isLoading }] = useChangeOwnerMutation();
  async function keep(event: FormEvent) {
    event.preventDefault();
    const { name, email, tells, note } = form;
    const fields = { name, tells: tells as Owner['tells'], note, ...(owner.email === null ? {} : { email }) };
    const answer = await change({ id: owner.id, version: owner.version, ...fields });
    if ('error' in answer) return;
    clear();
    setChanging(false);
  }
  return (
    <Box as="section" aria-label={owner.name} borderBottom="1px solid" borderColor="hairline" paddingY="2">
      <Flex gap="4" alignItems="center" flexWrap="wrap">
        <Box fontWeight="650" minWidth="220px">
          {owner.name}
        </Box>
        <Box flex="1" minWidth="200px">
          {owner.tells === 'peace'
            ? 'wants no reminders'
            : (owner.email ?? 'told by mail') || 'no address, so no reminders'}
          {owner.note && (
            <Box fontSize="sm" color="faded">
              {owner.note}
            </Box>
          )}
        </Box>
        <Box color="faded">
          <Link to={`/engines?search=${encodeURIComponent(owner.name)}`}>
            {owner.engines === 1 ? '1 engine' : `${owner.engines} engines`}
          </Link>
        </Box>
        {mayWork && (
          <Button
            variant="plain"
            aria-expanded={changing}
            aria-label={`Change ${owner.name}`}
            onClick={() => setChanging(!changing)}
          >
            Change
          </Button>
        )}
      </Flex>
      {changing && (
        <form onSubmit={(event) => void keep(event)} noValidate>
          <Flex gap="3" alignItems="flex-end" flexWrap="wrap" paddingTop="2">
            <Box flex="1" minWidth="180px">
              <Labelled label="Name, for every engine of theirs" hint={saved('name')}>
                <Input
                  maxLength={80}
                  value={form.name}
                  onChange={({ target }) => type('name', target.value)}
                />
              </Labelled>
            </Box>
            <Box flex="1" minWidth="200px">
              <Labelled label="Mail address" hint={saved('email')}>
                <Input
                  type="email"
                  maxLength={120}
                  value={form.email}
                  onChange={({ target }) => type('email', target.value)}
                />
              </Labelled>
            </Box>
            <Box width="160px">
              <Labelled label="Told">
                <Choice
                  of={TELLS}
                  value={form.tells as Owner['tells']}
                  onChoose={(tells) => type('tells', tells)}
                />
              </Labelled>
            </Box>
            <Box flex="1" minWidth="180px">
              <Labelled label="Note" hint={saved('note')}>
                <Input
                  maxLength={200}
                  value={form.note}
                  onChange={({ target }) => type('note', target.value)}
                />
              </Labelled>
            </Box>
            <Button type="submit" variant="solid" loading={isLoading} disabled={form.name.trim() === ''}>
              Save
            </Button>
          </Flex>
          <ProblemNote error={error} />
        </form>
      )}
    </Box>
  );
}
