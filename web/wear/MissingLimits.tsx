import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { Pattern } from '@zero-lash/core/sheets';
import {
  limitComplaint,
  LIMIT_KINDS,
  placesOf,
  wearAt,
  type Characteristic,
  type LimitKey,
  type LimitLine,
} from '@zero-lash/core/wear';
import { memo, useMemo, useState } from 'react';
import { figureTyped, unitShown, type ShownIn } from '@zero-lash/core/length';
import { Labelled, Select } from '../app/Labelled.tsx';
import { sentence } from '../app/sentence.ts';
import { useKeptText } from '../app/useKeptText.ts';
import { NO_LIMIT, type WearWork } from './useWear.ts';

interface Props {
  readonly pattern: Pattern;
  readonly work: WearWork;
  readonly items: readonly Characteristic[];
  /** what a bare figure is in */
  readonly shown: ShownIn;
}

/** Limits without which what was measured cannot be judged, and a form to add one for this build, with its source. */
export const MissingLimits = memo(function MissingLimits({ pattern, work, items, shown }: Props) {
  const missing = useMemo(() => missingOf(pattern, work, items), [pattern, work, items]);
  const [adding, setAdding] = useState<LimitKey | null>(null);
  if (missing.length === 0 && !adding) return null;
  return (
    <Box as="section" aria-label="Limits that are missing">
      {missing.map((part) => (
        <Flex key={part} alignItems="center" gap="3" borderTop="1px solid" borderColor="hairline">
          <Box flex="1">
            The sheet gives no limit for <b>{LIMIT_KINDS[part].title.toLowerCase()}</b>: it is not judged.
          </Box>
          {work.enabled && adding !== part && (
            <Button onClick={() => setAdding(part)}>Add one for this build</Button>
          )}
        </Flex>
      ))}
      {adding && work.enabled && (
        <LimitForm key={adding} part={adding} work={work} shown={shown} onDone={() => setAdding(null)} />
      )}
    </Box>
  );
});

function missingOf(pattern: Pattern, { sheet }: WearWork, items: readonly Characteristic[]): LimitKey[] {
  const missing = new Set<LimitKey>();
  for (const item of items)
    for (const place of placesOf(pattern, item))
      for (const part of wearAt(sheet, pattern, item, place)?.missing ?? []) missing.add(part);
  return [...missing];
}

interface FormProps {
  readonly part: LimitKey;
  readonly work: WearWork;
  readonly shown: ShownIn;
  readonly onDone: () => void;
}

/** One limit, by what its source says. */
function LimitForm({ part, work, shown, onDone }: FormProps) {
  const { title, form, unit } = LIMIT_KINDS[part];
  const [of, setOf] = useState<LimitLine['of']>('both');
  const [first, setFirst] = useKeptText(`limit:${work.buildId}:${part}:first`);
  const [last, setLast] = useKeptText(`limit:${work.buildId}:${part}:last`);
  const [source, setSource] = useKeptText(`limit:${work.buildId}:${part}`);
  const [complaint, setComplaint] = useState<string | null>(null);
  const two = form === 'band' || form === 'from-nominal';
  const figure = (text: string) => {
    if (text.trim() === '') return null;
    const read = figureTyped(text, unit, shown);
    return 'error' in read ? NaN : read.value;
  };
  const name = unitShown(unit, shown);

  function add() {
    const [low, high] = [figure(first), figure(last)];
    if (Number.isNaN(low) || Number.isNaN(high)) return setComplaint('That is no figure.');
    if (source.trim() === '')
      return setComplaint('Say where it comes from: a manual and page, a letter, a person.');
    const ends = form === 'band' ? { min: low, max: high } : { nominal: two ? low : null, limit: high };
    const limit: LimitLine = { ...NO_LIMIT, ...ends, part, of, unit, source: source.trim() };
    const wrong = limitComplaint(limit);
    if (wrong) return setComplaint(sentence(wrong));
    work.write(`The limit of ${title.toLowerCase()}`, [limit]);
    for (const empty of [setFirst, setLast, setSource]) empty('');
    onDone();
  }

  return (
    <Box
      as="form"
      aria-label={`Limit of ${title.toLowerCase()}`}
      paddingY="2"
      onSubmit={(event) => {
        event.preventDefault();
        add();
      }}
    >
      <Flex gap="2" alignItems="flex-end" flexWrap="wrap">
        <Box width="110px">
          <Labelled label="Of">
            <Select value={of} onChange={({ target }) => setOf(target.value as LimitLine['of'])}>
              <option value="both">both</option>
              <option value="intake">intake</option>
              <option value="exhaust">exhaust</option>
            </Select>
          </Labelled>
        </Box>
        {two && (
          <Box width="110px">
            <Labelled label={form === 'band' ? `Least, ${name}` : `New, ${name}`}>
              <Input
                value={first}
                maxLength={20}
                inputMode="decimal"
                onChange={({ target }) => setFirst(target.value)}
              />
            </Labelled>
          </Box>
        )}
        <Box width="110px">
          <Labelled label={form === 'band' ? `Greatest, ${name}` : `Limit, ${name}`}>
            <Input
              value={last}
              maxLength={20}
              inputMode="decimal"
              onChange={({ target }) => setLast(target.value)}
            />
          </Labelled>
        </Box>
        <Box flex="1" minWidth="180px">
          <Labelled label="Source">
            <Input value={source} maxLength={120} onChange={({ target }) => setSource(target.value)} />
          </Labelled>
        </Box>
        <Button type="submit" variant="solid">
          Add
        </Button>
        <Button variant="plain" onClick={onDone}>
          Leave it
        </Button>
      </Flex>
      {complaint && (
        <Box role="alert" color="tight" fontSize="sm">
          {complaint}
        </Box>
      )}
    </Box>
  );
}
