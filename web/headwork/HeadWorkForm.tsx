import { Box, Button, Flex, Input } from '@chakra-ui/react';
import { impossible, isUnusual } from '@zero-lash/core/bounds';
import {
  OPERATION_WORDS,
  operationsFor,
  type HeadOperation,
  type HeadWorkLine,
} from '@zero-lash/core/headwork';
import { parseLength } from '@zero-lash/core/length';
import { valvesOf, type Pattern } from '@zero-lash/core/sheets';
import { useState } from 'react';
import { v4 as makeId } from 'uuid';
import { numberTyped } from '@zero-lash/core/length';
import { Labelled, Select } from '../app/Labelled.tsx';
import { useUnit } from '../app/lengths.ts';
import { sentence } from '../app/sentence.ts';
import { Question } from '../app/Question.tsx';
import { useKeptText } from '../app/useKeptText.ts';

interface Props {
  readonly buildId: string;
  readonly pattern: Pattern;
  readonly onPlan: (about: string, lines: readonly HeadWorkLine[]) => void;
}

type Which = 'all' | 'intake' | 'exhaust' | string;

/** Plans one piece of work: at one valve, at all of a kind, or at all. */
export function HeadWorkForm({ buildId, pattern, onPlan }: Props) {
  const unit = useUnit();
  const operations = operationsFor(pattern);
  const valves = valvesOf(pattern);
  const [operation, setOperation] = useState<HeadOperation>('seat-cut');
  const [which, setWhich] = useState<Which>('all');
  const [depth, setDepth] = useKeptText(`head-work:${buildId}`);
  const [across, setAcross] = useState(false);
  const [angle, setAngle] = useState('45');
  const [complaint, setComplaint] = useState<string | null>(null);
  const [asked, setAsked] = useState<number | null>(null);
  const cuts = operation === 'seat-cut' || operation === 'face-cut';

  function plan(kept = false) {
    const read = parseLength(depth, unit);
    if ('error' in read || read.mm <= 0) return setComplaint('Say how deep, such as 0.10.');
    const cannotBe = impossible('cut', read.mm);
    if (cannotBe) return setComplaint(sentence(cannotBe));
    const seatAngle = cuts && across ? numberTyped(angle) : null;
    if (seatAngle !== null && !(seatAngle >= 0 && seatAngle < 90))
      return setComplaint('The angle of a seat is from 0 to under 90 degrees.');
    if (isUnusual('cut', read.mm) && !kept) return setAsked(read.mm);
    const chosen = valves.filter(({ key, role }) => which === 'all' || which === role || which === key);
    const step = makeId();
    const named = { step, operation, done: null, dropped: false };
    const deep =
      seatAngle === null
        ? { depth: read.mm, normalDepth: null, seatAngle }
        : { depth: null, normalDepth: read.mm, seatAngle };
    onPlan(
      OPERATION_WORDS[operation],
      chosen.map(({ key }) => ({ ...named, ...deep, valve: key })),
    );
    setDepth('');
    setComplaint(null);
    setAsked(null);
    return undefined;
  }

  return (
    <Box
      as="form"
      aria-label="Plan a piece of work"
      onSubmit={(event) => {
        event.preventDefault();
        plan();
      }}
    >
      <Flex gap="2" alignItems="flex-end" flexWrap="wrap">
        <Box width="290px">
          <Labelled label="Work">
            <Select value={operation} onChange={({ target }) => setOperation(target.value as HeadOperation)}>
              {operations.map((each) => (
                <option key={each} value={each}>
                  {OPERATION_WORDS[each]}
                </option>
              ))}
            </Select>
          </Labelled>
        </Box>
        <Box width="150px">
          <Labelled label="At">
            <Select value={which} onChange={({ target }) => setWhich(target.value)}>
              <option value="all">every valve</option>
              <option value="intake">every intake</option>
              <option value="exhaust">every exhaust</option>
              {valves.map(({ key }) => (
                <option key={key}>{key}</option>
              ))}
            </Select>
          </Labelled>
        </Box>
        <Box width="110px">
          <Labelled label={`How deep, ${unit}`}>
            <Input
              value={depth}
              maxLength={12}
              inputMode="decimal"
              onChange={({ target }) => {
                setDepth(target.value);
                setAsked(null);
              }}
            />
          </Labelled>
        </Box>
        {cuts && (
          <Box width="190px">
            <Labelled label="Measured">
              <Select
                value={across ? 'across' : 'along'}
                onChange={({ target }) => setAcross(target.value === 'across')}
              >
                <option value="along">along the valve</option>
                <option value="across">across its own face</option>
              </Select>
            </Labelled>
          </Box>
        )}
        {cuts && across && (
          <Box width="90px">
            <Labelled label="Angle, °">
              <Input
                value={angle}
                maxLength={12}
                inputMode="decimal"
                onChange={({ target }) => setAngle(target.value)}
              />
            </Labelled>
          </Box>
        )}
        <Button type="submit" variant="solid">
          Add to the work
        </Button>
      </Flex>
      {complaint && (
        <Box role="alert" fontSize="sm" color="tight">
          {complaint}
        </Box>
      )}
      {asked !== null && (
        <Question
          answers={[
            { label: `Keep as typed, ${asked} mm`, onChoose: () => plan(true) },
            {
              label: `Use ${Math.round(asked * 1000) / 10_000} mm`,
              onChoose: () => {
                setDepth(`${Math.round(asked * 1000) / 10_000}mm`);
                setAsked(null);
              },
            },
          ]}
        >
          {asked} mm is deep for one cut. Which is it?
        </Question>
      )}
    </Box>
  );
}
