// Long because a plan is read and worked off as one: what is chosen, what it comes to, and each move.
import { Box, Button, Flex, Heading } from '@chakra-ui/react';
import type { NewSetting } from '@zero-lash/contract/setting';
import { lastChange, SETTING } from '@zero-lash/core/builds';
import { judge } from '@zero-lash/core/measuring';
import { tenthsFromMm } from '@zero-lash/core/length';
import {
  besideTheEngine,
  feelSpread,
  moveOrder,
  piecePoints,
  planQuestions,
  type PiecePoint,
  type PlanAssignment,
  type PlanChange,
  type PlanChoices,
} from '@zero-lash/core/setting';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { Caution } from '../app/Caution.tsx';
import { Labelled, Select } from '../app/Labelled.tsx';
import { Note } from '../app/Note.tsx';
import { useLengths } from '../app/lengths.ts';
import { saveFile } from '../app/saveFile.ts';
import { Tick } from '../app/Tick.tsx';
import { bothNames } from '@zero-lash/core/sheets';
import type { BuildView } from '../builds/buildView.ts';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import { GapBar } from '../drawings/GapBar.tsx';
import { useRole } from '../app/useRole.ts';
import { useDrawerQuery } from './endpoints.ts';
import { useFeel } from './useFeel.ts';
import { writePlanCsv } from './planCsv.ts';
import type { Plans } from './plans.ts';
import { MovesDrawn } from './MovesDrawn.tsx';
import { Fitted, NotYet } from './NotYet.tsx';
import { OrderThese } from './OrderThese.tsx';
import { usePlans } from './usePlans.ts';
import { useWorkedPlan, type WorkedPlan } from './useWorkedPlan.ts';

/** mm off its aim at which a point that is in spec may be set again, where that is chosen. */
const OFF_BY = 0.02;

const WHICH: Readonly<
  Record<string, { readonly words: (off: string) => string; readonly change: PlanChange }>
> = {
  out: { words: () => 'what is out, or too near a limit', change: { rule: 'out-of-spec' } },
  off: { words: (off) => `that, and what is ${off} off its aim`, change: { rule: 'off-target', by: OFF_BY } },
  all: { words: () => 'every point', change: { rule: 'all' } },
};

/** How far inside the band a plan keeps where nothing is known of anybody's feel. */
const USUAL = feelSpread({ looks: [] }).guard;

/** What a person chooses by hand. */
type Chosen = Omit<PlanChoices, 'change' | 'guard'>;

/** Which piece goes where, over all points at once; nothing where nothing graded is fitted. */
export function ShimPlan({ build }: { readonly build: BuildView }) {
  const points = useMemo(() => piecePoints(build), [build]);
  return points.length === 0 ? null : <Plan build={build} points={points} />;
}

function Plan({ build, points }: { readonly build: BuildView; readonly points: readonly PiecePoint[] }) {
  const { mayWork } = useRole();
  const { data: drawer } = useDrawerQuery(undefined, { refetchOnMountOrArgChange: true });
  const { length } = useLengths();
  const [which, setWhich] = useState<keyof typeof WHICH>('out');
  const feel = useFeel();
  const guard = feel?.guard ?? USUAL;
  const [choices, setChoices] = useState<Chosen>({ reuse: true, drawer: true, keep: [], without: [] });
  const choose = (next: Partial<typeof choices>) => setChoices({ ...choices, ...next });
  const questions = useMemo(
    () => planQuestions(build, points, drawer, { ...choices, guard, change: WHICH[which]!.change }),
    [build, points, drawer, choices, guard, which],
  );
  const { plans, current, failed } = usePlans(questions);
  const chosen = useMemo(() => ({ choices, which }), [choices, which]);
  const [pressed, setPressed] = useState(false);
  const { worked, isOld, renew } = useWorkedPlan(build, points, plans, current, chosen, pressed);
  // wherever the finger is lifted, and after the tap has done what it does
  const letGo = () => void setTimeout(() => setPressed(false));
  const press = () => {
    setPressed(true);
    for (const end of ['pointerup', 'pointercancel']) window.addEventListener(end, letGo, { once: true });
  };
  const enabled = mayWork && !build.closedAt && build.stage === SETTING;
  return (
    <Box as="section" aria-label="Shim plan" display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="2">
      <Heading as="h3" fontSize="lg" fontWeight="650">
        Shim plan
      </Heading>
      <Flex gap="4" alignItems="flex-end" flexWrap="wrap">
        <Box width="260px">
          <Labelled label="May be changed">
            <Select value={which} onChange={({ target }) => setWhich(target.value)}>
              {Object.entries(WHICH).map(([key, { words }]) => (
                <option key={key} value={key}>
                  {words(length(OFF_BY))}
                </option>
              ))}
            </Select>
          </Labelled>
        </Box>
        <Tick
          label="May change places"
          checked={choices.reuse}
          onChange={({ target }) => choose({ reuse: target.checked })}
        />
        <Tick
          label="From the drawer"
          checked={choices.drawer}
          onChange={({ target }) => choose({ drawer: target.checked })}
        />
        <Link to="/drawer">The drawer</Link>
      </Flex>
      <NotYet points={points} build={build} enabled={enabled} />
      {failed && <Caution>No plan was made: {failed}</Caution>}
      {worked && worked.plans.plan.totals.points > 0 && (
        <Box aria-busy={!current} onPointerDown={press}>
          <WaysCompared plans={worked.plans} />
          <Moves
            build={build}
            points={points}
            worked={worked}
            choices={choices}
            onChoose={choose}
            enabled={enabled}
          />
          {isOld && (
            <Note tone="brass" role="status" marginTop="2">
              What was fitted or measured since calls for other moves.{' '}
              <Button onClick={renew}>Make the plan again</Button>
            </Note>
          )}
        </Box>
      )}
      <Fitted points={points} />
    </Box>
  );
}

/** The plan beside the simple ways: what each would buy, and how many points it brings in for certain. */
function WaysCompared({ plans: { plan, buyAll, noneBought } }: { readonly plans: Plans }) {
  const bought = ({ ordered, price, unsolved, points, certain }: Plans['buyAll']) =>
    `${ordered} to buy${price > 0 ? `, ${price.toFixed(2)}` : ''}; ${certain} of ${points} certain${unsolved > 0 ? `, ${unsolved} still out` : ''}`;
  return (
    <Box as="dl" display="grid" gridTemplateColumns="max-content 1fr" columnGap="4" rowGap="1" marginY="2">
      <Box as="dt" fontWeight="650">
        This plan
      </Box>
      <Box as="dd" fontWeight="650">
        {bought(plan.totals)}
      </Box>
      <dt>Buy all</dt>
      <dd>{bought(buyAll)}</dd>
      <dt>Buy none</dt>
      <dd>{bought(noneBought)}</dd>
    </Box>
  );
}

interface MovesProps {
  readonly build: BuildView;
  /** as they are now */
  readonly points: readonly PiecePoint[];
  readonly worked: WorkedPlan;
  readonly choices: Chosen;
  readonly onChoose: (next: Partial<Chosen>) => void;
  readonly enabled: boolean;
}

/** Each move in the order it is made, to be ticked off as it is fitted; then what stays as it is. */
function Moves({ build, points: now, worked, choices, onChoose, enabled }: MovesProps) {
  const { plans, points, done } = worked;
  const put = useBenchWrite(build.id);
  const { length, figure, unit } = useLengths(points[0]?.point.stamped);
  const { assignments, orders, leftOver } = plans.plan;
  const of = (key: string) => points.find(({ point }) => point.key === key);
  const moving = assignments.filter(
    ({ touched, source }) => touched && source !== 'keep' && source !== 'none',
  );
  const order = moveOrder(moving.map(({ key, from = null }) => ({ key, from })));
  const unsolved = assignments.filter(({ status, touched }) => touched && status === 'unsolved');
  // where nothing is brought in, what is in stays in
  const stuck = new Set(unsolved.map(({ key }) => key));
  const freed = leftOver.filter(({ from }) => !stuck.has(from));
  const wantedElsewhere = new Set(moving.flatMap(({ from }) => (from === undefined ? [] : [from])));
  const { tray, gone } = useMemo(() => besideTheEngine(build.settings), [build.settings]);

  const fittedNow = (key: string, { thickness }: PlanAssignment) =>
    tenthsFromMm(lastChange(build.settings, key)?.fitted ?? 0) === tenthsFromMm(thickness!);

  function fitted({ key, thickness, source, from: giver }: PlanAssignment): void {
    // what comes out is what is in by now
    const { installed: isIn, bare, worn } = now.find(({ point }) => point.key === key)!;
    // where nothing is in nothing comes out
    const installed = bare ? null : isIn;
    // what lies in the tray already comes from the engine, though the planner counts it as stock
    const fromTray = source === 'stock' && tray.some((each) => Math.abs(each - thickness!) < 1e-4);
    const from: NewSetting['from'] =
      source === 'removed' || fromTray ? 'engine' : source === 'order' ? 'bought' : 'drawer';
    put({
      kind: 'setting',
      body: {
        ...{ point: key, kind: 'fitted', installed, fitted: thickness, note: 'as planned' },
        from,
        to: bare
          ? 'unsaid'
          : worn
            ? 'scrapped'
            : wantedElsewhere.has(key) || gone.has(key)
              ? 'engine'
              : 'drawer',
        giver: giver ?? null,
      },
    });
  }

  return (
    <>
      <ChartsSay points={points} />
      {unsolved.map(({ key }) => (
        <Caution key={key}>{noneFits(of(key)!, length)}</Caution>
      ))}
      {order.length === 0 && unsolved.length === 0 && (
        <Box>Nothing is to be changed: what is in leaves every point in its band.</Box>
      )}
      {order.length > 0 && (
        <MovesDrawn
          build={build}
          points={points}
          moves={order}
          into={new Map(moving.map(({ key, thickness }) => [key, thickness!]))}
        />
      )}
      {order.length > 0 && (
        <Box overflowX="auto" tabIndex={0} role="region" aria-label="Moves of the plan">
          <Box as="table" css={{ '& td, & th': { paddingInlineEnd: '14px' }, '& svg': { flexShrink: 0 } }}>
            <thead>
              <Box as="tr" borderBottom="1px solid" borderColor="ink">
                <th scope="col">No.</th>
                <th scope="col">Point</th>
                <th scope="col">Out, {unit}</th>
                <th scope="col">In, {unit}</th>
                <th scope="col">From</th>
                <th scope="col">Leaves</th>
                <th scope="col">
                  <span className="spoken">Fitted or not</span>
                </th>
              </Box>
            </thead>
            <tbody>
              {order.map(({ key, from, waits }, index) => {
                const move = moving.find((each) => each.key === key)!;
                return (
                  <Box as="tr" key={key} borderBottom="1px solid" borderColor="hairline">
                    <Box as="td" fontFamily="mono" color="faded">
                      {index + 1}
                    </Box>
                    <Box as="th" {...{ scope: 'row' }} fontFamily="mono">
                      {bothNames(build.sheet.pattern, key)}
                    </Box>
                    <td>
                      {of(key)!.bare ? 'none' : figure(of(key)!.installed!)}
                      {waits && <b>, laid aside</b>}
                    </td>
                    <Box as="td" fontWeight="650">
                      {figure(move.thickness!)}
                    </Box>
                    <Box as="td" whiteSpace="nowrap">
                      {from !== null ? `out of ${from}` : SOURCE_WORDS[move.source]}
                    </Box>
                    <td>
                      <After each={of(key)!} move={move} />
                    </td>
                    <td>
                      {done.has(key) ? (
                        <Flex minHeight="44px" alignItems="center" color="faded">
                          {fittedNow(key, move) ? 'fitted' : 'changed since'}
                        </Flex>
                      ) : (
                        <Flex gap="1">
                          <Button
                            aria-label={`${key}: fitted`}
                            disabled={!enabled || move.source === 'order'}
                            onClick={() => fitted(move)}
                          >
                            Fitted
                          </Button>
                          <Button
                            variant="plain"
                            paddingX="1"
                            aria-label={`${key}: another one`}
                            onClick={() =>
                              onChoose({ without: [...choices.without, { key, thickness: move.thickness! }] })
                            }
                          >
                            Another
                          </Button>
                          <Button
                            variant="plain"
                            paddingX="1"
                            aria-label={`${key}: keep what is in`}
                            onClick={() => onChoose({ keep: [...choices.keep, key] })}
                          >
                            Keep
                          </Button>
                        </Flex>
                      )}
                    </td>
                  </Box>
                );
              })}
            </tbody>
          </Box>
        </Box>
      )}
      <Said choices={choices} onChoose={onChoose} stamped={points[0]?.point.stamped} />
      {orders.length > 0 && (
        <Box marginTop="2">
          <b>To buy:</b> {orders.map(({ thickness, qty }) => `${length(thickness)} × ${qty}`).join(', ')}.
          <OrderThese build={build} points={points} plans={plans} enabled={enabled} />
        </Box>
      )}
      {freed.length > 0 && (
        <Box>
          <b>Left over, into the drawer:</b>{' '}
          {freed.map(({ thickness, from }) => `${length(thickness)} of ${from}`).join(', ')}
        </Box>
      )}
      <Box marginTop="2">
        <Button
          onClick={() =>
            saveFile(`shim-plan-${build.engine.name}-${build.number}.csv`, writePlanCsv(points, plans.plan))
          }
        >
          Save as CSV
        </Button>
      </Box>
    </>
  );
}

const SOURCE_WORDS: Readonly<Record<PlanAssignment['source'], string>> = {
  keep: 'stays',
  removed: 'out of another',
  stock: 'the drawer',
  order: 'to buy',
  none: '',
};

/** Where the maker prints a chart it governs: what it says at each point it has a place for. */
function ChartsSay({ points }: { readonly points: readonly PiecePoint[] }) {
  const { length } = useLengths(points[0]?.point.stamped);
  const said = points.filter(({ chart }) => chart !== undefined && chart !== 'keep');
  if (said.length === 0) return null;
  return (
    <Box fontSize="sm">
      The maker’s chart governs:{' '}
      {said
        .map(
          ({ point, chart }) => `${point.key} ${chart === null ? 'none printed' : length(chart as number)}`,
        )
        .join(', ')}
      .
    </Box>
  );
}

/** What no size made does: how thick a piece it would take. */
function noneFits(
  { point, gap, installed, target, gain }: PiecePoint,
  length: (mm: number) => string,
): string {
  const needed = installed! + ((gap!.lo + gap!.hi) / 2 - target) / gain;
  return `${point.key}: no piece made or at hand brings it into spec. It would take ${length(Math.round(needed * 1000) / 1000)}${needed < installed! ? ', thinner than is made: look at the stem and the seat first.' : '.'}`;
}

/** What a move leaves, against the band. */
function After({ each, move }: { readonly each: PiecePoint; readonly move: PlanAssignment }) {
  const { figure, interval } = useLengths();
  const { min, max, limits } = each.point;
  const gap = { lo: move.lo!, hi: move.hi! };
  const { verdict } = judge(
    { lo: tenthsFromMm(gap.lo), hi: tenthsFromMm(gap.hi), floor: gap.lo >= 0 },
    limits,
  );
  return (
    <Flex alignItems="center" gap="2">
      <GapBar min={min} max={max} gap={gap} state={verdict} width={120} figure={figure} />
      <Box whiteSpace="nowrap">
        {interval(gap)}
        {move.status === 'likely' && <b>, likely only</b>}
      </Box>
    </Flex>
  );
}

/** What was locked or barred by hand, each with a way to take it back. */
interface SaidProps extends Pick<MovesProps, 'choices' | 'onChoose'> {
  /** the unit the pieces are stamped in */
  readonly stamped: 'mm' | 'thou' | undefined;
}

function Said({ choices, onChoose, stamped }: SaidProps) {
  const { length } = useLengths(stamped);
  if (choices.keep.length === 0 && choices.without.length === 0) return null;
  return (
    <Flex gap="2" flexWrap="wrap" marginTop="2" alignItems="center">
      By hand:
      {choices.keep.map((key) => (
        <Button key={key} onClick={() => onChoose({ keep: choices.keep.filter((other) => other !== key) })}>
          {key} keeps what is in ✕
        </Button>
      ))}
      {choices.without.map(({ key, thickness }) => (
        <Button
          key={`${key} ${thickness}`}
          onClick={() =>
            onChoose({
              without: choices.without.filter((one) => one.key !== key || one.thickness !== thickness),
            })
          }
        >
          {key} without {length(thickness)} ✕
        </Button>
      ))}
    </Flex>
  );
}
