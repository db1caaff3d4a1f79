import { currentLines, jobOf } from '@zero-lash/core/builds';
import {
  correctionsOf,
  expectedParts,
  ledgerKey,
  ledgerOf,
  STAYS_ON,
  wantedParts,
  withKept,
  type LedgerLine,
  type PatternPart,
} from '@zero-lash/core/parts';
import { useMemo } from 'react';
import type { BuildView } from '../builds/buildView.ts';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import { useStable } from '../app/useStable.ts';
import { useRole } from '../app/useRole.ts';

/** The count of parts of a build as it is worked on here. */
export interface LedgerWork {
  readonly buildId: string;
  readonly ledger: readonly LedgerLine[];
  /** what was said to stay on for this job */
  readonly staying: readonly LedgerLine[];
  /** what it says otherwise than is known of the pattern */
  readonly corrections: readonly PatternPart[];
  readonly enabled: boolean;
  readonly write: (about: string, lines: readonly LedgerLine[]) => void;
  /** keeps corrections for every build of the pattern */
  readonly keep: (corrections: readonly PatternPart[]) => void;
}

/** The keys of a list that another has not. */
const withoutThose = (
  all: readonly { readonly key: string }[],
  others: readonly { readonly key: string }[],
): readonly string[] => all.map(({ key }) => key).filter((key) => others.every((other) => other.key !== key));

/** A ledger put together from what the sheet expects, what the shop found on others like it, and what was counted. */
export function useLedger(build: BuildView, which: 'parts' | 'wanted' = 'parts'): LedgerWork {
  const put = useBenchWrite(build.id);
  const { mayWork } = useRole();
  const { sheet } = build;
  const kept = build['pattern-parts'];
  const { strips } = jobOf(build.job);
  const { ledger, staying, corrections } = useMemo(() => {
    const isOurs = ({ group }: Pick<LedgerLine, 'group'>) => (group === 'wanted') === (which === 'wanted');
    const listed = which === 'wanted' ? wantedParts(sheet) : expectedParts(sheet.pattern);
    // where only the cover comes off, nothing of what lies under it is wanted, whatever the shop knows of it
    const under = strips ? [] : withoutThose(listed, wantedParts(sheet, false));
    const expected = withKept(listed, kept.flatMap(({ lines }) => lines).filter(isOurs)).filter(
      ({ key }) => which !== 'wanted' || !under.includes(key),
    );
    const counted = currentLines(build.ledger, ledgerKey);
    const lines = [...counted.values()].map(({ line }) => line).filter(isOurs);
    return {
      ledger: ledgerOf(expected, counted).filter(isOurs),
      staying: lines.filter(({ dropped, note }) => dropped && note === STAYS_ON),
      corrections: correctionsOf(expected, lines),
    };
  }, [build.ledger, kept, sheet, which, strips]);
  const write = useStable((about: string, lines: readonly LedgerLine[]) =>
    put({ kind: 'ledger', about, body: { lines: structuredClone(lines) as never } }),
  );
  const keep = useStable((lines: readonly PatternPart[]) =>
    put({ kind: 'pattern-parts', body: { lines: structuredClone(lines) as never } }),
  );
  const enabled = mayWork && !build.closedAt && build.signOff === null;
  return { buildId: build.id, ledger, staying, corrections, enabled, write, keep };
}
