import type { Reading } from '@zero-lash/core/measuring';
import { useLengths } from '../app/lengths.ts';
import { Question } from '../app/Question.tsx';

interface Props {
  /** mm, of the lengths far outside the limits */
  readonly lengths: readonly number[];
  readonly meant: readonly Reading[];
  readonly onUse: (meant: Reading) => void;
  readonly onKeep: () => void;
  readonly onChange?: (() => void) | undefined;
  readonly takesFocus?: boolean;
}

/** Asks in place about a reading that looks like a slip of unit or decimal point. */
export function DoubtQuestion({ lengths, meant, onUse, onKeep, onChange, takesFocus }: Props) {
  const { length } = useLengths();
  const typed = lengths.map((mm) => length(mm)).join(' and ');
  return (
    <Question
      answers={[
        { label: `Keep as typed, ${typed}`, onChoose: onKeep },
        ...meant.map((reading) => ({
          label: `Use ${readingInWords(reading, length)}`,
          onChoose: () => onUse(reading),
        })),
      ]}
      onChange={onChange}
      takesFocus={takesFocus}
    >
      {typed} {lengths.length > 1 ? 'are' : 'is'} far outside the limits. Which is it?
    </Question>
  );
}

/** The figures of a reading, as a person says them. */
function readingInWords(reading: Reading, length: (mm: number) => string): string {
  switch (reading.kind) {
    case 'bracket':
      return `${length(reading.go)} to ${length(reading.noGo)}`;
    case 'drag':
      return length(reading.blade);
    case 'value':
      return length(reading.value);
    case 'go-only':
      return `over ${length(reading.go)}`;
    case 'no-go-only':
      return `under ${length(reading.noGo)}`;
    case 'tries':
      return reading.tries.map(({ thickness }) => length(thickness)).join(', ');
  }
}
