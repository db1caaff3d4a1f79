import { Button, Flex } from '@chakra-ui/react';
import { checkKey, setsAsFound, SETTING, unopenedHeads, untouchedHeads } from '@zero-lash/core/builds';
import { Note } from '../app/Note.tsx';
import { useRole } from '../app/useRole.ts';
import type { BuildView } from '../builds/buildView.ts';
import { useBenchWrite } from '../builds/useBenchWrite.ts';

/** One head is finished before the next is opened: which one keeps its cover for now, and that it is opened. */
export function OneHead({ build }: { readonly build: BuildView }) {
  const put = useBenchWrite(build.id);
  const { mayWork } = useRole();
  if (!setsAsFound(build.job, build.stage)) return null;
  const enabled = mayWork && !build.closedAt;
  const unopened = unopenedHeads(build);
  const tick = (head: string, done: boolean) =>
    put({ kind: 'tick', body: { stage: SETTING, check: checkKey('unopened', head), done } });
  if (unopened.length > 0)
    return (
      <Note role="status">
        Head {unopened.map(({ head }) => head).join(', ')} keeps its cover: the other one is set, proved and
        closed first, and nothing is left in it.
        {enabled && (
          <Flex gap="2" marginTop="1">
            {unopened.map(({ head }) => (
              <Button key={head} onClick={() => tick(head, false)}>
                Open head {head}
              </Button>
            ))}
          </Flex>
        )}
      </Note>
    );
  const shut = untouchedHeads(build);
  if (!enabled || shut.length === 0) return null;
  return (
    <Flex gap="0 16px" flexWrap="wrap" marginBottom="2">
      {shut.map(({ head }) => (
        <Button key={head} variant="plain" paddingX="0" onClick={() => tick(head, true)}>
          Head {head} keeps its cover for now
        </Button>
      ))}
    </Flex>
  );
}
