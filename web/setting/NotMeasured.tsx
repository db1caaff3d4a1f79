import { findings, measuredAt, notMeasured } from '@zero-lash/core/builds';
import type { Round } from '@zero-lash/contract/measuring';
import { UNREACHED, unreachedIn, whyNoProof, type MeasuredPoint } from '@zero-lash/core/measuring';
import { cylinderName, lashPoints, type LashPoint, type Pattern } from '@zero-lash/core/sheets';
import { memo, useState } from 'react';
import { Choice } from '../app/Choice.tsx';
import { Labelled } from '../app/Labelled.tsx';
import { WithReason } from '../app/WithReason.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import { WhatWasDone } from './WhatWasDone.tsx';

interface Props {
  readonly build: BuildView;
  readonly point: MeasuredPoint;
  readonly enabled: boolean;
  /** the recheck that is measured now, where one is: what cannot be reached at it stands in its round */
  readonly recheck?: Pick<Round, 'id' | 'readings'> | undefined;
  readonly onNext: () => void;
}

/**
 * A point that is not measured: because it cannot be reached, or because what it is measured by came apart before anybody did. Who says
 * so and why stands in its place, until it is measured after all.
 */
export const NotMeasured = memo(function NotMeasured({ build, point, enabled, recheck, onNext }: Props) {
  const said = notMeasured(build).get(point.key);
  const isMeasured = findings(build.rounds).has(point.key);
  const put = useBenchWrite(build.id);
  const write = (keys: readonly string[], cause: 'unreached' | 'apart', note: string) => {
    for (const key of keys) put({ kind: 'setting', body: { point: key, kind: 'left', cause, note } });
    onNext();
    return true;
  };
  if (said)
    return (
      <div className="point-note" role="status">
        <WhatWasDone done={said} unit={point.stamped} />{' '}
        {said.cause === 'unreached'
          ? 'At sign-off a lead leaves it as it is, by name, and its recheck comes sooner. '
          : 'Put together again it is set, measured and proved as any other. '}
        Measured after all, it stands as measured.
      </div>
    );
  if (recheck) {
    const reading = recheck.readings.find((row) => row.point === point.key);
    if (!enabled || (reading && whyNoProof(reading, null) === null)) return null;
    return unreachedIn(recheck.readings).includes(point.key) ? (
      <div className="point-note" role="status">
        {point.key} cannot be reached: {reading!.reason}, by {reading!.by}. The next recheck comes sooner.
      </div>
    ) : (
      <WithReason
        key={`unreached ${point.key}`}
        draft={`unreached:${build.id}:${point.key}`}
        ask="Cannot be reached…"
        label="It cannot be reached because"
        action="Pass it over"
        missing="Say what is in the way."
        follows="Nothing is known of it at this recheck: it is not waited for, and the next recheck comes sooner."
        most={100}
        onDo={(reason) => {
          put({
            kind: 'reading',
            roundId: recheck.id,
            body: {
              ...{ point: point.key, reading: { kind: 'tries', tries: [], repeatability: 0.01 } },
              ...{
                asTyped: UNREACHED,
                reason,
                instrumentId: null,
                crankAngle: null,
                over: reading?.id ?? null,
              },
            },
          });
          onNext();
          return true;
        }}
      />
    );
  }
  if (!enabled || isMeasured) return null;
  return (
    <div className="not-measured">
      <WithReason
        key={`unreached ${point.key}`}
        draft={`unreached:${build.id}:${point.key}`}
        ask="Cannot be reached…"
        label="It cannot be reached because"
        action="Pass it over"
        missing="Say what is in the way."
        follows="A lead leaves it as it is at sign-off, by name, and its recheck comes sooner."
        most={200}
        onDo={(why) => write([point.key], 'unreached', why)}
      />
      {measuredAt(build.job, 'as-found') === build.stage && (
        <CameApart key={`apart ${point.key}`} build={build} point={point} onSaid={write} />
      )}
    </div>
  );
});

/** How much came apart: a point, a cylinder, a head. */
type Extent = 'point' | 'cylinder' | 'head';

interface ApartProps extends Pick<Props, 'build' | 'point'> {
  readonly onSaid: (keys: readonly string[], cause: 'apart', why: string) => boolean;
}

function CameApart({ build, point, onSaid }: ApartProps) {
  const [extent, setExtent] = useState<Extent>('point');
  const { pattern } = build.sheet;
  const measured = new Set(
    build.rounds
      .filter(({ kind }) => kind === 'as-found')
      .flatMap(({ readings }) => readings.map((row) => row.point)),
  );
  const keys = lashPoints(pattern)
    .filter((other) => within(pattern, extent, point, other) && !measured.has(other.key))
    .map(({ key }) => key);
  return (
    <WithReason
      draft={`apart:${build.id}:${point.key}`}
      ask="Came apart…"
      label="Not measured because"
      action="It came apart"
      missing="Say why: rockers off, cam gone, another cover on."
      follows="There is nothing to find there: it is set and proved as what is new."
      most={200}
      onDo={(why) => onSaid(keys, 'apart', why)}
    >
      <Labelled label="How much of it">
        <Choice of={extentsAt(pattern, point)} value={extent} onChoose={setExtent} />
      </Labelled>
    </WithReason>
  );
}

const bankOf = ({ cylinders }: Pattern, { cylinder }: LashPoint) =>
  cylinders.find(({ id }) => id === cylinder)!.bank;

/** Whether a point is part of what came apart with another. */
const within = (pattern: Pattern, extent: Extent, point: LashPoint, other: LashPoint): boolean =>
  extent === 'head'
    ? bankOf(pattern, other) === bankOf(pattern, point)
    : extent === 'cylinder'
      ? other.cylinder === point.cylinder
      : other.key === point.key;

function extentsAt(pattern: Pattern, point: LashPoint): Readonly<Record<Extent, string>> {
  const heads = new Set(pattern.cylinders.map(({ bank }) => bank)).size;
  return {
    point: `${point.key} alone`,
    cylinder: `cylinder ${cylinderName(pattern, point.cylinder)}`,
    head: heads > 1 ? `the head of bank ${bankOf(pattern, point)}` : 'the whole head',
  };
}
