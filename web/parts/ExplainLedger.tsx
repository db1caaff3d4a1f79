import { Box } from '@chakra-ui/react';
import { checkKey, partsExplained, partsOff, CLOSING } from '@zero-lash/core/builds';
import { WithReason } from '../app/WithReason.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import { useRole } from '../app/useRole.ts';

/** A count that does not balance keeps a build from being signed off, until a lead writes down why. */
export function ExplainLedger({ build }: { readonly build: BuildView }) {
  const put = useBenchWrite(build.id);
  const { mayLead } = useRole();
  if (build.stage !== CLOSING || build.closedAt || partsOff(build.ledger).length === 0) return null;
  if (partsExplained(build)) {
    const by = build.ticks.find(({ check, done }) => done && check === checkKey('ledger-explained'))!.by;
    return <Box fontSize="sm">{by} wrote down why it does not balance, among the notes of this stage.</Box>;
  }
  if (!mayLead)
    return (
      <Box fontSize="sm">Until it balances, or a lead writes down why, nobody signs this build off.</Box>
    );
  return (
    <WithReason
      draft={`unbalanced:${build.id}`}
      ask="It will not balance: say why…"
      label="Why it does not balance"
      action="It stands so"
      missing="Say where it is, or why it is left."
      most={300}
      onDo={(why) => {
        put({ kind: 'note', body: { stage: CLOSING, text: `The count does not balance: ${why}` } });
        put({ kind: 'tick', body: { stage: CLOSING, check: checkKey('ledger-explained'), done: true } });
        return true;
      }}
    />
  );
}
