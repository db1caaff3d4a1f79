import { Box, Button, Flex, Heading, Input } from '@chakra-ui/react';
import type { LedgerLine } from '@zero-lash/core/parts';
import { Labelled } from '../app/Labelled.tsx';
import { useKeptText } from '../app/useKeptText.ts';
import type { BuildView } from '../builds/buildView.ts';
import { CountField } from './CountField.tsx';
import { KeepForPattern } from './KeepForPattern.tsx';
import { useLedger } from './useLedger.ts';

/** Spares and tools that are wanted at hand before anything is opened, and what of them is there. */
export function Wanted({ build }: { readonly build: BuildView }) {
  const work = useLedger(build, 'wanted');
  const [name, setName] = useKeptText(`wanted:${build.id}`);
  const missing = work.ledger.filter(({ out, expected }) => out !== null && out < expected);
  return (
    <Box as="section" aria-label="Spares and tools wanted">
      <Flex alignItems="center" gap="3" flexWrap="wrap">
        <Heading as="h3" fontSize="md" fontWeight="650" flex="1">
          Spares and tools wanted
        </Heading>
        {work.enabled && work.ledger.some(({ out }) => out === null) && (
          <Button
            onClick={() =>
              work.write(
                'Spares at hand',
                work.ledger
                  .filter(({ out }) => out === null)
                  .map((line) => ({ ...line, out: line.expected })),
              )
            }
          >
            All of it is here
          </Button>
        )}
      </Flex>
      <Box as="ul">
        {work.ledger.map((line) => (
          <Flex
            as="li"
            key={line.key}
            alignItems="center"
            gap="3"
            borderBottom="1px solid"
            borderColor="hairline"
          >
            <Box flex="1">
              {line.name}
              <Box as="span" color="faded">
                {' '}
                · {line.expected} wanted
              </Box>
            </Box>
            <Box fontSize="sm" color="faded">
              here
            </Box>
            <CountField
              label={`${line.name}, here`}
              count={line.out}
              enabled={work.enabled}
              onCount={(count) => work.write(`${line.name}, how many are here`, [{ ...line, out: count }])}
            />
          </Flex>
        ))}
      </Box>
      {missing.length > 0 && (
        <Box fontSize="sm" color="brass" paddingTop="1">
          To order: {missing.map(({ name: what, expected, out }) => `${what} ${expected - out!}`).join(', ')}.
          They stand on the parts list.
        </Box>
      )}
      <KeepForPattern sheet={build.sheet} work={work} />
      {work.enabled && (
        <Flex
          as="form"
          aria-label="Something else that is wanted"
          gap="2"
          alignItems="flex-end"
          paddingTop="1"
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim() === '') return;
            const line: LedgerLine = {
              ...{
                key: `wanted ${name.trim().toLowerCase()}`,
                group: 'wanted',
                name: name.trim(),
                place: '',
                way: 'unsaid',
              },
              ...{ expected: 1, out: null, in: null, note: '', dropped: false },
            };
            work.write(`${name.trim()} is wanted`, [line]);
            setName('');
          }}
        >
          <Box width="260px">
            <Labelled label="Also wanted">
              <Input value={name} maxLength={60} onChange={({ target }) => setName(target.value)} />
            </Labelled>
          </Box>
          <Button type="submit" disabled={name.trim() === ''}>
            Add to the list
          </Button>
        </Flex>
      )}
    </Box>
  );
}
