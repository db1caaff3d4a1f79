import type { BuildView } from '../builds/buildView.ts';
import type { ReadingRow, Round } from '@zero-lash/contract/measuring';
import { bothNames, limitsInWords, ROLE_WORDS, type Step } from '@zero-lash/core/sheets';
import { hasLimits, specOf, whyNoProof, type MeasuredPoint } from '@zero-lash/core/measuring';
import { aimFor } from '@zero-lash/core/setting';
import { mmFromTenths } from '@zero-lash/core/length';
import {
  ROUND_WORDS,
  isOpenRound,
  lastDone,
  pointStatus,
  readingAt,
  setsAsFound,
  stageOf,
  type StageKey,
} from '@zero-lash/core/builds';
import type { Change } from './headPoints.ts';
import type { Collected } from './useCollected.ts';
import { Button } from '@chakra-ui/react';
import { useState } from 'react';
import { useHeld } from '../app/useHeld.ts';
import { useLengths } from '../app/lengths.ts';
import { useRole } from '../app/useRole.ts';
import type { TurningWork } from '../turning/useTurning.ts';
import { Note } from '../app/Note.tsx';
import { useCooled } from '../measuring/HotClock.tsx';
import { AtTheLimit } from '../measuring/AtTheLimit.tsx';
import { HowMeasured } from '../measuring/HowMeasured.tsx';
import { Measure } from '../measuring/Measure.tsx';
import type { FeltHere } from '../measuring/PadsBeside.tsx';
import type { RoundHere } from '../measuring/pending.ts';
import { RefusedNotes } from '../app/RefusedNotes.tsx';
import { StrikeOut } from '../measuring/StrikeOut.tsx';
import { SecondLook } from '../measuring/SecondLook.tsx';
import { usePreview, type Preview } from '../measuring/usePreview.ts';
import { draftKey } from '../app/drafts.ts';
import { Crossed } from '../measuring/Crossed.tsx';
import { PointHistory } from '../measuring/PointHistory.tsx';
import '../builds/point.css';
import { PointKnown } from './PointKnown.tsx';
import { NotMeasured } from '../setting/NotMeasured.tsx';
import { WhatWasDone } from '../setting/WhatWasDone.tsx';
import { STAGE_ROOMS } from './stageRooms.ts';

interface Props {
  readonly build: BuildView;
  /** what a reading taken now is added to */
  readonly round: RoundHere | undefined;
  /** the round that is shown at the stage: what measures stays as it is while it is that one */
  readonly visit: string;
  readonly stage: StageKey;
  readonly point: MeasuredPoint;
  /** what was last changed at the point, as far as that bears on the round, and from when on a reading counts */
  readonly change: Change | null;
  readonly turning: TurningWork;
  /** whether a point that is out, and reads so, is set before another comes */
  readonly staysFor: Collected['staysFor'];
  /** valves of the same cylinder that are felt by the same blades, with this one */
  readonly beside: readonly FeltHere[];
  /** the points of the stop that are felt now */
  readonly feltHere: () => readonly FeltHere[];
  /** a second look, without seeing the first */
  readonly blind: boolean;
  readonly onNext: () => void;
  readonly onSelect: (key: string) => void;
  readonly onWalk: (step: Step) => void;
}

const isWithdrawn = (reading: ReadingRow) => whyNoProof(reading, null) === 'withdrawn';

/** What a point is judged by here; and where a maker prints two pairs, the other one beside it. */
function judgedByInWords(point: MeasuredPoint, { band, length }: ReturnType<typeof useLengths>): string {
  if (!hasLimits(point)) return 'limits to come';
  const here = limitsInWords(point, band, length);
  if (!point.asFound) return here;
  const { min, max } = specOf(point.toSet);
  return point.heldAgainst !== 'set'
    ? `as found ${here}; set to ${band(min, max)}`
    : `${here}; as found ${band(point.asFound.min, point.asFound.max)} is left alone`;
}

const wordsOf = ({ kind, carried }: Round) => ROUND_WORDS[carried ? 'recheck' : kind];

/** Whether a point is set by a reading: it says how the gap is now, locked or not. */
function setsBy(reading: ReadingRow, changed: string | null): boolean {
  const why = whyNoProof(reading, changed);
  return why === null || why === 'before-lock';
}

/** The round a reading was taken in: what a point is set by may come from an earlier one. */
function roundOf({ rounds }: BuildView, { roundId }: ReadingRow, here: Round): Round {
  return rounds.find(({ id }) => id === roundId) ?? here;
}

/** The selected point's work: its limits, what is known of its gap, and what is done here at this stage. */
export function PointPanel({
  build,
  round,
  visit,
  stage,
  point,
  change,
  turning,
  staysFor,
  beside,
  feltHere,
  blind,
  onNext,
  onSelect,
  onWalk,
}: Props) {
  const lengths = useLengths();
  const [allTheSame, setAllTheSame] = useState<string | null>(null);
  const { mayWork } = useRole();
  const { AtPoint } = STAGE_ROOMS[stage];
  const reading = readingAt(round, point.key);
  const changed = change?.at ?? null;
  const measuring = isOpenRound(build, round) && stage === build.stage;
  const seen = usePreview(measuring ? round : undefined, point);
  const known: Preview | null =
    seen ??
    (reading
      ? {
          ...{ lo: reading.lo, hi: reading.hi, floor: reading.floor },
          state: pointStatus(reading, change),
        }
      : null);
  // what was in when it was read is not in any more
  const gone = known?.state === 'changed-since';
  // what was changed, or never measured, is measured first; what is known is set by first
  const toMeasure = gone || !known || known.state === 'before-turns';
  const comesToMeasure = useHeld(`${round?.id} ${point.key} ${changed}`, toMeasure);
  const measuresFirst = measuring && mayWork && comesToMeasure;
  const settingHere = AtPoint !== undefined && stage === build.stage && mayWork;
  // found and set in one lap: what is in its band is left alone unless somebody says otherwise
  const inLap = setsAsFound(build.job, stage);
  const isTouched = lastDone(build.settings, point.key) !== undefined;
  const setsNow =
    !inLap || isTouched || allTheSame === point.key || (reading && reading.verdict !== 'in-spec');
  const done = stageOf(stage).shows === 'as-found' ? undefined : lastDone(build.settings, point.key);
  const limited = hasLimits(point) ? point : null;
  const target =
    limited && mmFromTenths(aimFor(build.aim, point.role, limited.toSet, build.ownAims?.figures));
  const cooled = useCooled(build, round?.kind ?? null, `${round?.id} ${point.key}`);
  const said = (
    <div className="point-said">
      {round && reading && !seen && (
        <div className="point-note">
          {wordsOf(roundOf(build, reading, round))}, typed <code>{reading.asTyped}</code> by {reading.by}
          {reading.instrument && `, with ${reading.instrument}`}
          {round.waiting.has(point.key) && ', waiting to be sent'}
          {reading.doubtKept && ', kept although it looked like a slip'}
          {reading.onLimit && ', in spec only by the allowance'}
          {reading.beforeLock && !gone && (
            <b>, before the lock nut was tightened: lock it, and measure again</b>
          )}
          {reading.offBase && (
            <b>, off its base circle at {reading.crankAngle}°: it proves nothing, measure it again</b>
          )}
          {known?.state === 'before-turns' && (
            <b>, before the two turns: it proves nothing, turn it twice and measure it again</b>
          )}
          {isWithdrawn(reading) && reading.reason && `, because: ${reading.reason}`}
          {gone && ', before the change: it says nothing of what is in now'}
        </div>
      )}
      <RefusedNotes
        key={`${round?.id} ${point.key}`}
        buildId={build.id}
        which={({ kind, within, about }) =>
          (kind === 'reading' && within === round?.id && about === point.key) ||
          (kind.startsWith('setting') && about === `${point.key} set`)
        }
      />
      {limited && reading && measuring && !gone && <AtTheLimit point={limited} gap={reading} />}
      {round?.closedAt && stage === build.stage && stageOf(stage).begins === 'once' && (
        <p>This round is closed: the engine has been set since it was found like this.</p>
      )}
      {done && !settingHere && (
        <p className="point-note">
          <WhatWasDone done={done} unit={point.stamped} />
        </p>
      )}
    </div>
  );
  return (
    <section aria-label={`Point ${point.key}`} className="point">
      <div className="point-known">
        <div className="point-head">
          <h2>{bothNames(build.sheet.pattern, point.key)}</h2>
          <div className="point-about">
            {ROLE_WORDS[point.role]}, cylinder {point.cylinder} · {judgedByInWords(point, lengths)}
          </div>
        </div>
        <PointKnown
          place={round ? draftKey(round.id, point.key) : ''}
          name={bothNames(build.sheet.pattern, point.key)}
          min={limited?.min ?? null}
          max={limited?.max ?? null}
          known={gone ? null : known}
          state={known?.state ?? 'not-measured'}
          target={target ?? undefined}
        />
      </div>
      {!measuresFirst && said}
      <div className={measuresFirst ? 'point-work point-work-measure' : 'point-work'}>
        {AtPoint && settingHere && setsNow && limited && target !== null && (
          <AtPoint
            build={build}
            point={limited}
            reading={reading && setsBy(reading, changed) ? reading : undefined}
            stale={reading !== undefined && whyNoProof(reading, changed) === 'changed-since'}
            target={target}
            onNext={onNext}
          />
        )}
        {measuring && mayWork && cooled && (
          <Note tone="tight">
            It is not as hot any more as the sheet means: this point waits until it was run warm again.
          </Note>
        )}
        {measuring && mayWork && round && !cooled && (
          <Measure
            key={visit}
            build={build}
            round={round}
            point={point}
            turning={turning}
            blind={blind}
            beside={beside}
            feltHere={feltHere}
            staysFor={(read) => settingHere && staysFor(point, read)}
            onNext={onNext}
            onSelect={onSelect}
            onWalk={onWalk}
          />
        )}
        {inLap && settingHere && limited && reading && !setsNow && (
          <Button variant="plain" alignSelf="start" onClick={() => setAllTheSame(point.key)}>
            Set it all the same, or leave it
          </Button>
        )}
        {measuring &&
          mayWork &&
          !blind &&
          reading?.roundId === round?.id &&
          reading &&
          !isWithdrawn(reading) && <StrikeOut key={reading.id} buildId={build.id} reading={reading} />}
        <NotMeasured
          build={build}
          point={point}
          enabled={measuring && mayWork && !blind}
          recheck={measuring && round?.kind === 'recheck' ? round : undefined}
          onNext={onNext}
        />
        {reading?.crossed && !blind && (
          <Crossed
            key={reading.id}
            buildId={build.id}
            reading={reading}
            enabled={measuring && mayWork && reading.roundId === round?.id}
          />
        )}
        {reading?.firstLook && <SecondLook reading={reading} />}
        {round && reading && reading.earlier > 0 && !round.waiting.has(point.key) && (
          <PointHistory reading={reading} />
        )}
      </div>
      {measuresFirst && said}
      {measuring && mayWork && (
        <div className="point-how">
          <HowMeasured />
        </div>
      )}
    </section>
  );
}
