import { Button, Flex } from '@chakra-ui/react';
import { Printer } from 'lucide-react';
import { memo, useState } from 'react';
import { onDemand } from '../app/onDemand.tsx';
import { useStable } from '../app/useStable.ts';
import type { ColumnRoundProps } from './ColumnRound.tsx';

const ColumnRound = onDemand(async () => (await import('./ColumnRound.tsx')).ColumnRound);

interface Props {
  readonly work: ColumnRoundProps & {
    readonly round: object | undefined;
    readonly mayWork: boolean;
  };
}

/** A round measured with a pencil: the sheet to measure on, and where it is typed in afterwards. */
export const FromPaper = memo(function FromPaper({ work }: Props) {
  const [open, setOpen] = useState(false);
  const { build, round, turning, states, blind, points, roundAt, mayWork } = work;
  const toggle = useStable(() => setOpen(!open));
  if (!round) return null;
  return (
    <>
      <Ways buildId={build.id} school={turning.school} mayWork={mayWork} open={open} onToggle={toggle} />
      {open && mayWork && <ColumnRound {...{ build, turning, states, blind, points, roundAt }} />}
    </>
  );
});

interface WaysProps {
  readonly buildId: string;
  readonly school: string;
  readonly mayWork: boolean;
  readonly open: boolean;
  readonly onToggle: () => void;
}

/** Does not change with a reading, and is not drawn with one. */
const Ways = memo(function Ways({ buildId, school, mayWork, open, onToggle }: WaysProps) {
  return (
    <Flex gap="2" flexWrap="wrap" alignItems="center" marginTop="3">
      {mayWork && (
        <Button variant="plain" aria-expanded={open} onClick={onToggle}>
          {open ? 'Leave the column' : 'Type a round from paper'}
        </Button>
      )}
      <a
        className="zl-tool"
        href={`/api/builds/${buildId}/measuring-sheet?school=${school}`}
        target="_blank"
        rel="noreferrer"
      >
        <Printer size={18} aria-hidden /> Measuring sheet (PDF)
      </a>
    </Flex>
  );
});
