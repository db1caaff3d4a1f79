import { Box, Button, Flex, Input } from '@chakra-ui/react';
import { zodResolver } from '@hookform/resolvers/zod';
import { newEngine, type NewEngine } from '@zero-lash/contract/engines';
import { hasMeter } from '@zero-lash/core/rechecks';
import { Link, useNavigate } from 'react-router';
import { runningTyped } from '../app/figures.ts';
import { Labelled, Select } from '../app/Labelled.tsx';
import { useKeptForm } from '../app/useKeptForm.ts';
import { Empty, PartHeading } from '../app/Page.tsx';
import { lengthsOf } from '../app/lengthsOf.ts';
import { sentence } from '../app/sentence.ts';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useSheetsQuery } from '../sheets/endpoints.ts';
import { useAddEngineMutation } from './endpoints.ts';

const LENGTHS = lengthsOf(newEngine);

const isTooBig = ({ type }: { readonly type?: unknown }) => type === 'too_big';

/** Takes a new engine in: what it is called, whose it is, which pattern, and how far it has run. */
export function NewEngineForm({ onDone }: { readonly onDone: () => void }) {
  const { data: sheets } = useSheetsQuery();
  const published = sheets?.filter(({ status }) => status === 'published') ?? [];
  const [add, { error, isLoading }] = useAddEngineMutation();
  const navigate = useNavigate();
  const { register, handleSubmit, watch, formState, forget } = useKeptForm<NewEngine>('engine:new', {
    resolver: zodResolver(newEngine),
    defaultValues: { serial: '', owner: '', duty: '', place: '' },
  });
  const { errors } = formState;
  const unit = published.find(({ id }) => id === watch('sheetId'))?.usageUnit ?? 'hours';
  const send = async (engine: NewEngine) => {
    const result = await add(hasMeter(unit) ? engine : { ...engine, usage: 0 });
    if ('error' in result) return;
    forget();
    void navigate(`/engines/${result.data.id}`);
  };
  if (sheets && published.length === 0)
    return (
      <Empty>
        An engine needs a published spec sheet first. Look under <Link to="/sheets">Spec sheets</Link>.
      </Empty>
    );
  return (
    <Box as="section" border="1px solid" borderColor="ink" padding="4" marginBottom="5" background="raised">
      <PartHeading>New engine</PartHeading>
      <form onSubmit={handleSubmit(send)} noValidate>
        <Box display="grid" gap="4" gridTemplateColumns={{ base: '1fr', md: 'repeat(3, minmax(0, 1fr))' }}>
          <Labelled
            label="What it is called here"
            error={
              errors.name && (isTooBig(errors.name) ? sentence(errors.name.message!) : 'Give it a name.')
            }
          >
            <Input autoFocus {...register('name')} maxLength={LENGTHS.name} />
          </Labelled>
          <Labelled
            label="Pattern and spec sheet"
            error={errors.sheetId && 'Choose its pattern: nothing starts without limits.'}
          >
            <Select {...register('sheetId')}>
              <option value="">choose…</option>
              {published.map((sheet) => (
                <option key={sheet.id} value={sheet.id}>
                  {sheet.maker} {sheet.name}
                </option>
              ))}
            </Select>
          </Labelled>
          {hasMeter(unit) && (
            <Labelled
              label={`Has run, in ${unit}`}
              error={
                errors.usage &&
                (isTooBig(errors.usage) ? sentence(errors.usage.message!) : 'A number, 0 for a new engine.')
              }
            >
              <Input
                inputMode="decimal"
                {...register('usage', { setValueAs: runningTyped })}
                maxLength={12}
              />
            </Labelled>
          )}
          <Labelled label="Serial" error={errors.serial?.message && sentence(errors.serial.message)}>
            <Input {...register('serial')} maxLength={LENGTHS.serial} />
          </Labelled>
          <Labelled label="Owner" error={errors.owner?.message && sentence(errors.owner.message)}>
            <Input {...register('owner')} maxLength={LENGTHS.owner} />
          </Labelled>
          <Labelled label="What it drives" error={errors.duty?.message && sentence(errors.duty.message)}>
            <Input {...register('duty')} maxLength={LENGTHS.duty} />
          </Labelled>
          <Labelled label="Where it stands" error={errors.place?.message && sentence(errors.place.message)}>
            <Input {...register('place')} maxLength={LENGTHS.place} />
          </Labelled>
        </Box>
        <ProblemNote error={error} />
        <Flex gap="2" marginTop="4">
          <Button type="submit" variant="solid" loading={isLoading}>
            Add engine
          </Button>
          <Button
            variant="plain"
            onClick={() => {
              forget();
              onDone();
            }}
          >
            Cancel
          </Button>
        </Flex>
      </form>
    </Box>
  );
}
