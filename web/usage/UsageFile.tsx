import { counted } from '@zero-lash/core/length';
import { Box, Button, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { CSV, FileButton } from '../app/FileButton.tsx';
import { Note } from '../app/Note.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { Tick } from '../app/Tick.tsx';
import { saveFile } from '../app/saveFile.ts';
import { useEveryEngine } from '../engines/useEveryEngine.ts';
import { useShopTimes } from '../app/useShopTimes.ts';
import { useLogRoundMutation } from './endpoints.ts';
import { readUsageCsv, writeUsageCsv, type MeterLine } from './usageCsv.ts';

const AT_ONCE = 500;

/** Meters from a CSV, looked through first; and all of them as one. */
export function UsageFile() {
  const times = useShopTimes();
  const { everyEngine, asking } = useEveryEngine();
  const [lines, setLines] = useState<readonly MeterLine[] | null>(null);
  const [said, setSaid] = useState<readonly string[]>([]);
  const [log, { error, isLoading }] = useLogRoundMutation();
  const [right, setRight] = useState<ReadonlySet<number>>(new Set());
  // one that is odd is taken once somebody says that it is right, and holds back only itself
  const good =
    lines?.filter(({ line, body, warning }) => body !== null && (warning === null || right.has(line))) ?? [];
  const told = lines?.filter((line) => line.error !== null || line.warning !== null) ?? [];
  async function read(file: File) {
    setSaid([]);
    setRight(new Set());
    const text = await file.text();
    const engines = await everyEngine().catch(() => null);
    if (engines) setLines(readUsageCsv(text, engines, times.today()));
  }
  async function take() {
    let taken = 0;
    const refused: string[] = [];
    // oldest first, so that a file in any order goes into the log in its own
    const ordered = good.toSorted((a, b) => (a.body!.day ?? '9999').localeCompare(b.body!.day ?? '9999'));
    for (let from = 0; from < ordered.length; from += AT_ONCE) {
      const part = ordered.slice(from, from + AT_ONCE);
      const answer = await log({
        source: 'csv',
        lines: part.map(({ body, line }) => ({ ...body!, sure: right.has(line) })),
      });
      if (!('data' in answer) || !answer.data) return;
      answer.data.lines.forEach(({ state, detail }, index) => {
        if (state === 'taken') taken += 1;
        else refused.push(`Line ${part[index]!.line}, ${part[index]!.engine}: ${detail}`);
      });
    }
    setLines(null);
    setSaid([`${taken} of ${counted(ordered.length, 'line')} written down.`, ...refused]);
  }
  return (
    <Box>
      <Flex gap="3" flexWrap="wrap">
        <FileButton what="CSV of meters" accept={CSV} loading={asking.isFetching} onFile={read}>
          Read meters from a CSV…
        </FileButton>
        <Button
          variant="plain"
          onClick={() =>
            void everyEngine()
              .then((engines) => saveFile('meters.csv', writeUsageCsv(engines)))
              .catch(() => undefined)
          }
        >
          This list as CSV
        </Button>
      </Flex>
      {lines && (
        <Note tone={told.length > 0 ? 'tight' : 'brass'} marginTop="2">
          {good.length} of {counted(lines.length, 'line')} understood.
          {told.map(({ line, error: wrong, warning }) => (
            <Box key={line}>
              Line {line}: {wrong ?? warning}
              {wrong === null && (
                <Tick
                  label={`Line ${line} is right: take it too`}
                  checked={right.has(line)}
                  onChange={({ target }) =>
                    setRight(
                      new Set(
                        [...right].filter((each) => each !== line).concat(target.checked ? [line] : []),
                      ),
                    )
                  }
                />
              )}
            </Box>
          ))}
          <Flex gap="2" marginTop="2">
            <Button
              variant="solid"
              disabled={good.length === 0}
              loading={isLoading}
              onClick={() => void take()}
            >
              Write the {good.length} down
            </Button>
            <Button variant="plain" onClick={() => setLines(null)}>
              Leave it
            </Button>
          </Flex>
        </Note>
      )}
      {said.length > 0 && (
        <Box role="status" marginTop="2">
          {said.map((line) => (
            <div key={line}>{line}</div>
          ))}
        </Box>
      )}
      <ProblemNote error={error ?? asking.error} />
    </Box>
  );
}
