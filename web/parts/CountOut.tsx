import { counted, numberTyped } from '@zero-lash/core/length';
import { Box, Button, Flex, Heading, Input } from '@chakra-ui/react';
import {
  isFastening,
  LEDGER_GROUPS,
  STAYS_ON,
  WAYS_ROUND,
  type LedgerGroup,
  type LedgerLine,
  type WayRound,
} from '@zero-lash/core/parts';
import { useState } from 'react';
import { Choice } from '../app/Choice.tsx';
import { Labelled, Select } from '../app/Labelled.tsx';
import { RefusedNotes } from '../app/RefusedNotes.tsx';
import { useKeptText } from '../app/useKeptText.ts';
import type { BuildView } from '../builds/buildView.ts';
import { TrayDrawing } from '../drawings/TrayDrawing.tsx';
import { CountField } from './CountField.tsx';
import { KeepForPattern } from './KeepForPattern.tsx';
import { useLedger, type LedgerWork } from './useLedger.ts';

/** Which way an arrow looks, as it is chosen. */
const ARROWS = Object.fromEntries(
  Object.entries(WAYS_ROUND).map(([key, words]) => [
    key,
    key === 'unsaid' ? 'arrow: not said' : `arrow ${words}`,
  ]),
) as Record<WayRound, string>;

/** What a cap of a cam is called in the list. */
const CAP = 'Cam cap';
const GROUPS = (Object.keys(LEDGER_GROUPS) as LedgerGroup[]).filter((group) => group !== 'wanted');

/** The count-out: what the sheet expects, group by group; what lies there as listed is counted at a word, and only exceptions are typed. */
export function CountOut({ build }: { readonly build: BuildView }) {
  const work = useLedger(build);
  const [group, setGroup] = useState<LedgerGroup>('cover');
  const lines = work.ledger.filter((line) => line.group === group);
  const left = lines.filter(({ out }) => out === null);
  const staying = work.staying.filter((line) => line.group === group);
  return (
    <Box as="section" aria-label="Parts off" display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="2">
      <Flex alignItems="flex-end" gap="3" flexWrap="wrap">
        <Box flex="1">
          <Heading as="h3" fontSize="lg" fontWeight="650">
            Parts off
          </Heading>
          <Box fontSize="sm" color="faded">
            {howFar(work)} Lay each part in its numbered place; the engine on the stand has the last word.
          </Box>
        </Box>
        <Box width="220px">
          <Labelled label="Group">
            <Select value={group} onChange={({ target }) => setGroup(target.value as LedgerGroup)}>
              {GROUPS.map((each) => (
                <option key={each} value={each}>
                  {LEDGER_GROUPS[each]}
                  {isCounted(work, each) ? ' ✓' : ''}
                </option>
              ))}
            </Select>
          </Labelled>
        </Box>
        {work.enabled && left.length > 0 && (
          <Button
            variant="solid"
            onClick={() =>
              work.write(
                `${LEDGER_GROUPS[group]} off`,
                left.map((line) => ({ ...line, out: line.expected })),
              )
            }
          >
            All of it as listed
          </Button>
        )}
        {work.enabled && left.length > 0 && left.length === lines.length && (
          <Button
            onClick={() =>
              work.write(
                `${LEDGER_GROUPS[group]} stay on`,
                left.map((line) => ({ ...line, note: STAYS_ON, dropped: true })),
              )
            }
          >
            All of it stays on
          </Button>
        )}
      </Flex>
      {staying.length > 0 && (
        <Flex gap="3" alignItems="center" flexWrap="wrap">
          <Box>
            {LEDGER_GROUPS[group]}: {counted(staying.length, 'line')} left on for this job.
          </Box>
          {work.enabled && (
            <Button
              onClick={() =>
                work.write(
                  `${LEDGER_GROUPS[group]} counted after all`,
                  staying.map((line) => ({ ...line, note: '', dropped: false })),
                )
              }
            >
              Put it back on the list
            </Button>
          )}
        </Flex>
      )}
      <Box>
        <AllCapsLook lines={lines} work={work} />
      </Box>
      <TrayDrawing ledger={work.ledger} group={group} />
      <LedgerTable lines={lines} work={work} side="out" />
      {work.enabled && <AddLine key={group} group={group} work={work} />}
      <KeepForPattern sheet={build.sheet} work={work} />
      <RefusedNotes buildId={build.id} which={({ kind }) => kind === 'ledger'} />
    </Box>
  );
}

/** Whether a group that has anything in it is counted out whole. */
function isCounted({ ledger }: LedgerWork, group: LedgerGroup): boolean {
  const lines = ledger.filter((line) => line.group === group);
  return lines.length > 0 && lines.every(({ out }) => out !== null);
}

function howFar({ ledger }: LedgerWork): string {
  const done = ledger.filter(({ out }) => out !== null).length;
  return `${done} of ${ledger.length} lines counted.`;
}

interface TableProps {
  readonly lines: readonly LedgerLine[];
  readonly work: LedgerWork;
  readonly side: 'out' | 'in';
}

/** Which way parts go, in a word. */
const OFF_OR_BACK = { out: 'off', in: 'back' } as const;

/** Lines of a ledger, one count a line. */
export function LedgerTable({ lines, work, side }: TableProps) {
  return (
    <Box
      overflowX="auto"
      tabIndex={0}
      role="region"
      aria-label={side === 'out' ? 'Lines of parts off' : 'Lines of parts back'}
    >
      <table>
        <thead>
          <Box as="tr" borderBottom="1px solid" borderColor="ink">
            <th scope="col">No.</th>
            <th scope="col">Part</th>
            <th scope="col">Place</th>
            <th scope="col">{side === 'out' ? 'Listed' : 'Off'}</th>
            <th scope="col">{side === 'out' ? 'Off' : 'Back'}</th>
            <th scope="col">
              <span className="spoken">Take it off the list</span>
            </th>
          </Box>
        </thead>
        <tbody>
          {lines.map((line, index) => {
            const name = [line.name, line.place].filter(Boolean).join(' ');
            return (
              <Box as="tr" key={line.key} borderBottom="1px solid" borderColor="hairline">
                <Box as="td" fontFamily="mono" color="faded">
                  {index + 1}
                </Box>
                <Box as="th" {...{ scope: 'row' }} fontWeight="600">
                  {line.name}
                  {line.note && (
                    <Box as="span" fontWeight="400" fontSize="sm" color="faded">
                      {' '}
                      {line.note}
                    </Box>
                  )}
                </Box>
                <td>
                  {work.enabled && side === 'out' && isFastening(line) ? (
                    <PlaceField
                      key={line.place}
                      label={`${name}, where it sat`}
                      place={line.place}
                      onPlace={(place) => work.write(`Where ${line.name} sat`, [{ ...line, place }])}
                    />
                  ) : (
                    line.place
                  )}
                  <WayOf
                    name={name}
                    way={line.way}
                    onWay={
                      work.enabled && side === 'out' && line.name === CAP
                        ? (way) => work.write(`${name} looks ${WAYS_ROUND[way]}`, [{ ...line, way }])
                        : null
                    }
                  />
                </td>
                <td>{side === 'out' ? line.expected : (line.out ?? '–')}</td>
                <td>
                  <CountField
                    label={`${name}, ${OFF_OR_BACK[side]}`}
                    count={line[side]}
                    enabled={work.enabled}
                    onCount={(count) =>
                      work.write(`${name} ${OFF_OR_BACK[side]}`, [{ ...line, [side]: count }])
                    }
                  />
                </td>
                <td>
                  {work.enabled && side === 'out' && (
                    <Button
                      variant="plain"
                      paddingX="1"
                      aria-label={`${name} is not on this engine`}
                      onClick={() => work.write(`${name} off the list`, [{ ...line, dropped: true }])}
                    >
                      None
                    </Button>
                  )}
                </td>
              </Box>
            );
          })}
        </tbody>
      </table>
    </Box>
  );
}

interface PlaceFieldProps {
  readonly label: string;
  readonly place: string;
  readonly onPlace: (place: string) => void;
}

/** Where something sat, written down as it comes off; kept when the field is left. */
function PlaceField({ label, place, onPlace }: PlaceFieldProps) {
  const [typed, setTyped] = useState(place);
  return (
    <Input
      aria-label={label}
      value={typed}
      maxLength={60}
      placeholder="where it sat"
      onChange={({ target }) => setTyped(target.value)}
      onBlur={() => typed.trim() !== place && onPlace(typed.trim())}
      onKeyDown={({ key, currentTarget }) => key === 'Enter' && currentTarget.blur()}
    />
  );
}

interface WayOfProps {
  readonly name: string;
  readonly way: WayRound;
  /** null where it is only shown */
  readonly onWay: ((way: WayRound) => void) | null;
}

/** Which way round a part sat: where its arrow looked. */
function WayOf({ name, way, onWay }: WayOfProps) {
  if (!onWay) return way === 'unsaid' ? null : <>, arrow {WAYS_ROUND[way]}</>;
  return (
    <Box display="inline-block" width="170px" marginLeft="3">
      <Choice aria-label={`${name}, its arrow looks`} of={ARROWS} value={way} onChoose={onWay} />
    </Box>
  );
}

/** Caps whose way round is not said yet: mostly all of them look the same way, and only exceptions are said. */
function AllCapsLook({ lines, work }: { readonly lines: readonly LedgerLine[]; readonly work: LedgerWork }) {
  const unsaid = lines.filter(({ name, way }) => name === CAP && way === 'unsaid');
  if (!work.enabled || unsaid.length === 0) return null;
  return (
    <Button
      onClick={() =>
        work.write(
          'Every cap’s arrow looks to the front',
          unsaid.map((line) => ({ ...line, way: 'front' })),
        )
      }
    >
      Every arrow looks to the front
    </Button>
  );
}

/** A part that the list has not. */
function AddLine({ group, work }: { readonly group: LedgerGroup; readonly work: LedgerWork }) {
  const [name, setName] = useKeptText(`part:${work.buildId}:${group}`);
  const [place, setPlace] = useKeptText(`part:${work.buildId}:${group}:place`);
  const [count, setCount] = useState('1');
  const understood = /^\d{1,3}$/.test(count.trim());
  return (
    <Flex
      as="form"
      aria-label="A part that is not on the list"
      gap="2"
      alignItems="flex-end"
      flexWrap="wrap"
      onSubmit={(event) => {
        event.preventDefault();
        if (name.trim() === '' || !understood) return;
        const line: LedgerLine = {
          ...{ key: `${group} ${name} ${place}`.trim().toLowerCase().slice(0, 80), group, name: name.trim() },
          ...{
            place: place.trim(),
            way: 'unsaid',
            expected: numberTyped(count),
            out: numberTyped(count),
            in: null,
            note: '',
            dropped: false,
          },
        };
        work.write(`${name.trim()} off`, [line]);
        setName('');
        setPlace('');
        setCount('1');
      }}
    >
      <Box flex="1" minWidth="160px">
        <Labelled label="Also there">
          <Input value={name} maxLength={60} onChange={({ target }) => setName(target.value)} />
        </Labelled>
      </Box>
      <Box flex="1" minWidth="160px">
        <Labelled label="Where">
          <Input value={place} maxLength={60} onChange={({ target }) => setPlace(target.value)} />
        </Labelled>
      </Box>
      <Box width="90px">
        <Labelled label="Count" error={understood ? undefined : 'A whole number.'}>
          <Input
            value={count}
            maxLength={3}
            inputMode="numeric"
            onChange={({ target }) => setCount(target.value)}
          />
        </Labelled>
      </Box>
      <Button type="submit" disabled={name.trim() === ''}>
        Add to the list
      </Button>
    </Flex>
  );
}
