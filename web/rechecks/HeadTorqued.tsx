import { Box } from '@chakra-ui/react';
import { headsToTorque, RUNNING } from '@zero-lash/core/builds';
import type { BuildView } from '../builds/buildView.ts';
import { Check } from '../builds/Check.tsx';
import { useBenchWrite } from '../builds/useBenchWrite.ts';

/** A head that was tightened again since the engine runs: every gap under it is another one, and is looked at now. */
export function HeadTorqued({ build, enabled }: { readonly build: BuildView; readonly enabled: boolean }) {
  const put = useBenchWrite(build.id);
  const heads = headsToTorque(build.sheet.pattern);
  const done = new Map(
    build.ticks.filter((tick) => tick.done && tick.stage === RUNNING).map(({ check, by }) => [check, by]),
  );
  if (!enabled && done.size === 0) return null;
  return (
    <Box as="details" {...(done.size > 0 ? { open: true } : {})}>
      <Box as="summary" minHeight="44px" paddingY="2" cursor="pointer" fontSize="sm">
        Head tightened again since it was set
      </Box>
      <Box fontSize="sm" color="faded">
        It moves every gap under it: all of them are measured now, and what was measured before says nothing
        of where they are.
      </Box>
      {heads.map(({ key, text }) => (
        <Check
          key={key}
          text={text}
          by={done.get(key)}
          enabled={enabled}
          onTick={(isDone) => put({ kind: 'tick', body: { stage: RUNNING, check: key, done: isDone } })}
        />
      ))}
    </Box>
  );
}
