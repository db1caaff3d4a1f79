import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { Pattern } from '@zero-lash/core/sheets';
import {
  characteristicsFor,
  DAMAGE,
  PARTS,
  placesOf,
  wearKey,
  type Damage,
  type MarkLine,
  type PartKind,
  type WearPage,
} from '@zero-lash/core/wear';
import { camsOf } from '@zero-lash/core/sheets';
import type { StageKey } from '@zero-lash/core/builds';
import { memo, useMemo, useState } from 'react';
import { Caution } from '../app/Caution.tsx';
import { Labelled, Select } from '../app/Labelled.tsx';
import { ShopTime } from '../app/ShopTime.tsx';
import { useKeptText } from '../app/useKeptText.ts';
import type { BuildView } from '../builds/buildView.ts';
import { PhotographsOf } from '../photographs/Photographs.tsx';
import type { WearWork } from './useWear.ts';

/** What a photograph is of is said in so many characters. */
const MOST_ABOUT = 40;

interface Props {
  readonly pattern: Pattern;
  readonly work: WearWork;
  readonly page: WearPage;
}

/** Damage that no figure shows, written down at its place. */
export const MarkForm = memo(function MarkForm({ pattern, work, page }: Props) {
  const parts = useMemo(() => partsOn(pattern, page), [pattern, page]);
  const [chosen, setChosen] = useState<PartKind | null>(null);
  const part = chosen && parts.includes(chosen) ? chosen : parts[0];
  const places = useMemo(() => (part ? placesOfPart(pattern, part) : []), [pattern, part]);
  // eslint-disable-next-line no-restricted-syntax -- a choice from a list
  const [at, setAt] = useState('');
  const place = places.includes(at) ? at : (places[0] ?? '');
  const [damage, setDamage] = useState<Damage>(page === 'pressure' ? 'air-exhaust' : 'pitting');
  const [note, setNote] = useKeptText(`mark:${work.buildId}:${page}`);
  if (!work.enabled || !part) return null;
  const words = (Object.entries(DAMAGE) as [Damage, string][]).filter(
    ([key]) => key.startsWith('air') === (page === 'pressure') || key === 'other',
  );
  return (
    <Box
      as="form"
      aria-label={page === 'pressure' ? 'Where air escapes' : 'Damage seen'}
      onSubmit={(event) => {
        event.preventDefault();
        const line: MarkLine = { kind: 'mark', part, place, damage, note: note.trim(), gone: false };
        work.write(`${DAMAGE[damage]}, ${PARTS[part].title.toLowerCase()} ${place}`, [line]);
        setNote('');
      }}
    >
      <Flex gap="2" alignItems="flex-end" flexWrap="wrap">
        {parts.length > 1 && (
          <Box width="150px">
            <Labelled label="Seen on">
              <Select value={part} onChange={({ target }) => setChosen(target.value as PartKind)}>
                {parts.map((each) => (
                  <option key={each} value={each}>
                    {PARTS[each].title}
                  </option>
                ))}
              </Select>
            </Labelled>
          </Box>
        )}
        <Box width="120px">
          <Labelled label={page === 'pressure' ? 'Cylinder' : 'At'}>
            <Select value={place} onChange={({ target }) => setAt(target.value)}>
              {places.map((each) => (
                <option key={each}>{each}</option>
              ))}
            </Select>
          </Labelled>
        </Box>
        <Box width="210px">
          <Labelled label="What">
            <Select value={damage} onChange={({ target }) => setDamage(target.value as Damage)}>
              {words.map(([key, text]) => (
                <option key={key} value={key}>
                  {text}
                </option>
              ))}
            </Select>
          </Labelled>
        </Box>
        <Box flex="1" minWidth="160px">
          <Labelled label="Note">
            <Input value={note} maxLength={200} onChange={({ target }) => setNote(target.value)} />
          </Labelled>
        </Box>
        <Button type="submit">Write down</Button>
      </Flex>
    </Box>
  );
});

function partsOn(pattern: Pattern, page: WearPage): PartKind[] {
  return [
    ...new Set(
      characteristicsFor(pattern)
        .filter((item) => item.page === page)
        .map(({ part }) => part),
    ),
  ];
}

function placesOfPart(pattern: Pattern, part: PartKind): string[] {
  const places = characteristicsFor(pattern)
    .filter((item) => item.part === part && (part !== 'cam' || item.at === 'lobe'))
    .flatMap((item) => placesOf(pattern, item).map(({ key }) => key));
  return [...new Set([...(part === 'cam' ? camsOf(pattern) : []), ...places])];
}

interface MarksSeenProps {
  readonly build: BuildView;
  /** where photographs of it are taken */
  readonly stage: StageKey;
  readonly work: WearWork;
  readonly air?: boolean;
}

/** What was seen, with its photographs and a way to take it back; a hollow hides the gap from a flat blade. */
export function MarksSeen({ build, stage, work, air = false }: MarksSeenProps) {
  const marks = [...work.sheet.current.values()].filter(
    (each): each is typeof each & { line: MarkLine } =>
      each.line.kind === 'mark' && !each.line.gone && each.line.damage.startsWith('air') === air,
  );
  if (marks.length === 0) return null;
  return (
    <Box as="ul" aria-label={air ? 'Where air escapes' : 'Damage seen'}>
      {marks.map(({ line, by, at }) => (
        <Box
          as="li"
          key={`${line.part} ${line.place} ${line.damage}`}
          borderTop="1px solid"
          borderColor="hairline"
        >
          <Flex alignItems="center" gap="3" flexWrap="wrap">
            <Box flex="1">
              <b>
                {PARTS[line.part].title} {line.place}: {DAMAGE[line.damage].toLowerCase()}
              </b>
              {line.note && `, ${line.note}`}
              <Box as="span" fontSize="sm" color="faded">
                {' '}
                · {by}, <ShopTime at={at} />
              </Box>
            </Box>
            {work.enabled && (
              <Button
                variant="plain"
                onClick={() => work.write(`${DAMAGE[line.damage]} ${line.place}`, [{ ...line, gone: true }])}
              >
                Clear
              </Button>
            )}
          </Flex>
          {!air && (
            <PhotographsOf
              build={build}
              stage={stage}
              shows={wearKey(line)}
              about={`${PARTS[line.part].title} ${line.place}`.slice(0, MOST_ABOUT)}
            />
          )}
          {line.damage === 'hollow' && (
            <Caution>
              A flat blade bridges the hollow: at {line.place} “won’t” proves nothing. Measure it with an
              indicator.
            </Caution>
          )}
        </Box>
      ))}
    </Box>
  );
}
