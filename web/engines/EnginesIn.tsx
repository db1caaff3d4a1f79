import { counted } from '@zero-lash/core/length';
import { Box, Button, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { CSV, FileButton } from '../app/FileButton.tsx';
import { Note } from '../app/Note.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { saveFile } from '../app/saveFile.ts';
import { useRole } from '../app/useRole.ts';
import { useSheetsQuery } from '../sheets/endpoints.ts';
import { useAddEngineMutation, useSayLastCheckMutation } from './endpoints.ts';
import { useTakeRecord } from './TakeRecord.tsx';
import { useEveryEngine } from './useEveryEngine.ts';
import { readEnginesCsv, writeEnginesCsv, type EngineLine } from './enginesCsv.ts';

/** Engines from elsewhere: a list from a CSV, looked through first, or one engine's whole record; and the list as a file. */
export function EnginesIn() {
  const { mayWork, mayLead } = useRole();
  const { data: sheets } = useSheetsQuery();
  const { everyEngine, asking } = useEveryEngine();
  const [add, adding] = useAddEngineMutation();
  const [lines, setLines] = useState<readonly EngineLine[] | null>(null);
  const [done, setDone] = useState<number | null>(null);
  const record = useTakeRecord();
  const [check, checking] = useSayLastCheckMutation();
  const good = lines?.filter(({ error }) => error === null) ?? [];
  const bad = lines?.filter(({ error }) => error !== null) ?? [];

  async function readList(file: File) {
    setDone(null);
    const text = await file.text();
    // who is put away has a name too
    const here = await Promise.all([everyEngine(false), everyEngine(true)]).catch(() => null);
    // what came of asking is shown below
    if (!here) return;
    const names = here.flat().map(({ id, name }) => [name.toLowerCase(), id] as const);
    setLines(readEnginesCsv(text, sheets ?? [], new Map(names)));
  }

  async function saveList() {
    const here = await everyEngine(false).catch(() => null);
    if (here) saveFile('engines.csv', writeEnginesCsv(here));
  }

  async function addAll() {
    let added = 0;
    let left: readonly EngineLine[] = good;
    for (const { engine, known, lastCheck, ...line } of good) {
      const answer = engine && (await add(engine));
      if (answer && 'error' in answer) break;
      const here = known ?? { id: answer!.data!.id, name: engine!.name };
      // of one that is here now only its check is still to be said, should that fail
      left = [{ ...line, engine: null, known: here, lastCheck }, ...good.slice(added + 1)];
      if (lastCheck && 'error' in (await check({ id: here.id, ...lastCheck }))) break;
      added += 1;
      left = good.slice(added);
    }
    setDone(added);
    // what was not taken is still there to be tried again
    setLines(left.length === 0 ? null : [...left, ...bad]);
  }

  return (
    <Box marginBottom="4">
      <Flex gap="3" flexWrap="wrap">
        {mayWork && (
          <FileButton what="CSV of engines" accept={CSV} onFile={readList}>
            Read a list (CSV)…
          </FileButton>
        )}
        {mayLead && record.button}
        <Button variant="plain" loading={asking.isFetching} onClick={() => void saveList()}>
          This list as CSV
        </Button>
      </Flex>
      {lines && (
        <Note tone={bad.length > 0 ? 'tight' : 'brass'} marginTop="2">
          {good.length} of {counted(lines.length, 'line')} understood
          {good.length > 0 &&
            `: ${good
              .slice(0, 5)
              .map(({ engine, known }) => (engine ?? known)!.name)
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
              loading={adding.isLoading || checking.isLoading}
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
      {done !== null && (
        <Box role="status">
          {counted(done, 'engine')} {done === 1 ? 'was' : 'were'} imported.
        </Box>
      )}
      {record.answer}
      <ProblemNote error={adding.error ?? checking.error ?? asking.error} />
    </Box>
  );
}
