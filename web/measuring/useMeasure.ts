import type { BuildView } from '../builds/buildView.ts';
import type { Reading } from '@zero-lash/core/measuring';
import { mayMeasurePoint } from '@zero-lash/core/turning';
import { useState } from 'react';
import { arrivingAt, type TurningWork } from '../turning/useTurning.ts';
import { useAppDispatch, useAppSelector } from '../app/store.ts';
import { draftKey } from '../app/drafts.ts';
import { lockedAgain } from './locking.ts';
import type { RoundHere } from './pending.ts';
import { useBenchWrite } from '../builds/useBenchWrite.ts';

/** A reading that is offered to be kept. */
export interface Offer {
  readonly reading: Reading;
  readonly asTyped: string;
  readonly instrumentId: string | null;
  readonly doubtKept?: boolean;
  readonly reason?: string;
}

/** What is asked before a reading is kept. */
export type Question =
  | {
      readonly kind: 'doubt';
      readonly offer: Offer;
      readonly lengths: readonly number[];
      readonly meant: readonly Reading[];
    }
  | { readonly kind: 'off-base'; readonly offer: Offer };

/** Keeps readings of one point, and asks first where one looks like a slip or was taken off the base circle. */
export function useMeasure(
  build: BuildView,
  round: RoundHere,
  point: string,
  turning: TurningWork,
  { blind, narrowBlade }: { readonly blind: boolean; readonly narrowBlade: boolean },
) {
  const write = useBenchWrite(build.id);
  const dispatch = useAppDispatch();
  // what was turned and not locked yet is read so once; the next reading there is taken locked
  const beforeLock = useAppSelector((state) => state.locking === draftKey(round.id, point));
  const [asked, setQuestion] = useState<
    (Question & { readonly point: string; readonly after: (kept: Offer) => void }) | null
  >(null);
  // what was asked at another point is answered by going away from it
  const question = asked?.point === point ? asked : null;

  function put(offer: Offer, crankAngle: number | null): void {
    setQuestion(null);
    if (beforeLock) dispatch(lockedAgain());
    write({
      kind: 'reading',
      roundId: round.id,
      body: {
        ...offer,
        reading: structuredClone(offer.reading) as never,
        point,
        crankAngle,
        blind,
        narrowBlade,
        beforeLock,
        // what stands there from an earlier round is not written over
        over: round.readings.find((row) => row.point === point && row.roundId === round.id)?.id ?? null,
      },
    });
  }

  // the first reading at the stop that the crank was being turned to says that it stands there, unless somebody said that it
  // stands between stops
  const arriving = arrivingAt(turning);
  const between = turning.turning.at !== null && turning.progress.here === null;
  const arrived = !between && arriving?.left.includes(point) ? arriving.stop.angle : null;
  const at = arrived ?? turning.turning.at;

  /** Whether a reading here is taken without a question about the base circle. */
  function takesAtOnce(): boolean {
    return at === null || mayMeasurePoint(build.sheet.pattern, point, at);
  }

  /** Keeps a reading, or asks first; `after` follows when it is kept. */
  function keep(offer: Offer, after: (kept: Offer) => void): void {
    if (!takesAtOnce()) setQuestion({ kind: 'off-base', point, offer, after });
    else {
      if (arrived !== null) turning.standAt(arrived);
      put(offer, at);
      after(offer);
    }
  }

  return {
    question,
    /** the reading taken now is one before the lock nut is tightened: the point is not done with it */
    beforeLock,
    locked: () => dispatch(lockedAgain()),
    takesAtOnce,
    /** the crank stands at the stop it was being turned to: what is felt at this point says so */
    arrive: () => {
      if (arrived !== null) turning.standAt(arrived);
    },
    keep,
    ask: (
      offer: Offer,
      lengths: readonly number[],
      meant: readonly Reading[],
      after: (kept: Offer) => void,
    ) => setQuestion({ kind: 'doubt', point, offer, lengths, meant, after }),
    answer: (offer: Offer) => question && keep(offer, question.after),
    /** answers a question about the base circle: the crank stands at `angle` */
    keepAt: (angle: number | null) => {
      if (!question) return;
      put(question.offer, angle);
      question.after(question.offer);
    },
    drop: () => setQuestion(null),
  };
}
