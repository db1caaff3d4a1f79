import { counted } from '@zero-lash/core/length';
import { Box, chakra } from '@chakra-ui/react';
import { camsPositionOpen, CAPS_OFF, disturbances, stageOf, SETTING } from '@zero-lash/core/builds';
import { memo } from 'react';
import type { BuildView } from '../builds/buildView.ts';
import { Check } from '../builds/Check.tsx';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import { useRole } from '../app/useRole.ts';
import { CamsOut } from './CamsOut.tsx';

/** What else was slackened or taken out while points were set: every gap it bears on is proved again. */
export const Slackened = memo(function Slackened({ build }: { readonly build: BuildView }) {
  const put = useBenchWrite(build.id);
  const { mayWork } = useRole();
  const enabled = mayWork && !build.closedAt && stageOf(build.stage).sets;
  const held = camsPositionOpen(build);
  return (
    <fieldset className="ticks">
      <chakra.legend fontWeight="650">Slackened or taken out as well</chakra.legend>
      <Box fontSize="sm" color="faded">
        What is ticked here lies differently: every gap under it is proved again.
      </Box>
      <CamsOut build={build} enabled={enabled} />
      {disturbances(build.sheet.pattern).map(({ key, kind, text, points }) => {
        const row = build.ticks.find(({ stage, check, done }) => done && stage === SETTING && check === key);
        return (
          <Box key={key} borderBottom="1px solid" borderColor="hairline">
            <Check
              text={text}
              by={row?.by}
              aside={counted(points.length, 'point')}
              enabled={enabled && (row !== undefined || !(held && CAPS_OFF.includes(kind)))}
              onTick={(done) => put({ kind: 'tick', body: { stage: SETTING, check: key, done } })}
            />
          </Box>
        );
      })}
    </fieldset>
  );
}, sameTicks);

/** A reading changes nothing of what was slackened. */
function sameTicks(
  { build: a }: { readonly build: BuildView },
  { build: b }: { readonly build: BuildView },
): boolean {
  return (
    a.id === b.id &&
    a.ticks === b.ticks &&
    a.stage === b.stage &&
    a.closedAt === b.closedAt &&
    a.sheet === b.sheet
  );
}
