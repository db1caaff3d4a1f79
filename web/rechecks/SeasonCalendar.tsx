import { Box, Button, Flex } from '@chakra-ui/react';
import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import type { RecheckRow, RecheckSearch } from '@zero-lash/contract/rechecks';
import { addDays, recheckDay } from '@zero-lash/core/rechecks';
import { useState } from 'react';
import { Link } from 'react-router';
import { dayInWords } from '../app/dates.ts';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useRole } from '../app/useRole.ts';
import { usePlanBenchDayMutation, useRechecksQuery } from './endpoints.ts';
import { PlanDay } from './PlanDay.tsx';

interface Props {
  readonly narrow: RecheckSearch;
  readonly today: string;
}

const WEEK = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
const WEEKS = 6;
/** Further than a finger trembles, so that a tap stays a tap; px. */
const DRAGS_FROM = 6;

/** The first day of the month that lies so many months on. */
function monthFrom(day: string, on: number): string {
  const [year, month] = day.split('-').map(Number);
  return new Date(Date.UTC(year!, month! - 1 + on, 1)).toISOString().slice(0, 10);
}

const mondayOf = (day: string) => addDays(day, -((new Date(`${day}T00:00:00Z`).getUTCDay() + 6) % 7));

/** Where a recheck stands: the day it is planned on the bench, or that it is expected on; overdue on today. */
const dayOf = (recheck: RecheckRow, today: string) => {
  const day = recheckDay(recheck, today)?.day ?? null;
  return day !== null && day < today ? today : day;
};

/** Planned rechecks over the days of a month: drag one to the day it is to stand on the bench, or choose it and type the day. */
export function SeasonCalendar({ narrow, today }: Props) {
  const { mayWork } = useRole();
  const [month, setMonth] = useState(monthFrom(today, 0));
  const [chosen, setChosen] = useState<string | null>(null);
  // of this month the weeks that are gone show nothing: it begins with this one
  const first = mondayOf(month === monthFrom(today, 0) ? today : month);
  const last = addDays(first, WEEKS * 7 - 1);
  const holdsToday = first <= today && last >= today;
  const { data } = useRechecksQuery({
    ...narrow,
    // what is overdue stands on today
    ...(holdsToday ? {} : { from: first }),
    ...{ to: last, limit: 500 },
  });
  const [plan, { error }] = usePlanBenchDayMutation();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: DRAGS_FROM } }),
    useSensor(KeyboardSensor),
  );
  const rechecks = data?.rechecks ?? [];
  const seasons = seasonsIn(rechecks);
  const drop = ({ active, over }: DragEndEvent) => {
    const recheck = rechecks.find(({ id }) => id === active.id);
    if (recheck && over && mayBe(recheck, String(over.id), today))
      void plan({ recheckId: recheck.id, day: String(over.id), version: recheck.version });
  };
  const selected = rechecks.find(({ id }) => id === chosen);
  return (
    <Box as="section" aria-label="Season calendar">
      <Flex gap="3" alignItems="center" marginBottom="2">
        <Button aria-label="The month before" onClick={() => setMonth(monthFrom(month, -1))}>
          ‹
        </Button>
        <Box fontWeight="650" minWidth="140px" textAlign="center" role="status">
          {dayInWords(month).split(' ').slice(1).join(' ')}
        </Box>
        <Button aria-label="The month after" onClick={() => setMonth(monthFrom(month, 1))}>
          ›
        </Button>
        <Button variant="plain" onClick={() => setMonth(monthFrom(today, 0))}>
          This month
        </Button>
      </Flex>
      {selected && (
        <Box borderLeft="4px solid" borderColor="brass" background="raised" padding="3" marginBottom="2">
          <Link to={`/builds/${selected.buildId}`}>{selected.engine}</Link>, {selected.owner}
          {mayWork && (
            <PlanDay key={selected.id} recheck={selected} today={today} onDone={() => setChosen(null)} />
          )}
        </Box>
      )}
      <ProblemNote error={error} />
      <DndContext sensors={sensors} onDragEnd={drop}>
        <div className="calendar-room">
          <div className="calendar">
            {WEEK.map((name) => (
              <div key={name} className="calendar-head">
                {name}
              </div>
            ))}
            {Array.from({ length: WEEKS * 7 }, (_, index) => addDays(first, index)).map((day) => (
              <Day
                key={day}
                day={day}
                today={today}
                outside={monthFrom(day, 0) !== month}
                season={seasons.find(({ from }) => from === day)}
                inSeason={seasons.some(({ from, until }) => from <= day && day <= (until ?? from))}
              >
                {rechecks
                  .filter((recheck) => dayOf(recheck, today) === day)
                  .map((recheck) => (
                    <Chip
                      key={recheck.id}
                      recheck={recheck}
                      movable={mayWork}
                      onChoose={() => setChosen((now) => (now === recheck.id ? null : recheck.id))}
                    />
                  ))}
              </Day>
            ))}
          </div>
        </div>
      </DndContext>
      <Box fontSize="sm" color="faded" marginTop="1">
        {mayWork &&
          'Drag one to the day it is to stand on the bench, no later than it is due; or choose it and type the day. '}
        {seasons.length > 0 && 'A brass edge runs along the days of a season. '}
        {seasons
          .filter(({ until }) => until === null)
          .map(({ season }) => `When ${season} ends nobody has said: only its first day is marked. `)}
      </Box>
    </Box>
  );
}

/** Whether an engine may be planned on a day: not in the past, and no later than it is due. */
function mayBe({ dueDate }: RecheckRow, day: string, today: string): boolean {
  return day >= today && (dueDate === null || day <= dueDate || dueDate < today);
}

interface Season {
  readonly season: string;
  readonly from: string;
  readonly until: string | null;
}

/** The seasons that the rechecks shown come before, each once. */
function seasonsIn(rechecks: readonly RecheckRow[]): readonly Season[] {
  const seasons = new Map<string, Season>();
  for (const { season, seasonFrom, seasonUntil } of rechecks)
    if (seasonFrom)
      seasons.set(`${season} ${seasonFrom} ${seasonUntil}`, {
        season: season || 'the season',
        from: seasonFrom,
        until: seasonUntil,
      });
  return [...seasons.values()];
}

interface DayProps {
  readonly day: string;
  readonly today: string;
  readonly outside: boolean;
  /** the season that begins on it */
  readonly season: Season | undefined;
  readonly inSeason: boolean;
  readonly children: React.ReactNode;
}

function Day({ day, today, outside, season, inSeason, children }: DayProps) {
  const { setNodeRef, isOver } = useDroppable({ id: day, disabled: day < today });
  return (
    <div
      ref={setNodeRef}
      className="calendar-day"
      data-outside={outside || undefined}
      data-today={day === today || undefined}
      data-over={isOver ? 'yes' : undefined}
      data-season={inSeason || undefined}
      data-day={day}
    >
      <small>
        {Number(day.slice(8))}
        {season && ` · ${season.season}${season.until ? `, to ${dayInWords(season.until)}` : ''}`}
      </small>
      {children}
    </div>
  );
}

interface ChipProps {
  readonly recheck: RecheckRow;
  readonly movable: boolean;
  readonly onChoose: () => void;
}

function Chip({ recheck, movable, onChoose }: ChipProps) {
  const { attributes, listeners, setNodeRef, transform } = useDraggable({
    id: recheck.id,
    disabled: !movable,
  });
  return (
    <button
      ref={setNodeRef}
      type="button"
      className="calendar-chip"
      data-state={recheck.state}
      data-benched={recheck.benchDay !== null || undefined}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
      {...attributes}
      {...listeners}
      onClick={onChoose}
    >
      {recheck.engine}
      {recheck.benchDay && ' · on the bench'}
    </button>
  );
}
