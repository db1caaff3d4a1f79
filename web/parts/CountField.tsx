import { numberTyped } from '@zero-lash/core/length';
import { chakra } from '@chakra-ui/react';
import { useState } from 'react';

interface Props {
  readonly label: string;
  readonly count: number | null;
  readonly enabled: boolean;
  readonly onCount: (count: number | null) => void;
}

const Count = chakra('input', {
  base: {
    width: '56px',
    minHeight: '44px',
    textAlign: 'right',
    paddingX: '2',
    fontFamily: 'mono',
    fontSize: 'md',
    color: 'ink',
    background: 'raised',
    border: '0',
    borderBottom: '2px solid',
    borderColor: 'hairline',
    _focusVisible: { outline: '3px solid', outlineColor: 'brass' },
    _invalid: { borderColor: 'tight' },
  },
});

/** A count that is typed: whole, from none up; written when it is left. */
export function CountField({ label, count, enabled, onCount }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const text = typed ?? (count === null ? '' : String(count));
  const understood = /^\d{0,3}$/.test(text.trim());
  const commit = () => {
    if (typed === null || !understood) return;
    const next = text.trim() === '' ? null : numberTyped(text);
    if (next !== count) onCount(next);
    setTyped(null);
  };
  return (
    <Count
      aria-label={label}
      aria-invalid={!understood || undefined}
      value={text}
      disabled={!enabled}
      inputMode="numeric"
      onChange={({ target }) => setTyped(target.value)}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === 'Enter') {
          event.preventDefault();
          commit();
        }
        if (event.key === 'Escape') setTyped(null);
      }}
    />
  );
}
