import { Box, Button } from '@chakra-ui/react';
import type { EngineView } from '@zero-lash/contract/engines';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { WithReason } from '../app/WithReason.tsx';
import { ShopTime } from '../app/ShopTime.tsx';
import { useRole } from '../app/useRole.ts';
import { useBringBackMutation, usePutAwayMutation } from './endpoints.ts';

/** Where an engine is put out of the way, sold, scrapped or added by mistake; and where it is brought back. */
export function PutAway({ engine }: { readonly engine: EngineView }) {
  const { mayWork } = useRole();
  const [putAway, { error: notPut, isLoading }] = usePutAwayMutation();
  const [bringBack, { error: notBrought, isLoading: bringing }] = useBringBackMutation();
  const { id, version, putAway: away } = engine;
  if (away)
    return (
      <Box>
        <Box>
          Retired by {away.by}, <ShopTime at={away.at} day />: {away.why}. Nothing of it is due.
        </Box>
        {mayWork && (
          <Button marginTop="2" loading={bringing} onClick={() => void bringBack({ id, version })}>
            Bring it back
          </Button>
        )}
        <ProblemNote error={notBrought} />
      </Box>
    );
  if (!mayWork) return null;
  return (
    <Box>
      <WithReason
        draft={`retire:${id}`}
        ask="Sold, scrapped or gone: retire…"
        label="Retired because"
        action="Retire it"
        missing="Say in a line why: sold, scrapped, added by mistake."
        follows="Its record is kept, it is in no list and nothing of it is due. It may be brought back."
        most={200}
        busy={isLoading}
        onDo={async (why) => !('error' in (await putAway({ id, version, why })))}
      />
      <ProblemNote error={notPut} />
    </Box>
  );
}
