import { Box } from '@chakra-ui/react';
import { fasteningsOf, type LedgerLine } from '@zero-lash/core/parts';
import { useMemo } from 'react';
import { Fold } from '../app/Fold.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { useLedger } from '../parts/useLedger.ts';

/** Bolts and washers with the places they came from, as they were counted out: unequal ones go back where they were. */
export function WhereTheyGo({ build }: { readonly build: BuildView }) {
  const { ledger } = useLedger(build);
  const lines = useMemo(() => fasteningsOf(ledger), [ledger]);
  if (lines.length === 0) return null;
  return (
    <Fold title={<b>Where bolts and washers go</b>} ruled="above">
      <Box fontSize="sm" color="faded">
        As they were counted out. A long bolt in a short hole cracks it, or tears its thread out: each goes
        back to its own place.
      </Box>
      <ul>
        {lines.map((line) => (
          <li key={line.key} className="fastening">
            <b>{line.name}</b> × {line.out}: {whereOf(line)}
          </li>
        ))}
      </ul>
    </Fold>
  );
}

/** Where they sat, and what was written down of them. */
function whereOf({ place, note }: LedgerLine): string {
  return [place, note].filter(Boolean).join('; ') || 'their places were not written down';
}
