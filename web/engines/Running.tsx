import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { EngineView } from '@zero-lash/contract/engines';
import { runningDoubt, type RunningDoubt } from '@zero-lash/core/rechecks';
import { useState, type FormEvent } from 'react';
import { dayInWords } from '../app/dates.ts';
import { grouped, runningTyped } from '../app/figures.ts';
import { Fold } from '../app/Fold.tsx';
import { Question } from '../app/Question.tsx';
import { Labelled, Select } from '../app/Labelled.tsx';
import { PartHeading } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useShopTimes } from '../people/useShopTimes.ts';
import { ShopTime } from '../people/ShopTime.tsx';
import { useLogUsageMutation } from './endpoints.ts';

/** What an engine has run: what its meter shows, over how many meters, and how the next figure is logged. */
export function Running({ engine, mayWork }: { readonly engine: EngineView; readonly mayWork: boolean }) {
  const meters = engine.usages.filter(({ newMeter }) => newMeter);
  return (
    <Box as="section">
      <PartHeading>Running</PartHeading>
      <Flex alignItems="baseline" gap="2">
        <Box fontSize="2xl" fontWeight="650" lineHeight="1">
          {grouped(engine.usage)}
        </Box>
        <Box color="faded">
          {engine.usageUnit}, read {dayInWords(engine.usageOn)}
        </Box>
      </Flex>
      {engine.running !== engine.usage && (
        <Box marginTop="1">
          <b>{grouped(engine.running)}</b> {engine.usageUnit} in all, over every meter it had: rechecks go by
          this.
        </Box>
      )}
      {meters.map(({ readAt, reason }) => (
        <Box key={readAt} fontSize="sm" color="faded">
          <ShopTime at={readAt} day />: {reason}
        </Box>
      ))}
      {engine.usages.length > 1 && <PastFigures engine={engine} />}
      {mayWork && <LogUsage engine={engine} />}
    </Box>
  );
}

/** Every figure that was logged, newest first. */
function PastFigures({ engine }: { readonly engine: EngineView }) {
  return (
    <Box fontSize="sm" marginTop="1">
      <Fold
        title={
          <Box as="span" color="faded">
            Logged {engine.usages.length} times
          </Box>
        }
        ruled="none"
      >
        <ul>
          {engine.usages.map(({ usage, readAt, reason, by }) => (
            <Flex as="li" key={readAt} gap="3" borderTop="1px solid" borderColor="hairline" paddingY="1">
              <b>
                {grouped(usage)} {engine.usageUnit}
              </b>
              <Box color="faded" marginLeft="auto" textAlign="right">
                <ShopTime at={readAt} day />, {by}
                {reason && `: ${reason}`}
              </Box>
            </Flex>
          ))}
        </ul>
      </Fold>
    </Box>
  );
}

/** Why a figure may be lower than the one before. */
type Lower = 'new-meter' | 'slip';

function LogUsage({ engine }: { readonly engine: EngineView }) {
  const [text, setText] = useState('');
  const [lower, setLower] = useState<Lower>('new-meter');
  const [lastOfOld, setLastOfOld] = useState<string>();
  const [startedAt, setStartedAt] = useState('0');
  const [reason, setReason] = useState('');
  const [complaint, setComplaint] = useState<string>();
  const [asked, setAsked] = useState<(RunningDoubt & { readonly typed: number }) | null>(null);
  const days = useShopTimes();
  const [send, { error, isLoading, reset }] = useLogUsageMutation();
  const typed = Math.round(runningTyped(text) * 10) / 10;
  const back = typed < engine.usage;
  const fitted = back && lower === 'new-meter';
  const meter = { lastOfOld: runningTyped(lastOfOld ?? engine.usage), startedAt: runningTyped(startedAt) };
  async function log(event: FormEvent) {
    event.preventDefault();
    const figures = [typed, ...(fitted ? Object.values(meter) : [])];
    if (figures.some((figure) => Number.isNaN(figure) || figure < 0)) {
      setComplaint('A number, as the meter shows it.');
      return;
    }
    setComplaint(undefined);
    const last = { usage: engine.usage, on: engine.usageOn };
    const doubt = back ? null : runningDoubt(typed, last, days.today(), engine.usageUnit);
    if (doubt && asked?.typed !== typed) setAsked({ ...doubt, typed });
    else await write(typed);
  }

  async function write(usage: number) {
    setAsked(null);
    const result = await send({ id: engine.id, usage, reason, newMeter: fitted ? meter : null });
    if ('error' in result) return;
    setText('');
    setReason('');
    setLastOfOld(undefined);
    setStartedAt('0');
  }
  return (
    <form onSubmit={(event) => void log(event)} noValidate>
      <Flex gap="2" alignItems="flex-end" marginTop="2">
        <Box flex="1">
          <Labelled label={`Now, in ${engine.usageUnit}`} error={complaint}>
            <Input
              value={text}
              inputMode="decimal"
              maxLength={12}
              onChange={(event) => {
                setText(event.target.value);
                setAsked(null);
                reset();
              }}
            />
          </Labelled>
        </Box>
        <Button type="submit" loading={isLoading}>
          Log
        </Button>
      </Flex>
      {back && (
        <Box marginTop="2" display="grid" gap="2">
          <Labelled label="Lower than before, because">
            <Select value={lower} onChange={(event) => setLower(event.target.value as Lower)}>
              <option value="new-meter">a new meter was fitted</option>
              <option value="slip">the last figure was a slip</option>
            </Select>
          </Labelled>
          {fitted && (
            <Flex gap="2">
              <Labelled label="The old one stopped at">
                <Input
                  value={lastOfOld ?? String(engine.usage)}
                  inputMode="decimal"
                  maxLength={12}
                  onChange={(event) => setLastOfOld(event.target.value)}
                />
              </Labelled>
              <Labelled label="The new one began at">
                <Input
                  value={startedAt}
                  inputMode="decimal"
                  maxLength={12}
                  onChange={(event) => setStartedAt(event.target.value)}
                />
              </Labelled>
            </Flex>
          )}
          <Labelled label={fitted ? 'Remark (may stay empty)' : 'What the slip was'}>
            <Input value={reason} maxLength={200} onChange={(event) => setReason(event.target.value)} />
          </Labelled>
        </Box>
      )}
      {asked && (
        <Question
          answers={[
            { label: 'Log it as typed', onChoose: () => void write(asked.typed) },
            ...(asked.meant === null
              ? []
              : [{ label: `Log ${grouped(asked.meant)}`, onChoose: () => void write(asked.meant!) }]),
          ]}
          onChange={() => setAsked(null)}
        >
          {grouped(asked.typed)} {engine.usageUnit} is more than can have been run since{' '}
          {grouped(engine.usage)} was logged.{' '}
          {asked.meant === null ? 'Is it right?' : `Did you mean ${grouped(asked.meant)}?`}
        </Question>
      )}
      <ProblemNote error={error} />
    </form>
  );
}
