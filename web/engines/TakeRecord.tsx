import { counted } from '@zero-lash/core/length';
import { Box, Button, Flex } from '@chakra-ui/react';
import type { RecordTaken } from '@zero-lash/contract/records';
import { useState } from 'react';
import { Link } from 'react-router';
import { FileButton } from '../app/FileButton.tsx';
import { Note } from '../app/Note.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { ShopTime } from '../app/ShopTime.tsx';
import { usePreviewRecordMutation, useTakeRecordMutation } from './endpoints.ts';
import { Differences } from './Differences.tsx';
import { comesInWords } from './recordInWords.ts';

/** One engine's record from another shop: what taking it in would do is said before it is done. */
export function useTakeRecord() {
  const [preview, looking] = usePreviewRecordMutation();
  const [take, taking] = useTakeRecordMutation();
  const [file, setFile] = useState<string | null>(null);
  const [said, setSaid] = useState<RecordTaken | null>(null);
  const [taken, setTaken] = useState<RecordTaken | null>(null);

  async function look(chosen: File) {
    setTaken(null);
    setSaid(null);
    taking.reset();
    const text = toBase64(new Uint8Array(await chosen.arrayBuffer()));
    const answer = await preview({ file: text });
    if (!answer.data) return;
    if (answer.data.already) {
      setTaken(answer.data);
      return;
    }
    setFile(text);
    setSaid(answer.data);
  }

  async function takeIn() {
    const answer = await take({ file: file! });
    if (!answer.data) return;
    setTaken(answer.data);
    leave();
  }

  function leave() {
    setSaid(null);
    setFile(null);
    taking.reset();
  }

  return {
    button: (
      <FileButton
        what="ZIP of a record"
        accept=".zip,application/zip"
        loading={looking.isLoading}
        onFile={look}
      >
        Take a record in (ZIP)…
      </FileButton>
    ),
    answer: (
      <>
        {said && (
          <Note tone={said.differences.length > 0 ? 'tight' : 'brass'} marginTop="2" role="status">
            <Box>
              <b>{said.name}</b>, of {said.shop}, written <ShopTime at={said.writtenAt} />: {said.builds}{' '}
              {said.builds === 1 ? 'build' : 'builds'} and {said.readings} readings.
            </Box>
            <Box as="ul">
              {comesInWords(said).map((text) => (
                <li key={text}>{text}</li>
              ))}
            </Box>
            <Differences found={said.differences} />
            <Flex gap="2" marginTop="2">
              <Button variant="solid" loading={taking.isLoading} onClick={() => void takeIn()}>
                Take it in
              </Button>
              <Button variant="plain" onClick={leave}>
                Leave it
              </Button>
            </Flex>
          </Note>
        )}
        {taken && (
          <Box role="status">
            <Link to={`/engines/${taken.engineId}`}>{taken.name}</Link>{' '}
            {taken.already
              ? 'is here already: nothing was written.'
              : `is imported, with ${counted(taken.builds, 'build')} and ${counted(taken.readings, 'reading')}.`}
          </Box>
        )}
        <ProblemNote error={looking.error ?? taking.error} />
      </>
    ),
  };
}

const CHUNK = 0x8000;

/** Bytes as text that JSON can carry. */
function toBase64(bytes: Uint8Array): string {
  let text = '';
  for (let from = 0; from < bytes.length; from += CHUNK)
    text += String.fromCharCode(...bytes.subarray(from, from + CHUNK));
  return btoa(text);
}
