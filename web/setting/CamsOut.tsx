import { Box } from '@chakra-ui/react';
import { camsPositionOpen, checkInWords, checkKey, SETTING } from '@zero-lash/core/builds';
import { camsOutInWords, picturesAt } from '@zero-lash/core/turning';
import { Caution } from '../app/Caution.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { Check } from '../builds/Check.tsx';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import { PositionPictures } from '../turning/PositionPictures.tsx';

interface Props {
  readonly build: BuildView;
  readonly enabled: boolean;
}

/** Where the crank stands while cams come out, and that it was put there before a cap is slackened; nothing where the sheet does not say. */
export function CamsOut({ build, enabled }: Props) {
  const put = useBenchWrite(build.id);
  const { pattern, pictures } = build.sheet;
  const words = camsOutInWords(pattern);
  if (words === null) return null;
  const check = checkKey('cams-out-position');
  const by = build.ticks.find((tick) => tick.done && tick.stage === SETTING && tick.check === check)?.by;
  const at = pattern.camsOut?.at ?? null;
  return (
    <Box marginBottom="3">
      <Box fontWeight="650">{words}</Box>
      {at !== null && <PositionPictures pictures={picturesAt(pictures, at)} />}
      <Check
        text={checkInWords(SETTING, check)}
        by={by}
        enabled={enabled}
        onTick={(done) => put({ kind: 'tick', body: { stage: SETTING, check, done } })}
      />
      {camsPositionOpen(build) && (
        <Caution>
          No cap is slackened before: a cap let go under a lobe that presses throws its cam, and a crank that
          turns with a cam out meets the valves.
        </Caution>
      )}
    </Box>
  );
}
