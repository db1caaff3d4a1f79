import { Box, Button, Input } from '@chakra-ui/react';
import { zodResolver } from '@hookform/resolvers/zod';
import { PASSPHRASE_MOST, newPerson, type NewPerson } from '@zero-lash/contract/people';
import { useForm } from 'react-hook-form';
import { Labelled, Select } from '../app/Labelled.tsx';
import { Empty, Page, PartHeading } from '../app/Page.tsx';
import { sentence } from '../app/sentence.ts';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useSessionQuery } from '../app/session.ts';
import { useAddPersonMutation, usePeopleQuery } from './endpoints.ts';
import { Changes } from './Changes.tsx';
import { OwnFeel } from './OwnFeel.tsx';
import { PersonRow } from './PersonRow.tsx';
import { PASSPHRASE_RULE, PERSON_ROLE_WORDS } from './roles.ts';
import { ShopForm } from './ShopForm.tsx';
import { SignedIn } from './SignedIn.tsx';
import { useRole } from '../app/useRole.ts';

/** The shop: its name, its unit, and the people who may come in. */
export default function ShopPage() {
  const { data: session } = useSessionQuery();
  const { mayLead } = useRole();
  return (
    <Page title="Shop" under={session?.shop.name}>
      {!mayLead ? (
        <Box display="grid" gap="8">
          <Empty>A lead looks after the people, the unit and the zone of the shop.</Empty>
          <OwnFeel />
          <SignedIn />
        </Box>
      ) : (
        <Box
          display="grid"
          gap="8"
          gridTemplateColumns={{ base: 'minmax(0, 1fr)', lg: 'minmax(0, 1fr) 340px' }}
        >
          <Box display="grid" gap="8" alignContent="start">
            <People />
            <ShopForm />
            <Changes />
          </Box>
          <Box display="grid" gap="8" alignContent="start">
            <AddPerson />
            <OwnFeel />
            <SignedIn />
          </Box>
        </Box>
      )}
    </Page>
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
            <Input autoComplete="off" maxLength={60} {...register('name')} />
          </Labelled>
          <Labelled label="Role">
            <Select {...register('role')}>
              {Object.entries(PERSON_ROLE_WORDS).map(([role, words]) => (
                <option key={role} value={role}>
                  {words}
                </option>
              ))}
            </Select>
          </Labelled>
          <Labelled
            label="Passphrase"
            hint={PASSPHRASE_RULE}
            error={formState.errors.passphrase?.message && sentence(formState.errors.passphrase.message)}
          >
            <Input
              type="password"
              maxLength={PASSPHRASE_MOST}
              autoComplete="new-password"
              {...register('passphrase')}
            />
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
