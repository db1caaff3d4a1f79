import { Box, Button, Heading, Input } from '@chakra-ui/react';
import { zodResolver } from '@hookform/resolvers/zod';
import { PASSPHRASE_MOST, signIn, type SignIn } from '@zero-lash/contract/people';
import { useForm } from 'react-hook-form';
import { Navigate, useLocation } from 'react-router';
import { Labelled } from '../app/Labelled.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { MarkShape } from '../drawings/VerdictMark.tsx';
import { useSessionQuery, useSignInMutation } from '../app/session.ts';

/** Where a person says who they are. */
export default function SignInPage() {
  // a session that was ended leaves its last answer behind, with what it is refused with now
  const { data: session, isError: isRefused } = useSessionQuery();
  const [send, { error, isLoading }] = useSignInMutation();
  const { register, handleSubmit, formState } = useForm<SignIn>({ resolver: zodResolver(signIn) });
  const from = (useLocation().state as { from?: string } | null)?.from ?? '/';
  if (session && !isRefused) return <Navigate to={from} replace />;
  return (
    <Box minHeight="100%" display="grid" placeItems="center" padding="4">
      <Box
        as="main"
        width="100%"
        maxWidth="420px"
        border="1px solid"
        borderColor="ink"
        background="raised"
        padding="8"
        position="relative"
      >
        <svg width="72" height="40" viewBox="0 0 36 20" aria-hidden style={{ marginBottom: 12 }}>
          <path d="M0 2h36M0 18h36" stroke="var(--zl-colors-ink)" />
          <g transform="translate(10 2)">
            <MarkShape state="in-spec" />
          </g>
        </svg>
        <Heading as="h1" fontSize="2xl" fontWeight="650" lineHeight="1.1">
          Zero Lash
        </Heading>
        <Box color="faded" marginBottom="5">
          Clearances, wear and rechecks of every engine on this bench.
        </Box>
        <form onSubmit={handleSubmit((values) => send(values))} noValidate>
          <Box display="grid" gap="4">
            <Labelled label="Name" error={formState.errors.name && 'Type your name.'}>
              <Input autoComplete="username" autoFocus maxLength={60} {...register('name')} />
            </Labelled>
            <Labelled label="Passphrase" error={formState.errors.passphrase && 'Type your passphrase.'}>
              <Input
                type="password"
                maxLength={PASSPHRASE_MOST}
                autoComplete="current-password"
                {...register('passphrase')}
              />
            </Labelled>
            <ProblemNote error={error} />
            <Button type="submit" variant="solid" loading={isLoading}>
              Sign in
            </Button>
          </Box>
        </form>
      </Box>
    </Box>
  );
}
