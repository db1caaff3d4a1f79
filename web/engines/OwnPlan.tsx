import { saysSomething } from '@zero-lash/core/bounds';
import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { EnginePlan, EngineView } from '@zero-lash/contract/engines';
import { useEffect, useRef, useState, type FormEvent } from 'react';
import { FormProvider } from 'react-hook-form';
import { problemFrom } from '../app/api.ts';
import { Labelled } from '../app/Labelled.tsx';
import { useKeptForm } from '../app/useKeptForm.ts';
import { useKeptText } from '../app/useKeptText.ts';
import { Note } from '../app/Note.tsx';
import { PartHeading } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { ShopTime } from '../app/ShopTime.tsx';
import { useRole } from '../app/useRole.ts';
import { PlanSteps } from '../sheets/PlanSteps.tsx';
import { FRESH_STEP, readPlan, stepsTyped, type StepValues } from '../sheets/planSteps.ts';
import { stepInWords } from '../sheets/words.ts';
import { useGiveEnginePlanMutation } from './endpoints.ts';

interface Props {
  readonly engine: EngineView;
  /** opens the form for a plan of its own */
  readonly onChange: () => void;
}

/** What an engine is looked at by: its sheet's plan, or one of its own and why. */
export function LookedAt({ engine, onChange }: Props) {
  const { mayLead } = useRole();
  const { plan } = engine;
  if (!plan) return null;
  return (
    <Box as="section" aria-label="Recheck plan">
      <PartHeading>Recheck plan</PartHeading>
      <ol>
        {plan.steps.map((step, index) => (
          <li key={index}>
            {index === 0 ? 'after ' : 'then after '}
            {stepInWords(step, engine.usageUnit)}
            {index > 0 && index === plan.steps.length - 1 && ', and so on'}
          </li>
        ))}
      </ol>
      {plan.steps.length === 0 && (
        <Box>By no plan: its sheet gives none, and no recheck is planned by itself. A lead gives it one.</Box>
      )}
      <Box fontSize="sm" color="faded">
        {plan.own ? (
          <>
            A plan of its own, by {plan.own.by}, <ShopTime at={plan.own.at} day />: {plan.own.why}
          </>
        ) : (
          'As its spec sheet says.'
        )}
      </Box>
      {mayLead && (
        <Button variant="plain" paddingX="0" onClick={onChange}>
          {plan.own ? 'Change its plan' : 'Give it a plan of its own'}
        </Button>
      )}
    </Box>
  );
}

/** The form in which a lead gives an engine a plan of its own, or lets it go by its sheet again. */
export function GivePlan({
  engine,
  plan,
  onDone,
}: {
  readonly engine: EngineView;
  readonly plan: EnginePlan;
  readonly onDone: () => void;
}) {
  const form = useKeptForm<{ plan: StepValues[] }>(`own-plan:${engine.id}`, {
    defaultValues: { plan: plan.steps.length > 0 ? stepsTyped(plan.steps) : [FRESH_STEP] },
  });
  const [why, setWhy] = useKeptText(`own-plan:${engine.id}:why`);
  const leave = () => {
    form.forget();
    setWhy('');
    onDone();
  };
  const [missing, setMissing] = useState(false);
  const [give, { error, isLoading }] = useGiveEnginePlanMutation();
  const box = useRef<HTMLDivElement>(null);
  // whoever asked for it far down the page is taken to it
  useEffect(() => {
    box.current?.scrollIntoView({ block: 'start' });
    box.current?.querySelector('input')?.focus({ preventScroll: true });
  }, []);
  const keys = new Set(engine.limits.map(({ point }) => point));
  const problem = problemFrom(error);
  const theirs = problem?.code === 'stale' ? (problem.current as EngineView) : null;
  async function send(steps: Parameters<typeof give>[0]['steps']) {
    setMissing(!saysSomething(why));
    if (!saysSomething(why)) return;
    const version = theirs?.version ?? engine.version;
    const answer = await give({ id: engine.id, steps, why: why.trim(), version });
    if (!('error' in answer)) leave();
  }
  async function keep(event: FormEvent) {
    event.preventDefault();
    form.clearErrors();
    const read = readPlan(form.getValues('plan'), engine.usageUnit, keys);
    for (const [field, message] of Object.entries(read.errors)) form.setError(field as 'plan', { message });
    if (read.plan) await send(read.plan);
  }
  return (
    <Box
      ref={box}
      as="section"
      aria-label={`A plan of its own for ${engine.name}`}
      border="1px solid"
      borderColor="ink"
      background="raised"
      padding="4"
      marginBottom="5"
    >
      <FormProvider {...form}>
        <form onSubmit={(event) => void keep(event)} noValidate>
          <PartHeading>A plan of its own</PartHeading>
          <Box display="grid" gap="4">
            <PlanSteps usageUnit={engine.usageUnit} />
            <Labelled label="Because" error={missing ? 'Say in a line why.' : undefined}>
              <Input value={why} maxLength={200} onChange={({ target }) => setWhy(target.value)} />
            </Labelled>
          </Box>
          <Box fontSize="sm" color="faded" marginTop="2">
            The maker’s manual and local rules govern: look no later, and at no fewer points, than they ask.
            Its next recheck is planned again, unless a lead moved that one or it is being measured.
          </Box>
          <ProblemNote error={error} />
          {theirs && engine.plan && (
            <Note>
              It is looked at after{' '}
              {engine.plan.steps.map((step) => stepInWords(step, engine.usageUnit)).join('; then ')} now
              {engine.plan.own && `, by ${engine.plan.own.by}: ${engine.plan.own.why}`}.
            </Note>
          )}
          <Flex gap="2" marginTop="4" flexWrap="wrap">
            <Button type="submit" variant="solid" loading={isLoading}>
              {theirs ? 'Keep mine all the same' : 'Keep its plan'}
            </Button>
            {plan.own && (
              <Button loading={isLoading} onClick={() => void send(null)}>
                By its sheet again
              </Button>
            )}
            <Button variant="plain" onClick={leave}>
              Cancel
            </Button>
          </Flex>
        </form>
      </FormProvider>
    </Box>
  );
}
