import { Box, Flex, Input } from '@chakra-ui/react';
import { hasLimits, type MeasuredPoint } from '@zero-lash/core/measuring';
import { bothNames, ROLE_WORDS } from '@zero-lash/core/sheets';
import { useRef, useState } from 'react';
import { Choice } from '../app/Choice.tsx';
import { Labelled } from '../app/Labelled.tsx';
import { useLengths } from '../app/lengths.ts';
import { Question } from '../app/Question.tsx';
import { useSession } from '../app/useSession.ts';
import { useShopTimes } from '../app/useShopTimes.ts';
import { DoubtQuestion } from './DoubtQuestion.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import type { PointState } from '../drawings/states.ts';
import { VerdictMark } from '../drawings/VerdictMark.tsx';
import type { TurningWork } from '../turning/useTurning.ts';
import { EMPTY_LINE, lineAfter, type Given, type LineEvent } from './columnLine.ts';
import { expectedAt } from './expectedAt.ts';
import type { RoundHere } from './pending.ts';
import { useBench } from '../instruments/useBench.ts';
import { afterTap } from '../app/afterTap.ts';

export interface ColumnRoundProps {
  readonly build: BuildView;
  readonly turning: TurningWork;
  readonly states: Readonly<Record<string, PointState>>;
  readonly blind: boolean;
  /** with what they are judged by */
  readonly points: readonly MeasuredPoint[];
  /** the round as a reading of a point is added to it */
  readonly roundAt: (key: string) => RoundHere;
}

/** What stands where limits would. */
const NO_LIMITS = 'limits to come';

const ORDERS = { stops: 'in the order of the stops', head: 'in the order of the head' } as const;
type Order = keyof typeof ORDERS;

/** A whole round typed straight down from paper: the same judgement, the same record, with what looks like a slip asked in its row. */
export function ColumnRound({ build, turning, states, blind, points, roundAt }: ColumnRoundProps) {
  const [order, setOrder] = useState<Order>('stops');
  const fields = useRef(new Map<string, HTMLInputElement>());
  const byStop = turning.progress.stops.flatMap(({ stop }) => stop.points);
  const keys =
    order === 'stops' && byStop.length > 0
      ? [...byStop, ...points.map(({ key }) => key).filter((key) => !byStop.includes(key))]
      : points.map(({ key }) => key);
  const times = useShopTimes();
  const me = useSession()?.person.name ?? '';
  const [by, setBy] = useState(me);
  // eslint-disable-next-line no-restricted-syntax -- the day of one round is not the next one’s
  const [when, setWhen] = useState('');
  const [openedAt] = useState(() => Date.now());
  const isToCome = when !== '' && Date.parse(when) > openedAt;
  // to the minute: whether it was measured before or after something was changed decides what it proves
  const takenAt = when === '' ? undefined : new Date(when).toISOString();
  const paper: Paper = {
    isToCome,
    takenAt,
    by: [
      by.trim() === '' || by.trim() === me ? '' : `measured by ${by.trim()}`,
      takenAt === undefined ? '' : `on ${times.moment(takenAt)}`,
    ]
      .filter(Boolean)
      .join(' '),
  };
  const onward = (key: string) => fields.current.get(keys[keys.indexOf(key) + 1] ?? '')?.focus();
  return (
    <Box as="section" aria-label="A round from paper">
      <Flex gap="3" flexWrap="wrap" marginBottom="2">
        <Box width="260px">
          <Labelled label="Points stand">
            <Choice of={ORDERS} value={order} onChoose={setOrder} />
          </Labelled>
        </Box>
        <Box width="200px">
          <Labelled label="Measured by">
            <Input value={by} maxLength={60} onChange={({ target }) => setBy(target.value)} />
          </Labelled>
        </Box>
        <Box width="220px">
          <Labelled label="When, if not now">
            <Input type="datetime-local" value={when} onChange={({ target }) => setWhen(target.value)} />
          </Labelled>
        </Box>
      </Flex>
      {isToCome && (
        <Box fontSize="sm" color="tight" role="alert">
          That has not come yet.
        </Box>
      )}
      <Box fontSize="sm" color="faded">
        Enter keeps a line and goes on to the next; leaving it keeps it too. Typed as anywhere: 0.15, 0.13
        0.15, &gt;0.10.
      </Box>
      {keys.map((key) => (
        <Row
          key={key}
          build={build}
          round={roundAt(key)}
          point={points.find((point) => point.key === key)!}
          state={states[key] ?? 'not-measured'}
          blind={blind}
          paper={paper}
          field={(element) => {
            if (element) fields.current.set(key, element);
            else fields.current.delete(key);
          }}
          onKept={() => onward(key)}
        />
      ))}
    </Box>
  );
}

/** What the paper says of all its figures. */
interface Paper {
  /** it cannot be of then: nothing is kept until that is put right */
  readonly isToCome: boolean;
  readonly takenAt: string | undefined;
  /** who measured and when, where that is not who types and today */
  readonly by: string;
}

interface RowProps extends Pick<ColumnRoundProps, 'build' | 'blind'> {
  readonly round: RoundHere;
  readonly point: MeasuredPoint;
  readonly state: PointState;
  readonly paper: Paper;
  readonly field: (element: HTMLInputElement | null) => void;
  readonly onKept: () => void;
}

function Row({ build, round, point, state, blind, paper, field, onKept }: RowProps) {
  const { unit, band, interval } = useLengths();
  const times = useShopTimes();
  const bench = useBench();
  const write = useBenchWrite(build.id);
  const [line, setLine] = useState(EMPTY_LINE);
  // leaving the field follows an Enter at once, before anything is drawn again
  const now = useRef(line);
  const { key } = point;
  const { text, complaint, asked, over } = line;
  const current = round.readings.find((row) => row.point === key && row.roundId === round.id);

  function go(event: LineEvent) {
    const step = lineAfter(now.current, event, {
      ...{ unit, expected: expectedAt(build, point) },
      // who looks blind is not told of it
      standsThere: current !== undefined && !blind,
      barred: paper.isToCome ? 'Put right first when it was measured.' : null,
    });
    now.current = step.line;
    setLine(step.line);
    if (step.write) keep(step.write);
    if (step.onward) onKept();
  }

  const keep = ({ reading, asTyped, doubtKept }: Given) =>
    write({
      kind: 'reading',
      roundId: round.id,
      body: {
        ...{ point: key, asTyped, doubtKept, blind, crankAngle: null },
        reading: structuredClone(reading) as never,
        instrumentId: bench.bladeSet?.id ?? null,
        over: current?.id ?? null,
        reason:
          current || paper.by !== '' ? `typed from paper${paper.by && `, ${paper.by}`}`.slice(0, 120) : '',
      },
      takenAt: paper.takenAt,
    });

  return (
    <Box borderBottom="1px solid" borderColor="hairline" paddingY="1">
      <Flex gap="3" alignItems="center">
        <Box width="60px" fontFamily="mono" fontWeight="650">
          {bothNames(build.sheet.pattern, key)}
        </Box>
        <Box width="190px" fontSize="sm" color="faded">
          {ROLE_WORDS[point.role]}, {hasLimits(point) ? band(point.min, point.max) : NO_LIMITS}
        </Box>
        <Input
          ref={field}
          aria-label={`Gap at ${key}, from paper`}
          aria-invalid={complaint ? true : undefined}
          width="160px"
          fontFamily="mono"
          value={text}
          maxLength={40}
          autoComplete="off"
          onChange={({ target }) => go({ kind: 'typed', text: target.value })}
          // what stands there is replaced by what is typed next
          onFocus={({ target }) => target.select()}
          onBlur={() => afterTap(() => go({ kind: 'left' }))}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return;
            event.preventDefault();
            go({ kind: 'enter' });
          }}
        />
        <VerdictMark state={state} withWord />
      </Flex>
      {complaint && (
        <Box fontSize="sm" color="tight" role="alert">
          {complaint}
        </Box>
      )}
      {asked && (
        <DoubtQuestion
          lengths={asked.lengths}
          meant={asked.meant}
          onUse={(meant) => go({ kind: 'use', meant })}
          onKeep={() => go({ kind: 'as-typed' })}
        />
      )}
      {over && current && (
        <Question
          answers={[
            { label: `Leave ${interval(current)}`, onChoose: () => go({ kind: 'leave-over' }) },
            { label: `Take ${over.asTyped} from the paper`, onChoose: () => go({ kind: 'take-over' }) },
          ]}
        >
          {current.by} has {interval(current)} here, of {times.moment(current.takenAt)}. Which stands?
        </Question>
      )}
    </Box>
  );
}
