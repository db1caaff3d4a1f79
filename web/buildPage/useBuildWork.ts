import type { BuildAbout, BuildView } from '../builds/buildView.ts';
import { layOutHeads, stepOnHead, type Step } from '@zero-lash/core/sheets';
import {
  isOpenRound,
  limitsOfStage,
  newestRound,
  nextToMeasure,
  passedOver,
  pointsSet,
  readingAt,
  roundOfStage,
  roundToRead,
  setAtItsStop,
  setsAsFound,
  settledPoints,
  stagesBefore,
  stageOf,
  type StageKey,
  pointsHeld,
} from '@zero-lash/core/builds';
import { pointsClosedAt } from '@zero-lash/core/turning';
import { unreachedIn, type MeasuredPoint } from '@zero-lash/core/measuring';
import { changesAt, leftAlone, openFound, passedBy, withoutReadings } from './atStage.ts';
import { headPoints, type LastChange } from './headPoints.ts';
import { useCallback, useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useLengths } from '../app/lengths.ts';
import { useShared } from '../app/useShared.ts';
import { useSame } from '../app/useSame.ts';
import { useStable } from '../app/useStable.ts';
import { useAppSelector } from '../app/store.ts';
import type { HeadPoint } from '../drawings/HeadDrawing.tsx';
import type { PointState } from '../drawings/states.ts';
import type { Round } from '@zero-lash/contract/measuring';
import { roundHere, withoutOthers, type RoundHere } from '../measuring/pending.ts';
import { withPending } from '../builds/pending.ts';
import { useSession } from '../app/useSession.ts';
import { useRole } from '../app/useRole.ts';
import { useCollected, type Collected } from './useCollected.ts';
import { pointWorkedOn, workOnPoint } from './place.ts';
import type { FeltHere } from '../measuring/PadsBeside.tsx';
import { arrivingAt, useTurning, type TurningWork } from '../turning/useTurning.ts';

const aboutOf = ({ rounds: _, ...about }: BuildView): BuildAbout => about;

/** A build as it is worked on here: the stage looked at, its round, the point selected, and the steps between them. */
export interface BuildWork {
  /** the build with what is pending applied to it */
  readonly build: BuildView;
  /** the same, without what is read: it stays the same object while gaps are read */
  readonly about: BuildAbout;
  readonly looking: StageKey;
  /** the round of the stage looked at, with what is pending */
  readonly here: RoundHere | undefined;
  /** the same, without what a second look must not see */
  readonly round: RoundHere | undefined;
  /** every point with what it is judged by here */
  readonly points: readonly MeasuredPoint[];
  /** that round as a reading of a point is added to it: where gaps are found and set in one lap, each says which it is */
  readonly roundAt: (key: string) => RoundHere;
  /** the round whose conditions are said here */
  readonly conditionsRound: Round | undefined;
  /** readings may be added to it now, as far as the build goes */
  readonly open: boolean;
  readonly mayWork: boolean;
  readonly turning: TurningWork;
  readonly shown: Readonly<Record<string, HeadPoint>>;
  /** what each point is, whether it is sent already or not */
  readonly states: Readonly<Record<string, PointState>>;
  readonly selected: MeasuredPoint;
  /** what was last changed at a point, as far as that bears on what is shown */
  readonly changed: LastChange;
  readonly blind: boolean;
  readonly setBlind: (blind: boolean) => void;
  readonly select: (key: string) => void;
  readonly look: (stage: StageKey | null) => void;
  /** looks at a stage; at the build's own again where it is that */
  readonly lookAt: (stage: StageKey) => void;
  /** points whose pieces are planned at the end of the lap, as long as it is on */
  readonly collected: readonly string[];
  readonly staysFor: Collected['staysFor'];
  /** valves of the selected one's cylinder that are felt by the same blades, with it, in their order on the head; none where it is alone */
  readonly beside: readonly FeltHere[];
  /** the points of the stop where the crank stands, or is being turned to, that are felt now */
  readonly feltHere: () => readonly FeltHere[];
  readonly onNext: () => void;
  readonly onWalk: (step: Step) => void;
}

/** States in which there is nothing to set: it is right, or nothing is known to set it by. */
const SETTLED: ReadonlySet<PointState> = new Set([
  'passed-over',
  'unopened',
  'unreached',
  'apart',
  'in-spec',
  'not-measured',
  'off-base',
  'changed-since',
  'bare',
]);

/** States in which a point is felt, where gaps are found and set in one lap. */
const TO_FEEL: ReadonlySet<PointState> = new Set(['not-measured', 'off-base']);

const isToFeel = (state: PointState | undefined) =>
  state !== undefined && (TO_FEEL.has(state) || state === 'changed-since' || state === 'before-turns');

/** The valves of a point's cylinder that are felt by the same two blades as it, with it. */
function sameBlades(points: readonly MeasuredPoint[], { cylinder, role, spec }: MeasuredPoint) {
  const same = points.filter(
    (each) =>
      each.cylinder === cylinder &&
      each.role === role &&
      each.spec?.min === spec?.min &&
      each.spec?.max === spec?.max,
  );
  return same.length > 1 ? same : [];
}

/** Everything a build's page shows and does, worked out once a render. */
export function useBuildWork(known: BuildView): BuildWork {
  const outbox = useAppSelector((state) => state.outbox.items);
  const build = useMemo(() => withPending(known, outbox), [known, outbox]);
  const about = useSame(aboutOf(build));
  const [search, setSearch] = useSearchParams();
  const [chosen, setChosen] = useState(() => pointWorkedOn(build.id));
  const asked = search.get('stage') as StageKey | null;
  const looking = asked && stagesBefore(build.job, build.stage).includes(asked) ? asked : build.stage;
  // found and set in one lap: what is out is set before the crank is turned on
  const inLap = setsAsFound(build.job, looking);
  const { figure, unit } = useLengths();
  const { mayWork } = useRole();
  const layout = useMemo(() => layOutHeads(build.sheet.pattern), [build.sheet.pattern]);
  const session = useSession();
  const [blind, setBlind] = useState(false);
  const here = useMemo(() => {
    const shownThere = roundOfStage(build, looking);
    return (
      shownThere && roundHere(shownThere, outbox, inLap ? newestRound(build.rounds, 'as-found') : undefined)
    );
  }, [build, looking, inLap, outbox]);
  const round = useMemo(
    () => (here && blind ? withoutOthers(here, session?.person.name ?? '') : here),
    [here, blind, session],
  );
  const kind = here?.kind ?? stageOf(looking).measures;
  const points = useMemo(
    () => pointsHeld(build.sheet, limitsOfStage(build, looking, kind), build.settings),
    [build.job, build.sheet, build.settings, build.ticks, looking, kind],
  );
  const open = looking === build.stage && isOpenRound(build, round);
  const done = useMemo(
    () => (stageOf(looking).sets ? pointsSet(build) : new Set<string>()),
    [build, looking],
  );
  const changed = useMemo(
    () => changesAt(build, looking),
    [build.settings, build.ticks, build.rounds, build.signOff, looking],
  );
  const aside = useMemo(
    () =>
      new Map([
        ...[...passedOver(points, here, build.rechecks)].map((key) => [key, 'passed-over'] as const),
        ...passedBy(build, looking),
        ...unreachedIn(here?.readings ?? []).map((key) => [key, 'unreached'] as const),
      ]),
    [points, here, build.rechecks, build.settings, build.ticks, build.rounds, looking],
  );
  const { points: pieces, staysFor } = useCollected(build, inLap);
  // the lap goes on past what is collected until every point was felt
  const lapIsOn = useMemo(
    () => inLap && points.some(({ key }) => !aside.has(key) && !readingAt(round, key)),
    [inLap, points, aside, round],
  );
  const collected = useMemo(() => (lapIsOn ? [...pieces] : []), [lapIsOn, pieces]);
  const settled = useMemo(
    () =>
      new Set([
        ...settledPoints(points, round, changed, stageOf(looking).sets ? leftAlone(build) : null),
        ...aside.keys(),
        ...collected,
      ]),
    [points, round, changed, looking, build.settings, aside, collected],
  );
  const turning = useTurning(build, round, settled);
  const closed = useMemo(
    () => (open ? pointsClosedAt(build.sheet.pattern, turning.turning.at) : null),
    [open, build.sheet.pattern, turning.turning.at],
  );
  const shown = useShared(
    useMemo(
      () => headPoints(points, round, figure, done, changed, closed, aside),
      [points, round, unit, done, changed, closed, aside],
    ),
  );
  const states = useShared(
    useMemo(() => Object.fromEntries(Object.entries(shown).map(([key, { state }]) => [key, state])), [shown]),
  );
  /** Points at which something is left to be set; in one lap those that were not felt yet too, and those to be felt again. */
  const leftToSet = () =>
    points.filter(({ key, role }) => {
      const state = shown[key]?.state;
      if (state === undefined) return false;
      if (inLap && TO_FEEL.has(state)) return true;
      if (collected.includes(key)) return false;
      // what is set at its stop is felt again before the crank is turned on
      if (inLap && state === 'changed-since') return setAtItsStop(build.sheet.pattern, role);
      return !SETTLED.has(state) && !done.has(key);
    });
  const selected = points.find(({ key }) => key === chosen) ?? firstToDo();
  const roundAt = useCallback(
    (key: string): RoundHere => {
      const into = inLap && round ? roundToRead(build, looking, key) : undefined;
      return into && into.id !== round!.id ? { ...round!, ...withoutReadings(into) } : round!;
    },
    [build, looking, round, inLap],
  );

  // the point being measured stays, though its first try may make another one the first to do
  if (chosen === null && open) choose(selected.key);

  function firstToDo() {
    if (stageOf(looking).sets) {
      const keys = leftToSet().map(({ key }) => key);
      const first = inLap ? nextAtStop(keys, null) : keys[0];
      return points.find(({ key }) => key === first) ?? points[0]!;
    }
    const left = points.filter(({ key }) => ['not-measured', 'off-base'].includes(shown[key]!.state));
    const { here, next } = turning.progress;
    const first = open ? (here?.left[0] ?? next?.left[0]) : undefined;
    const planned = left.find(({ key }) => key === first);
    return planned ?? left.find(({ key }) => closed?.has(key)) ?? left[0] ?? points[0]!;
  }

  /** The next of some points: one of the stop where the crank stands, as long as there is one; then of the next stop. */
  function nextAtStop(keys: readonly string[], from: string | null): string | undefined {
    const others = keys.filter((key) => key !== from);
    const { here, next } = turning.progress;
    const at = [here?.left, next?.left]
      .map((left = []) => others.filter((key) => left.includes(key)))
      .find((each) => each.length > 0);
    const order = points.map(({ key }) => key);
    const begin = from === null ? 0 : order.indexOf(from);
    const after = (key: string) => (order.indexOf(key) - begin + order.length) % order.length;
    return (at ?? others).toSorted((a, b) => after(a) - after(b))[0];
  }

  function choose(key: string | null) {
    setChosen(key);
    workOnPoint(build.id, key);
  }
  const select = useStable(choose);

  const look = useStable((stage: StageKey | null) => {
    choose(null);
    setSearch(stage ? { stage } : {}, { replace: true });
  });
  const lookAt = useStable((stage: StageKey) => look(stage === build.stage ? null : stage));

  const beside = useMemo(
    () =>
      (open ? sameBlades(points, selected) : []).map((point) => ({
        ...{ point, round: roundAt(point.key), toFeel: isToFeel(states[point.key]) },
      })),
    [open, points, selected, roundAt, states],
  );
  const feltHere = useStable(() => {
    const stop = (arrivingAt(turning) ?? turning.progress.here)?.stop;
    const here = points.filter(({ key }) => stop?.points.includes(key));
    return here.map((point) => ({
      ...{ point, round: roundAt(point.key), toFeel: isToFeel(states[point.key]) },
    }));
  });

  const onNext = useStable(() => {
    const next = stageOf(looking).sets
      ? nextAtStop(
          leftToSet().map(({ key }) => key),
          selected.key,
        )
      : nextToMeasure(
          points.filter(({ key }) => key === selected.key || !aside.has(key)),
          round,
          selected.key,
          turning.progress,
        );
    select(next ?? selected.key);
  });

  const onWalk = useStable((step: Step) => select(stepOnHead(layout, selected.key, step)));

  return useSame({
    build,
    about,
    looking,
    here,
    round,
    points,
    roundAt,
    conditionsRound: inLap ? (openFound(build.rounds) ?? here) : here,
    open,
    mayWork,
    turning,
    shown,
    states,
    selected,
    collected,
    staysFor,
    beside,
    feltHere,
    changed,
    blind,
    setBlind,
    select,
    look,
    lookAt,
    onNext,
    onWalk,
  });
}
