import { Box, Button, Flex, Input } from '@chakra-ui/react';
import { saysSomething } from '@zero-lash/core/bounds';
import { useState, type FormEvent, type ReactNode } from 'react';
import { AskButton } from './AskButton.tsx';
import { Labelled } from './Labelled.tsx';
import { useKeptText } from './useKeptText.ts';

interface Props {
  /** what it is done to: what is written of it is kept on the device until it is done */
  readonly draft: string;
  /** on the button that asks for the reason */
  readonly ask: string;
  /** over the line the reason is written in */
  readonly label: string;
  /** on the button that does it */
  readonly action: string;
  /** what is said where no reason is given */
  readonly missing: string;
  /** what will follow, in a sentence */
  readonly follows?: string;
  readonly most?: number;
  readonly busy?: boolean;
  /** what is chosen besides; it stands over the line */
  readonly children?: ReactNode;
  /** answers whether it was done; while it was not, what was written stays */
  readonly onDo: (reason: string) => boolean | Promise<boolean>;
}

/** Something that is done only with a reason: a quiet button, then a line and the deed. */
export function WithReason({
  draft,
  ask,
  label,
  action,
  missing,
  follows,
  most = 160,
  busy,
  children,
  onDo,
}: Props) {
  const [open, setOpen] = useState(false);
  const [reason, setReason] = useKeptText(`reason:${draft}`);
  const [complaint, setComplaint] = useState<string>();
  async function send(event: FormEvent) {
    event.preventDefault();
    if (!saysSomething(reason)) return setComplaint(missing);
    setComplaint(undefined);
    if (!(await onDo(reason.trim()))) return;
    setOpen(false);
    setReason('');
  }
  if (!open)
    return (
      <div>
        <AskButton onAsk={() => setOpen(true)}>{ask}</AskButton>
      </div>
    );
  return (
    <form onSubmit={(event) => void send(event)} noValidate>
      {follows && (
        <Box fontSize="sm" color="faded" marginTop="2">
          {follows}
        </Box>
      )}
      {children}
      <Flex gap="2" alignItems="flex-end" marginTop="2" flexWrap="wrap">
        <Box flex="1" minWidth="160px">
          <Labelled label={label} error={complaint}>
            <Input
              value={reason}
              maxLength={most}
              autoFocus
              onChange={(event) => setReason(event.target.value)}
            />
          </Labelled>
        </Box>
        <Button type="submit" loading={busy ?? false}>
          {action}
        </Button>
        <Button
          variant="plain"
          onClick={() => {
            setOpen(false);
            setReason('');
          }}
        >
          Cancel
        </Button>
      </Flex>
    </form>
  );
}
