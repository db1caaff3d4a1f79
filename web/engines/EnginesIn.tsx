import { Box, Button, Flex } from '@chakra-ui/react';
import type { RecordTaken } from '@zero-lash/contract/records';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { Note } from '../app/Note.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { saveFile } from '../app/saveFile.ts';
import { useRole } from '../people/useRole.ts';
import { useSheetsQuery } from '../sheets/endpoints.ts';
import { useAddEngineMutation, useEnginesQuery, useTakeRecordMutation } from './endpoints.ts';
import { readEnginesCsv, writeEnginesCsv, type EngineLine } from './enginesCsv.ts';

/** More than any shop has at once: who is here already is looked for among them. */
const ALL = 500;

/** Engines from elsewhere: a list from a CSV, looked through first, or one engine's whole record; and the list as a file. */
export function EnginesIn() {
  const { mayWork, mayLead } = useRole();
  const list = useRef<HTMLInputElement>(null);
  const record = useRef<HTMLInputElement>(null);
  const { data: sheets } = useSheetsQuery();
  const { data: here } = useEnginesQuery({ search: '', limit: ALL });
  const [add, adding] = useAddEngineMutation();
  const [take, taking] = useTakeRecordMutation();
  const [lines, setLines] = useState<readonly EngineLine[] | null>(null);
  const [done, setDone] = useState<number | null>(null);
  const [taken, setTaken] = useState<RecordTaken | null>(null);
  const good = lines?.filter(({ engine }) => engine !== null) ?? [];
  const bad = lines?.filter(({ error }) => error !== null) ?? [];

  async function addAll() {
    let added = 0;
    for (const { engine } of good) {
      if ('error' in (await add(engine!))) break;
      added += 1;
    }
    setDone(added);
    // what was not taken is still there to be tried again
    setLines(added === good.length ? null : [...good.slice(added), ...bad]);
  }

  async function takeFile(file: File) {
    const answer = await take({ file: toBase64(new Uint8Array(await file.arrayBuffer())) });
    setTaken('data' in answer && answer.data ? answer.data : null);
  }

  return (
    <Box marginBottom="4">
      <Flex gap="3" flexWrap="wrap">
        {mayWork && <Button onClick={() => list.current?.click()}>Read a list (CSV)…</Button>}
        {mayLead && (
          <Button loading={taking.isLoading} onClick={() => record.current?.click()}>
            Take a record in (ZIP)…
          </Button>
        )}
        <Button
          variant="plain"
          disabled={!here}
          onClick={() => saveFile('engines.csv', writeEnginesCsv(here!.engines))}
        >
          This list as CSV
        </Button>
      </Flex>
      <input
        ref={list}
        type="file"
        accept=".csv,text/csv"
        hidden
        aria-label="CSV of engines"
        onChange={async ({ target }) => {
          const [chosen] = target.files ?? [];
          setDone(null);
          if (chosen)
            setLines(
              readEnginesCsv(
                await chosen.text(),
                sheets ?? [],
                new Set((here?.engines ?? []).map(({ name }) => name.toLowerCase())),
              ),
            );
          target.value = '';
        }}
      />
      <input
        ref={record}
        type="file"
        accept=".zip,application/zip"
        hidden
        aria-label="ZIP of a record"
        onChange={async ({ target }) => {
          const [chosen] = target.files ?? [];
          setTaken(null);
          if (chosen) await takeFile(chosen);
          target.value = '';
        }}
      />
      {lines && (
        <Note tone={bad.length > 0 ? 'tight' : 'brass'} marginTop="2">
          {good.length} of {lines.length} lines are understood
          {good.length > 0 &&
            `: ${good
              .slice(0, 5)
              .map(({ engine }) => engine!.name)
              .join('; ')}`}
          {good.length > 5 && ` and ${good.length - 5} more`}.
          {bad.map(({ line, error }) => (
            <Box key={line}>
              Line {line}: {error}.
            </Box>
          ))}
          <Flex gap="2" marginTop="2">
            <Button
              variant="solid"
              disabled={good.length === 0}
              loading={adding.isLoading}
              onClick={() => void addAll()}
            >
              Take the {good.length} in
            </Button>
            <Button variant="plain" onClick={() => setLines(null)}>
              Leave it
            </Button>
          </Flex>
        </Note>
      )}
      {done !== null && <Box role="status">{done} engines were taken in.</Box>}
      {taken && (
        <Box role="status">
          <Link to={`/engines/${taken.engineId}`}>{taken.name}</Link>{' '}
          {taken.already
            ? 'is here already: nothing was written.'
            : `is taken in, with ${taken.builds} builds and ${taken.readings} readings.`}
        </Box>
      )}
      <ProblemNote error={adding.error ?? taking.error} />
    </Box>
  );
}

const CHUNK = 0x8000;

/** Bytes as text that JSON can carry. */
function toBase64(bytes: Uint8Array): string {
  let text = '';
  for (let from = 0; from < bytes.length; from += CHUNK)
    text += String.fromCharCode(...bytes.subarray(from, from + CHUNK));
  return btoa(text);
}
