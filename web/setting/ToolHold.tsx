import { Box } from '@chakra-ui/react';
import { heldDownToSet, toolAt, toolsIn } from '@zero-lash/core/builds';
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
  const by = build.ticks.find(({ check, done }) => done && check === toolAt(point))?.by;
  return (
    <Box marginBottom="3">
      <Check
        text={`Tool in at ${point}, holding the valve down`}
        by={by}
        enabled
        onTick={(done) => put({ kind: 'tick', body: { stage: 'set', check: toolAt(point), done } })}
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
