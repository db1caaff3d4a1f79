import { mmFromTenths } from '@zero-lash/core/length';
import type { PieceWarning } from '@zero-lash/core/setting';
import type { ShopUnit } from '@zero-lash/core/length';
import { useLengths } from '../app/lengths.ts';
import { Question } from '../app/Question.tsx';

/** A warning about one of the two figures of a change. */
export interface AskedPiece extends PieceWarning {
  readonly field: 'installed' | 'fitted';
  /** as it was understood */
  readonly mm: number;
}

/** Whether the same was asked already: what is said again is meant. */
export const sameWarning = (a: AskedPiece, b: AskedPiece | null) =>
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
  const meant = asked.meant === null ? null : mmFromTenths(asked.meant);
  return (
    <Question
      key={`${asked.field} ${asked.mm}`}
      answers={[
        { label: `Keep as typed, ${length(asked.mm)}`, onChoose: onKeep },
        ...(meant === null ? [] : [{ label: `Use ${length(meant)}`, onChoose: () => onUse(meant) }]),
      ]}
      onChange={onChange}
      takesFocus
    >
      {wrong(asked, length(asked.mm), piece, made, tight)} {meant === null ? 'Is it right?' : 'Which is it?'}
    </Question>
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
