import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { EngineView } from '@zero-lash/contract/engines';
import { hasMeter, runningWarning, type RunningWarning } from '@zero-lash/core/rechecks';
import { useState, type FormEvent } from 'react';
import { dayInWords } from '../app/dates.ts';
import { grouped, runningTyped } from '../app/figures.ts';
import { Fold } from '../app/Fold.tsx';
import { Question } from '../app/Question.tsx';
import { Labelled, Select } from '../app/Labelled.tsx';
import { PartHeading } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useShopTimes } from '../app/useShopTimes.ts';
import { ShopTime } from '../app/ShopTime.tsx';
import { WithReason } from '../app/WithReason.tsx';
import { useRole } from '../app/useRole.ts';
import { useKeptText } from '../app/useKeptText.ts';
import { useLogUsageMutation, useStrikeUsageMutation } from './endpoints.ts';

/** What an engine has run: what its meter shows, over how many meters, and how the next figure is logged. */
export function Running({ engine, mayWork }: { readonly engine: EngineView; readonly mayWork: boolean }) {
  if (!hasMeter(engine.usageUnit))
    return (
      <Box as="section">
        <PartHeading>Running</PartHeading>
        No meter: it is looked at by date, heat cycles and season.
        {engine.heatCycles > 0 && ` Heat cycles in all: ${engine.heatCycles}.`}
      </Box>
    );
  const meters = engine.usages.filter(({ newMeter, struck }) => newMeter && !struck);
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
          {engine.usages.map((figure) => (
            <PastFigure key={figure.id} engine={engine} figure={figure} />
          ))}
        </ul>
      </Fold>
    </Box>
  );
}

/** One figure of the log; a lead strikes out what cannot be, and what follows from the log is reckoned again. */
function PastFigure({
  engine,
  figure: { id, usage, readAt, reason, by, newMeter, struck },
}: {
  readonly engine: EngineView;
  readonly figure: EngineView['usages'][number];
}) {
  const { mayLead } = useRole();
  const [removeLogged, { data, error, isLoading }] = useStrikeUsageMutation();
  return (
    <Box as="li" borderTop="1px solid" borderColor="hairline" paddingY="1">
      <Flex gap="3">
        <Box as={struck ? 's' : 'b'}>
          {grouped(usage)} {engine.usageUnit}
        </Box>
        <Box color="faded" marginLeft="auto" textAlign="right">
          <ShopTime at={readAt} day />, {by}
          {reason && `: ${reason}`}
        </Box>
      </Flex>
      {struck && (
        <Box color="faded">
          Struck out by {struck.by}, <ShopTime at={struck.at} day />: {struck.why}
        </Box>
      )}
      {data?.moved.map(({ sequence, from, to }) => (
        <Box key={sequence} role="status">
          Recheck {sequence} moved with it: due at {grouped(to)} run in all, and not at {grouped(from)}.
        </Box>
      ))}
      {mayLead && !struck && engine.usages.length > 1 && (
        <WithReason
          draft={`strike:${id}`}
          ask={newMeter ? 'Undo this change of meter…' : 'Strike out…'}
          label="Because"
          action="Strike it out"
          missing="Say in a line why: a slip, another engine’s, a clock that was wrong."
          follows="It stays here, and counts for nothing. What was run in all, and when rechecks are due, is reckoned again."
          most={200}
          busy={isLoading}
          onDo={async (why) => !('error' in (await removeLogged({ id: engine.id, usage: id, why })))}
        />
      )}
      <ProblemNote error={error} />
    </Box>
  );
}

/** Why a figure may be lower than the one before. */
type Lower = 'new-meter' | 'slip' | '';

function LogUsage({ engine }: { readonly engine: EngineView }) {
  const [text, setText] = useKeptText(`run:${engine.id}`);
  const [lower, setLower] = useState<Lower>('');
  const [lastOfOld, setLastOfOld] = useKeptText(`run:${engine.id}:old-meter`);
  const [startedAt, setStartedAt] = useKeptText(`run:${engine.id}:new-meter`, '0');
  const [reason, setReason] = useKeptText(`run:${engine.id}:reason`);
  const [complaint, setComplaint] = useState<string>();
  const [asked, setAsked] = useState<(RunningWarning & { readonly typed: number }) | null>(null);
  const days = useShopTimes();
  const [send, { error, isLoading, reset }] = useLogUsageMutation();
  const typed = Math.round(runningTyped(text) * 10) / 10;
  const back = typed < engine.usage;
  const fitted = back && lower === 'new-meter';
  const meter = { lastOfOld: runningTyped(lastOfOld), startedAt: runningTyped(startedAt) };
  async function log(event: FormEvent) {
    event.preventDefault();
    const figures = [typed, ...(fitted ? Object.values(meter) : [])];
    if (figures.some((figure) => Number.isNaN(figure) || figure < 0)) {
      setComplaint('A number, as the meter shows it.');
      return;
    }
    if (back && lower === '') {
      setComplaint('Lower than before: say whether a new meter was fitted, or the last figure was a slip.');
      return;
    }
    setComplaint(undefined);
    const last = { usage: engine.usage, on: engine.usageOn };
    const warning = back ? null : runningWarning(typed, last, days.today(), engine.usageUnit);
    if (warning && asked?.typed !== typed) setAsked({ ...warning, typed });
    else await write(typed, asked?.typed === typed);
  }

  async function write(usage: number, sure: boolean) {
    setAsked(null);
    const result = await send({ id: engine.id, usage, reason, sure, newMeter: fitted ? meter : null });
    if ('error' in result) return;
    setText('');
    setReason('');
    setLower('');
    setLastOfOld('');
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
              <option value="">say which</option>
              <option value="new-meter">a new meter was fitted</option>
              <option value="slip">the last figure was a slip</option>
            </Select>
          </Labelled>
          {fitted && (
            <Flex gap="2">
              <Labelled label={`The old one stopped at (last read ${grouped(engine.usage)})`}>
                <Input
                  value={lastOfOld}
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
            { label: 'Log it as typed', onChoose: () => void write(asked.typed, true) },
            ...(asked.meant === null
              ? []
              : [{ label: `Log ${grouped(asked.meant)}`, onChoose: () => void write(asked.meant!, false) }]),
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
