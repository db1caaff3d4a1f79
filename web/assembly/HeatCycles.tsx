import { Box, chakra } from '@chakra-ui/react';
import { heatCyclesOf, NO_RUN_IN, statusOf, CLOSING } from '@zero-lash/core/builds';
import { Caution } from '../app/Caution.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { Check } from '../builds/Check.tsx';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import { useRole } from '../app/useRole.ts';

/** The heat cycles that the sheet asks for after the first start, each ticked when the engine is cold again. */
export function HeatCycles({ build }: { readonly build: BuildView }) {
  const put = useBenchWrite(build.id);
  const { mayWork } = useRole();
  const says = build.sheet.runIn ?? NO_RUN_IN;
  const cycles = heatCyclesOf(says);
  if (cycles.length === 0) return null;
  const done = new Map(build.ticks.filter((tick) => tick.done).map(({ check, by }) => [check, by]));
  const next = cycles.find((check) => !done.has(check));
  const { heads } = statusOf(build).runIn;
  return (
    <fieldset>
      <chakra.legend fontWeight="650">Heat cycles</chakra.legend>
      <Caution>
        A hot engine burns and its coolant is under pressure: nothing is opened before it is cold. Outside air
        while it runs.
      </Caution>
      {cycles.map((check, index) => (
        <Box key={check} borderBottom="1px solid" borderColor="hairline">
          <Check
            text={`Run hot, no leak and no knock, and cold again: ${index + 1} of ${cycles.length}`}
            by={done.get(check)}
            enabled={
              mayWork && build.stage === CLOSING && !build.closedAt && (done.has(check) || next === check)
            }
            onTick={(isDone) => put({ kind: 'tick', body: { stage: CLOSING, check, done: isDone } })}
          />
        </Box>
      ))}
      {says.retorque && (
        <Box fontSize="sm" paddingTop="1" color={heads.length > 0 ? 'brass' : 'faded'}>
          {heads.length > 0
            ? `Now, with the engine cold, head ${heads.join(' and ')} is tightened again: go back to Set and tick it there. It moves every gap, so every gap is proved again.`
            : 'After the last of them the head is tightened again, cold; that moves every gap.'}
        </Box>
      )}
    </fieldset>
  );
}
