import { Box, Button, Flex, Input } from '@chakra-ui/react';
import { zodResolver } from '@hookform/resolvers/zod';
import { engineChange, type EngineChange, type EngineView } from '@zero-lash/contract/engines';
import { problemFrom } from '../app/api.ts';
import { Labelled } from '../app/Labelled.tsx';
import { useKeptForm } from '../app/useKeptForm.ts';
import { lengthsOf } from '../app/lengthsOf.ts';
import { sentence } from '../app/sentence.ts';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useChangeEngineMutation } from './endpoints.ts';

const LENGTHS = lengthsOf(engineChange);

const said = (message: string | undefined) => message && sentence(message);

const FIELDS = [
  ['name', 'What it is called here'],
  ['serial', 'Serial'],
  ['owner', 'Owner'],
  ['duty', 'What it drives'],
  ['place', 'Where it stands'],
] as const;

/** Changes what an engine is called and whose it is; where somebody else changed it meanwhile, both are shown. */
export function EditEngine({ engine, onDone }: { readonly engine: EngineView; readonly onDone: () => void }) {
  const [change, { error, isLoading, reset: forget }] = useChangeEngineMutation();
  const {
    register,
    handleSubmit,
    formState,
    getValues,
    reset,
    forget: drop,
  } = useKeptForm<EngineChange>(`engine:${engine.id}`, {
    resolver: zodResolver(engineChange),
    defaultValues: {
      name: engine.name,
      serial: engine.serial,
      owner: engine.owner,
      duty: engine.duty,
      place: engine.place,
      version: engine.version,
    },
  });
  const problem = problemFrom(error);
  const theirs = problem?.code === 'stale' ? (problem.current as EngineChange) : null;
  const leave = () => {
    drop();
    onDone();
  };
  const send = async (values: EngineChange) => {
    const result = await change({ ...values, id: engine.id });
    if (!('error' in result)) leave();
  };
  return (
    <Box border="1px solid" borderColor="ink" background="raised" padding="4" marginBottom="5">
      <form onSubmit={handleSubmit(send)} noValidate>
        <Box display="grid" gap="4" gridTemplateColumns={{ base: '1fr', md: 'repeat(5, minmax(0, 1fr))' }}>
          {FIELDS.map(([field, label]) => (
            <Labelled
              key={field}
              label={label}
              error={said(formState.errors[field]?.message)}
              hint={
                theirs && theirs[field] !== getValues(field) ? `now: ${theirs[field] || 'empty'}` : undefined
              }
            >
              <Input {...register(field)} maxLength={LENGTHS[field]} />
            </Labelled>
          ))}
        </Box>
        <ProblemNote error={error} />
        <Flex gap="2" marginTop="4" flexWrap="wrap">
          {theirs ? (
            <>
              <Button
                variant="solid"
                loading={isLoading}
                onClick={() => void send({ ...getValues(), version: theirs.version })}
              >
                Keep mine
              </Button>
              <Button
                onClick={() => {
                  reset(theirs);
                  forget();
                }}
              >
                Take theirs into the form
              </Button>
            </>
          ) : (
            <Button type="submit" variant="solid" loading={isLoading}>
              Save
            </Button>
          )}
          <Button variant="plain" onClick={leave}>
            Cancel
          </Button>
        </Flex>
      </form>
    </Box>
  );
}
