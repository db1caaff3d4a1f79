import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { EngineView, NewLastCheck } from '@zero-lash/contract/engines';
import { parseEntry } from '@zero-lash/core/measuring';
import { hasMeter } from '@zero-lash/core/rechecks';
import { useState, type FormEvent } from 'react';
import { useSearchParams } from 'react-router';
import { problemFrom } from '../app/api.ts';
import { runningTyped } from '../app/figures.ts';
import { useDraft } from '../app/useDraft.ts';
import { Fold } from '../app/Fold.tsx';
import { Labelled } from '../app/Labelled.tsx';
import { useLengths } from '../app/lengths.ts';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useShopTimes } from '../app/useShopTimes.ts';
import { useSayLastCheckMutation } from './endpoints.ts';

/** Where is said when an engine in service was last checked: its next recheck is planned from there, and nothing is opened up for it. */
export function LastCheck({ engine }: { readonly engine: EngineView }) {
  const [search, setSearch] = useSearchParams();
  const open = search.get('last-checked') !== null;
  const show = (wanted: boolean) => setSearch(wanted ? { 'last-checked': '' } : {}, { replace: true });
  return open ? (
    <LastCheckForm engine={engine} onDone={() => show(false)} />
  ) : (
    <Button variant="plain" onClick={() => show(true)}>
      It is in service, and was last checked…
    </Button>
  );
}

function LastCheckForm({ engine, onDone }: { readonly engine: EngineView; readonly onDone: () => void }) {
  const today = useShopTimes().today();
  const { unit, band } = useLengths();
  const [say, { error, isLoading }] = useSayLastCheckMutation();
  const metered = hasMeter(engine.usageUnit);
  const { texts, type, clear } = useDraft(`last-check:${engine.id}`, { on: '', usage: '', by: '' });
  const { on, usage, by } = texts;
  const gapTyped = (point: string) => texts[`gap ${point}`] ?? '';
  // a figure that cannot have been run is asked about once, and saved once more it is right
  const [far, setFar] = useState<string | null>(null);
  const [wrong, setWrong] = useState<Readonly<Record<string, string>>>({});
  // what looks like a slip is asked about once, as it was typed
  const [asked, setAsked] = useState<Readonly<Record<string, string>>>({});

  async function save(event: FormEvent) {
    event.preventDefault();
    const at = metered ? runningTyped(usage.replace(/[\s’']/g, '')) : engine.usage;
    const found: Record<string, string> = {};
    const doubted: Record<string, string> = {};
    if (on === '') found['on'] = 'The day it was last checked.';
    else if (on > today) found['on'] = 'That has not come yet.';
    if (!Number.isFinite(at) || at < 0) found['usage'] = 'What its meter showed then, such as 1204.5.';
    if (by.trim() === '') found['by'] = 'Who checked it, as far as anybody knows.';
    const read = engine.limits.flatMap(({ point, min, max }) => {
      const typed = gapTyped(point).trim();
      if (typed === '') return [];
      const entry = parseEntry(typed, unit, { min, max });
      if ('error' in entry) found[point] = entry.error;
      else if (entry.doubts.length > 0 && asked[point] !== typed) {
        found[point] = `Far outside of ${band(min, max)}: put it right, or save once more to keep it.`;
        doubted[point] = typed;
      }
      return 'error' in entry ? [] : [{ point, reading: entry.reading, asTyped: typed }];
    });
    setWrong(found);
    setAsked({ ...asked, ...doubted });
    if (Object.keys(found).length > 0) return;
    const body = { on, usage: at, by: by.trim(), gaps: read as NonNullable<NewLastCheck['gaps']> };
    const answer = await say({ id: engine.id, sure: far === usage, ...body });
    if (!('error' in answer)) leave();
    else setFar(problemFrom(answer.error)?.code === 'usage_far' ? usage : null);
  }

  function leave() {
    clear();
    onDone();
  }

  return (
    <Box
      as="form"
      aria-label="Last checked"
      onSubmit={(event: FormEvent) => void save(event)}
      {...{ noValidate: true }}
      borderTop="1px solid"
      borderColor="hairline"
      paddingY="3"
      display="grid"
      gap="3"
    >
      <Box>
        Its next recheck is planned from there, by the last step of its plan. Nothing is opened, and nothing
        signed.
      </Box>
      <Flex gap="3" flexWrap="wrap">
        <Box width="170px">
          <Labelled label="Last checked on" error={wrong['on']}>
            <Input type="date" max={today} value={on} onChange={({ target }) => type('on', target.value)} />
          </Labelled>
        </Box>
        {metered && (
          <Box width="150px">
            <Labelled label={`Its meter then, ${engine.usageUnit}`} error={wrong['usage']}>
              <Input
                value={usage}
                inputMode="decimal"
                maxLength={12}
                onChange={({ target }) => type('usage', target.value)}
              />
            </Labelled>
          </Box>
        )}
        <Box flex="1" minWidth="200px">
          <Labelled label="Checked by" error={wrong['by']}>
            <Input value={by} maxLength={80} onChange={({ target }) => type('by', target.value)} />
          </Labelled>
        </Box>
      </Flex>
      <Fold title={`Gaps as they were left, where anybody knows them (${unit})`} ruled="none">
        <Flex gap="3" flexWrap="wrap" paddingTop="2">
          {engine.limits.map(({ point, min, max }) => (
            <Box key={point} width="130px">
              <Labelled label={`${point}, ${band(min, max)}`} error={wrong[point]}>
                <Input
                  value={gapTyped(point)}
                  inputMode="decimal"
                  maxLength={40}
                  onChange={({ target }) => type(`gap ${point}`, target.value)}
                />
              </Labelled>
            </Box>
          ))}
        </Flex>
      </Fold>
      <Flex gap="2">
        <Button type="submit" variant="solid" loading={isLoading}>
          Plan its recheck from there
        </Button>
        <Button variant="plain" onClick={leave}>
          Leave it
        </Button>
      </Flex>
      <ProblemNote error={error} />
      {far === usage && far !== null && <Box>Saved once more, it stands as it is.</Box>}
    </Box>
  );
}
