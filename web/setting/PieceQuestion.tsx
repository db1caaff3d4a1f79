import { Button, Flex } from '@chakra-ui/react';
import { mmFromTenths } from '@zero-lash/core/length';
import type { PieceDoubt } from '@zero-lash/core/setting';
import { useEffect, useRef } from 'react';
import type { ShopUnit } from '@zero-lash/core/length';
import { useLengths } from '../app/lengths.ts';
import { Note } from '../app/Note.tsx';

/** A doubt about one of the two figures of a change. */
export interface AskedPiece extends PieceDoubt {
  readonly field: 'installed' | 'fitted';
  /** as it was understood */
  readonly mm: number;
}

/** Whether the same was asked already: what is said again is meant. */
export const sameDoubt = (a: AskedPiece, b: AskedPiece | null) =>
  b !== null && a.field === b.field && a.mm === b.mm && a.code === b.code;

interface Props {
  readonly asked: AskedPiece;
  /** the unit pieces are stamped in */
  readonly unit: ShopUnit;
  readonly piece: string;
  /** the sizes made, in words */
  readonly made: string;
  readonly tight: boolean;
  readonly onUse: (mm: number) => void;
  readonly onKeep: () => void;
  readonly onChange: () => void;
}

/** Asks in place about a piece whose thickness looks like a slip; what was likely meant is one key away. */
export function PieceQuestion({ asked, unit, piece, made, tight, onUse, onKeep, onChange }: Props) {
  const { length } = useLengths(unit);
  const first = useRef<HTMLButtonElement>(null);
  useEffect(() => first.current?.focus(), [asked]);
  const meant = asked.meant === null ? null : mmFromTenths(asked.meant);
  return (
    <Note role="alert" marginTop="3">
      {wrong(asked, length(asked.mm), piece, made, tight)}{' '}
      {meant === null ? 'Is it right?' : `Did you mean ${length(meant)}?`}
      <Flex gap="2" marginTop="2" flexWrap="wrap">
        {meant !== null && (
          <Button ref={first} variant="solid" onClick={() => onUse(meant)}>
            Use {length(meant)}
          </Button>
        )}
        <Button ref={meant === null ? first : undefined} onClick={meant === null ? onChange : onKeep}>
          {meant === null ? 'Change it' : 'Keep as typed'}
        </Button>
        <Button variant="plain" onClick={meant === null ? onKeep : onChange}>
          {meant === null ? 'Keep as typed' : 'Change it'}
        </Button>
      </Flex>
    </Note>
  );
}

function wrong({ code }: AskedPiece, said: string, piece: string, made: string, tight: boolean): string {
  switch (code) {
    case 'not-made':
      return `No ${piece} of ${said} is made: they run from ${made}.`;
    case 'not-on-step':
      return `${said} lies between the sizes made: they run from ${made}.`;
    case 'wrong-way':
      return tight
        ? `${said} is thicker than what was in, and the gap is tight already: it would close up further.`
        : `${said} is thinner than what was in, and the gap is loose already: it would open further.`;
  }
}
