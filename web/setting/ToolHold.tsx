import { Box } from '@chakra-ui/react';
import { checkKey, heldDownToSet, toolsIn, SETTING, checkInWords } from '@zero-lash/core/builds';
import { lashPoints, meansFor } from '@zero-lash/core/sheets';
import { Caution } from '../app/Caution.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { Check } from '../builds/Check.tsx';
import { useBenchWrite } from '../builds/useBenchWrite.ts';

interface Props {
  readonly build: BuildView;
  readonly point: string;
}

/** The tool that holds a bucket down while its shim is changed: in, and out again before anything is turned. */
export function ToolHold({ build, point }: Props) {
  const put = useBenchWrite(build.id);
  if (!heldDownToSet(build.sheet.pattern).includes(point)) return null;
  const isIn = toolsIn(build.ticks).includes(point);
  const by = build.ticks.find(({ check, done }) => done && check === checkKey('tool', point))?.by;
  return (
    <Box marginBottom="3">
      {!isIn && <CrankFirst build={build} point={point} />}
      <Check
        text={checkInWords(SETTING, checkKey('tool', point))}
        by={by}
        enabled
        onTick={(done) =>
          put({ kind: 'tick', body: { stage: SETTING, check: checkKey('tool', point), done } })
        }
      />
      {isIn && (
        <Caution>
          Do not turn the crank: the piston meets the valve. Untick it when the tool is out; until then no
          stop is offered.
        </Caution>
      )}
    </Box>
  );
}

/** Where the sheet puts the crank before the tool goes in, or that it does not say. */
function CrankFirst({ build, point }: Props) {
  const role = lashPoints(build.sheet.pattern).find(({ key }) => key === point)!.role;
  const means = meansFor(build.sheet.pattern, role);
  const said = means.kind === 'shim' ? means.toolCrank : undefined;
  return (
    <Box fontSize="sm">
      {said ? (
        <>
          Before the tool goes in the sheet puts the crank: <b>{said}</b>.
        </>
      ) : (
        <>
          Where the crank stands for the tool the sheet does not say: piston well down, this lobe still away.
          A bucket pressed down at TDC can put its valve on the piston.
        </>
      )}
    </Box>
  );
}
