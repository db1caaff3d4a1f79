import { Box, chakra } from '@chakra-ui/react';
import { useId, type ReactElement, cloneElement } from 'react';
import { useStill } from './useStill.ts';

interface Props {
  readonly label: string;
  readonly hint?: string | undefined;
  readonly error?: string | undefined;
  /** one input, select or textarea; gets its id and its error wired */
  readonly children: ReactElement<Record<string, unknown>>;
}

const Label = chakra('label');

/** A field with its label above and its error below, wired for assistive technology. */
export function Labelled({ label, hint, error: now, children }: Props) {
  const id = useId();
  const error = useStill(now);
  const note = error ?? hint;
  return (
    <Box minWidth="0">
      <Label htmlFor={id} fontSize="sm" fontWeight="600" color="faded" display="block">
        {label}
      </Label>
      {cloneElement(children, {
        id,
        'aria-invalid': error ? true : undefined,
        'aria-describedby': note ? `${id}-note` : undefined,
      })}
      {note && (
        <Box id={`${id}-note`} fontSize="xs" color={error ? 'tight' : 'faded'} paddingTop="1">
          {note}
        </Box>
      )}
    </Box>
  );
}

export const Select = chakra('select', {
  base: {
    width: '100%',
    minHeight: '44px',
    paddingX: '2',
    fontFamily: 'body',
    fontSize: 'md',
    color: 'ink',
    background: 'raised',
    border: '0',
    borderBottom: '2px solid',
    borderColor: 'hairline',
    borderRadius: '0',
  },
});

export const TextArea = chakra('textarea', {
  base: {
    width: '100%',
    minHeight: '72px',
    padding: '2',
    fontFamily: 'mono',
    fontSize: 'sm',
    color: 'ink',
    background: 'raised',
    border: '0',
    borderBottom: '2px solid',
    borderColor: 'hairline',
    resize: 'vertical',
  },
});
