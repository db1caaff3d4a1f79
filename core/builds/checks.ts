import { lashPoints, rolesOf, type Pattern } from '../sheets/index.ts';
import { isAssembly, isPass, passesOf, type AssemblyStep, type Fastening } from '../assembly/index.ts';
import { LEDGER_EXPLAINED } from './closing.ts';
import { pointAccepted } from './accepted.ts';
import { bridgedPoints, bridgeOf } from './bridges.ts';
import { disturbances, headsToTorque, lastDisturbed, slackenedInWords } from './disturbed.ts';
import { heatCyclesOf, isHeatCycle, NO_RUN_IN, type RunInSays } from './heatCycles.ts';
import { heldDownToSet, mayBeBare, pointHeldDown, TURNED_BARE } from './holds.ts';
import type { KeptBuild, KeptTick } from './standing.ts';
import { goesOn } from './stageMove.ts';
import { stageOf, type StageKey } from './stages.ts';

/** What a sheet says of putting an engine together. */
interface SaysOfAssembly {
  readonly torques?: readonly Fastening[];
  readonly assembly?: readonly AssemblyStep[];
  readonly runIn?: RunInSays;
}

/**
 * Says whether a stage of an engine has a check: its own ones, what may be slackened where points are set, a tool that holds
 * a valve down there, a bridge that is balanced first, the passes of
 * a tightening there and where it is closed, the heat cycles that its sheet asks for, a ledger that a lead explains, and a lead's acceptance of a point where it is proved.
 *
 * @example hasCheck('set', 'head-A', pattern) // true
 */
export function hasCheck(
  key: StageKey,
  check: string,
  pattern: Pattern,
  { torques = [], assembly = [], runIn = NO_RUN_IN }: SaysOfAssembly = {},
): boolean {
  const { checks, sets, measures, demands } = stageOf(key);
  const closes = demands.includes('signed-off');
  if (isPass(check)) return (sets || closes) && passesOf(torques).some((pass) => pass.key === check);
  if (sets && isAssembly(check, assembly)) return true;
  if (closes && check === LEDGER_EXPLAINED) return true;
  if (closes && heatCyclesOf(runIn).includes(check)) return true;
  if (checks.some((each) => each.key === check)) return true;
  const held = pointHeldDown(check);
  if (sets && held !== null) return heldDownToSet(pattern).includes(held);
  const bridge = bridgeOf(check);
  if (sets && check === TURNED_BARE) return rolesOf(pattern).some((role) => mayBeBare(pattern, role));
  if (sets && bridge !== null) return bridgedPoints(pattern).includes(bridge);
  if (sets) return disturbances(pattern).some((each) => each.key === check);
  if (measures === 'recheck') return headsToTorque(pattern).some((each) => each.key === check);
  const point = pointAccepted(check);
  return measures === 'proved' && point !== null && lashPoints(pattern).some((each) => each.key === point);
}

/**
 * Says what a check is, in a line; for one that belongs to an engine it says which head or point.
 *
 * @example checkInWords('prove', 'accepted 3E') // '3E let stand as it is'
 */
export function checkInWords(key: StageKey, check: string): string {
  const { checks } = stageOf(key);
  const point = pointAccepted(check);
  const held = pointHeldDown(check);
  if (held !== null) return `Tool in at ${held}, holding the valve down`;
  if (/^step \d+$/.test(check)) return 'A step of assembly';
  if (isPass(check)) return 'A pass of tightening';
  if (isHeatCycle(check)) return 'Run hot and left to go cold';
  if (check === LEDGER_EXPLAINED) return 'The count explained by a lead';
  if (check === TURNED_BARE) return 'Turned with nothing in, as the maker allows: accepted for this build';
  const bridge = bridgeOf(check);
  if (bridge !== null) return `Bridge of ${bridge} balanced first`;
  return (
    checks.find((each) => each.key === check)?.text ??
    (point !== null ? `${point} let stand as it is` : slackenedInWords(check)) ??
    check
  );
}

/**
 * Lists the ticks that are no longer true once a build is at a stage: what lies behind a step back, and what a change has
 * undone since.
 *
 * Rule: with the cover off again nothing is closed; the two turns and the marks hold until something is set, slackened or
 * taken out.
 *
 * @example undoneBy(build, 'set') // with a build at Close: parts counted in, cover on, first start
 */
export function undoneBy<Tick extends KeptTick>(
  { ticks, ...build }: Omit<KeptBuild, 'ticks' | 'signOff'> & { readonly ticks: readonly Tick[] },
  to: StageKey,
): readonly Tick[] {
  const { unticks, unticksIfChanged, begins } = stageOf(to);
  const again = !goesOn(build.stage, to) || begins === 'each-time';
  const changes = [...lastDisturbed({ ...build, ticks }).values()].map((at) => Date.parse(at));
  const changedAt = Math.max(...changes, -Infinity);
  // what a lead lets stand falls by itself when the point is set or measured again
  return ticks.filter(
    ({ stage, check, done, at }) =>
      done &&
      pointAccepted(check) === null &&
      // what ran hot ran hot, whatever is opened again after it
      !isHeatCycle(check) &&
      ((again && unticks.includes(stage)) ||
        (unticksIfChanged.includes(stage) && Date.parse(at) <= changedAt)),
  );
}
