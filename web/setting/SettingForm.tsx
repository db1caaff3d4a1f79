import { Box } from '@chakra-ui/react';
import type { NewSetting } from '@zero-lash/contract/setting';
import { useMemo } from 'react';
import { lastChange, lastDone, setAtItsStop, setsAsFound } from '@zero-lash/core/builds';
import { meansFor } from '@zero-lash/core/sheets';
import { pieceFound } from '@zero-lash/core/setting';

import { WithReason } from '../app/WithReason.tsx';
import { useLengths } from '../app/lengths.ts';
import { useBounce } from '../app/useBounce.ts';
import { pieceIn } from '../wear/pieceIn.ts';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import { BeforeSetting } from './BeforeSetting.tsx';
import { FitForm } from './FitForm.tsx';
import type { AtPointProps } from '../builds/atPoint.ts';
import { LookFirst } from './LookFirst.tsx';
import { TurnForm } from './TurnForm.tsx';
import { WhatWasDone } from './WhatWasDone.tsx';

/** What to fit or how far to turn at a point, and where what was done is written down. */
export function SettingForm(props: AtPointProps) {
  const isBounce = useBounce(props.point.key);
  return (
    <Box
      onClickCapture={(event) => {
        // a finger that bounces on the last point's button would write down at this one what nobody did
        const button = (event.target as Element).closest('button');
        if (!button || event.detail === 0 || !isBounce(padOf(button), event.timeStamp)) return;
        event.preventDefault();
        event.stopPropagation();
      }}
    >
      <PointSetting key={props.point.key} {...props} />
    </Box>
  );
}

/** What a button is, whichever figure stands on it at this point. */
const padOf = ({ textContent }: Element) => textContent.replace(/[\d.,]+/g, '');

function PointSetting({ build, point, reading, stale, target, onNext }: AtPointProps) {
  const means = meansFor(build.sheet.pattern, point.role);
  const turned = means.kind === 'screw' || means.kind === 'pivot-nut';
  const done = lastDone(build.settings, point.key);
  const change = lastChange(build.settings, point.key);
  const { length } = useLengths(point.stamped);
  const { wear, sheet } = build;
  const found = useMemo(() => pieceFound({ wear, sheet }, point.key), [wear, sheet, point.key]);
  const put = useBenchWrite(build.id);
  const record = (setting: Omit<NewSetting, 'point'>) => {
    put({ kind: 'setting', body: { ...setting, point: point.key } });
    // what is set at its stop is measured again before the next; with a cam out there is nothing to measure yet
    if (setting.kind === 'left' || !setAtItsStop(build.sheet.pattern, point.role)) onNext();
  };
  /** Leaves the point for the end of the lap; what is in by now is known to the plan. */
  const collect = (installed: number | null, asTyped: string) => {
    if (installed !== null && found === null && change === null) put(pieceIn(point.key, installed, asTyped));
    onNext();
  };
  return (
    <Box marginTop="4" borderTop="1px solid" borderColor="hairline" paddingTop="3">
      {done && (
        <Box marginBottom="3">
          <WhatWasDone done={done} unit={point.stamped} /> Writing again supersedes it.
          {stale && (
            <Box>
              {done.kind === 'fitted'
                ? `${length(done.fitted!)} is in, and`
                : done.kind === 'bare'
                  ? 'Nothing is in, and it'
                  : 'It'}{' '}
              was not measured since: measure it below, or prove it at the next stage.
            </Box>
          )}
          <WithReason
            key={done.id}
            draft={`take-back:${done.id}`}
            ask="Take it back…"
            label="Taken back because"
            action="Take it back"
            missing="Say what was wrong with it."
            follows="Only what was written down wrongly: what stood here before stands again, and the drawer’s ledger follows. A piece that was really changed again is written down as fitted."
            most={200}
            onDo={(reason) => {
              put({ kind: 'setting-taken-back', id: done.id, point: point.key, body: { reason } });
              return true;
            }}
          />
        </Box>
      )}
      <LookFirst build={build} point={point} reading={reading}>
        <BeforeSetting build={build} point={point} />
        {turned ? (
          <TurnForm
            build={build}
            means={means}
            point={point}
            reading={reading}
            stale={stale}
            target={target}
            onRecord={record}
          />
        ) : (
          <FitForm
            build={build}
            means={means}
            point={point}
            reading={reading}
            stale={stale}
            target={target}
            installed={change?.kind === 'bare' ? null : (change?.fitted ?? found)}
            onRecord={record}
            {...(setsAsFound(build.job, build.stage) ? { onCollect: collect } : {})}
          />
        )}
      </LookFirst>
      <WithReason
        key={point.key}
        draft={`leave:${build.id}:${point.key}`}
        ask="Leave it alone…"
        label="Left alone because"
        action="Leave it"
        missing="Say why it stays as it is."
        most={200}
        onDo={(note) => {
          record({ kind: 'left', note });
          return true;
        }}
      />
    </Box>
  );
}
