import { Box, Button, Flex, Heading, Input } from '@chakra-ui/react';
import { jobOf } from '@zero-lash/core/builds';
import { wantedAtHand } from '@zero-lash/core/parts';
import type { FateLine, WearLine } from '@zero-lash/core/wear';
import { Labelled } from '../app/Labelled.tsx';
import { RefusedNotes } from '../app/RefusedNotes.tsx';
import { useKeptText } from '../app/useKeptText.ts';
import type { BuildView } from '../builds/buildView.ts';
import { useWear, type WearWork } from './useWear.ts';

/** A seal's fate as a line of the wear sheet: it is used again, or replaced and ordered. */
function fateOf(place: string, fate: 'keep' | 'replace' | 'undecided', reason: string): FateLine {
  return { kind: 'fate', part: 'seal', place, fate, order: fate === 'replace' ? 'to-order' : 'none', reason };
}

/** Gaskets and seals as they come off: each is used again or replaced. */
export function Seals({ build }: { readonly build: BuildView }) {
  const work = useWear(build);
  const [name, setName] = useKeptText(`seal:${build.id}`);
  const listed = wantedAtHand(build.sheet, jobOf(build.job).strips)
    .filter(({ kind }) => kind === 'seal')
    .map((seal) => seal.name);
  const decided = [...work.sheet.current.values()]
    .map(({ line }) => line)
    .filter((line: WearLine): line is FateLine => line.kind === 'fate' && line.part === 'seal');
  const own = decided.map(({ place }) => place).filter((place) => !listed.includes(place));
  return (
    <Box as="section" aria-label="Gaskets and seals">
      <Heading as="h3" fontSize="lg" fontWeight="650">
        Gaskets and seals
      </Heading>
      <Box as="ul">
        {[...listed, ...own].map((seal) => (
          <SealRow key={seal} name={seal} line={decided.find(({ place }) => place === seal)} work={work} />
        ))}
      </Box>
      {work.enabled && (
        <Flex
          as="form"
          aria-label="A seal that is not on the list"
          gap="2"
          alignItems="flex-end"
          paddingTop="1"
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim() === '') return;
            work.write(`${name.trim()}: replaced`, [fateOf(name.trim(), 'replace', '')]);
            setName('');
          }}
        >
          <Box width="260px">
            <Labelled label="Another seal, to be replaced">
              <Input value={name} maxLength={60} onChange={({ target }) => setName(target.value)} />
            </Labelled>
          </Box>
          <Button type="submit" disabled={name.trim() === ''}>
            Add to the list
          </Button>
        </Flex>
      )}
      <RefusedNotes buildId={build.id} which={({ kind }) => kind === 'wear'} />
    </Box>
  );
}

interface SealRowProps {
  readonly name: string;
  readonly line: FateLine | undefined;
  readonly work: WearWork;
}

const FATES = [
  ['keep', 'used again'],
  ['replace', 'replaced'],
] as const;

/** One seal: tapped once it is said, tapped again it is unsaid. */
function SealRow({ name, line, work }: SealRowProps) {
  const fate = line?.fate ?? 'undecided';
  return (
    <Flex as="li" alignItems="center" gap="2" borderBottom="1px solid" borderColor="hairline" paddingY="1">
      <Box flex="1">{name}</Box>
      {FATES.map(([key, words]) => (
        <Button
          key={key}
          size="sm"
          minHeight="44px"
          variant={fate === key ? 'solid' : 'outline'}
          aria-pressed={fate === key}
          aria-label={`${name} is ${words}`}
          disabled={!work.enabled}
          onClick={() =>
            work.write(`${name}: ${words}`, [
              fateOf(name, fate === key ? 'undecided' : key, line?.reason ?? ''),
            ])
          }
        >
          {words}
        </Button>
      ))}
    </Flex>
  );
}
