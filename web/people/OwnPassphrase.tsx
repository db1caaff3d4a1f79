import { Box, Button, Input } from '@chakra-ui/react';
import { zodResolver } from '@hookform/resolvers/zod';
import { PASSPHRASE_MOST, ownPassphrase } from '@zero-lash/contract/people';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { z } from 'zod';
import { Labelled } from '../app/Labelled.tsx';
import { sentence } from '../app/sentence.ts';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useChangeOwnPassphraseMutation } from './endpoints.ts';
import { PASSPHRASE_RULE } from './roles.ts';

const typed = ownPassphrase
  .extend({ again: z.string() })
  .refine(({ passphrase, again }) => passphrase === again, {
    path: ['again'],
    error: 'the two are not alike',
  });
const NOTHING = { currentPassphrase: '', passphrase: '', again: '' };

/** Where a person gives themself another passphrase: one that nobody else has chosen, or seen. */
export function OwnPassphrase() {
  const [change, { error, isLoading }] = useChangeOwnPassphraseMutation();
  const [done, setDone] = useState(false);
  const { register, handleSubmit, formState, reset } = useForm({
    resolver: zodResolver(typed),
    defaultValues: NOTHING,
  });
  const send = handleSubmit(async ({ currentPassphrase, passphrase }) => {
    setDone(false);
    if ('error' in (await change({ currentPassphrase, passphrase }))) return;
    reset(NOTHING);
    setDone(true);
  });
  const { errors } = formState;
  return (
    <form noValidate onSubmit={send} aria-label="Your passphrase">
      <Box display="grid" gap="3" width="min(340px, 100%)">
        <Labelled
          label="Passphrase you have now"
          error={errors.currentPassphrase && 'Give the one you signed in with.'}
        >
          <Input
            type="password"
            maxLength={PASSPHRASE_MOST}
            autoComplete="current-password"
            {...register('currentPassphrase')}
          />
        </Labelled>
        <Labelled
          label="New passphrase"
          hint={PASSPHRASE_RULE}
          error={errors.passphrase?.message && sentence(errors.passphrase.message)}
        >
          <Input
            type="password"
            maxLength={PASSPHRASE_MOST}
            autoComplete="new-password"
            {...register('passphrase')}
          />
        </Labelled>
        <Labelled
          label="New passphrase, once more"
          error={errors.again?.message && sentence(errors.again.message)}
        >
          <Input
            type="password"
            maxLength={PASSPHRASE_MOST}
            autoComplete="new-password"
            {...register('again')}
          />
        </Labelled>
        <ProblemNote error={error} />
        {done && (
          <Box role="status" fontSize="sm">
            Changed. Every other device of yours is signed out.
          </Box>
        )}
        <Button type="submit" loading={isLoading} justifySelf="start">
          Change your passphrase
        </Button>
      </Box>
    </form>
  );
}
