import { Box, Button, Flex, Input } from '@chakra-ui/react';
import { useState, type FormEvent } from 'react';
import { Labelled, Select } from '../app/Labelled.tsx';
import { PartHeading } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useChangeShopMutation, useSessionQuery } from './endpoints.ts';

/** What the shop is called, and the unit it reads in. */
export function ShopForm() {
  const { data: session } = useSessionQuery();
  const [change, { error }] = useChangeShopMutation();
  const [typed, setTyped] = useState<string | null>(null);
  if (!session) return null;
  const { name, unit, version } = session.shop;
  const called = typed ?? name;
  async function rename(event: FormEvent) {
    event.preventDefault();
    if (!('error' in (await change({ name: called, unit, version })))) setTyped(null);
  }
  return (
    <Box as="section" display="grid" gap="3">
      <PartHeading>The shop</PartHeading>
      <form onSubmit={(event) => void rename(event)}>
        <Flex gap="2" alignItems="flex-end">
          <Box flex="1">
            <Labelled label="It is called">
              <Input
                required
                maxLength={80}
                value={called}
                onChange={(event) => setTyped(event.target.value)}
              />
            </Labelled>
          </Box>
          <Button type="submit" disabled={called.trim() === name || called.trim() === ''}>
            Rename
          </Button>
        </Flex>
      </form>
      <Labelled label="It reads in" hint="Each device can still show the other one.">
        <Select
          value={unit}
          onChange={(event) => void change({ name, unit: event.target.value as 'mm' | 'thou', version })}
        >
          <option value="mm">millimetres</option>
          <option value="thou">thou (0.001 in)</option>
        </Select>
      </Labelled>
      <ProblemNote error={error} />
    </Box>
  );
}
