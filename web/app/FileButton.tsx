import { Button, type ButtonProps } from '@chakra-ui/react';
import { useRef } from 'react';

interface Props extends Omit<ButtonProps, 'onClick'> {
  /** what the file is, as it is told to who does not see the button */
  readonly what: string;
  readonly accept: string;
  readonly onFile: (file: File) => void | Promise<void>;
}

/** A button that asks for a file. The same file may be chosen twice: it may have been changed in between. */
export function FileButton({ what, accept, onFile, ...button }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button {...button} onClick={() => input.current?.click()} />
      <input
        ref={input}
        type="file"
        accept={accept}
        hidden
        aria-label={what}
        onChange={({ target }) => {
          const [file] = target.files ?? [];
          if (file) void onFile(file);
          target.value = '';
        }}
      />
    </>
  );
}

export const CSV = '.csv,text/csv';
