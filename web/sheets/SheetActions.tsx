import { Button } from '@chakra-ui/react';
import { sheetInFile, type NewSheet } from '@zero-lash/contract/sheets';
import type { z } from 'zod';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { FileButton } from '../app/FileButton.tsx';
import { Note } from '../app/Note.tsx';

const MOST_BYTES = 200_000;
const SHOWN = 6;

/** The ways to a new sheet: from nothing, or from a file. */
export function SheetActions() {
  const navigate = useNavigate();
  const [wrong, setWrong] = useState<readonly string[]>([]);

  async function readChosen(file: File) {
    const read =
      file.size > MOST_BYTES
        ? { wrong: ['The file is far too large for a spec sheet.'] }
        : readSheet(await file.text());
    if ('wrong' in read) setWrong(read.wrong);
    else void navigate('/sheets/new', { state: { file: read.sheet } });
  }

  return (
    <>
      <FileButton what="A spec sheet file" accept="application/json,.json" onFile={readChosen}>
        Read from a file
      </FileButton>
      <Button variant="solid" onClick={() => void navigate('/sheets/new')}>
        New spec sheet
      </Button>
      {wrong.length > 0 && (
        <Note tone="tight" role="alert" width="100%">
          Nothing was read in.
          <ul>
            {wrong.slice(0, SHOWN).map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
          {wrong.length > SHOWN && `And ${wrong.length - SHOWN} more.`}
        </Note>
      )}
    </>
  );
}

/** A file's sheet, or every line of what is wrong with it. */
function readSheet(text: string): { sheet: NewSheet } | { wrong: string[] } {
  let content: unknown;
  try {
    content = JSON.parse(text);
  } catch (error) {
    return { wrong: [`The file is not JSON: ${(error as Error).message}`] };
  }
  const checked = sheetInFile.safeDecode(content as z.input<typeof sheetInFile>);
  if (!checked.success)
    return {
      wrong: checked.error.issues.map(({ path, message }) => `${path.join('.') || 'file'}: ${message}`),
    };
  return { sheet: checked.data };
}
