import { Box, Button, Flex, Input } from '@chakra-ui/react';
import { zodResolver } from '@hookform/resolvers/zod';
import { newPerson, type NewPerson, type Person, type PersonRole } from '@zero-lash/contract/people';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { Labelled, Select } from '../app/Labelled.tsx';
import { Empty, Page, PartHeading } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import {
  useAddPersonMutation,
  useChangePersonMutation,
  useChangeShopMutation,
  usePeopleQuery,
  useSessionQuery,
} from './endpoints.ts';
import { useRole } from './useRole.ts';

const ROLE_WORDS: Readonly<Record<PersonRole, string>> = {
  bench: 'bench: measures and sets',
  lead: 'lead: also signs off, publishes, manages people',
  viewer: 'viewer: reads',
};

/** The shop: its unit, and the people who may come in. */
export default function ShopPage() {
  const { data: session } = useSessionQuery();
  const { mayLead } = useRole();
  return (
    <Page title="Shop" under={session?.shop.name}>
      {!mayLead ? (
        <Empty>A lead looks after the people and the unit of the shop.</Empty>
      ) : (
        <Box
          display="grid"
          gap="8"
          gridTemplateColumns={{ base: 'minmax(0, 1fr)', lg: 'minmax(0, 1fr) 340px' }}
        >
          <People />
          <Box display="grid" gap="8" alignContent="start">
            <AddPerson />
            <Unit />
          </Box>
        </Box>
      )}
    </Page>
  );
}

function Unit() {
  const { data: session } = useSessionQuery();
  const [change, { error }] = useChangeShopMutation();
  if (!session) return null;
  const { name, unit, version } = session.shop;
  return (
    <Box as="section">
      <PartHeading>Unit</PartHeading>
      <Labelled label="The shop reads in" hint="Each device can still show the other one.">
        <Select
          value={unit}
          onChange={(event) => void change({ name, unit: event.target.value as 'mm' | 'thou', version })}
        >
          <option value="mm">millimetres</option>
          <option value="thou">thou (0.001 in)</option>
        </Select>
      </Labelled>
      <ProblemNote error={error} />
    </Box>
  );
}

function People() {
  const { data, error, refetch } = usePeopleQuery();
  return (
    <Box as="section">
      <PartHeading>People</PartHeading>
      <ProblemNote error={error} onRetry={refetch} />
      {data?.map((person) => (
        <PersonRow key={person.id} person={person} />
      ))}
    </Box>
  );
}

function PersonRow({ person }: { readonly person: Person }) {
  const [change, { error }] = useChangePersonMutation();
  const [renewing, setRenewing] = useState(false);
  const [passphrase, setPassphrase] = useState('');
  const send = (what: { role?: PersonRole; active?: boolean; passphrase?: string }) =>
    change({ id: person.id, version: person.version, ...what });
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
            {Object.entries(ROLE_WORDS).map(([role, words]) => (
              <option key={role} value={role}>
                {words}
              </option>
            ))}
          </Select>
        </Box>
        <Button variant="plain" onClick={() => setRenewing(!renewing)} paddingX="1">
          New passphrase
        </Button>
        <Button variant="plain" onClick={() => void send({ active: !person.active })} paddingX="1">
          {person.active ? 'Has left' : 'Is back'}
        </Button>
      </Flex>
      {renewing && (
        <form
          onSubmit={async (event) => {
            event.preventDefault();
            const result = await send({ passphrase });
            if ('error' in result) return;
            setRenewing(false);
            setPassphrase('');
          }}
        >
          <Flex gap="2" alignItems="flex-end" paddingTop="2">
            <Labelled label={`New passphrase for ${person.name}, at least 10 characters`}>
              <Input
                type="password"
                autoComplete="new-password"
                value={passphrase}
                onChange={(event) => setPassphrase(event.target.value)}
              />
            </Labelled>
            <Button type="submit">Set it</Button>
          </Flex>
        </form>
      )}
      <ProblemNote error={error} />
    </Box>
  );
}

function AddPerson() {
  const [add, { error, isLoading }] = useAddPersonMutation();
  const { register, handleSubmit, formState, reset } = useForm<NewPerson>({
    resolver: zodResolver(newPerson),
    defaultValues: { name: '', role: 'bench', passphrase: '' },
  });
  return (
    <Box as="section">
      <PartHeading>Add a person</PartHeading>
      <form
        noValidate
        onSubmit={handleSubmit(async (values) => {
          if (!('error' in (await add(values)))) reset();
        })}
      >
        <Box display="grid" gap="3">
          <Labelled label="Name" error={formState.errors.name && 'Give a name.'}>
            <Input autoComplete="off" {...register('name')} />
          </Labelled>
          <Labelled label="Role">
            <Select {...register('role')}>
              {Object.entries(ROLE_WORDS).map(([role, words]) => (
                <option key={role} value={role}>
                  {words}
                </option>
              ))}
            </Select>
          </Labelled>
          <Labelled label="Passphrase" error={formState.errors.passphrase?.message}>
            <Input type="password" autoComplete="new-password" {...register('passphrase')} />
          </Labelled>
          <ProblemNote error={error} />
          <Button type="submit" loading={isLoading}>
            Add
          </Button>
        </Box>
      </form>
    </Box>
  );
}
