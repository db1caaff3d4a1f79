// Long because every way to take a reading at a point meets here: blades, figures, gauge, and what each leads to.
import { Button, Flex } from '@chakra-ui/react';
import type { BuildView } from '../builds/buildView.ts';
import {
  intervalOf,
  isDecided,
  judge,
  stampOf,
  type Blade,
  type GoNoGo,
  type MeasuredPoint,
  type Reading,
  type Try,
  type Verdict,
} from '@zero-lash/core/measuring';
import { meansFor, ROLE_WORDS, type Step } from '@zero-lash/core/sheets';
import { hollowAt, wearSheetOf } from '@zero-lash/core/wear';
import { mmFromTenths } from '@zero-lash/core/length';
import { memo, useCallback, useDeferredValue, useMemo, useState, type ComponentProps } from 'react';
import { Link } from 'react-router';
import { useLengths } from '../app/lengths.ts';
import { store, useAppDispatch, useAppSelector } from '../app/store.ts';
import { useStable } from '../app/useStable.ts';
import { draftKey, draftTyped } from '../app/drafts.ts';
import { BladeFan } from '../drawings/BladeFan.tsx';
import { arrivingAt, type TurningWork } from '../turning/useTurning.ts';
import { DoubtQuestion } from './DoubtQuestion.tsx';
import { GaugePanel } from './GaugePanel.tsx';
import { expectedAt } from './expectedAt.ts';
import { OffBaseQuestion } from './OffBaseQuestion.tsx';
import { nextAtStopByBlade } from './byBlade.ts';
import { PadsBeside, type FeltHere } from './PadsBeside.tsx';
import type { RoundHere } from './pending.ts';
import { cautionAt } from './cautionAt.ts';
import { HollowNote } from './HollowNote.tsx';
import { GoNoGoPads, RockPad, TryPads } from './TryPads.tsx';
import { TypedEntry } from './TypedEntry.tsx';
import { usePedal } from './usePedal.ts';
import { spelled, useVoice } from './useVoice.ts';
import { triesOffer } from './triesOffer.ts';
import { heldThickness, triesInWords } from './tryWords.ts';
import { useBench } from '../instruments/useBench.ts';
import { useBounce } from '../app/useBounce.ts';
import { useMeasure, type Offer } from './useMeasure.ts';
import { useTries, type ComeTo } from './useTries.ts';
import { showPreview } from './tapPreview.ts';
import { previewIn } from './usePreview.ts';
import { useWorkedUp } from '../app/useWorkedUp.ts';
import { Note } from '../app/Note.tsx';

interface Props {
  readonly build: BuildView;
  readonly round: RoundHere;
  readonly point: MeasuredPoint;
  readonly turning: TurningWork;
  /** a second look, without seeing the first */
  readonly blind: boolean;
  /** whether a point that is out, and reads so, is set here and now, before another comes */
  readonly staysFor?: (reading: Reading) => boolean;
  /** the other valves of this cylinder that are felt by the same blades, with this one, in their order on the head */
  readonly beside?: readonly FeltHere[];
  /** the points of the stop that are felt now, for whoever takes one blade over all of them */
  readonly feltHere?: () => readonly FeltHere[];
  readonly onNext: () => void;
  readonly onSelect: (key: string) => void;
  readonly onWalk: (step: Step) => void;
}

/**
 * Measures one point by the school this device measures by. What is tapped stands above whatever comes and goes with the point
 * and its tries, so that nothing moves under a finger.
 */
export function Measure({
  build,
  round,
  point,
  turning,
  blind,
  staysFor = () => false,
  beside = ALONE,
  feltHere = () => ALONE,
  onNext,
  onSelect,
  onWalk,
}: Props) {
  const bench = useBench();
  // blades are called what is stamped on them, whatever the page reads in
  const { figure: plain, unit } = useLengths(bench.bladeUnit);
  const figure = useCallback((mm: number) => plain(stampOf(bench.fan, mm)), [plain, bench.fan]);
  const dispatch = useAppDispatch();
  const feel = useAppSelector((state) => state.preferences.feel);
  const hollows = useMemo(
    () => hollowAt(wearSheetOf(build.wear, build.sheet.wearLimits), build.sheet.pattern),
    [build.wear, build.sheet],
  );
  const hollowHere = hollows.has(point.key);
  // over a hollow blades say less: such a valve is felt by itself
  const sideBySide = beside.length > 1 && beside.every(({ point: { key } }) => !hollows.has(key));
  // a blade narrower than the hollow bridges nothing; said point by point
  const [narrowAt, setNarrowAt] = useState<string | null>(null);
  const narrowBlade = hollowHere && narrowAt === point.key;
  const hollow = hollowHere && !narrowBlade;
  const byFigure = 'sizes' in meansFor(build.sheet.pattern, point.role);
  // what is proved is not set by; what was found or came back is, and a piece is chosen by the figure
  const work = useTries(round.id, point, bench, { narrows: byFigure && round.kind !== 'proved', hollow });
  const measure = useMeasure(build, round, point.key, turning, { blind, narrowBlade });
  const caution = cautionAt(build, round, point.key, measure.beforeLock, hollow);
  const isBounce = useBounce(point.key);
  const expects = useMemo(
    () => expectedAt({ settings: build.settings, wear: build.wear, sheet: build.sheet }, point),
    [build.settings, build.wear, build.sheet, point],
  );
  const follow = useWorkedUp();
  const byBlade = feel === 'blade-by-blade';

  const offerOf = (tries: readonly Try[], narrowed: boolean): Offer => ({
    ...triesOffer(tries, bench, figure, unit),
    ...(narrowed ? { reason: 'narrowed, to set by it' } : {}),
  });

  /** Ends the tries at this point: what is known is kept, and the next point comes. */
  function finish(tries: readonly Try[]): void {
    measure.keep(offerOf(tries, false), () => moveOn());
  }

  function moveOn(kept?: Offer): void {
    work.put([]);
    leave(kept);
  }

  /** Another point comes, unless this one is measured again once it is locked, or is out and is set first. */
  function leave(kept?: Offer): void {
    if (measure.beforeLock || takesBladeOn(true)) return;
    if (!(kept && isOut(kept.reading) && staysFor(kept.reading))) onNext();
  }

  /** Takes the blade in the hand on to the next point of this stop, or takes up the next blade; false where the stop has no other. */
  function takesBladeOn(done: boolean): boolean {
    if (!byBlade) return false;
    const next = nextAtStopByBlade(feltHere(), store.getState().tries, bench, heldThickness(inHand) || null, {
      key: point.key,
      done,
    });
    if (next === null || next === point.key) return false;
    onSelect(next);
    return true;
  }

  function isOut(reading: Reading): boolean {
    const { verdict } = judge(intervalOf(reading, hollow), point.limits);
    return isDecided(verdict) && verdict !== 'in-spec';
  }

  function forgetTyped(kept: Offer): void {
    dispatch(draftTyped({ key: draftKey(round.id, point.key), text: '' }));
    leave(kept);
  }

  /** Says at once what tries come to; keeping them, and going on, follow when that is painted. */
  function onTries(made: readonly Try[]): void {
    const tries = [...work.tries, ...made];
    const come = work.comeTo(tries);
    showPreview({ place: draftKey(round.id, point.key), seen: previewIn(come) });
    follow(() => {
      workUp(tries, come);
      showPreview(null);
    });
  }

  function workUp(tries: readonly Try[], { verdict, narrowing: more }: ComeTo): void {
    const narrowing = isDecided(work.verdict);
    const stays = !isDecided(verdict) || (verdict !== 'in-spec' && more);
    const asks = stays || !measure.takesAtOnce();
    if (asks) work.put(tries);
    tell(point.key, verdict);
    if (!isDecided(verdict)) {
      // the blade goes over every point here before the next one is taken up: the crank stands where they are felt
      if (byBlade && pairHolds) {
        measure.arrive();
        takesBladeOn(false);
      }
      return;
    }
    // a point that is out is kept at once, and stays while a blade can narrow it for setting
    if (stays) measure.keep(offerOf(tries, narrowing), () => void (pairHolds && takesBladeOn(true)));
    else measure.keep(offerOf(tries, narrowing), moveOn);
  }

  /** A try tapped on a pad, unless the finger only bounced. */
  function onTap(one: Try, pad: string, at: number): void {
    if (!isBounce(pad, at)) onTries([one]);
  }

  /** Both blades of a pair tapped as one: two tries, one after the other. */
  function onBoth(both: readonly Try[], pad: string, at: number): void {
    if (!isBounce(pad, at)) onTries(both);
  }

  /** Goes on from a point: what its tries say is kept first, unless it is kept already. */
  function goOn(): void {
    if (isKept(round, point.key, work.tries)) moveOn();
    else finish(work.tries);
  }

  function takeBack(): void {
    const rest = work.tries.slice(0, -1);
    const wasKept = isKept(round, point.key, work.tries);
    work.put(rest);
    // what stands on the record must not say more than the tries that are left, if any
    if (wasKept) measure.keep({ ...offerOf(rest, false), reason: 'a try taken back' }, () => undefined);
  }

  const blades = useMemo(
    () => fanBlades(bench.fan, work.tries, work.interval),
    [bench.fan, work.tries, work.interval],
  );
  const fan = useMemo(
    () => ({ blades, held: work.held, suggested: work.suggested?.blades ?? NONE }),
    [blades, work.held, work.suggested],
  );
  const tap = useStable(work.tap);
  const pairHolds = (feel === 'go-no-go' || byBlade) && work.pair !== null && !failed(work.tries, work.pair);
  const conflict = work.verdict === 'conflict';
  const byBlades = feel === 'go-no-go' || byBlade || feel === 'steps';
  // by go and no-go the blade in the hand is the one that has not answered yet
  const pairBlade = (pair: GoNoGo) =>
    work.tries.some(({ thickness }) => thickness === pair.go.thickness) ? 'noGo' : 'go';
  const inHand = pairHolds ? work.pair![pairBlade(work.pair!)].blades : work.held;
  const arriving = arrivingAt(turning);
  const tell = useVoice(
    arriving
      ? `Turn to stop ${arriving.number}`
      : spokenNext(point, pairHolds ? pairBlade(work.pair!) : null, inHand.map(figure)),
  );
  // the pads of the valve beside it are drawn by what they show
  const besidePads = {
    onTap: useStable(onTap),
    onBoth: useStable(onBoth),
    onVerdict: useStable((at: string, verdict: Verdict) => tell(at, verdict)),
  };

  /** The crank stands at the stop it was being turned to. */
  function arrive(): void {
    if (!arriving) return;
    turning.standAt(arriving.stop.angle);
    onSelect(arriving.left[0]!);
  }

  /** The pedal answers for the blade in the hand; while the crank is being turned, or something is asked, for none. */
  function press(result: Try['result'], at: number): void {
    const thickness = heldThickness(inHand);
    if (arriving || measure.question || !byBlades || thickness === 0) return;
    onTap({ thickness, result }, `pedal ${result}`, at);
  }
  usePedal({
    goes: (at) => press('goes', at),
    wont: (at) => press('wont', at),
    next: () => {
      if (measure.question) return;
      if (arriving) arrive();
      else if (work.tries.length > 0) goOn();
      else onNext();
    },
    back: () => {
      if (!arriving && !measure.question && work.tries.length > 0) takeBack();
    },
  });
  const stuck =
    byBlades && work.tries.length > 0 && work.suggested === null && work.verdict.startsWith('undecided');

  return (
    <div className="measure">
      {feel === 'gauge' ? (
        <>
          <div className="entry-note entry-caution">{caution}</div>
          <GaugePanel expects={expects} measure={measure} onNext={leave} />
        </>
      ) : (
        <TypedEntry
          round={round}
          point={point}
          expects={expects}
          caution={caution}
          bench={bench}
          work={work}
          asIndicator={feel === 'indicator'}
          withKeypad={!byBlades}
          measuredBefore={readingIn(round, point.key) !== undefined}
          onOffer={(offer) => measure.keep(offer, forgetTyped)}
          onAsk={(offer, lengths, meant) => measure.ask(offer, lengths, meant, forgetTyped)}
          onTries={onTries}
          onTakeBack={takeBack}
          onFinish={goOn}
          onWalk={onWalk}
          onArrive={arrive}
        />
      )}
      {measure.question?.kind === 'doubt' && (
        <DoubtQuestion
          lengths={measure.question.lengths}
          meant={measure.question.meant}
          onUse={(reading) => measure.answer({ ...measure.question!.offer, reading })}
          onKeep={() => measure.answer({ ...measure.question!.offer, doubtKept: true })}
          onChange={measure.drop}
          takesFocus
        />
      )}
      {measure.question?.kind === 'off-base' && (
        <OffBaseQuestion
          point={point.key}
          work={turning}
          onTurned={(angle) => {
            turning.standAt(angle);
            measure.keepAt(angle);
          }}
          onKeep={() => measure.keepAt(turning.turning.at)}
          onChange={measure.drop}
        />
      )}
      {byBlades && (
        // what asks comes in below: no finger on its way to a pad meets an answer to it
        <div style={shownIf(!conflict)}>
          {pairHolds && sideBySide ? (
            <PadsBeside
              build={build}
              pair={work.pair!}
              points={beside}
              selected={point.key}
              turning={turning}
              blind={blind}
              unit={unit}
              {...besidePads}
            />
          ) : pairHolds ? (
            <GoNoGoPads
              pair={work.pair!}
              tries={work.tries}
              fan={bench.fan}
              unit={unit}
              onTap={onTap}
              onBoth={onBoth}
            />
          ) : (
            <TryPads
              work={work}
              point={point}
              repeatability={bench.repeatability}
              hollow={hollow}
              fan={bench.fan}
              unit={unit}
              onTap={onTap}
            />
          )}
        </div>
      )}
      {conflict && (
        <Note tone="tight" role="alert" marginTop="2">
          These tries contradict each other: {triesInWords(work.tries, figure, unit)}. Wipe the blade, feel
          again, or clear the older ones.
          <Flex gap="2" marginTop="2" flexWrap="wrap">
            <Button variant="solid" onClick={() => work.put(work.clearOlder())}>
              Clear the older
            </Button>
            <Button onClick={takeBack}>Take the last one back</Button>
          </Flex>
        </Note>
      )}
      {byBlades && !pairHolds && !conflict && (
        <>
          {/* it has its place before there is anything to take back: the blades below it stay where they are */}
          <div className="pads" style={shownIf(work.tries.length > 0)}>
            <button type="button" className="pad pad-plain" onClick={takeBack}>
              Take back
            </button>
            <button type="button" className="pad" onClick={goOn}>
              {isDecided(work.verdict) ? 'Next point' : 'Keep as it is'}
            </button>
          </div>
          {bench.bladeSet && <LaterFan fan={fan} onTap={tap} figure={figure} />}
          {work.tries.length > 0 && !work.interval.floor && (
            <RockPad heldShut={build.sheet.pattern.closingSide} onTap={onTap} />
          )}
          {stuck && (
            <div className="point-note">
              No blade of this bench says more. Keep it as it is, or try another set.
            </div>
          )}
          {!bench.bladeSet && (
            <div className="point-note">
              This bench has no blades yet: write down what is in its set under{' '}
              <Link to="/instruments">Instruments</Link>. Until then, type what you hold: 0.15 and g, d or w.
            </div>
          )}
        </>
      )}
      {measure.beforeLock && (
        <Note padding="2" fontSize="sm">
          This reading is the one before the lock nut. Then lock it, and measure once more.
          <Button variant="plain" onClick={measure.locked}>
            It is locked
          </Button>
        </Note>
      )}
      {hollowHere && (
        <HollowNote
          narrow={narrowBlade}
          screw={!byFigure}
          none={hollow && work.tries.length > 0 && !work.interval.floor}
          onNarrow={(narrow) => setNarrowAt(narrow ? point.key : null)}
        />
      )}
    </div>
  );
}

/** What is not wanted now keeps its place: what stands below it does not move. */
const shownIf = (wanted: boolean) => (wanted ? undefined : ({ visibility: 'hidden' } as const));
const NONE: readonly number[] = [];
const ALONE: readonly FeltHere[] = [];

interface LaterFanProps extends Pick<ComponentProps<typeof BladeFan>, 'onTap' | 'figure'> {
  readonly fan: Pick<ComponentProps<typeof BladeFan>, 'blades' | 'held' | 'suggested'>;
}

/** The fan of blades, a frame later: the verdict and the next blade's name come first. */
const LaterFan = memo(function LaterFan({ fan, onTap, figure }: LaterFanProps) {
  return <BladeFan {...useDeferredValue(fan)} onTap={onTap} figure={figure} />;
});

/** What is to be done now, as it is said aloud: `2 E, exhaust. Go, 0.20`. */
function spokenNext(
  { key, role }: MeasuredPoint,
  pair: 'go' | 'noGo' | null,
  blades: readonly string[],
): string {
  const blade = blades.join(' and ');
  const what = pair === null ? blade && `Try ${blade}` : `${pair === 'go' ? 'Go' : 'No-go'}, ${blade}`;
  return [`${spelled(key)}, ${ROLE_WORDS[role]}`, what].filter(Boolean).join('. ');
}

/** The reading that was taken of a point in this round, and not what is shown there from an earlier one. */
function readingIn(round: RoundHere, key: string) {
  return round.readings.find(({ point, roundId }) => point === key && roundId === round.id);
}

/** Whether a point's newest reading is these very tries. */
function isKept(round: RoundHere, point: string, tries: readonly Try[]): boolean {
  const reading = readingIn(round, point)?.reading;
  return (
    reading?.kind === 'tries' &&
    reading.tries.length === tries.length &&
    reading.tries.every(
      ({ thickness, result }, index) =>
        thickness === tries[index]!.thickness && result === tries[index]!.result,
    )
  );
}

/** Whether one of the two blades did what it must not: the point then falls back to tries. */
function failed(tries: readonly Try[], pair: NonNullable<ReturnType<typeof useTries>['pair']>): boolean {
  return tries.some(({ thickness, result }) => {
    if (thickness === pair.go.thickness) return result !== 'goes';
    if (thickness === pair.noGo.thickness) return result !== 'wont';
    return true;
  });
}

function fanBlades(
  fan: readonly Blade[],
  tries: readonly Try[],
  { lo, hi }: { readonly lo: number; readonly hi: number | null },
) {
  return fan.map(({ is: thickness, usable }) => ({
    thickness,
    missing: !usable,
    result: tries.findLast((one) => one.thickness === thickness)?.result ?? null,
    tells: thickness > mmFromTenths(lo) && (hi === null || thickness < mmFromTenths(hi)),
  }));
}
