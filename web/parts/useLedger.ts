import { currentLines } from '@zero-lash/core/builds';
import { expectedParts, ledgerKey, ledgerOf, wantedParts, type LedgerLine } from '@zero-lash/core/parts';
import { useMemo } from 'react';
import type { BuildView } from '../builds/buildView.ts';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import { useStable } from '../app/useStable.ts';
import { useRole } from '../app/useRole.ts';

/** The count of parts of a build as it is worked on here. */
export interface LedgerWork {
  readonly ledger: readonly LedgerLine[];
  readonly enabled: boolean;
  readonly write: (about: string, lines: readonly LedgerLine[]) => void;
}

/** A ledger put together from what the sheet expects and from what was counted. */
export function useLedger(build: BuildView, which: 'parts' | 'wanted' = 'parts'): LedgerWork {
  const put = useBenchWrite(build.id);
  const { mayWork } = useRole();
  const { sheet } = build;
  const ledger = useMemo(() => {
    const expected = which === 'wanted' ? wantedParts(sheet) : expectedParts(sheet.pattern);
    const all = ledgerOf(expected, currentLines(build.ledger, ledgerKey));
    return all.filter(({ group }) => (group === 'wanted') === (which === 'wanted'));
  }, [build.ledger, sheet, which]);
  const write = useStable((about: string, lines: readonly LedgerLine[]) =>
    put({ kind: 'ledger', about, body: { lines: structuredClone(lines) as never } }),
  );
  return { ledger, enabled: mayWork && !build.closedAt && build.signOff === null, write };
}
