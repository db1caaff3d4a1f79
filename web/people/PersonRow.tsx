import { PASSPHRASE_MOST } from '@zero-lash/contract/people';
import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { Person, PersonRole } from '@zero-lash/contract/people';
import { useState, type FormEvent } from 'react';
import { Labelled, Select } from '../app/Labelled.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useChangePersonMutation, useSignPersonOutMutation } from './endpoints.ts';
import { PASSPHRASE_RULE, PERSON_ROLE_WORDS } from './roles.ts';

/** One person of the shop, as a lead looks after them: their role, name and passphrase, and whether they are here. */
export function PersonRow({ person }: { readonly person: Person }) {
  const [change, { error }] = useChangePersonMutation();
  const [signOut, signingOut] = useSignPersonOutMutation();
  const [changing, setChanging] = useState(false);
  const [name, setName] = useState(person.name);
  // eslint-disable-next-line no-restricted-syntax -- a passphrase is never kept on a device
  const [passphrase, setPassphrase] = useState('');
  const [email, setEmail] = useState(person.email);
  const send = (what: {
    name?: string;
    role?: PersonRole;
    active?: boolean;
    passphrase?: string;
    email?: string;
    version?: number;
  }) => change({ id: person.id, ...what });
  async function keep(event: FormEvent) {
    event.preventDefault();
    const result = await send({
      version: person.version,
      name,
      email,
      ...(passphrase === '' ? {} : { passphrase }),
    });
    if ('error' in result) return;
    setChanging(false);
    setPassphrase('');
  }
  return (
    <Box borderTop="1px solid" borderColor="hairline" paddingY="2" opacity={person.active ? 1 : 0.8}>
      <Flex gap="3" alignItems="center" flexWrap="wrap">
        <Box fontWeight="600" width="160px">
          {person.name}
          {!person.active && ' (left)'}
        </Box>
        <Box flex="1" minWidth="220px">
          <Select
            aria-label={`Role of ${person.name}`}
            value={person.role}
            disabled={!person.active}
            onChange={(event) => void send({ role: event.target.value as PersonRole })}
          >
            {Object.entries(PERSON_ROLE_WORDS).map(([role, words]) => (
              <option key={role} value={role}>
                {words}
              </option>
            ))}
          </Select>
        </Box>
        <Button
          variant="plain"
          aria-expanded={changing}
          aria-label={`Name, passphrase of ${person.name}`}
          onClick={() => {
            setName(person.name);
            setEmail(person.email);
            setChanging(!changing);
          }}
          paddingX="1"
        >
          Name, passphrase
        </Button>
        <Button variant="plain" onClick={() => void send({ active: !person.active })} paddingX="1">
          {person.active ? 'Remove' : 'Bring back'}
        </Button>
      </Flex>
      {changing && (
        <form aria-label={`Details of ${person.name}`} onSubmit={(event) => void keep(event)}>
          <Flex gap="2" alignItems="flex-end" flexWrap="wrap" paddingTop="2">
            <Box flex="1" minWidth="160px">
              <Labelled label={`Name of ${person.name}`}>
                <Input
                  required
                  maxLength={60}
                  autoComplete="off"
                  value={name}
                  onChange={(event) => setName(event.target.value)}
                />
              </Labelled>
            </Box>
            <Box flex="1" minWidth="220px">
              <Labelled label="New passphrase, or empty to keep the old one" hint={PASSPHRASE_RULE}>
                <Input
                  type="password"
                  maxLength={PASSPHRASE_MOST}
                  autoComplete="new-password"
                  value={passphrase}
                  onChange={(event) => setPassphrase(event.target.value)}
                />
              </Labelled>
            </Box>
            <Box flex="1" minWidth="200px">
              <Labelled label="Mail address, for reminders to a lead">
                <Input
                  type="email"
                  maxLength={120}
                  autoComplete="off"
                  value={email}
                  onChange={(event) => setEmail(event.target.value)}
                />
              </Labelled>
            </Box>
            <Button type="submit">Save</Button>
            <Button type="button" variant="plain" onClick={() => void signOut(person.id)}>
              {signingOut.isSuccess ? 'Signed out everywhere' : 'Sign them out everywhere'}
            </Button>
          </Flex>
        </form>
      )}
      <ProblemNote error={error ?? signingOut.error} />
    </Box>
  );
}
